import type { AirState } from '#core/air'
import {
  asSheet,
  combinedCurve,
  highestPressure,
  lastFlow,
  scaleCurve,
  type Drive,
  type FanCurve,
} from '#core/fan'
import { driveVolts, type Arrangement, type Fan, type FanSelection, type StreamPlan } from '#core/document'
import {
  curveAt,
  driveSpeed,
  drivenSpeed,
  fanCurrent,
  fanStartCurrent,
  modelFan,
  trueThickness,
  type CurveEnd,
  type FanModel,
} from './fan-model'
import { driveOf } from './operating-point'
import type { FanPlace } from './path'

/** Fans alike at one place. */
export interface FanGroup {
  model: FanModel
  count: number
  /** id of the place; null: the one that there is */
  placeId: string | null
}
/** Fans that work together: n alike, or groups that differ in their fan or stand at different places. */
export interface FanArray {
  /** one group, or two */
  groups: FanGroup[]
  /** the fan of the group that the air meets first; of fans alike that of all */
  model: FanModel
  /** all fans of all groups */
  count: number
  arrangement: Arrangement
}

/** The array that groups make. @param groups at least one */
export function arrayOf(groups: FanGroup[], arrangement: Arrangement): FanArray {
  const count = groups.reduce((sum, g) => sum + g.count, 0)
  return { groups, model: groups[0]!.model, count, arrangement: arrangementOf(count, arrangement) }
}
/** An array of n fans alike at one place. */
export const alike = (model: FanModel, count: number, arrangement: Arrangement): FanArray =>
  arrayOf([{ model, count, placeId: null }], arrangement)
/** Whether all fans of an array are the same. */
export const isOfOneKind = ({ groups, model }: FanArray): boolean => groups.every((g) => g.model === model)

/** The group that stands at a place of the path; null: none does. One that names no place stands at the one there is. */
export const groupsAt = ({ groups }: FanArray, { place }: FanPlace): FanGroup[] =>
  groups.filter((g) => g.placeId === null || g.placeId === place?.id)

/** How a group is driven: voltage at its terminals, and the duty on its PWM wire where that is used. */
export interface ArrayDrive {
  volts: number
  duty: number | null
}

/** What a stream's fans are planned to be driven at, V: as the plan tells, else at their label's voltage. */
export const drivenV = (plan: StreamPlan, { model }: FanArray): number => driveVolts(plan) ?? model.fan.ratedV

/** The array of planned fans. @returns the reason where a fan cannot be computed or is gone */
export function fanArrayOf(
  { groups, arrangement }: FanSelection,
  fans: readonly Fan[],
): { ok: true; fanArray: FanArray } | { ok: false; reason: string } {
  const models = new Map<string, FanModel>()
  for (const { fanId } of groups) {
    const fan = fans.find((f) => f.id === fanId)
    if (!fan) return { ok: false, reason: 'The picked fan is no longer on the shelf.' }
    const made = models.has(fanId) ? null : modelFan(fan)
    if (made && !made.ok) return made
    if (made) models.set(fanId, made.model)
  }
  const known = groups.map(({ fanId, count, placeId }) => ({ model: models.get(fanId)!, count, placeId }))
  return { ok: true, fanArray: arrayOf(known, arrangement) }
}

/**
 * Arrangement that goes with a number of fans.
 * @param count fans, 1 or more
 */
export const arrangementOf = (count: number, arrangement: Arrangement): Arrangement =>
  count === 1 ? 'single' : arrangement === 'single' ? 'parallel' : arrangement
/** Whether the pressures of the members add: one behind the other, at one place or at two. */
export const addsPressure = (arrangement: Arrangement) => arrangement === 'series' || arrangement === 'places'

/** Every fan of an array. */
export const membersOf = (fanArray: FanArray): FanModel[] =>
  fanArray.groups.flatMap(({ model, count }) => Array.from({ length: count }, () => model))

/** A group as the solver wants it: one curve and how it is scaled. */
export interface DrivenArray {
  curve: FanCurve
  drive: Drive
}

/** How many of a group stand side by side, and how many behind one another. */
const spreadOf = (count: number, arrangement: Arrangement) =>
  arrangement === 'series' ? { wide: 1, deep: count } : { wide: count, deep: 1 }

/** The curve of one of the array's groups as driven. @returns null where it stands still */
export function groupCurve(
  { model, count }: Pick<FanGroup, 'model' | 'count'>,
  arrangement: Arrangement,
  { volts, duty }: ArrayDrive,
  air: AirState,
  which: CurveEnd = 'middle',
): FanCurve | null {
  const speed = drivenSpeed(model, volts, duty)
  const { wide, deep } = spreadOf(count, arrangement)
  return speed > 0
    ? scaleCurve(curveAt(model, volts, which), speed * wide, speed ** 2 * air.densityRatio * deep)
    : null
}

/**
 * The curve of a group as driven on a site. Alike fans are one curve with a scale; groups that differ are combined point
 * by point.
 * @returns null where nothing turns or the groups have no common curve
 */
