import { fansIn, samePlace, type Run } from '#core/document'
import { atSpeed, sumLevels } from '#core/noise'
import { drivenSpeed } from '#core/system'
import type { RankedStage } from '#core/verification'
import type { MachineSound } from './machine-sound'
import type { StreamSummary } from './stream-summary'

/** What the planned fans make in each stage of a run, beside what was read there. */

export interface StageSound {
  stage: string
  /** the fans of every air stream; level in dB(A) at the listener, null: off, or not known */
  fans: { id: string; name: string; off: boolean; noted: boolean; level: number | null }[]
  /** the fans that are known to run, with every other source that was read, dB(A); null where none is known */
  total: number | null
  /** streams whose fans run and are not in the sum */
  unknown: string[]
}

/**
 * The level of a stream's fans at the voltage and duty that a stage noted: the planned level taken there by the fan sound
 * law, L + 50·lg(n₂/n₁); the path is the same, so that the fans stay at their place on the curve.
 * Reference: fan sound law; docs/physics.md, noise
 */
function levelAt(
  { fanArray, volts, duty }: StreamSummary,
  level: number | null,
  state: { volts: number | null; duty: number | null },
): number | null {
  if (level === null || (state.volts === null && state.duty === null)) return level
  if (!fanArray || volts === null) return null
  const planned = drivenSpeed(fanArray.model, volts, duty)
  return planned > 0
    ? atSpeed(level, planned, drivenSpeed(fanArray.model, state.volts ?? volts, state.duty ?? duty))
    : null
}

/**
 * Prediction by stage. Where a run notes what the fans did there, that counts; else they run as planned.
 * @param runs of one state, the latest last
 * @param stages as read, with the sources that were read alone
 */
export function soundByStage(
  { streams, sound }: { streams: readonly StreamSummary[]; sound: MachineSound },
  runs: readonly Run[],
  stages: readonly RankedStage[],
): StageSound[] {
  return stages.map(({ stage, cells }) => {
    const fans = streams.map((s) => {
      const { level } = sound.sources.find((x) => x.id === s.id)!
      const noted = runs.findLast((run) => fansIn(run, stage).some((f) => f.streamId === s.id))
      const state = noted && fansIn(noted, stage).find((f) => f.streamId === s.id)
      const off = state?.off === true
      return {
        id: s.id,
        name: s.name,
        off,
        noted: state !== undefined,
        level: off ? null : state ? levelAt(s, level, state) : level,
      }
    })
    const others = cells.flatMap((c) =>
      c.level === null || fans.some((f) => samePlace(f.name, c.source)) ? [] : [c.level],
    )
    const known = fans.flatMap((f) => (f.level === null ? [] : [f.level]))
    return {
      stage,
      fans,
      total: known.length ? sumLevels([...known, ...others]) : null,
      unknown: fans.filter((f) => f.level === null && !f.off).map((f) => f.name),
    }
  })
}
