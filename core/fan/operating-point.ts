import { lastFlow, stallLimit, type FanCurve } from './curve'

/** System resistance dp = head + a Q + b Q^2: a in Pa.s/m3, b in Pa.s2/m6, head in Pa (positive opposes the flow). */
export interface Resistance {
  a: number
  b: number
  staticHead?: number
}

/** How the curve is driven: speed ratio, density ratio to the curve's density, equal fans side by side and one behind the other. */
export interface Drive {
  speed: number
  densityRatio: number
  parallel: number
  series: number
}

export const asSheet: Drive = { speed: 1, densityRatio: 1, parallel: 1, series: 1 }

export interface Crossing {
  flow: number
  stable: boolean
}

export type OperatingStatus =
  'one' | 'several' | 'none-opposed' | 'left-of-data' | 'right-of-data' | 'not-turning'

export interface OperatingPoint {
  status: OperatingStatus
  /** every crossing, from left to right, m3/s */
  crossings: Crossing[]
  /** flow to plan with: the lowest stable one, m3/s; null where there is none */
  flow: number | null
  /** pressure at that flow, Pa */
  pressure: number | null
  /** false when the flow lies left of the dip: stall */
  region: 'normal' | 'stall-risk' | null
}

/** Work space of one segment: F(t) = c0 + c1 t + c2 t^2 + c3 t^3. Kept outside the loops so that nothing is allocated in them. */
const segment = { c0: 0, c1: 0, c2: 0, c3: 0 }
const value = (t: number) => segment.c0 + t * (segment.c1 + t * (segment.c2 + t * segment.c3))
const cuts = new Float64Array(4)

/**
 * Bracketed root of the segment's cubic between t0 and t1 where the signs differ: Newton kept inside by bisection.
 * @param from where to begin, between t0 and t1
 */
function rootBetween(t0: number, t1: number, f0: number, from: number): number {
  let low = t0
  let high = t1
  let t = from
  for (let i = 0; i < 60; i++) {
    const f = value(t)
    if (f === 0) return t
    if (f > 0 === f0 > 0) low = t
    else high = t
    const slope = segment.c1 + t * (2 * segment.c2 + 3 * t * segment.c3)
    let next = t - f / slope
    if (!(next > low && next < high)) next = (low + high) / 2
    if (Math.abs(next - t) < 1e-13) return next
    t = next
  }
  return t
}

/** Fills `cuts` with 0, the turning points of the cubic inside (0, 1), and 1; returns how many. */
function monotoneParts(): number {
  const { c1, c2, c3 } = segment
  let n = 0
  cuts[n++] = 0
  const disc = c2 * c2 - 3 * c3 * c1
  if (disc > 0) {
    // stable quadratic formula for 3 c3 t^2 + 2 c2 t + c1 = 0
    const s = -(c2 + Math.sign(c2 || 1) * Math.sqrt(disc))
    const first = s / (3 * c3)
    const second = c1 / s
    const low = Math.min(first, second)
    const high = Math.max(first, second)
    if (low > 0 && low < 1) cuts[n++] = low
    if (high > 0 && high < 1 && high !== low) cuts[n++] = high
  } else if (c3 === 0 && c2 !== 0) {
    const only = -c1 / (2 * c2)
    if (only > 0 && only < 1) cuts[n++] = only
  }
  cuts[n++] = 1
  return n
}

/** Fills the work space with fan less path between two data points, their difference at the left one being known. */
function fillSegment({ q, p, m }: FanCurve, k: number, a: number, b: number, left: number): void {
  const x = q[k]!
  const h = q[k + 1]! - x
  const rise = p[k + 1]! - p[k]!
  const hm0 = h * m[k]!
  const hm1 = h * m[k + 1]!
  segment.c0 = left
  segment.c1 = hm0 - (a + 2 * b * x) * h
  segment.c2 = 3 * rise - 2 * hm0 - hm1 - b * h * h
  segment.c3 = hm0 + hm1 - 2 * rise
}

