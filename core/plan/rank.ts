import type { Fan, Arrangement } from './document'
import { evaluateCandidate, quickLook, START_MARGIN, type Candidate, type Context } from './candidate'
import { modelFan, type FanModel } from './fan'

export type Objective = 'quietest' | 'margin' | 'cheapest' | 'power' | 'thinnest' | 'loudness' | 'value'

export interface RankOptions {
  objective: Objective
  /** fans side by side to try, and whether to try two in series */
  counts: readonly number[]
  series: boolean
  /** how many voltages to try between the safe start and rated */
  levels: number
  /** only this voltage, where the drive cannot be chosen */
  fixedV: number | null
}

export const defaultRank: RankOptions = { objective: 'quietest', counts: [1, 2, 3, 4], series: true, levels: 10, fixedV: null }

export interface Ranking {
  rows: Candidate[]
  /** fans that could not be computed, with the reason */
  skipped: { fanId: string, name: string, reason: string }[]
  /** how many combinations were looked at */
  looked: number
}

/** Voltages to try: from 1.2 times the start voltage to rated, rounded to what a meter can be set to. */
export function driveLevels(model: FanModel, levels: number): number[] {
  const { ratedV } = model.fan
  const low = Math.min(ratedV, Math.max(model.minV, START_MARGIN * model.startV))
  const volts = Array.from({ length: levels }, (_, i) => Math.ceil((low + (ratedV - low) * i / Math.max(1, levels - 1)) * 10 - 1e-6) / 10)
  return [...new Set(volts.map(v => Math.min(v, ratedV)))]
}

/** Smaller is better. */
const score: Record<Objective, (c: Candidate) => number> = {
  quietest: c => c.level?.value ?? 1e3,
  margin: c => -(c.margin ?? -1),
  cheapest: c => c.cost ?? 1e6,
  power: c => c.powerW ?? 1e3,
  thinnest: c => c.thicknessM,
  loudness: c => c.flow === null || c.level === null ? 1e3 : loudness(c.level.value) / c.flow,
  value: c => c.flow === null || c.cost === null ? 1e6 : c.cost / c.flow,
}

/** Perceived loudness against 40 dB(A): twice for each 10 dB. Common practice (sone rule of ISO 131, used on dB(A)). */
const loudness = (level: number) => 2 ** ((level - 40) / 10)

/** Groups that no other beats in both airflow and quiet. */
export function paretoFront(rows: readonly Candidate[]): Candidate[] {
  const sorted = rows.filter(c => c.flow !== null && c.level !== null).toSorted((a, b) => b.flow! - a.flow! || a.level!.value - b.level!.value)
  const front: Candidate[] = []
  let quietest = Infinity
  for (const c of sorted) {
    if (c.level!.value >= quietest) continue
    quietest = c.level!.value
    front.push(c)
  }
  return front
}

const verdictOrder = { good: 0, warn: 1, fail: 2 }

/** Rows that meet the need come first; among failing ones the nearest miss. */
export function compareCandidates(objective: Objective): (a: Candidate, b: Candidate) => number {
  return (a, b) => {
    const usable = (c: Candidate) => c.verdict === 'fail' ? 1 : 0
    if (usable(a) !== usable(b)) return usable(a) - usable(b)
    if (a.verdict === 'fail') return (b.margin ?? -1) - (a.margin ?? -1)
    return score[objective](a) - score[objective](b) || verdictOrder[a.verdict] - verdictOrder[b.verdict] || a.count - b.count || (a.cost ?? 1e6) - (b.cost ?? 1e6)
  }
}

/** Which drive level of one fan and count to show: the lowest that gives the planned flow, or full voltage. */
function chooseLevel(context: Context, model: FanModel, count: number, arrangement: Arrangement, options: RankOptions): number {
  if (options.fixedV !== null) return options.fixedV
  const { ratedV } = model.fan
  const levels = driveLevels(model, options.levels)
  const look = (volts: number) => quickLook(context, model, count, arrangement, volts)
  if (options.objective === 'margin') {
    const limit = context.levelLimit
    if (limit === null) return ratedV
    const tooLoud = firstThat(levels, v => (look(v).level ?? 0) > limit)
    return tooLoud === 0 ? ratedV : levels[tooLoud - 1]!
  }
  const wanted = context.designFlow
  return wanted === null ? ratedV : levels[firstThat(levels, v => look(v).flow >= wanted)] ?? ratedV
}

/** Index of the first level that passes a test which, once passed, stays passed (flow and level rise with voltage); the length when none does. */
function firstThat(levels: readonly number[], test: (volts: number) => boolean): number {
  let low = 0
  let high = levels.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (test(levels[middle]!)) high = middle
    else low = middle + 1
  }
  return low
}

/**
 * Ranks a shelf on a job: every fan, count and arrangement at the drive level that suits the objective.
 * Flow rises with voltage, so the first level that suffices is the quietest and the least power.
 */
export function rankShelf(context: Context, fans: readonly Fan[], options: RankOptions = defaultRank): Ranking {
  const rows: Candidate[] = []
  const skipped: Ranking['skipped'] = []
  let looked = 0
  for (const fan of fans) {
    const made = modelFan(fan)
    if (!made.ok) {
      skipped.push({ fanId: fan.id, name: `${fan.maker} ${fan.model}`, reason: made.reason })
      continue
    }
    const groups: { count: number, arrangement: Arrangement }[] = options.counts.map(count => ({ count, arrangement: count === 1 ? 'single' : 'parallel' }))
    if (options.series) groups.push({ count: 2, arrangement: 'series' })
    for (const { count, arrangement } of groups) {
      looked += options.fixedV === null ? options.levels : 1
      const volts = chooseLevel(context, made.model, count, arrangement, options)
      rows.push(evaluateCandidate(context, made.model, count, arrangement, volts))
    }
  }
  rows.sort(compareCandidates(options.objective))
  return { rows, skipped, looked }
}
