import type { Job, StreamPlan, UncertainInput, Uncertainty, UncertaintyGrade } from '#core/document'
import { rangeBySquares } from '#core/numeric'
import { heatUncertainty } from './goals/model'

/** How far the stated numbers of a job may be off, and what that makes of a result. */

type Graded = Exclude<UncertaintyGrade, 'range' | 'assumed'>
/** Doubt of a graded number, relative; of temperatures in K. Common practice, no source. */
const gradeShare: Record<Graded, number> = {
  measured: 0.05,
  'good-guess': 0.2,
  'rough-guess': 0.5,
}
const gradeKelvin: Record<Graded, number> = {
  measured: 0.5,
  'good-guess': 2,
  'rough-guess': 5,
}
const temperatures: UncertainInput[] = ['ambientC', 'insideMaxC', 'partMaxC', 'waterC']

/** Range of an input: as typed, by its grade, or what is usual for the heat; null where it is taken as sure. */
export function inputRange(
  job: Job,
  uncertainties: readonly Uncertainty[],
  key: UncertainInput,
): [number, number] | null {
  const value = job[key]
  if (value === null) return null
  const uncertainty = uncertainties.find((d) => d.id === key)
  if (uncertainty?.grade === 'range' || uncertainty?.grade === 'assumed')
    return uncertainty.low !== null && uncertainty.high !== null
      ? [Math.min(uncertainty.low, value), Math.max(uncertainty.high, value)]
      : null
  if (uncertainty) {
    const half = temperatures.includes(key)
      ? gradeKelvin[uncertainty.grade]
      : gradeShare[uncertainty.grade] * Math.abs(value)
    return [value - half, value + half]
  }
  if (key !== 'heatW') return null
  const [low, high] = heatUncertainty[job.heatBasis]
  return [value * low, value * high]
}

/** A doubted input of a job with its range, 95 times in 100. */
export interface Doubt {
  key: UncertainInput
  range: [number, number]
}

/** The doubted ones among some inputs, with their ranges. */
export const doubtsOf = (plan: StreamPlan, keys: readonly UncertainInput[]): Doubt[] =>
  keys.flatMap((key) => {
    const range = inputRange(plan.job, plan.uncertainties, key)
    return range ? [{ key, range }] : []
  })

/** A flow with its range; an end that is null is not known. */
interface FlowRange {
  flow: number | null
  low: number | null
  high: number | null
}

/** A range as a figure takes it. */
export interface FigureRange {
  low: number | null
  high: number | null
  openHigh: boolean
}
const unknown: FigureRange = { low: null, high: null, openHigh: false }

/**
 * Range of a result that hangs on doubted inputs of the job and on a flow with a range of its own: each at its ends, the
 * deviations added as squares.
 * @param of the result for a job and a flow; null where it does not exist: no upper end then
 * Reference: law of propagation of uncertainty, JCGM 100
 */
export function doubtedRange(
  job: Job,
  doubts: readonly Doubt[],
  { flow, low, high }: FlowRange,
  of: (job: Job, flow: number | null) => number | null,
): FigureRange {
  const value = of(job, flow)
  if (value === null || !Number.isFinite(value)) return unknown
  const end = (x: number | null) => (x !== null && Number.isFinite(x) ? x : Infinity)
  const ends = doubts.map(({ key, range }) => range.map((x) => end(of({ ...job, [key]: x }, flow))))
  if (flow !== null) ends.push([low, high].flatMap((q) => (q === null ? [] : [end(of(job, q))])))
  if (!ends.some((own) => own.length)) return unknown
  const range = rangeBySquares(value, ends)
  return { ...range, openHigh: range.high === null }
}
