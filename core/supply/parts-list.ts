import { awgDiameter, heatShrink, insulatedDiameter } from '#core/power'
import {
  converterNames,
  isConverter,
  isFansLead,
  sourceFuse,
  type Converter,
  type ConverterKind,
  type Fan,
  type StreamPlan,
  type Source,
  type StockPart,
} from '#core/document'
import type { MountReport } from '#core/mount'
import { type FanArray, isOfOneKind } from '#core/system'
import type { FeedNodeReport } from './feed-node'
import type { FeedReport } from './feed-tree'
import { mm, row, stockRow, USUAL_PRICE, type PartRow, type Shopping } from './part-row'
import { placeRows } from './place-parts'
import { connectorLimit } from './wiring'
import { switchNames } from './feed-build'

/** Diameter of a soldered splice over its wire. Common practice, no source. */
const SPLICE = 1.5
/** Wire to buy over wire laid. Common practice, no source. */
const WASTE = 1.1

const volt = (v: number) => `${v.toFixed(v < 10 ? 2 : 1)} V`

const fanRow = (fan: Fan, count: number): PartRow =>
  row({
    what: `${fan.maker} ${fan.model}`.trim(),
    detail: `${mm(fan.frameM)} × ${mm(fan.thicknessM)} mm, ${fan.ratedV} V`,
    count,
    price: fan.price,
    owned: fan.owned,
  })

const fanRows = ({ arrays }: Shopping): PartRow[] =>
  arrays.flatMap((fanArray) => {
    const { model, count, groups } = fanArray
    return isOfOneKind(fanArray) ? [fanRow(model.fan, count)] : groups.map((g) => fanRow(g.model.fan, g.count))
  })

const storesEnergy = ['pack', 'house-battery', 'power-bank']
const sourceRows = (list: Shopping): PartRow[] => list.plan.sources.flatMap((source) => sourceRow(list, source))
function sourceRow(list: Shopping, source: Source): PartRow[] {
  if (source.kind === 'none') return []
  const detail = source.nominalV === null ? '' : volt(source.nominalV)
  const part = { what: source.name, detail, count: 1 }
  const root = nodeOf(list, source.id)
  // what it gives must cover the start as well as the run
  const wanted = { volts: source.nominalV, amps: root && Math.max(root.worstA ?? 0, root.startA ?? 0) }
  if (source.kind === 'adapter')
    return [stockRow(list, { ...part, ...wanted, kind: 'supply', price: USUAL_PRICE.adapter })]
  if (storesEnergy.includes(source.kind))
    return [stockRow(list, { ...part, ...wanted, kind: 'battery', price: null })]
  // a panel is bought; rails, taps, headers and vehicles are there
  const solar = source.kind === 'solar'
  return [row({ ...part, price: solar ? null : 0, owned: !solar })]
}

const converterWords: Record<ConverterKind, string> = {
  buck: 'Step-down converter',
  boost: 'Step-up converter',
  linear: 'Linear regulator',
  resistor: 'Series resistor',
  divider: 'Divider resistors',
  diode: 'Diodes',
  pwm: 'Switch for a switched supply (PWM)',
}
const nodeOf = ({ feed }: Shopping, id: string): FeedNodeReport | undefined =>
  feed.nodes.find((n) => n.id === id)

/** What everything behind a part takes at the start, A; 0 where that is not known. */
const startBehind = ({ feed: { nodes } }: Shopping, id: string): number =>
  nodes.filter((n) => n.parentId === id).reduce((sum, n) => sum + (n.startA ?? 0), 0)

function converterRows(list: Shopping, converter: Converter): PartRow[] {
  const { converterKind: kind, outV, name } = converter
  const node = nodeOf(list, converter.id)
  const what = name === converterNames[kind] ? converterWords[kind] : name
  const price = USUAL_PRICE[kind]
  const set = outV === null ? '' : `set to ${volt(outV)}`
  if (kind === 'diode') {
    const detail = converter.diodeKind === 'schottky' ? 'Schottky, in series' : 'silicon, in series'
    return [row({ what, detail, count: converter.diodes ?? 1, price: USUAL_PRICE.diode })]
  }
  if (kind === 'resistor') {
    const detail = `${converter.ohm ?? node?.ohm ?? '?'} Ω, ${converter.ratingW ?? '?'} W`
    return [row({ what, detail, count: 1, price })]
  }
  if (kind === 'divider' || kind === 'pwm') return [row({ what, detail: set, count: 1, price })]
  const amps = node && Math.max(node.outA ?? 0, startBehind(list, converter.id))
  return [stockRow(list, { kind: 'converter', what, detail: set, count: 1, price, amps, does: kind })]
}

/** The capacitor across the fan, where one is planned. */
const capacitorRow = ({ capV }: Converter): PartRow[] =>
  capV === null
    ? []
    : [
        row({
          what: 'Capacitor across the fan',
          detail: `rated ${capV} V`,
          count: 1,
          price: USUAL_PRICE.capacitor,
        }),
      ]

