import type { Line } from './spectrum'

/**
 * How fast a fan turns, from the lines in its sound: blades passing make a line and its multiples. Not the strongest line
 * counts but the comb that explains most of them.
 */

export interface HeardSpeed {
  rpm: number
  /** 95 times in 100 it lies between */
  low: number
  high: number
  /** blade-pass frequency, Hz, and which multiples of it were heard */
  hz: number
  harmonics: number[]
}
export type SpeedResult =
  | { ok: true; fans: HeardSpeed[]; /** difference of two fans that beat, Hz */ beatHz: number | null }
  | { ok: false; reason: string }

export interface SoughtFan {
  blades: number
  /** speeds that it may have, rpm */
  lowRpm: number
  highRpm: number
}

/** A line belongs to a multiple that lies this near, share. Common practice, no source. */
const NEAR = 0.005
/** ... or this near in bins: a hum beside it draws a low line away. A choice of ours. */
const SMEARED = 0.55
const MOST_HARMONICS = 8
/** Candidates are lines taken as one of the first multiples. */
const TAKEN_AS = 3
/** The next best, unlike comb explains at least this share as much: nobody can tell. A choice of ours. */
const AS_GOOD = 0.75
/** Two combs this near each other are one fan's, share; two fans nearer than that cannot be told apart. */
const SAME = 0.012
/** Ears notice beats up to here, Hz. Reference: docs/physics.md, noise */
const BEAT_HZ = 10
/** Share of samples at full scale from which lines are made by the clipping itself. Common practice, no source. */
const CLIPPED = 0.005
/** Hum of the mains and of what it feeds, Hz: a comb that begins there within HUM_HZ is the room's, not a fan's. */
const MAINS_HZ = [50, 60, 100, 120]
const HUM_HZ = 0.4

interface Comb {
  hz: number
  score: number
  matched: { h: number; line: Line }[]
}

/** What a comb explains: how far its lines stand out, low multiples counting most; a missing first one costs. */
function combAt(lines: readonly Line[], hz: number, stepHz: number): Comb {
  const matched: Comb['matched'] = []
  let score = 0
  for (let h = 1; h <= MOST_HARMONICS; h++) {
    const line = lines
      .filter((l) => Math.abs(l.hz - h * hz) <= Math.max(NEAR * h * hz, SMEARED * stepHz))
      .sort((a, b) => b.above - a.above)[0]
    if (line) {
      matched.push({ h, line })
      score += line.above / Math.sqrt(h)
    } else if (h <= 2) score -= 8 / h
  }
  return { hz, score, matched }
}

/** The frequency that fits all its lines: each as exact as it is, higher multiples tell more. */
function fitted({ matched, hz }: Comb): number {
  let [sum, weight] = [0, 0]
  for (const { h, line } of matched) {
    const w = h * Math.max(1, line.above)
    sum += (w * line.hz) / h
    weight += w
  }
  return weight > 0 ? sum / weight : hz
}

const isMains = ({ hz }: Comb) => MAINS_HZ.some((m) => Math.abs(hz - m) < HUM_HZ)

/** All combs that the lines allow, the best first, none twice. */
function combsOf(lines: readonly Line[], stepHz: number, low: number, high: number): Comb[] {
  const tried = lines.flatMap((l) => Array.from({ length: TAKEN_AS }, (_, i) => l.hz / (i + 1)))
  const combs = tried
    .filter((hz) => hz >= low && hz <= high)
    .map((hz) => combAt(lines, fitted(combAt(lines, hz, stepHz)), stepHz))
    .filter((c) => c.matched.length > 0 && c.score > 0 && !isMains(c))
    .sort((a, b) => b.score - a.score)
  return combs.filter((c, i) => combs.findIndex((o) => Math.abs(o.hz / c.hz - 1) < SAME) === i)
}

const related = (a: number, b: number) => {
  const ratio = a > b ? a / b : b / a
  return Math.abs(ratio - Math.round(ratio)) < 2 * NEAR * ratio
}

