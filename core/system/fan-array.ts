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
import type { Arrangement, Fan, FanSelection } from '#core/document'
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

/** Fans that work together: n alike, or a pair of unlike ones (then `count` is 2). */
export interface FanArray {
  model: FanModel
  second: FanModel | null
  count: number
  arrangement: Arrangement
}
/** How a group is driven: voltage at its terminals, and the duty on its PWM wire where that is used. */
export interface ArrayDrive {
  volts: number
  duty: number | null
}

/** The group of a pick. @returns the reason where a fan cannot be computed or is gone */
export function fanArrayOf(
  selection: FanSelection,
  fans: readonly Fan[],
): { ok: true; fanArray: FanArray } | { ok: false; reason: string } {
  const models: FanModel[] = []
  for (const id of [selection.fanId, selection.secondFanId]) {
    if (id === null) continue
    const fan = fans.find((f) => f.id === id)
    if (!fan) return { ok: false, reason: 'The picked fan is no longer on the shelf.' }
    const made = modelFan(fan)
    if (!made.ok) return made
    models.push(made.model)
  }
  const count = models.length > 1 ? 2 : selection.count
  return {
    ok: true,
    fanArray: {
      model: models[0]!,
      second: models[1] ?? null,
      count,
      arrangement: arrangementOf(count, selection.arrangement),
    },
  }
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
export const membersOf = ({ model, second, count }: FanArray): FanModel[] =>
  second ? [model, second] : Array.from({ length: count }, () => model)

/** A group as the solver wants it: one curve and how it is scaled. */
export interface DrivenArray {
  curve: FanCurve
  drive: Drive
}

/**
 * The curve of a group as driven on a site. Alike fans are one curve with a scale; an unlike pair is combined point by point.
 * @returns null where nothing turns or the pair has no common curve
 */
export function drivenArray(
  fanArray: FanArray,
  { volts, duty }: ArrayDrive,
  air: AirState,
  which: CurveEnd = 'middle',
): DrivenArray | null {
  const { model, second, count, arrangement } = fanArray
  const speed = drivenSpeed(model, volts, duty)
  if (!second)
    return speed > 0
      ? {
          curve: curveAt(model, volts, which),
          drive: driveOf(
            air,
            speed,
            count,
            addsPressure(arrangement) ? 'series' : arrangement === 'single' ? 'single' : 'parallel',
          ),
        }
      : null
  const driven = [model, second].map((m) => {
    const s = drivenSpeed(m, volts, duty)
    return s > 0 ? scaleCurve(curveAt(m, volts, which), s, s ** 2 * air.densityRatio) : null
  })
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
function total({ model, second, count }: FanArray, of: (model: FanModel) => number | null): number | null {
  const first = of(model)
  if (!second) return first === null ? null : count * first
  const other = of(second)
  return first === null || other === null ? null : first + other
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
export const arrayLimits = ({ model, second }: FanArray) => ({
  maxV: Math.min(model.maxV, second?.maxV ?? Infinity),
  startV: Math.max(model.startV, second?.startV ?? 0),
  minV: Math.max(model.minV, second?.minV ?? 0),
  /** whether a sheet or a measurement says so, not an assumption */
  maxKnown: (second && second.maxV < model.maxV ? second : model).maxKnown,
  startKnown: (second && second.startV > model.startV ? second : model).startKnown,
  minKnown: (second && second.minV > model.minV ? second : model).minKnown,
})

/** Depth that the group takes at one place, stages behind each other added, m. */
export function arrayThickness(fanArray: FanArray): number {
  const first = trueThickness(fanArray.model.fan)
  const other = fanArray.second ? trueThickness(fanArray.second.fan) : first
  return fanArray.arrangement !== 'series'
    ? Math.max(first, other)
    : fanArray.second
      ? first + other
      : fanArray.count * first
}

/** What the group costs where its fans are not owned; null where a price is not known. */
export const arrayCost = (fanArray: FanArray) => total(fanArray, (m) => (m.fan.owned ? 0 : m.fan.price))

/** "2 × Sedge 80", or the two names of a pair. */
export const arrayName = (fanArray: FanArray) =>
  fanArray.second
    ? `${fanArray.model.fan.model} and ${fanArray.second.fan.model}`
    : `${fanArray.count} × ${fanArray.model.fan.model}`