/** Converters, switches and loads of the feed. */
const feedRows = (list: Shopping): PartRow[] =>
  list.plan.feed.flatMap((part) => {
    const node = nodeOf(list, part.id)
    if (isConverter(part)) return [...converterRows(list, part), ...capacitorRow(part)]
    if (part.kind === 'switch') {
      const kind = part.switchKind ?? 'hand'
      const rating =
        part.contactV !== null && part.contactA !== null
          ? `, at least ${part.contactV} V ${part.contactA} A DC`
          : ''
      return [
        row({ what: part.name, detail: `${switchNames[kind]}${rating}`, count: 1, price: USUAL_PRICE[kind] }),
        ...(part.sparkDiode
          ? [
              row({
                what: 'Diode across the load',
                detail: `behind ${part.name}`,
                count: 1,
                price: USUAL_PRICE.diode,
              }),
            ]
          : []),
      ]
    }
    // a stream's fans are rows of their own
    if (part.kind !== 'load' || part.streamId !== null) return []
    const fan = part.loadKind === 'fan' ? list.fans.find((f) => f.id === part.fanId) : undefined
    if (fan) return [fanRow(fan, part.count)]
    return [row({ what: part.name, detail: node?.what ?? '', count: part.count, price: null })]
  })

/** The fuses at the sources, and those in the leads of parts. */
const fuseRows = (list: Shopping): PartRow[] =>
  [
    ...list.plan.sources.map((s) => ({ name: s.name, fuseA: sourceFuse(s) })),
    ...list.feed.nodes.map(({ name, lead }) => ({ name, fuseA: lead?.fuseA ?? null })),
  ].flatMap(({ name, fuseA }) =>
    fuseA === null
      ? []
      : [
          stockRow(list, {
            kind: 'fuse',
            what: 'Fuse with holder',
            detail: `${fuseA} A, for ${name}`,
            count: 1,
            price: USUAL_PRICE.fuse,
            amps: fuseA,
          }),
        ],
  )

function wireRows(list: Shopping): PartRow[] {
  const { plusColour, minusColour } = list.plan.wiring
  const byGauge = new Map<number, number>()
  for (const { lead } of list.feed.nodes)
    if (lead?.awg && lead.lengthM) byGauge.set(lead.awg, (byGauge.get(lead.awg) ?? 0) + 2 * lead.lengthM)
  return [...byGauge]
    .sort((a, b) => a[0] - b[0])
    .map(([awg, metres]) =>
      stockRow(list, {
        kind: 'wire',
        what: `Wire ${awg} AWG`,
        detail: `${plusColour} and ${minusColour}`,
        count: Math.ceil(10 * WASTE * metres) / 10,
        unit: 'm',
        price: USUAL_PRICE.wirePerM,
        volts: 0,
      }),
    )
}

function jointRows({ plan: { wiring, feed }, arrays }: Shopping): PartRow[] {
  const count = Math.max(
    1,
    arrays.reduce((n, x) => n + x.count, 0),
  )
  const rows: PartRow[] = []
  if (wiring.connector && wiring.connector !== 'splice') {
    const what = connectorLimit[wiring.connector].name
    rows.push(row({ what, detail: 'plug and socket', count, price: USUAL_PRICE.plug }))
  }
  if (wiring.hub === 'powered' || wiring.hub === 'passive') {
    const what = wiring.hub === 'powered' ? 'Powered fan hub' : 'Splitter'
    const price = wiring.hub === 'powered' ? USUAL_PRICE.hub : USUAL_PRICE.splitter
    rows.push(row({ what, detail: `for ${count} ${count === 1 ? 'fan' : 'fans'}`, count: 1, price }))
  }
  if (wiring.pwmFrom === 'tied') {
    const detail = wiring.pwmTieOhm === null ? '4.7 to 10 kΩ' : `${wiring.pwmTieOhm / 1000} kΩ`
    rows.push(row({ what: 'Resistor to 5 V', detail, count, price: USUAL_PRICE.resistor }))
  }
  const wireAwg = feed.find((p) => isFansLead(p) && p.wireAwg !== null)?.wireAwg
  if (wiring.join === 'cut' && wireAwg) {
    const outer = insulatedDiameter(awgDiameter(wireAwg))
    const tube = heatShrink(SPLICE * outer, outer)
    const detail = tube ? `${(1000 * tube.bore).toFixed(1)} mm, ${tube.ratio}:1` : 'larger ratio'
    rows.push(row({ what: 'Heat-shrink', detail, count: 2 * count, price: USUAL_PRICE.shrink }))
  }
  return rows
}

/** What a part is for: the fan itself, its wiring, or its place. */
export type PartUse = 'fan' | 'wiring' | 'place'
export interface ListedPart extends PartRow {
  use: PartUse
}

/**
 * Everything a plan needs, from its fans to the heat-shrink, with a total.
 * @param arrays the fans of every air stream
 * @param stock parts of the drawer: their prices count, owned ones cost nothing
 * @param mounts how the fans of every air stream go into their place
 * @returns rows, their sum, and how many of them have no price
 */
export function partsList(
  plan: StreamPlan,
  feed: FeedReport,
  arrays: readonly FanArray[],
  fans: readonly Fan[],
  stock: readonly StockPart[] = [],
  mounts: readonly MountReport[] = [],
): { rows: ListedPart[]; total: number; unknown: number } {
  const list: Shopping = { plan, feed, arrays, fans, stock, mounts }
  const kinds: [PartUse, (list: Shopping) => PartRow[]][] = [
    ['fan', fanRows],
    ...[sourceRows, feedRows, fuseRows, wireRows, jointRows].map((rowsOf): [PartUse, typeof rowsOf] => [
      'wiring',
      rowsOf,
    ]),
    ['place', placeRows],
  ]
  const rows = kinds.flatMap(([use, rowsOf]) => rowsOf(list).map((r) => ({ ...r, use })))
  return {
    rows,
    total: rows.reduce((s, r) => s + (r.sum ?? 0), 0),
    unknown: rows.filter((r) => r.sum === null).length,
  }
}
