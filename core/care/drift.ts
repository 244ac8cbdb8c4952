import {
  heatAt,
  readingMean,
  samePlace,
  stageOf,
  type StreamPlan,
  type Reading,
  type Run,
} from '#core/document'
import type { Quantity } from '#core/units'

/**
 * What drifted since the build: runs of the same state, taken the same way, against the first one. Like is held against
 * like: the same place, stage, source, load, voltage and distance. Handbook build 5, re-measure drift.
 */

export type DriftKind = 'speed' | 'current' | 'rise' | 'level'
interface DriftRule {
  kind: DriftKind
  name: string
  /** share, or dB for the level; the sign says which way is worse */
  limit: number
  means: string
  /** it is told only where the load was noted alike */
  needsLoad: boolean
}
const rules: readonly DriftRule[] = [
  {
    kind: 'speed',
    name: 'Speed',
    limit: -0.1,
    means: 'Dust on the blades, or a bearing: clean it; if it stays, replace the fan.',
    needsLoad: false,
  },
  {
    kind: 'current',
    name: 'Current',
    limit: 0.2,
    means: 'A bearing, or dirt that brakes: clean it; if it stays, have a spare ready.',
    needsLoad: false,
  },
  {
    kind: 'rise',
    name: 'Rise over the room',
    limit: 0.15,
    means: 'Less air: a loaded filter, dust, something in front of an opening.',
    needsLoad: true,
  },
  {
    kind: 'level',
    name: 'Level',
    limit: 3,
    means: 'A bearing, blades out of balance by dust, or a guard that has come loose.',
    needsLoad: false,
  },
]
/** Voltages and loads count as the same within this share; distances as well. Common practice, no source. */
const SAME_SHARE = 0.03
const SAME_LOAD = 0.1

/** Runs so near to the first one are repeats of it, not what became of it. A choice of ours: the handbook says a month. */
const APART_MS = 14 * 86_400_000

export interface DriftRow {
  kind: DriftKind
  name: string
  place: string
  quantity: Quantity
  before: number
  after: number
  /** share of the first one, or dB */
  change: number
  limit: number
  state: 'held' | 'drifted'
  /** what it means and what to do, where it drifted */
  means: string
}
export interface DriftReport {
  /** the run that everything is held against; null without one after the change */
  first: Run | null
  /** the run that was compared; null without a second one of the same state */
  latest: Run | null
  rows: DriftRow[]
  /** readings that have a partner, and why they are not compared */
  unlike: string[]
}

const kindOf = (r: Reading): DriftKind | null =>
  r.quantity === 'rotation'
    ? 'speed'
    : r.quantity === 'current'
      ? 'current'
      : r.quantity === 'temperature'
        ? 'rise'
        : r.quantity === 'level'
          ? 'level'
          : null
const near = (a: number, b: number, share: number) =>
  Math.abs(a - b) <= share * Math.max(Math.abs(a), Math.abs(b))

/** Why two readings are no like ones; '' where they are. */
function unlikeWords(rule: DriftRule, [a, ra]: [Run, Reading], [b, rb]: [Run, Reading]): string {
  if (a.fanV === null || b.fanV === null) return 'the voltage at the fan was not noted in both'
  if (!near(a.fanV, b.fanV, SAME_SHARE)) return 'the voltage at the fan was another one'
  if (rule.kind === 'level') {
    if (a.distanceM === null || b.distanceM === null) return 'the distance was not noted in both'
    if (!near(a.distanceM, b.distanceM, SAME_SHARE)) return 'it was read at another distance'
    if (a.instrument !== b.instrument) return 'it was read with another kind of instrument'
  }
  if (!rule.needsLoad) return ''
  const [x, y] = [heatAt(a, ra), heatAt(b, rb)]
  if (x === null || y === null) return 'the load was not noted in both'
  if (!near(x, y, SAME_LOAD)) return 'the load was another one'
  if (a.ambientC === null || b.ambientC === null) return 'the room’s temperature was not noted in both'
  return ''
}
const valueOf = (kind: DriftKind, run: Run, r: Reading) =>
  readingMean(r) - (kind === 'rise' ? run.ambientC! : 0)
/** The least that a rise or a speed must be for its change to be told. A choice of ours: below it is the probe's noise. */
const LEAST: Record<DriftKind, number> = { speed: 60, current: 0.005, rise: 2, level: -Infinity }
const quantities: Record<DriftKind, Quantity> = {
  speed: 'rotation',
  current: 'current',
  rise: 'temperatureDifference',
  level: 'level',
}

/** The last state of the equipment: what changed since its first run. */
export function driftReport({ runs }: Pick<StreamPlan, 'runs'>): DriftReport {
  const after = runs
    .filter((r) => r.kind === 'after' && r.readings.length)
    .toSorted((a, b) => a.takenAt.localeCompare(b.takenAt))
  const lastChange = Math.max(...after.map((r) => r.changeNo ?? 1))
  const own = after.filter((r) => (r.changeNo ?? 1) === lastChange)
  const [first = null, ...later] = own
  const latest =
    later.filter((r) => Date.parse(r.takenAt) - Date.parse(first!.takenAt) >= APART_MS).at(-1) ?? null
  const rows: DriftRow[] = []
  const unlike: string[] = []
  for (const r of first && latest ? first.readings : []) {
    const rule = rules.find((x) => x.kind === kindOf(r))
    const partner = latest!.readings.find(
      (x) =>
        x.quantity === r.quantity &&
        samePlace(x.place, r.place) &&
        samePlace(x.source, r.source) &&
        samePlace(stageOf(latest!, x), stageOf(first!, r)),
    )
    if (!rule || !partner) continue
    const why = unlikeWords(rule, [first!, r], [latest!, partner])
    const place = r.place || 'place not said'
    if (why) {
      unlike.push(`${rule.name}, ${place}: ${why}.`)
      continue
    }
    const [before, now] = [valueOf(rule.kind, first!, r), valueOf(rule.kind, latest!, partner)]
    if (before < LEAST[rule.kind]) {
      unlike.push(`${rule.name}, ${place}: too small to tell a change.`)
      continue
    }
    const change = rule.kind === 'level' ? now - before : now / before - 1
    const drifted = rule.limit < 0 ? change <= rule.limit : change >= rule.limit
    rows.push({
      kind: rule.kind,
      name: rule.name,
      place,
      quantity: quantities[rule.kind],
      before,
      after: now,
      change,
      limit: rule.limit,
      state: drifted ? 'drifted' : 'held',
      means: drifted ? rule.means : '',
    })
  }
  return { first, latest, rows, unlike }
}
