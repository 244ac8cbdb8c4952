import { CP_AIR, type AirState } from '#core/air'
import { ductDrop, surfaces } from '#core/airpath'
import type { StreamPlan } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { elementDrop, insideC, mainRow, pathDrop, usefulShare, type PathModel } from '#core/system'

/** One way of two that makers argue about, with this job's numbers. */
export interface TradeoffWay {
  name: string
  figures: Figure[]
  wins: string
}
export interface Tradeoff {
  key: string
  title: string
  ways: TradeoffWay[]
}

/** Temperature step that lost heat is told for, K. */
const STEP_K = 10

/** Fan before the box (pushes) or behind it (pulls): pressure in the box and the air at the fan. */
function pushOrPull(plan: StreamPlan, path: PathModel, air: AirState, flow: number): Tradeoff | null {
  const row = mainRow(plan)
  const box = row.findIndex((e) => e.kind === 'chamber')
  if (box < 0) return null
  const drops = path.main.map((e) => (e.element.kind === 'fan' ? 0 : elementDrop(e, flow)))
  const sum = (from: number, to: number) => drops.slice(from, to).reduce((s, x) => s + x, 0)
  const before = sum(0, box)
  const after = sum(box + 1, drops.length)
  const { heatW, ambientC, wallLossWK } = plan.job
  const hot = insideC(plan.job, 'out', air, flow * usefulShare(path, flow))
  const pressure = (value: number) =>
    figure(
      'school.box',
      'Pressure in the box',
      'pressure',
      value,
      'Δp = p_box − p_room',
      'drops of this path',
      {
        basis: 'estimated',
        inputs: [
          input('Δp₁', 'before the box', before, 'pressure'),
          input('Δp₂', 'after it', after, 'pressure'),
        ],
      },
    )
  const fanAir = (value: number | null) =>
    figure(
      'school.fanAir',
      'Air at the fan',
      'temperature',
      value,
      't = tₐ + P/(UA + ρ·cp·Q)',
      'heat balance',
      {
        basis: 'estimated',
        inputs: [
          input('tₐ', 'air at the intake', ambientC, 'temperature'),
          input('P', 'heat inside', heatW, 'power'),
          input('UA', 'wall loss', wallLossWK ?? 0, 'thermalConductance'),
          input('Q', 'airflow', flow, 'flow'),
        ],
      },
    )
  return {
    key: 'push-pull',
    title: 'Push or pull',
    ways: [
      {
        name: 'Push: fan before the box',
        figures: [pressure(after), fanAir(ambientC)],
        wins: 'Keeps dust out when its intake is filtered, keeps the fan cool, and blows a jet at the hot part.',
      },
      {
        name: 'Pull: fan behind the box',
        figures: [pressure(-before), fanAir(hot)],
        wins: 'Keeps fumes and smells in, draws evenly from many openings; every crack becomes an unfiltered intake.',
      },
    ],
  }
}

/** Blow outside, or filter and give the air back to the room. */
function outsideOrFilter(path: PathModel, air: AirState, flow: number): Tradeoff {
  const filters = path.main.filter((e) => e.element.kind === 'filter')
  const loss = air.density * CP_AIR * flow * STEP_K
  return {
    key: 'filter-outside',
    title: 'Blow outside, or filter and recirculate',
    ways: [
      {
        name: 'Outside',
        figures: [
          figure(
            'school.heatLost',
            `Room heat lost for each ${STEP_K} K of frost`,
            'power',
            loss,
            'P = ρ·cp·Q·Δt',
            'heat balance',
            {
              inputs: [
                input('Q', 'airflow', flow, 'flow'),
                input('Δt', 'indoors over outdoors', STEP_K, 'temperatureDifference'),
              ],
            },
          ),
        ],
        wins:
          'The first choice for fumes and moisture: what leaves is gone. Needs an opening of the same area ' +
          'for fresh air, and none near an open-flued burner.',
      },
      {
        name: 'Filter and recirculate',
        figures: [
          figure(
            'school.filterLoss',
            'Filters now take',
            'pressure',
            filters.length ? filters.reduce((s, e) => s + elementDrop(e, flow), 0) : null,
            'Δp = ΣΔp_filter',
            'this path',
            { basis: 'estimated', note: filters.length ? '' : 'No filter is in this path yet.' },
          ),
        ],
        wins:
          'Keeps the warmth. Holds dust; gases and fumes only with the right media, which fill up without ' +
          'a warning. Never carries moisture or CO₂ off.',
      },
    ],
  }
}

/** One wide hose against two narrow ones of the same total area. */
function oneOrSeveral(path: PathModel, air: AirState, flow: number): Tradeoff | null {
  const hose = path.main.find((e) => e.element.kind === 'duct' && e.element.diameterM && e.element.lengthM)
  if (!hose) return null
  const { diameterM, lengthM, surface, slack } = hose.element
  const roughness = (surfaces.find((s) => s.key === surface) ?? surfaces[1]!).roughness
  const friction = (bore: number, q: number) =>
    (slack ?? 1) * ductDrop(q, bore, lengthM!, roughness, air.density, air.viscosity)
  const half = diameterM! / Math.SQRT2
  const of = (value: number, bore: number, n: number) =>
    figure('school.friction', 'Friction of the hose', 'pressure', value, 'Darcy-Weisbach', 'Colebrook 1939', {
      basis: 'estimated',
      inputs: [
        input('D', 'bore', bore, 'length'),
        input('n', 'side by side', n, 'number'),
        input('Q', 'airflow', flow, 'flow'),
      ],
    })
  return {
    key: 'one-several',
    title: 'One large way or several small ones',
    ways: [
      {
        name: 'One',
        figures: [of(friction(diameterM!, flow), diameterM!, 1)],
        wins: 'Least friction for its area, one hole to cut and seal.',
      },
      {
        name: 'Two of the same area together',
        figures: [of(friction(half, flow / 2), half, 2)],
        wins: 'Goes where a wide one does not, spreads the intake; more wall, more friction, more joints.',
      },
    ],
  }
}

/**
 * The arguments of the trade with this job's numbers; those the path cannot tell are left out.
 * @param flow m3/s, 0 or more
 */
export function tradeoffsOf(plan: StreamPlan, path: PathModel, air: AirState, flow: number | null): Tradeoff[] {
  if (!path.complete || !flow || !(pathDrop(path, flow) >= 0)) return []
  return [
    pushOrPull(plan, path, air, flow),
    outsideOrFilter(path, air, flow),
    oneOrSeveral(path, air, flow),
  ].filter((s) => s !== null)
}
