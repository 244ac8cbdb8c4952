import type { FanTable } from '#core/control'
import { type Control, dutyOf } from '#core/document'
import { runningAt } from '#core/selection'
import { drivenV, type ArrayDrive, type FanArray } from '#core/system'
import { usesWire } from './controls'
import type { DayStream } from './streams'

/** Flow, level and power of the fans over the duty, each at its own operating point: nothing is taken as proportional. */

/** Steps of a table, 0 to 100 %. */
const POINTS = 41

/** The drive that a duty means: on the PWM wire, or as a share of the voltage that the plan drives with. */
function driveAt(
  { plan, operation: { candidate } }: DayStream,
  fanArray: FanArray,
  control: Control,
  duty: number,
): ArrayDrive {
  const volts = candidate?.driveV ?? drivenV(plan, fanArray)
  const planned = dutyOf(plan)
  return usesWire(control, plan) ? { volts, duty } : { volts: duty * volts, duty: planned }
}

/** The duty that the plan drives a stream with: that of its PWM wire, else all of its voltage. */
export const plannedDuty = (streams: readonly DayStream[], control: Control): number =>
  Math.max(0, ...streams.map(({ plan }) => (usesWire(control, plan) ? (dutyOf(plan) ?? 1) : 1)))

/**
 * What one stream's fans do at a duty.
 * @param duty 0..1
 */
export function atDuty(stream: DayStream, control: Control, duty: number) {
  const { fanArray } = stream.system
  return duty > 0 && fanArray && stream.system.path.complete
    ? runningAt(stream.context, fanArray, driveAt(stream, fanArray, control, duty))
    : { flow: 0, levelDbA: -Infinity, powerW: 0 }
}

/** Flow, level and power of a group over its duty, 0 to 100 %. */
export type DutyTable = FanTable & { flowM3s: number[] }

/** The table of a group: flows and powers of its streams added, levels by their energy. Yields after every row. */
export function* tableSteps(streams: readonly DayStream[], control: Control): Generator<void, DutyTable> {
  const rows: { flow: number; level: number; power: number }[] = []
  for (let i = 0; i < POINTS; i++) {
    const each = streams.map((s) => atDuty(s, control, i / (POINTS - 1)))
    rows.push({
      flow: each.reduce((sum, r) => sum + r.flow, 0),
      level: 10 * Math.log10(each.reduce((sum, r) => sum + 10 ** (r.levelDbA / 10), 0)),
      power: each.reduce((sum, r) => sum + r.powerW, 0),
    })
    yield
  }
  return {
    flowM3s: rows.map((r) => r.flow),
    levelDbA: rows.map((r) => r.level),
    powerW: rows.map((r) => r.power),
  }
}
