import {
  continuedPressure,
  highestPressure,
  lastFlow,
  memberFlow,
  pressureAt,
  scaleCurve,
  type FanCurve,
} from '#core/fan'
import {
  curveAt,
  drivenSpeed,
  type ElementModel,
  type FanArray,
  type FanModel,
  type PathModel,
} from '#core/system'
import type { AirState } from '#core/air'

/**
 * A second solver that shares nothing with the product's but the laws of single elements and single fans: it adds up
 * the row, bisects every split, bisects the common pressure of fans side by side, and walks the whole range of flow in
 * small steps. Slow on purpose.
 */

const leafDrop = (e: ElementModel, q: number): number =>
  q > 0 ? e.staticHead + e.a * q + e.b * q * q + (e.extra ? e.extra(q) : 0) : 0

/** Flow of a way at a drop, by bisection; nothing moves up to its head. */
function wayFlow(elements: readonly ElementModel[], drop: number): number {
  const at = (q: number) => elements.reduce((s, e) => s + leafDrop(e, q), 0)
  if (at(1e-15) >= drop) return 0
  if (elements.every((e) => !e.extra)) {
    const sum = (key: 'a' | 'b' | 'staticHead') => elements.reduce((s, e) => s + e[key], 0)
    const [a, b, p] = [sum('a'), sum('b'), drop - sum('staticHead')]
    return b > 0 ? (Math.sqrt(a * a + 4 * b * p) - a) / (2 * b) : p / a
  }
  let [low, high] = [0, 1e-3]
  while (at(high) < drop) high *= 2
  for (let i = 0; i < 46; i++) {
    const middle = (low + high) / 2
    if (at(middle) < drop) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** Flows of a split's ways that carry a total, and their common drop. */
export function slowSplit(e: ElementModel, q: number): { drop: number; flows: number[] } {
  const ways = e.branches!
  const at = (drop: number) => ways.map((w) => w.branch.times * wayFlow(w.elements, drop))
  let [low, high] = [0, 1]
  while (at(high).reduce((s, x) => s + x, 0) < q) high *= 2
  for (let i = 0; i < 46; i++) {
    const middle = (low + high) / 2
    if (at(middle).reduce((s, x) => s + x, 0) < q) low = middle
    else high = middle
  }
  return { drop: high, flows: at(high) }
}

/** Drop of the whole path, Pa. */
export const slowDrop = (path: PathModel, q: number): number =>
  path.main.reduce((s, e) => s + (e.branches ? slowSplit(e, q).drop : leafDrop(e, q)), 0)

/** What the driven fans do together, Pa at m3/s, and where their data ends. */
interface Group {
  last: number
  at: (q: number) => number
}

/** One fan as driven; null where it stands still. */
function oneFan(model: FanModel, volts: number, air: AirState): FanCurve | null {
  const s = drivenSpeed(model, volts, null)
  return s > 0 ? scaleCurve(curveAt(model, volts, 'middle'), s, s * s * air.densityRatio) : null
}

/** Groups whose pressures add: each fan of a group has its share of the air, or each stage its share of the pressure. */
function addedPressures(groups: readonly Group[]): Group {
  return {
    last: groups.reduce((sum, g) => sum + g.last, 0),
    at: (q) => groups.reduce((sum, g) => sum + g.at(q), 0),
  }
}

/** Unlike fans side by side: the common pressure at which their flows add up, by bisection. */
function addedFlows(members: readonly FanCurve[]): Group {
  const total = (p: number) => members.reduce((sum, c) => sum + memberFlow(c, p, { flap: false })!, 0)
  const top = Math.max(...members.map(highestPressure))
  return {
    last: total(0),
    at: (q) => {
      let [low, high] = [0, top]
      for (let i = 0; i < 60; i++) {
        const middle = (low + high) / 2
        if (total(middle) >= q) low = middle
        else high = middle
      }
      return low
    },
  }
}

/** Pressure of the driven fans at a flow, Pa; null where one of them stands still. */
function groupPressure(fanArray: FanArray, volts: number, air: AirState): Group | null {
  const { count, arrangement } = fanArray
  const groups = fanArray.groups.flatMap(({ model, count: n }) => {
    const curve = oneFan(model, volts, air)
    return curve ? [{ curve, n }] : []
  })
  const [first] = groups
  if (!first || groups.length < fanArray.groups.length) return null
  if (arrangement === 'places')
    return addedPressures(
      groups.map(({ curve, n }) => ({
        last: n * lastFlow(curve),
        at: (q: number) => continuedPressure(curve, q / n)!,
      })),
    )
  if (groups.length === 1) {
    const [wide, deep] = arrangement === 'series' ? [1, count] : [count, 1]
    const one = first.curve
    return { last: wide * lastFlow(one), at: (q) => (pressureAt(one, q / wide) ?? NaN) * deep }
  }
  const members = groups.flatMap(({ curve, n }) => Array.from({ length: n }, () => curve))
  return arrangement === 'series'
    ? addedPressures(members.map((c) => ({ last: lastFlow(c), at: (q) => continuedPressure(c, q)! })))
    : addedFlows(members)
}

const STEPS = 150

/**
 * Lowest stable flow of a group on a path, m3/s; 0 where nothing turns, null where they do not meet.
 */
export function slowFlow(path: PathModel, fanArray: FanArray, volts: number, air: AirState): number | null {
  const group = groupPressure(fanArray, volts, air)
  if (!group) return 0
  const f = (q: number) => group.at(q) - slowDrop(path, q)
  let before = group.last * 1e-7
  if (!(f(before) > 0)) before = 0
  let was = before > 0
  for (let i = 1; i <= STEPS; i++) {
    const q = (group.last * i) / STEPS
    const now = f(Math.min(q, group.last * (1 - 1e-12))) > 0
    if (was && !now) {
      let [low, high] = [before, q]
      for (let k = 0; k < 60; k++) {
        const middle = (low + high) / 2
        if (f(middle) > 0) low = middle
        else high = middle
      }
      return (low + high) / 2
    }
    was = now
    before = q
  }
  // open air: free delivery
  return was && f(group.last * (1 - 1e-9)) < 1e-6 * Math.max(1, group.at(0)) ? group.last : null
}