export function drivenArray(
  fanArray: FanArray,
  drive: ArrayDrive,
  air: AirState,
  which: CurveEnd = 'middle',
): DrivenArray | null {
  const { model, arrangement, groups } = fanArray
  const { volts, duty } = drive
  const [first, other] = groups
  if (!other || (other.model === model && other.count === first!.count)) {
    const speed = drivenSpeed(model, volts, duty)
    const { wide, deep } = spreadOf(first!.count, arrangement)
    return speed > 0
      ? { curve: curveAt(model, volts, which), drive: driveOf(air, speed, wide, other ? 2 * deep : deep) }
      : null
  }
  const driven = [first!, other].map((group) => groupCurve(group, arrangement, drive, air, which))
  if (!driven[0] || !driven[1]) return null
  const curve = combinedCurve(driven[0], driven[1], addsPressure(arrangement) ? 'series' : 'parallel')
  return curve && { curve, drive: asSheet }
}

/** Free delivery and highest pressure of a driven group, m3/s and Pa. */
export const endsOf = ({ curve, drive }: DrivenArray) => ({
  free: lastFlow(curve) * drive.speed * drive.parallel,
  highest: highestPressure(curve) * drive.speed ** 2 * drive.densityRatio * drive.series,
})

/** Smallest highest pressure among the members as driven, Pa. */
export const weakestPressure = (fanArray: FanArray, { volts, duty }: ArrayDrive, air: AirState) =>
  Math.min(
    ...membersOf(fanArray).map(
      (m) => highestPressure(curveAt(m, volts, 'middle')) * drivenSpeed(m, volts, duty) ** 2 * air.densityRatio,
    ),
  )

/** A value of all members together; null where one is not known. */
function total(fanArray: FanArray, of: (model: FanModel) => number | null): number | null {
  const values = fanArray.groups.map(({ model, count }) => {
    const one = of(model)
    return one === null ? null : count * one
  })
  return values.some((v) => v === null) ? null : values.reduce<number>((sum, v) => sum + v!, 0)
}
/**
 * Current of all members over their voltage, A, as the feed is solved with: a law without a step, also where they stand
 * still; null where one is not known.
 */
export const arrayLaw = (fanArray: FanArray, { volts, duty }: ArrayDrive) =>
  total(fanArray, (m) => fanCurrent(m, volts, duty))
/** Running and start current of all members, A; null where one is not known. */
export const arrayCurrent = (fanArray: FanArray, { volts, duty }: ArrayDrive) =>
  total(fanArray, (m) =>
    driveSpeed(m, volts) > 0 ? fanCurrent(m, volts, duty) : m.fan.ratedA === null ? null : 0,
  )
/**
 * Start current of all fans together, A; null where one is not known.
 * @param volts V
 */
export const arrayStart = (fanArray: FanArray, volts: number) =>
  total(fanArray, (m) => fanStartCurrent(m, volts))

/** Lowest of the members' allowed maxima, highest of their start voltages and allowed minima, V: what the whole group stands and needs. */
export function arrayLimits({ groups }: FanArray) {
  const most = (of: (model: FanModel) => number) =>
    groups.map((g) => g.model).reduce((a, b) => (of(b) > of(a) ? b : a))
  const [max, start, min] = [most((m) => -m.maxV), most((m) => m.startV), most((m) => m.minV)]
  return {
    maxV: max.maxV,
    startV: start.startV,
    minV: min.minV,
    /** whether a sheet or a measurement says so, not an assumption */
    maxKnown: max.maxKnown,
    startKnown: start.startKnown,
    minKnown: min.minKnown,
  }
}

/** Depth that each group takes where it stands, stages behind each other added, m. */
export const groupThickness = (
  { model, count }: Pick<FanGroup, 'model' | 'count'>,
  arrangement: Arrangement,
): number => trueThickness(model.fan) * spreadOf(count, arrangement).deep

/** Depth that the fans take at one place, stages behind each other added, m. */
export function arrayThickness(fanArray: FanArray): number {
  const each = fanArray.groups.map((g) => groupThickness(g, fanArray.arrangement))
  return fanArray.arrangement === 'series' ? each.reduce((sum, d) => sum + d, 0) : Math.max(...each)
}

/** What the group costs where its fans are not owned; null where a price is not known. */
export const arrayCost = (fanArray: FanArray) => total(fanArray, (m) => (m.fan.owned ? 0 : m.fan.price))

/** What the fans weigh together, kg; null where a sheet does not say. */
export const arrayMass = (fanArray: FanArray) => total(fanArray, (m) => m.fan.massKg)

/** "2 × Sedge 80", or both groups where they are unlike. */
export function arrayName(fanArray: FanArray): string {
  const { model, count, groups } = fanArray
  if (isOfOneKind(fanArray)) return `${count} × ${model.fan.model}`
  return groups
    .map((g) => (g.count > 1 ? `${g.count} × ${g.model.fan.model}` : g.model.fan.model))
    .join(' and ')
}
