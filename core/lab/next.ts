import type { Carton } from '#core/document'
import type { CartonCurve } from './carton-curve'

/** What to read next on a carton, and when it is enough. */

export type NextStep =
  { do: 'read'; open: number; why: string } | { do: 'leak'; why: string } | { do: 'stop'; why: string }

/** What a plan wants to know of the fan: the flow of one fan where it runs, at rated voltage, and how far the need is away. */
export interface Interest {
  flowM3s: number
  /** delivered over needed, less 1; null where nothing is needed yet */
  margin: number | null
}

/** Points of a curve stand no further apart than this share of free delivery. A choice of ours. */
const WIDEST_GAP = 0.22
const FEWEST = 4
/** Repeats that lie further apart than this are read once more, so often at the most. A choice of ours. */
const APART = 0.08
const MOST_TIMES = 4
const percent = (share: number) => `${Math.round(100 * share)} %`

/** Holes nobody has opened yet, with the flow that is expected there: between what was read on both sides. */
function unread(carton: Carton, expected: readonly number[]): { open: number; flow: number }[] {
  const read = new Set(carton.readings.map((r) => r.open))
  return carton.holesM.flatMap((_, i) => (read.has(i + 1) ? [] : [{ open: i + 1, flow: expected[i] ?? 0 }]))
}

/**
 * Proposes the next reading: first the closed fan, then where the curve is known least, or where the plan needs it; odd
 * readings again; then the leak. Enough is enough when the doubt no longer decides.
 * @param expected flow with 1, 2 ... holes open, m3/s
 * @param free free delivery that is expected, m3/s
 */
export function nextReading(
  carton: Carton,
  curve: CartonCurve,
  expected: readonly number[],
  free: number,
  interest: Interest | null,
): NextStep {
  if (!carton.readings.some((r) => r.open === 0))
    return { do: 'read', open: 0, why: 'A card over the fan: its highest pressure, and the end of the curve.' }
  const odd = curve.points.find((p) => p.odd)
  if (odd) return { do: 'read', open: odd.reading.open, why: 'It does not fit the others: once more.' }
  const loose = curve.points.find((p) => p.apart > APART && p.times < MOST_TIMES)
  if (loose)
    return {
      do: 'read',
      open: loose.reading.open,
      why: `Its readings lie ${percent(loose.apart)} apart: once more, the tape looked after.`,
    }
  const left = unread(carton, expected)
  const flows = curve.points.map((p) => p.flow.value)
  const away = (flow: number) => Math.min(...flows.map((f) => Math.abs(f - flow)))
  const decided =
    interest?.margin !== null &&
    interest !== null &&
    curve.share !== null &&
    curve.points.length >= FEWEST &&
    Math.abs(interest.margin) > curve.share &&
    away(interest.flowM3s) < WIDEST_GAP * free
  if (decided && curve.leakRead)
    return {
      do: 'stop',
      why:
        `The job’s need is ${percent(Math.abs(interest.margin!))} away, the curve is known to ${percent(curve.share!)}: ` +
        'more readings decide nothing.',
    }
  if (left.length && !decided) {
    const worth = (x: { flow: number }) =>
      interest ? -Math.abs(x.flow - interest.flowM3s) + away(x.flow) : away(x.flow)
    const best = left.reduce((a, b) => (worth(b) > worth(a) ? b : a))
    if (curve.points.length < FEWEST || away(best.flow) > (WIDEST_GAP / 2) * free)
      return {
        do: 'read',
        open: best.open,
        why: interest ? 'Next to where the job runs it.' : 'Here the curve is known least.',
      }
  }
  if (!curve.leakRead)
    return { do: 'leak', why: 'What leaves through the seams is still assumed: it shifts every point.' }
  return { do: 'stop', why: 'The curve is covered: a repeat on another day says how well it comes again.' }
}