/**
 * The speed of a fan whose blades are known.
 * @param lines narrow lines of the recording
 * @param stepHz Hz between bins of its spectrum
 * @param clipped share of samples at full scale
 * @returns a reason where the recording does not tell it
 * Reference: blade-pass frequency n = 60 f / B; comb search over harmonics (harmonic product idea, M. R. Schroeder, 1968, from memory)
 */
export function speedFromLines(
  lines: readonly Line[],
  stepHz: number,
  clipped: number,
  { blades, lowRpm, highRpm }: SoughtFan,
): SpeedResult {
  const no = (reason: string): SpeedResult => ({ ok: false, reason })
  if (!(blades >= 2)) return no('How many blades has it? Count them once.')
  if (clipped > CLIPPED)
    return no('The recording is clipped: its lines are made by that. Record with less gain.')
  if (!lines.length) return no('No line stands out: it is hiss. Record nearer to the hub, off the air stream.')
  const perRpm = blades / 60
  const combs = combsOf(lines, stepHz, lowRpm * perRpm, highRpm * perRpm)
  const best = combs[0]
  if (!best)
    return no(
      'No line fits a speed that this fan can have: look at the number of blades and at the range of speeds.',
    )
  const heard = (c: Comb): HeardSpeed => {
    const top = Math.max(...c.matched.map((m) => m.h))
    const half = Math.max((0.5 * stepHz) / top, 0.002 * c.hz)
    return {
      rpm: c.hz / perRpm,
      low: (c.hz - half) / perRpm,
      high: (c.hz + half) / perRpm,
      hz: c.hz,
      harmonics: c.matched.map((m) => m.h),
    }
  }
  const taken = new Set(best.matched.map((m) => m.line))
  const left = combsOf(
    lines.filter((l) => !taken.has(l)),
    stepHz,
    lowRpm * perRpm,
    highRpm * perRpm,
  ).filter((c) => !related(c.hz, best.hz))
  const rival = left.find((c) => Math.abs(c.hz / best.hz - 1) >= 0.25 && c.score > AS_GOOD * best.score)
  // a second fan of the same kind runs at nearly the same speed; anything else as strong leaves it open which is the fan
  const second = left.find(
    (c) => Math.abs(c.hz / best.hz - 1) < 0.25 && c.matched.length >= 2 && c.score > 0.5 * best.score,
  )
  if (rival)
    return no(
      `Two speeds are as likely, ${Math.round(best.hz / perRpm)} and ${Math.round(rival.hz / perRpm)} rpm: ` +
        'narrow the range of speeds, or record one fan alone.',
    )
  // one line alone is a speed only where nothing else stands out as much
  const strongest = Math.max(...lines.map((l) => l.above))
  if (best.matched.length === 1 && best.matched[0]!.line.above < AS_GOOD * strongest)
    return no(
      'Only one faint line fits, and others stand out more: record nearer to the hub, everything else off.',
    )
  const fans = [heard(best), ...(second ? [heard(second)] : [])]
  const apart = fans.length > 1 ? Math.abs(fans[0]!.hz - fans[1]!.hz) : null
  return { ok: true, fans, beatHz: apart !== null && apart <= BEAT_HZ ? apart : null }
}

/** A speed at a moment of a recording. */
export interface SpeedAt {
  t: number
  rpm: number
}

/**
 * The speed followed through a recording: a run-up, a run-down, a sweep. Moments that tell nothing are left out.
 * @param frames lines of each window with its middle, s
 */
export function followSpeed(
  frames: readonly { t: number; lines: Line[] }[],
  stepHz: number,
  fan: SoughtFan,
): SpeedAt[] {
  const found: SpeedAt[] = []
  for (const { t, lines } of frames) {
    const made = speedFromLines(lines, stepHz, 0, fan)
    if (!made.ok) continue
    const last = found.at(-1)
    const next = last
      ? made.fans.reduce((a, b) => (Math.abs(b.rpm - last.rpm) < Math.abs(a.rpm - last.rpm) ? b : a))
      : made.fans[0]!
    found.push({ t, rpm: next.rpm })
  }
  return found
}