const NONE = -1
const TOUCHES = -2
/**
 * Where the segment first falls through zero, 0..1, as it begins above; NONE where it does not, TOUCHES where it comes to
 * zero exactly, which needs a look around.
 */
function firstFall(right: number): number {
  const parts = monotoneParts()
  let before = segment.c0
  for (let i = 1; i < parts; i++) {
    const t = cuts[i]!
    const f = t === 1 ? right : value(t)
    if (f === 0) return TOUCHES
    if (f < 0) return rootBetween(cuts[i - 1]!, t, before, (cuts[i - 1]! + t) / 2)
    before = f
  }
  return NONE
}

/** Fills `cuts` with a segment that is monotone as a whole. */
function wholeSegment(): number {
  cuts[0] = 0
  cuts[1] = 1
  return 2
}

/**
 * All flows at which a driven fan meets a path. Between two data points fan minus path is a cubic: it is split at its
 * turning points and each monotone part with a change of sign holds exactly one root, found inside its bracket.
 * A touch without change of sign is not an operating point.
 *
 * @param curve the fan at its sheet's speed and density
 * @param path resistance in the actual air
 * @param drive scaling by the affinity laws: flow by speed x parallel, pressure by speed^2 x density x series
 * @returns crossings with rising flow, m3/s
 * Reference: docs/physics.md, operating point; fan laws
 */
export function crossings(curve: FanCurve, path: Resistance, drive: Drive = asSheet): Crossing[] {
  const found: Crossing[] = []
  scan(curve, path, drive, (flow, stable) => found.push({ flow, stable }))
  return found
}

/**
 * The scan behind `crossings`, for loops that must not allocate.
 * @param visit called with each crossing; return true to stop
 * Reference: where fan curve and path meet; docs/physics.md, fans and air path
 */
export function scan(
  curve: FanCurve,
  path: Resistance,
  drive: Drive,
  visit: (flow: number, stable: boolean) => unknown,
): void {
  const { q, p } = curve
  const flowFactor = drive.speed * drive.parallel
  const pressureFactor = drive.speed * drive.speed * drive.densityRatio * drive.series
  if (!(flowFactor > 0 && pressureFactor > 0)) return
  const staticHead = (path.staticHead ?? 0) / pressureFactor
  const a = (path.a * flowFactor) / pressureFactor
  const b = (path.b * flowFactor * flowFactor) / pressureFactor
  /** the path's drop never falls as the flow rises */
  const rises = a >= 0 && b >= 0
  const last = q.length - 1
  // the exact difference at the data point, free of the cubic's rounding
  let left = p[0]! - staticHead - (a + b * q[0]!) * q[0]!
  let sign = left > 0 ? 1 : left < 0 ? -1 : 0
  let zeroAt = sign === 0 ? q[0]! : -1
  for (let k = 0; k < last; k++) {
    const x = q[k]!
    const next = q[k + 1]!
    const drop = staticHead + (a + b * next) * next
    const right = p[k + 1]! - drop
    const rise = p[k + 1]! - p[k]!
    // a fan that falls against a path that rises: fan less path falls throughout
    const falls = rises && rise <= 0
    // no crossing where the lower end of the fan still is above the higher end of the path, or where both ends are below
    if (rises && ((sign > 0 && (falls ? right : p[k]! - drop) > 0) || (falls && sign < 0 && right < 0))) {
      left = right
      continue
    }
    const h = next - x
    fillSegment(curve, k, a, b, left)
    const parts = falls ? wholeSegment() : monotoneParts()
    for (let i = 1; i < parts; i++) {
      const t = cuts[i]!
      const f = t === 1 ? right : value(t)
      if (f === 0) {
        zeroAt = x + t * h
        if (k === last - 1 && t === 1 && sign >= 0) visit(zeroAt * flowFactor, true)
        continue
      }
      const now = f > 0 ? 1 : -1
      if (sign !== 0 && now !== sign) {
        const before = cuts[i - 1]!
        const from = falls ? left / (left - right) : (before + t) / 2
        const at = zeroAt >= 0 ? zeroAt : x + h * rootBetween(before, t, sign, from)
        if (visit(at * flowFactor, sign > 0) === true) return
      } else if (sign === 0 && zeroAt >= 0 && now < 0 && visit(zeroAt * flowFactor, true) === true) return
      sign = now
      zeroAt = -1
    }
    left = right
  }
}

