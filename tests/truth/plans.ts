import { seeded } from '#core/numeric'
import {
  newElement,
  newFan,
  newStreamPlan,
  newSplit,
  type Arrangement,
  type ElementKind,
  type Fan,
  type Goal,
  type PathElement,
  type StreamPlan,
} from '#core/document'
import { filterMedia, hoods, mitres, outlets, surfaces, wyes } from '#core/airpath'
import { pick, selectionOf } from '../plans'

/**
 * Seeded random plans over all goals, elements and arrangements: what a person could state, invented number by number.
 */

export interface Draw {
  /** 0 up to 1 */
  unit: () => number
  between: (low: number, high: number) => number
  /** evenly in the logarithm */
  spread: (low: number, high: number) => number
  pick: <T>(list: readonly T[]) => T
  chance: (share: number) => boolean
}

export function drawOf(seed: number): Draw {
  const unit = seeded(seed)
  return {
    unit,
    between: (low, high) => low + (high - low) * unit(),
    spread: (low, high) => low * (high / low) ** unit(),
    pick: (list) => list[Math.floor(unit() * list.length)]!,
    chance: (share) => unit() < share,
  }
}

/** A curve that falls, with or without a dip, from shut-off to free delivery. */
function points(d: Draw, flow: number, pressure: number, dip: boolean): Fan['points'] {
  const n = 5 + Math.floor(d.unit() * 6)
  const bend = d.between(0.8, 2)
  return Array.from({ length: n }, (_, i) => {
    const x = i / (n - 1)
    const sag = dip ? 0.28 * Math.exp(-(((x - 0.35) / 0.1) ** 2)) : 0
    return { flowM3s: flow * x, pressurePa: Math.max(0, pressure * (1 - x ** bend - sag)) }
  }).map((p, i) => (i === n - 1 ? { ...p, pressurePa: 0 } : p))
}

export function randomFan(d: Draw, id: string): Fan {
  const frameM = d.pick([0.04, 0.06, 0.08, 0.092, 0.12, 0.14])
  const flow = 0.03 * (frameM / 0.12) ** 2.4 * d.spread(0.5, 2)
  const pressure = d.spread(12, 180)
  const way = d.pick(['points', 'points', 'dip', 'two'] as const)
  const ratedV = d.pick([5, 12, 12, 24])
  return {
    ...newFan(id),
    model: id,
    kind: d.chance(0.15) ? 'blower' : 'axial',
    frameM,
    ratedV,
    interceptV: d.chance(0.3) ? 0.1 * ratedV : null,
    ratedA: d.spread(0.04, 0.6),
    ratedRpm: Math.round(d.spread(900, 6000)),
    noiseDbA: Math.round(d.between(14, 45)),
    noiseDistanceM: 1,
    maxFlowM3s: flow,
    maxPressurePa: pressure,
    curveBasis: d.pick(['curve', 'claim', 'measured'] as const),
    points: way === 'two' ? [] : points(d, flow, pressure, way === 'dip'),
  }
}

const rowKinds: ElementKind[] = [
  'opening',
  'slot',
  'grille',
  'hood',
  'filter',
  'duct',
  'bend',
  'reducer',
  'wye',
  'damper',
  'fins',
  'adapter',
  'chamber',
  'outlet',
  'custom',
]

