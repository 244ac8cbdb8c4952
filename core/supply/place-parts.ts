import { fromEachStream, sawsOf, wholePlan } from '#core/document'
import { usualSaws } from '#core/fit'
import type { MountReport } from '#core/mount'
import { mm, row, stockRow, USUAL_PRICE, type PartRow, type Shopping } from './part-row'

/** What is cut and bought for the places of the fans: guards, screws, saws, gaskets, grommets, filters. */

/** A fan of which somebody said that it has no guard buys none. */
const guardRows = (list: Shopping): PartRow[] =>
  list.arrays.flatMap((fanArray) => {
    const { fan } = fanArray.model
    if (list.mounts.find((m) => m.fan.id === fan.id)?.guarded === false) return []
    const size = mm(fan.frameM)
    return stockRow(list, {
      kind: 'guard',
      what: 'Guard',
      detail: `for ${size} mm, on each open side`,
      count: fanArray.count,
      price: USUAL_PRICE.guard,
      name: `Guard ${size} mm`,
      sizeMm: size,
    })
  })

/** Screws of a fan: one at each corner. */
const SCREWS_OF_FAN = 4
type Rows = (list: Shopping, mount: MountReport) => PartRow[]

const screwRows: Rows = (list, { fan, count, screw, drawerM }) => {
  const lengthM = drawerM ?? screw?.lengthM ?? null
  if (!screw || lengthM === null) return []
  const nuts = screw.nuts ? `, with nut and ${screw.washers} washers each` : ''
  const bought = {
    what: `M${screw.thread} × ${mm(lengthM)} mm`,
    detail: `for ${fan.model}${nuts}`,
    count: SCREWS_OF_FAN * count,
    price: USUAL_PRICE.screw,
  }
  return [
    drawerM === null
      ? stockRow(list, { kind: 'screw', ...bought, sizeMm: mm(lengthM) })
      : row({ ...bought, owned: true }),
  ]
}
/** What holds a fan that no screw holds alone. */
const holders: Partial<Record<NonNullable<MountReport['heldBy']>, { what: string; price: number }>> = {
  'push-pins': { what: 'Soft push pin', price: 0.3 },
  inserts: { what: 'Threaded insert', price: 0.2 },
  magnets: { what: 'Magnet', price: 0.5 },
  clips: { what: 'Clip', price: 0.4 },
}
const holderRows: Rows = (_list, { fan, count, heldBy }) => {
  const holder = heldBy && holders[heldBy]
  return holder ? [row({ ...holder, detail: `for ${fan.model}`, count: SCREWS_OF_FAN * count })] : []
}
const gasketRows: Rows = (list, { fan, count, gasketM }) =>
  gasketM === null
    ? []
    : [
        stockRow(list, {
          kind: 'gasket',
          what: 'Gasket',
          detail: `for ${fan.model}`,
          count,
          price: USUAL_PRICE.gasket,
          sizeMm: mm(fan.frameM),
        }),
      ]
/** The saw where the hole has the size of one. */
const sawRows: Rows = (list, { holeM, sawn }) => {
  if (holeM === null || !sawn) return []
  const saw = mm(holeM)
  if (![...usualSaws, ...sawsOf(list.stock).map((s) => s.diameterM)].some((s) => mm(s) === saw)) return []
  const what = `Hole saw ${saw} mm`
  return [stockRow(list, { kind: 'saw', what, detail: '', count: 1, price: USUAL_PRICE.saw, sizeMm: saw })]
}
const cableRows: Rows = (list, { fan, count, cable, leadM }) => {
  const rows: PartRow[] = []
  if (cable.grommet) {
    const size = mm(cable.grommet.holeM)
    rows.push(
      stockRow(list, {
        kind: 'grommet',
        what: `Grommet for a hole of ${size} mm`,
        detail: `bore ${mm(cable.grommet.boreM)} mm`,
        count,
        price: USUAL_PRICE.grommet,
        sizeMm: size,
      }),
    )
  }
  if (cable.neededM !== null && leadM !== null && leadM < cable.neededM)
    rows.push(
      row({
        what: 'Extension lead',
        detail: `for ${fan.model}, ${Math.ceil(10 * (cable.neededM - leadM)) / 10} m at least`,
        count,
        price: USUAL_PRICE.extension,
      }),
    )
  return rows
}
const adapterRows: Rows = (_list, { adapter, count }) =>
  adapter ? [row({ what: 'Card or sheet for the adapter', detail: '', count, price: USUAL_PRICE.sheet })] : []
const rowsOfMount = [screwRows, holderRows, gasketRows, sawRows, cableRows, adapterRows]

const filterRow = (what: string, areaM2: number): PartRow =>
  row({
    what,
    detail: `${Math.round(areaM2 * 1e4)} cm²`,
    count: 1,
    price: Math.round(USUAL_PRICE.filterPerM2 * areaM2 * 10) / 10,
  })
/** The filters of the air paths, and those of places whose path counts none. */
const filterRows = ({ plan, mounts }: Shopping): PartRow[] => {
  const inPaths = fromEachStream(wholePlan(plan))
    .flatMap(({ path }) => path)
    .flatMap((e) => (e.kind === 'filter' && e.areaM2 ? [filterRow(e.name, e.areaM2)] : []))
  const ofPlaces = mounts.flatMap(({ filter }) => (filter?.areaM2 ? [filterRow('Filter', filter.areaM2)] : []))
  return inPaths.length ? inPaths : ofPlaces
}

/** Everything that the places of the fans need. */
export const placeRows = (list: Shopping): PartRow[] => [
  ...guardRows(list),
  ...list.mounts.flatMap((mount) => rowsOfMount.flatMap((rowsOf) => rowsOf(list, mount))),
  ...filterRows(list),
]
