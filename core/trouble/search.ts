import type { Cause, Symptom } from './cause'
import { causesOf } from './causes'
import type { Known } from './known'
import { measurementsOf, type Measurement } from './measures'

/**
 * The search: likely causes in order, and what to measure next. Each cause has a share before anything was measured; each
 * measurement multiplies it by how likely its band would be if that were the cause (Bayes' rule). Asked next is what is
 * expected to narrow it down most. Reference: odds and entropy, any handbook of statistics; the shares are ours.
 */

/** A measured value (SI), the key of what was seen, or null: it cannot be measured here. */
export type Answer = number | string | null
export interface Likely extends Omit<Cause, 'share' | 'shows'> {
  /** how likely it is among these causes, 0..1 */
  chance: number
}
export interface Asked {
  measurement: Measurement
  answer: Answer
  /** the band it fell into; '' where the plan cannot tell */
  band: string
}
export interface Search {
  causes: Likely[]
  asked: Asked[]
  /** null: nothing more that would tell */
  next: Measurement | null
  /** measurements that no cause here explains: read once more */
  odd: Measurement[]
  /** 'found': one cause stands out; 'likely': in order, but none stands out; 'open': nothing measured yet */
  end: 'found' | 'likely' | 'open'
}

/** One cause stands out from this chance on, and when it is so much likelier than the next. Choices of ours. */
const FOUND = 0.6
const AHEAD = 2.5
/** A measurement is worth asking for if it is expected to tell so much, bits. A choice of ours. */
const WORTH_BITS = 0.06
/** A cause explains a band that it makes likelier than this. A choice of ours. */
const EXPLAINS = 0.1
/** Chance of a band that a cause does not name, where it names others. */
const LEAST = 0.03

const bandsOf = (causes: readonly Cause[], key: string) => [
  ...new Set(causes.flatMap((c) => Object.keys(c.shows[key] ?? {}))),
]
/** How likely a band is if this were the cause; all bands alike where it says nothing. */
function likelihood(cause: Cause, key: string, band: string, bands: readonly string[]): number {
  const shows = cause.shows[key]
  if (!shows) return 1 / Math.max(2, bands.length)
  const told = shows[band]
  if (told !== undefined) return told
  const rest = 1 - Object.values(shows).reduce((sum, x) => sum + x, 0)
  const others = bands.filter((b) => shows[b] === undefined).length
  return Math.max(LEAST, rest / Math.max(1, others))
}
const normal = (weights: readonly number[]) => {
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => (sum > 0 ? w / sum : 1 / weights.length))
}
const entropy = (chances: readonly number[]) =>
  -chances.reduce((sum, p) => sum + (p > 0 ? p * Math.log2(p) : 0), 0)

/** Bits that a measurement is expected to tell. */
function gain(causes: readonly Cause[], chances: readonly number[], key: string): number {
  const bands = bandsOf(causes, key)
  if (bands.length === 0) return 0
  const table = causes.map((c) => normal(bands.map((b) => likelihood(c, key, b, bands))))
  const after = bands.reduce((sum, _, i) => {
    const weights = chances.map((p, k) => p * table[k]![i]!)
    const total = weights.reduce((a, b) => a + b, 0)
    return sum + (total > 0 ? total * entropy(normal(weights)) : 0)
  }, 0)
  return entropy(chances) - after
}

/**
 * Searches for what is behind a symptom.
 * @param answers by the key of the measurement, in the order they were given
 */
export function troubleSearch(known: Known, symptom: Symptom, answers: Record<string, Answer>): Search {
  const measurements = measurementsOf(known)
  const causes = causesOf(symptom, known)
  const asked = Object.entries(answers).flatMap(([key, answer]): Asked[] => {
    const measurement = measurements.find((m) => m.key === key)
    if (!measurement) return []
    const band = answer === null ? '' : typeof answer === 'number' ? measurement.band(answer) : answer
    return [{ measurement, answer, band }]
  })
  const weights = causes.map((cause) =>
    asked.reduce((w, { measurement: { key }, band }) => {
      const bands = bandsOf(causes, key)
      // a band that no cause speaks of tells nothing
      return !band || !bands.length ? w : w * likelihood(cause, key, band, bands)
    }, cause.share),
  )
  const chances = normal(weights)
  const ranked = causes
    .map(({ shows: _, share: __, ...cause }, i): Likely => ({ ...cause, chance: chances[i]! }))
    .toSorted((a, b) => b.chance - a.chance)
  const open = measurements
    .filter((m) => !(m.key in answers))
    // what the plan has no number for is no measurement: its bands cannot be told
    .filter((m) => m.quantity === null || m.band(1e6) !== '')
    .map((measurement) => ({ measurement, bits: gain(causes, chances, measurement.key) }))
    .toSorted((a, b) => b.bits - a.bits)
  const odd = asked.filter(
    ({ measurement: { key }, band }) =>
      band !== '' && causes.every((c) => likelihood(c, key, band, bandsOf(causes, key)) <= EXPLAINS),
  )
  const told = asked.some((a) => a.band !== '')
  const [first, second] = ranked
  const found = told && !odd.length && first!.chance >= FOUND && first!.chance >= AHEAD * (second?.chance ?? 0)
  const best = open[0]
  return {
    causes: ranked,
    asked,
    odd: odd.map((a) => a.measurement),
    next: !found && best && best.bits >= WORTH_BITS ? best.measurement : null,
    end: found ? 'found' : told ? 'likely' : 'open',
  }
}
