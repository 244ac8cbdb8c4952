import type { StreamPlan } from '#core/document'
import type { MountReport } from '#core/mount'
import type { FeedReport, PowerState } from '#core/supply'
import type { AirSystem } from '#core/system'
import type { DayReport } from '#core/day'

/** What the steps of a build are made from. */
export interface BuildStream {
  id: string
  name: string
  plan: StreamPlan
  system: AirSystem
  power: PowerState
  mounts: readonly MountReport[]
}
export interface Env {
  /** with its first stream in front */
  plan: StreamPlan
  streams: readonly BuildStream[]
  feed: FeedReport
  day: DayReport | null
}
/** A part of a key. */
export const slug = (id: string): string => id.replace(/[^a-z0-9-]/gi, '-').slice(0, 40)