/** Work space of the general form of `stableFlow`. */
let lowestStable = -1
const keepFirstStable = (flow: number, stable: boolean) => {
  if (stable) lowestStable = flow
  return stable
}

/** Steps by Halley's method: each trebles the digits that are right, so that a fourth one hardly ever is needed. */
const STEPS = 6
/** A step this small, as a share of the stretch, leaves an error below the last digit of a double … */
const LAST_STEP = 1e-5
/** … where it is so much smaller than the one before it; at a root that nearly is a double one each is a third. */
const SETTLED = 0.01
/**
 * The lowest stable flow, m3/s, or -1: the fast form of `operatingPoint` for rankings. Along a fan that falls against a
 * path that rises there is one crossing, where the sign changes: it is looked for without any work space. Where the curve
 * rises near the path, or the path falls, the general scan decides. It stands in one piece since a number that is handed
 * to another function takes as long as a step.
 * Reference: where fan curve and path meet; docs/physics.md, fans and air path. Its root by Halley's method from the
 * straight line's zero; where that leads outside or does not settle, bisection keeps it inside
 */
export function stableFlow(curve: FanCurve, path: Resistance, drive: Drive): number {
  const flowFactor = drive.speed * drive.parallel
  const pressureFactor = drive.speed * drive.speed * drive.densityRatio * drive.series
  if (!(flowFactor > 0 && pressureFactor > 0)) return -1
  const head = (path.staticHead ?? 0) / pressureFactor
  const a = (path.a * flowFactor) / pressureFactor
  const b = (path.b * flowFactor * flowFactor) / pressureFactor
  const { flat, from, to } = curve
  let x = flat[from]!
  let y = flat[from + 1]!
  let left = y - head - (a + b * x) * x
  if (!(left > 0 && a >= 0 && b >= 0)) return generalFlow(curve, path, drive)
  for (let k = from + 3; k < to; k += 3) {
    const next = flat[k]!
    const below = flat[k + 1]!
    const drop = head + (a + b * next) * next
    const right = below - drop
    if (below > y) {
      // where even the lower end of the fan is above the path there is no crossing
      if (!(y > drop)) {
        fillSegment(curve, (k - from) / 3 - 1, a, b, left)
        const t = firstFall(right)
        if (t === TOUCHES) return generalFlow(curve, path, drive)
        if (t !== NONE) return (x + (next - x) * t) * flowFactor
      }
    } else if (!(right > 0)) {
      const h = next - x
      const hm0 = h * flat[k - 1]!
      const hm1 = h * flat[k + 2]!
      const c1 = hm0 - (a + 2 * b * x) * h
      const c2 = 3 * (below - y) - 2 * hm0 - hm1 - b * h * h
      const c3 = hm0 + hm1 - 2 * (below - y)
      let t = left / (left - right)
      let before = 0
      for (let i = 0; i < STEPS; i++) {
        const f = left + t * (c1 + t * (c2 + t * c3))
        const slope = c1 + t * (2 * c2 + 3 * t * c3)
        const step = (f * slope) / (slope * slope - f * (c2 + 3 * t * c3))
        t -= step
        const size = Math.abs(step)
        if (size < LAST_STEP && size <= SETTLED * before && t >= 0 && t <= 1) return (x + h * t) * flowFactor
        before = size
      }
      fillSegment(curve, (k - from) / 3 - 1, a, b, left)
      return (x + h * rootBetween(0, 1, left, left / (left - right))) * flowFactor
    }
    x = next
    y = below
    left = right
  }
  return -1
}
function generalFlow(curve: FanCurve, path: Resistance, drive: Drive): number {
  lowestStable = -1
  scan(curve, path, drive, keepFirstStable)
  return lowestStable
}

