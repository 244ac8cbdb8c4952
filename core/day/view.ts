import type { DayKind } from '#core/document'
import type { DayModel } from './model'
import type { DayRun, DaySummary } from './run'

/** Days thinned to so many columns as a drawing has room for: least and most of each, so that no peak is lost. */

export interface Lane {
  low: Float32Array
  high: Float32Array
}
export interface DayView {
  kinds: DayKind[]
  /** whether they are a week, or the kinds side by side */
  together: 'week' | 'kinds'
  /** s that all of it lasts, and of a step */
  seconds: number
  stepS: number
  columns: number
  parts: { id: string; name: string; limitC: number | null; lane: Lane }[]
  ambient: Lane
  load: Lane
  groups: { name: string; duty: Lane; flow: Lane; sensor: Lane; problem: string }[]
  /** all fans together; NaN: silent */
  level: Lane
  charge: Lane | null
  summaries: DaySummary[]
}

/** Least and most of every column over lanes that follow each other. @param columns how many, 1 or more */
export function thinned(lists: readonly Float64Array[], columns: number): Lane {
  const total = lists.reduce((n, l) => n + l.length, 0)
  const low = new Float32Array(columns).fill(NaN)
  const high = new Float32Array(columns).fill(NaN)
  let at = 0
  for (const list of lists)
    for (const value of list) {
      const c = Math.min(columns - 1, Math.floor((at * columns) / total))
      at++
      if (!Number.isFinite(value)) continue
      if (!(low[c]! <= value)) low[c] = value
      if (!(high[c]! >= value)) high[c] = value
    }
  return { low, high }
}

/** Days one after the other as a drawing shows them. @param columns how many, 1 or more */
export function viewOf(model: DayModel, runs: readonly DayRun[], columns: number): DayView {
  const lane = (of: (run: DayRun) => Float64Array) => thinned(runs.map(of), columns)
  const first = runs[0]!
  const { stepS } = first.lanes
  return {
    kinds: runs.map((r) => r.kind),
    together: runs.length === 3 && new Set(runs.map((r) => r.kind)).size === 3 ? 'kinds' : 'week',
    seconds: runs.reduce((s, r) => s + r.lanes.levelDbA.length * stepS, 0),
    stepS,
    columns,
    parts: model.parts.map(({ id, name, limitC }, i) => ({
      id,
      name,
      limitC,
      lane: lane((r) => r.lanes.parts[i]!),
    })),
    ambient: lane((r) => r.lanes.ambientC),
    load: lane((r) => r.lanes.loadW),
    groups: model.groups.map((g, i) => ({
      name: g.name,
      problem: g.problem?.message ?? '',
      duty: lane((r) => r.lanes.groups[i]!.duty),
      flow: lane((r) => r.lanes.groups[i]!.flowM3s),
      sensor: lane((r) => r.lanes.groups[i]!.sensorC),
    })),
    level: lane((r) => r.lanes.levelDbA),
    charge: first.charge ? lane((r) => r.charge!) : null,
    summaries: runs.map((r) => r.summary),
  }
}