/** One element with all its sizes. */
export function randomElement(
  d: Draw,
  kind: ElementKind,
  id: string,
  branchId: string | null = null,
): PathElement {
  const e = newElement(id, kind, branchId)
  const bore = d.between(0.05, 0.15)
  const area = d.spread(0.001, 0.02)
  switch (kind) {
    case 'opening':
      return { ...e, areaM2: area, edge: d.pick(['sharp', 'slot', 'crack', 'rounded'] as const) }
    case 'slot':
      return {
        ...e,
        widthM: d.between(0.1, 0.5),
        gapM: d.between(0.003, 0.02),
        lengthM: d.chance(0.5) ? 0.02 : null,
      }
    case 'grille':
      return {
        ...e,
        areaM2: area,
        freeAreaRatio: d.between(0.3, 0.9),
        style: d.pick(['plate', 'guard', 'mesh']),
      }
    case 'hood':
      return { ...e, diameterM: bore, style: d.pick(hoods).key }
    case 'outlet':
      return { ...e, diameterM: bore, style: d.pick(outlets).key }
    case 'filter':
      return d.chance(0.15)
        ? { ...e, areaM2: d.spread(0.01, 0.06), medium: 'bed', lengthM: 0.025, grainM: 0.003 }
        : { ...e, areaM2: d.spread(0.005, 0.06), medium: d.pick(filterMedia).key, loadFactor: d.pick([1, 2]) }
    case 'duct':
      return {
        ...e,
        ...(d.chance(0.3) ? { widthM: bore, heightM: d.between(0.02, 0.1) } : { diameterM: bore }),
        lengthM: d.spread(0.1, 4),
        surface: d.pick(surfaces).key,
        slack: d.pick([1, 1, 3]),
      }
    case 'bend':
      return {
        ...e,
        diameterM: bore,
        style: d.pick(['round', ...mitres.map((m) => m.key)]),
        count: d.pick([1, 2]),
      }
    case 'reducer':
      return { ...e, diameterM: bore, diameter2M: d.between(0.05, 0.15), angleDeg: d.pick([20, 45, 180]) }
    case 'wye':
      return { ...e, diameterM: bore, style: d.pick(wyes).key }
    case 'damper':
      return { ...e, diameterM: bore, angleDeg: d.between(0, 60) }
    case 'flap':
      return { ...e, diameterM: bore }
    case 'fins':
      return { ...e, gapM: 0.003, heightM: 0.03, lengthM: 0.1, count: 20 + Math.floor(40 * d.unit()) }
    case 'adapter':
      return { ...e, widthM: 0.05, heightM: 0.04, diameter2M: bore }
    case 'chamber':
      return { ...e, areaM2: d.chance(0.5) ? d.between(0.05, 0.5) : null }
    case 'custom':
      return { ...e, points: [{ flowM3s: 0.01, pressurePa: d.spread(1, 40) }] }
    default:
      return e
  }
}

/** A split of up to four ways, flaps and ways that stand several times among them. */
function randomSplit(d: Draw, id: string): { elements: PathElement[]; branches: StreamPlan['branches'] } {
  const names = Array.from({ length: d.pick([1, 2, 2, 3, 4]) }, (_, i) => ({
    id: `${id}-w${i}`,
    name: `way ${i + 1}`,
    leak: i > 0 && d.chance(0.5),
    times: 1,
  }))
  // one way alone is one of openings alike; among unlike ways some stand more than once
  if (names.length === 1) names[0]!.times = d.pick([2, 3, 4])
  else if (d.chance(0.3)) names[0]!.times = 2
  const { element, branches } = newSplit(id, names)
  const ways = names.flatMap(({ id: way }, i) => {
    const kinds: ElementKind[] = d.chance(0.35)
      ? ['flap']
      : d
          .pick([
            ['opening'],
            ['grille'],
            ['duct'],
            ['opening', 'filter'],
            ['duct', 'bend', 'duct'],
            ['slot'],
          ] as const)
          .slice()
    return kinds.map((kind, k) => randomElement(d, kind, `${id}-${i}-${k}`, way))
  })
  return { elements: [element, ...ways], branches }
}

const goals: Goal[] = ['cool', 'part', 'ventilate', 'fume', 'stir', 'chill', 'quieten']

