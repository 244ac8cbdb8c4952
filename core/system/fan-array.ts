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
import type { Arrangement, Fan, Pick } from '#core/document'
import {
  curveAt,
  driveSpeed,
  drivenSpeed,
  fanCurrent,
  fanStartCurrent,
  modelFan,
  trueThickness,
  type FanModel,
} from './fan-model'
import { driveOf } from './operating-point'

/** Fans that work together: n alike, or a pair of unlike ones (then `count` is 2). */
export interface Group {
  model: FanModel
  second: FanModel | null
  count: number
  arrangement: Arrangement
}
/** How a group is driven: voltage at its terminals, and the duty on its PWM wire where that is used. */
export interface GroupDrive {
  volts: number
  duty: number | null
}

/** The group of a pick. @returns the reason where a fan cannot be computed or is gone */
export function groupOf(
  pick: Pick,
  fans: readonly Fan[],
): { ok: true; group: Group } | { ok: false; reason: string } {
  const models: FanModel[] = []
  for (const id of [pick.fanId, pick.secondFanId]) {
    if (id === null) continue
    const fan = fans.find((f) => f.id === id)
    if (!fan) return { ok: false, reason: 'The picked fan is no longer on the shelf.' }
    const made = modelFan(fan)
    if (!made.ok) return made
    models.push(made.model)
  }
  const count = models.length > 1 ? 2 : pick.count
  return {
    ok: true,
    group: {
      model: models[0]!,
      second: models[1] ?? null,
      count,
      arrangement: arrangementOf(count, pick.arrangement),
    },
  }
}

export const arrangementOf = (count: number, arrangement: Arrangement): Arrangement =>
  count === 1 ? 'single' : arrangement === 'single' ? 'parallel' : arrangement
/** Whether the pressures of the members add: one behind the other, at one place or at two. */
export const addsPressure = (arrangement: Arrangement) => arrangement === 'series' || arrangement === 'places'

export const membersOf = ({ model, second, count }: Group): FanModel[] =>
  second ? [model, second] : Array.from({ length: count }, () => model)

/** A group as the solver wants it: one curve and how it is scaled. */
export interface DrivenGroup {
  curve: FanCurve
  drive: Drive
}

/**
 * The curve of a group as driven on a site. Alike fans are one curve with a scale; an unlike pair is combined point by point.
 * @returns null where nothing turns or the pair has no common curve
 */
export function drivenGroup(
  group: Group,
  { volts, duty }: GroupDrive,
  air: AirState,
  which: 'low' | 'middle' | 'high' = 'middle',
): DrivenGroup | null {
  const { model, second, count, arrangement } = group
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
export const endsOf = ({ curve, drive }: DrivenGroup) => ({
  free: lastFlow(curve) * drive.speed * drive.parallel,
  highest: highestPressure(curve) * drive.speed ** 2 * drive.densityRatio * drive.series,
})

/** Smallest highest pressure among the members as driven, Pa. */
export const weakestPressure = (group: Group, { volts, duty }: GroupDrive, air: AirState) =>
  Math.min(
    ...membersOf(group).map(
      (m) => highestPressure(curveAt(m, volts, 'middle')) * drivenSpeed(m, volts, duty) ** 2 * air.densityRatio,
    ),
  )

/** A value of all members together; null where one is not known. */
function total({ model, second, count }: Group, of: (model: FanModel) => number | null): number | null {
  const first = of(model)
  if (!second) return first === null ? null : count * first
  const other = of(second)
  return first === null || other === null ? null : first + other
}
/** Running and start current of all members, A; null where one is not known. */
export const groupCurrent = (group: Group, { volts, duty }: GroupDrive) =>
  total(group, (m) =>
    driveSpeed(m, volts) > 0 ? fanCurrent(m, volts, duty) : m.fan.ratedA === null ? null : 0,
  )
export const groupStart = (group: Group, volts: number) => total(group, (m) => fanStartCurrent(m, volts))

/** Lowest of the members' allowed maxima, highest of their start voltages and allowed minima, V: what the whole group stands and needs. */
export const groupLimits = ({ model, second }: Group) => ({
  maxV: Math.min(model.maxV, second?.maxV ?? Infinity),
  startV: Math.max(model.startV, second?.startV ?? 0),
  minV: Math.max(model.minV, second?.minV ?? 0),
})

/** Depth that the group takes at one place, stages behind each other added, m. */
export function groupThickness(group: Group): number {
  const first = trueThickness(group.model.fan)
  const other = group.second ? trueThickness(group.second.fan) : first
  return group.arrangement !== 'series'
    ? Math.max(first, other)
    : group.second
      ? first + other
      : group.count * first
}

/** What the group costs where its fans are not owned; null where a price is not known. */
export const groupCost = (group: Group) => total(group, (m) => (m.fan.owned ? 0 : m.fan.price))

/** "2 × Sedge 80", or the two names of a pair. */
export const groupName = (group: Group) =>
  group.second
    ? `${group.model.fan.model} and ${group.second.fan.model}`
    : `${group.count} × ${group.model.fan.model}`
