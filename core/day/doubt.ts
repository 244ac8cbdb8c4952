import { splitNormalAt, stratified } from '#core/numeric'
import type { DayKind } from '#core/document'
import type { DayModel } from './model'
import { runDay } from './run'
import type { DayStream } from './streams'

/** Between what a day lies, 95 times in 100: the plan's doubts drawn, the day run for each. */

export interface DayRange {
  low: number
  high: number
}
export interface DoubtedDay {
  peakC: DayRange[]
  leqDbA: DayRange
  /** J a day at the fans */
  energyJ: DayRange
  onS: DayRange[]
  /** share of the drawn days in which every part stays below its limit; null where none has one */
  holds: number | null
  draws: number
}

/** Standing in for what nobody measured: how far heat passed on and stored may be off, 95 times in 100, as a factor. */
const OF_CONDUCTANCE = { assumed: 1.5, typed: 1.25, measured: 1.1 } as const
const OF_CAPACITY = { assumed: 2, typed: 1.3, measured: 1.15 } as const
/** The same of the load, where its basis is a guess or a reading; and of the air around, K. Common practice, no source. */
const OF_LOAD = 1.15
const AMBIENT_K = 1
const ENDS = { low: 0.025, high: 0.975 } as const
export const DRAWS = 200

/** The two ends of the middle 95 of 100, by the sorted draws. */
function ends(values: readonly number[]): DayRange {
  const sorted = values.toSorted((a, b) => a - b)
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(share * (sorted.length - 1))))]!
  return { low: at(ENDS.low), high: at(ENDS.high) }
}

const worstBasis = ({ parts }: DayModel) =>
  parts.some((p) => p.basis === 'assumed')
    ? 'assumed'
    : parts.some((p) => p.basis === 'typed')
      ? 'typed'
      : 'measured'

/**
 * Many days drawn from the plan's doubts.
 * @param onDraw called after each; returning true ends it early
 * @returns null where it was ended
 */
export function drawnDays(
  model: DayModel,
  kind: DayKind,
  streams: readonly DayStream[],
  draws = DRAWS,
  onDraw?: (done: number) => boolean,
): DoubtedDay | null {
  const basis = worstBasis(model)
  const factor = (f: number, u: number) => Math.exp(splitNormalAt(0, -Math.log(f), Math.log(f), u))
  const candidate = streams[0]?.operation.candidate
  const flow = candidate?.flow
  const [low, high] = flow
    ? [Math.min(1, (candidate.flowLow ?? flow) / flow), Math.max(1, (candidate.flowHigh ?? flow) / flow)]
    : [1, 1]
  const level = candidate?.level
  const cases = stratified(draws, 18)
  const peaks = model.parts.map((): number[] => [])
  const onS = model.groups.map((): number[] => [])
  const [leqs, energies]: [number[], number[]] = [[], []]
  let held = 0
  for (let i = 0; i < draws; i++) {
    const u = cases(i)
    const drawn = {
      flow: splitNormalAt(1, low, high, u()),
      conductance: factor(OF_CONDUCTANCE[basis], u()),
      capacity: factor(OF_CAPACITY[basis], u()),
      load: factor(OF_LOAD, u()),
      ambientK: splitNormalAt(0, -AMBIENT_K, AMBIENT_K, u()),
    }
    const loud = level ? splitNormalAt(level.exact, level.low, level.high, u()) - level.exact : 0
    const { summary } = runDay(model, kind, { drawn })
    model.parts.forEach((_, p) => peaks[p]!.push(summary.peakC[p]!))
    summary.groups.forEach((g, k) => onS[k]!.push(g.onS))
    leqs.push(summary.leqDbA + loud)
    energies.push(summary.energyJ)
    if (model.parts.every((p, k) => p.limitC === null || summary.peakC[k]! <= p.limitC)) held++
    if (onDraw?.(i + 1)) return null
  }
  return {
    peakC: peaks.map(ends),
    leqDbA: ends(leqs),
    energyJ: ends(energies),
    onS: onS.map(ends),
    holds: model.parts.some((p) => p.limitC !== null) ? held / draws : null,
    draws,
  }
}