/** What each goal is told. */
function tellGoal(plan: StreamPlan, d: Draw, present: Fan): void {
  const { job } = plan
  job.goal = d.pick(goals)
  job.ambientC = d.between(10, 32)
  job.altitudeM = d.pick([0, 100, 600, 1500])
  job.humidity = d.between(0.2, 0.8)
  plan.places[0]!.direction = d.pick([null, 'in', 'out'])
  Object.assign(
    job,
    {
      cool: {
        heatW: d.spread(5, 300),
        heatBasis: d.pick(['measured', 'nameplate', 'estimate']),
        insideMaxC: job.ambientC + d.between(4, 20),
        wallLossWK: d.pick([null, d.between(0.2, 4)]),
      },
      part: { heatW: d.spread(5, 100), heatBasis: 'estimate', partMaxC: job.ambientC + d.between(20, 50) },
      ventilate: { volumeM3: d.spread(0.05, 20), airChangesPerH: d.between(3, 60) },
      fume: {
        fumeWay: d.pick(['capture', 'slot']),
        captureSpeedMs: d.between(0.25, 1),
        captureDistanceM: d.between(0.05, 0.3),
        nozzleAreaM2: d.spread(0.002, 0.02),
        slotLengthM: 0.4,
      },
      stir: { volumeM3: d.spread(0.02, 1), turnoversPerH: d.between(10, 60) },
      chill: {
        waterAreaM2: d.between(0.1, 0.6),
        waterC: 22,
        crossAreaM2: 0.05,
        surfaceSpeedMs: d.between(0.1, 0.6),
      },
      quieten: { keepBasis: 'existing-fan', existingFanId: present.id, heatW: d.pick([null, 30]) },
    }[job.goal],
  )
  if (job.goal === 'part')
    plan.sink = [
      { flowM3s: 0.004, kPerW: 1.2 },
      { flowM3s: 0.012, kPerW: 0.6 },
    ]
}

export interface RandomPlan {
  plan: StreamPlan
  fans: Fan[]
}

/**
 * A random plan whose path is whole and whose fans are chosen.
 * @param seed any whole number: the same one gives the same plan
 */
export function randomPlan(seed: number): RandomPlan {
  const d = drawOf(seed)
  const plan = newStreamPlan(`truth-${seed}`, `Plan ${seed}`)
  const fans = ['first', 'second', 'present'].map((id) => randomFan(d, id))
  tellGoal(plan, d, fans[2]!)
  const elements: PathElement[] = []
  const branches: StreamPlan['branches'] = []
  const length = Math.floor(d.unit() * 7)
  for (let i = 0; i < length; i++) {
    if (d.chance(0.2) && branches.length < 8) {
      const split = randomSplit(d, `s${i}`)
      elements.push(...split.elements)
      branches.push(...split.branches)
    } else elements.push(randomElement(d, d.chance(0.06) ? 'flap' : d.pick(rowKinds), `e${i}`))
  }
  const row = elements.filter((e) => e.branchId === null)
  const at = row.length ? elements.indexOf(d.pick(row)) : 0
  elements.splice(at, 0, randomElement(d, 'fan', 'fan'))
  const pair = d.chance(0.3)
  const twoPlaces = d.chance(0.25)
  if (twoPlaces) elements.push(randomElement(d, 'fan', 'second-fan'))
  const count = twoPlaces ? d.pick([2, 3, 4]) : pair ? 2 : d.pick([1, 1, 2, 3, 4])
  const others = twoPlaces ? 1 + Math.floor((count - 1) * d.unit()) : 1
  const arrangement: Arrangement = twoPlaces
    ? 'places'
    : count === 1
      ? 'single'
      : d.pick(['parallel', 'parallel', 'series'])
  if (pair) fans[1] = { ...fans[1]!, ratedV: fans[0]!.ratedV }
  const first = fans[0]!
  plan.path = elements
  plan.branches = branches
  pick(
    plan,
    selectionOf(first.id, { other: pair ? 'second' : first.id, others, count, arrangement }),
    first.ratedV * d.between(0.5, 1),
  )
  return { plan, fans }
}
