import { expose } from 'comlink'
import {
  adviceOf,
  ambientDay,
  compareSchools,
  dayModel,
  drawnDays,
  DRAWS,
  quietestCurve,
  runDay,
  replay,
  runWeek,
  thinned,
  viewOf,
  type Advice,
  type AmbientDay,
  type DayModel,
  type DayStream,
  type DayView,
  type DoubtedDay,
  type Lane,
  type Replay,
  type Quietest,
  type SchoolRow,
} from '#core/day'
import type { Channel, LogData } from '#core/measure'
import { dayKinds, type DayKind, type PlanInput } from '#core/document'
import { readBlocks } from '#shared/log-blocks'
import { dayStreamsOf } from '#core/plan'

/** A thin wrapper: the computing itself is the core's. What was worked out of a plan is kept until another one comes. */
let last: { key: string; streams: DayStream[]; model: DayModel } | null = null
function modelOf(input: PlanInput): { streams: DayStream[]; model: DayModel } | null {
  const key = JSON.stringify(input)
  if (last?.key === key) return last
  const streams = dayStreamsOf(input)
  if (!streams.some((s) => s.operation.candidate)) return null
  last = { key, streams, model: dayModel(input.plan, streams) }
  return last
}
/** All samples of a log, fetched part by part; null where it cannot be read. */
async function logOf(id: string, channels: readonly Channel[]): Promise<LogData | null> {
  let held: { log: LogData; last: number } | null = null
  for (let more = true; more;) {
    const response: Response = await fetch(`/api/logs/${id}/data?after=${held?.last ?? -1}`)
    if (!response.ok) return null
    more = response.headers.get('x-more') === '1'
    const buffer = await response.arrayBuffer()
    if (!buffer.byteLength) break
    held = readBlocks(buffer, channels, held)
  }
  return held && held.log.times.length > 1 ? held.log : null
}
/** A day, the three kinds side by side, or a week. */
export type ShownDay = DayKind | 'three' | 'week'

/** Told now and then, not after each. */
const EVERY = 10
const COLUMNS = 720

const worker = {
  day(input: PlanInput, kind: ShownDay, columns: number): DayView | null {
    const made = modelOf(input)
    if (!made) return null
    const { model } = made
    const runs =
      kind === 'week'
        ? runWeek(model)
        : kind === 'three'
          ? dayKinds.map((k) => runDay(model, k))
          : [runDay(model, kind)]
    return viewOf(model, runs, columns)
  },
  /** What forms and editor read: the model, and what the formulas say of the control in front. */
  model(input: PlanInput, index: number): { model: DayModel; advice: Advice | null } | null {
    const made = modelOf(input)
    return made && { model: made.model, advice: adviceOf(input.plan, made.model, index, made.streams) }
  },
  schools(input: PlanInput, index: number): SchoolRow[] {
    const made = modelOf(input)
    return made ? compareSchools(input.plan, made.model, index, made.streams) : []
  },
  drawn(input: PlanInput, kind: DayKind, onDone: (share: number) => void): DoubtedDay | null {
    const made = modelOf(input)
    if (!made) return null
    return drawnDays(made.model, kind, made.streams, DRAWS, (done) => {
      if (done % EVERY === 0) onDone(done / DRAWS)
      return false
    })
  },
  /** @param temperature channel of the log that stands for the sensor; duty: that of the real controller */
  async replay(
    input: PlanInput,
    index: number,
    logId: string,
    channels: Channel[],
    temperature: number,
    duty: number | null,
  ): Promise<ReplayView | null> {
    const settings = modelOf(input)?.model.groups[index]?.settings
    const held = settings ? await logOf(logId, channels) : null
    if (!settings || !held) return null
    const { times } = held
    const temperatureC = held.channels[temperature]!.values
    const dutyLogged = duty === null ? null : held.channels[duty]!.values
    const made = replay(settings, { timesS: times, temperatureC, dutyLogged })
    const lane = (list: ArrayLike<number>) => thinned([Float64Array.from(list)], COLUMNS)
    return {
      seconds: times.at(-1)! - times[0]!,
      temperature: lane(temperatureC),
      planned: lane(made.duty),
      logged: dutyLogged && lane(dutyLogged),
      onS: made.onS,
      starts: made.starts,
      gaps: made.gaps,
      offBy: made.offBy,
    }
  },
  /** A day of air from a log. @param beganS when it began, s after midnight */
  async ambient(
    logId: string,
    channels: Channel[],
    channel: number,
    beganS: number,
  ): Promise<AmbientDay | null> {
    const log = await logOf(logId, channels)
    return log && ambientDay(log.times, log.channels[channel]!.values, beganS)
  },
  quietest(input: PlanInput, index: number, onDone: (share: number) => void): Quietest | null {
    const made = modelOf(input)
    if (!made) return null
    return quietestCurve(made.model, index, made.streams, (done, of) => {
      if (done % EVERY === 0) onDone(done / of)
      return false
    })
  },
}
/** A logged run through the control in front, thinned for its drawing. */
export interface ReplayView {
  seconds: number
  temperature: Lane
  planned: Lane
  logged: Lane | null
  onS: number
  starts: number
  gaps: Replay['gaps']
  offBy: number | null
}
export type DayWorker = typeof worker
expose(worker)