/** What is known of the path where it was searched for crossings. */
interface Searched {
  /** fan less path at the curve's first flow, Pa */
  first: number
  /** pressure before any air moves, Pa */
  head: number
  /** drop of the path at a flow, Pa */
  dropAt: (flow: number) => number
}

/**
 * What the crossings that were found mean.
 * @param all crossings from left to right
 * Reference: docs/physics.md, operating point: status and region
 */
export function operationAt(
  curve: FanCurve,
  drive: Drive,
  all: Crossing[],
  { first, head, dropAt }: Searched,
): OperatingPoint {
  if (!(drive.speed > 0)) return { status: 'not-turning', crossings: [], flow: 0, pressure: head, region: null }
  if (all.length === 0) {
    const status = first >= 0 ? 'right-of-data' : curve.q[0] === 0 ? 'none-opposed' : 'left-of-data'
    return { status, crossings: [], flow: null, pressure: null, region: null }
  }
  const flow = all.find((c) => c.stable)?.flow ?? null
  const stall = stallLimit(curve)
  const stalled = flow !== null && stall !== null && flow < stall * drive.speed * drive.parallel
  return {
    status: all.length > 1 ? 'several' : 'one',
    crossings: all,
    flow,
    pressure: flow === null ? null : dropAt(flow),
    region: flow === null ? null : stalled ? 'stall-risk' : 'normal',
  }
}

/**
 * Operating point of a driven fan on a path.
 * @returns flow and pressure, or the reason why there is none: `none-opposed` (the path's head is stronger than the
 * fan), `left-of-data`, `right-of-data` (the sheet's curve ends before the path is met), `not-turning` (flow 0)
 * Reference: where fan curve and path meet; docs/physics.md, fans and air path
 */
export function operatingPoint(curve: FanCurve, path: Resistance, drive: Drive = asSheet): OperatingPoint {
  const all = drive.speed > 0 ? crossings(curve, path, drive) : []
  const first =
    curve.p[0]! * drive.speed ** 2 * drive.densityRatio * drive.series -
    dropOf(path, curve.q[0]! * drive.speed * drive.parallel)
  return operationAt(curve, drive, all, { first, head: path.staticHead ?? 0, dropAt: (q) => dropOf(path, q) })
}

/**
 * Drop of a resistance at a flow >= 0, Pa.
 * @param flow m3/s, 0 or more
 * Reference: where fan curve and path meet; docs/physics.md, fans and air path
 */
export function dropOf(path: Resistance, flow: number): number {
  return (path.staticHead ?? 0) + (path.a + path.b * flow) * flow
}

/**
 * Smallest speed ratio that brings a flow through a path: s in Q/Q_max..1 with s^2 p(Q/s) >= drop.
 * @param flow wanted, m3/s
 * @returns ratio, or null when full speed does not reach it
 * Reference: where fan curve and path meet; docs/physics.md, fans and air path
 */
export function speedForFlow(
  curve: FanCurve,
  path: Resistance,
  flow: number,
  drive: Drive = asSheet,
): number | null {
  const reaches = (speed: number) => {
    const found = crossings(curve, path, { ...drive, speed })
    return found.some((c) => c.stable && c.flow >= flow * (1 - 1e-12))
  }
  if (!reaches(1)) return null
  let low = Math.max(flow / (lastFlow(curve) * drive.parallel), 1e-6)
  let high = 1
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (reaches(middle)) high = middle
    else low = middle
  }
  return high
}
