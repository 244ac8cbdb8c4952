/** Logs of the invented workshop, made by the stand-in box: a closed box that warms up, its fan that cools it, a fan that is stopped. */
import { channelOf, type BenchRow, type Channel } from '#core/measure'
import type { NewLog } from '#shared/schemas/log'
import { boxOf, makeBox, type BoxControls } from '../server/simulator/bench-box'
import { demoFans } from './fans'
import { demoPlan } from './jobs'

export interface DemoLog {
  jobId: string
  log: NewLog
  times: number[]
  columns: number[][]
}

const controls = (volts: number): BoxControls => ({
  volts,
  doorOpen: false,
  tachPulled: false,
  dropouts: 0.004,
  noise: 1,
})

function logOf(jobId: string, id: string, name: string, startedAt: string, rows: BenchRow[]): DemoLog {
  const raw = [...new Set(rows.flatMap((r) => Object.keys(r.values)))]
  const named = raw.map(channelOf)
  const channels: Channel[] = named.map((c) => ({ name: c.name, quantity: c.quantity }))
  return {
    jobId,
    log: { id, name, origin: 'imported', startedAt, instrumentId: null, channels, remarks: '' },
    times: rows.map((r) => r.ms / 1000),
    columns: raw.map((key, i) =>
      rows.map((r) => {
        const value = r.values[key]
        return value === null || value === undefined || value < -100
          ? NaN
          : value * named[i]!.factor + named[i]!.offset
      }),
    ),
  }
}

export function demoLogs(): DemoLog[] {
  const of = (id: string) => demoPlan(id)
  const kiln = makeBox(boxOf(of('job-kiln-controller'), demoFans, 'as-found'), controls(0), 7)
  const film = of('job-film-cabinet')
  const setting = boxOf(film, demoFans, 'as-planned')
  const cabinet = makeBox(setting, controls(setting.fan?.atV ?? 12), 12)
  const before = cabinet.advance(900, 1)
  // a wire is pulled for a minute: the fans stand although the supply is on
  cabinet.controls.tachPulled = true
  const pulled = cabinet.advance(60, 1)
  cabinet.controls.tachPulled = false
  return [
    logOf(
      'job-kiln-controller',
      'log-kiln-firing',
      'Closed box, first 18 minutes of a firing',
      '2026-11-15T12:00:00.000Z',
      kiln.advance(1080, 0.5),
    ),
    logOf(
      'job-film-cabinet',
      'log-film-after',
      'Two fans, with the tach wire pulled once',
      '2026-09-20T17:00:00.000Z',
      [...before, ...pulled, ...cabinet.advance(900, 1)],
    ),
  ]
}
