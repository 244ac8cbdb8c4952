import FFT from 'fft.js'
import { aWeighting, bladePass } from './levels'
import type { Sound } from './wav'

/**
 * What is in a recording: its A-weighted level, one-third-octave bands and narrow lines. Levels are dB re full scale:
 * without a calibration only differences mean something.
 */

export interface Spectrum {
  /** Hz between bins */
  step: number
  /** mean square of each bin, full scale 1 (its sum is that of the recording) */
  power: Float64Array
  rate: number
  /** s that were averaged, and in how many windows */
  seconds: number
  windows: number
  /** share of samples at full scale: more than a few and the recording was too loud */
  clipped: number
}

/** Samples of one window: 2.9 Hz between bins at 48 kHz. A Hann window, half overlapping. Reference: P. D. Welch, 1967 */
export const WINDOW = 16384
const FULL_SCALE = 0.999

/**
 * Averaged power spectrum.
 * @param progress told the share that is done
 * @param bare the samples are windowed already
 * @returns null for a recording shorter than one window
 * Reference: discrete Fourier transform; IEC 61260 for bands
 */
export function spectrumOf(
  { rate, samples }: Sound,
  progress: (share: number) => void = () => {},
  bare = false,
): Spectrum | null {
  if (samples.length < WINDOW) return null
  const fft = new FFT(WINDOW)
  const hann = Float64Array.from({ length: WINDOW }, (_, i) =>
    bare ? 1 : 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW),
  )
  const energy = hann.reduce((s, w) => s + w * w, 0)
  const power = new Float64Array(WINDOW / 2 + 1)
  const windowed = new Array<number>(WINDOW)
  const out = fft.createComplexArray() as number[]
  const hop = WINDOW / 2
  const windows = Math.floor((samples.length - WINDOW) / hop) + 1
  for (let k = 0; k < windows; k++) {
    for (let i = 0; i < WINDOW; i++) windowed[i] = samples[k * hop + i]! * hann[i]!
    fft.realTransform(out, windowed)
    for (let b = 0; b <= WINDOW / 2; b++) {
      const one = (out[2 * b]! ** 2 + out[2 * b + 1]! ** 2) / (energy * WINDOW)
      power[b]! += (b === 0 || b === WINDOW / 2 ? one : 2 * one) / windows
    }
    if (k % 64 === 0) progress(k / windows)
  }
  let clipped = 0
  for (const s of samples) if (Math.abs(s) >= FULL_SCALE) clipped++
  return {
    step: rate / WINDOW,
    power,
    rate,
    seconds: samples.length / rate,
    windows,
    clipped: clipped / samples.length,
  }
}

const levelOf = (power: number) => 10 * Math.log10(power)
/** Lowest frequency that is looked at, Hz: below it rumble and the microphone's own noise rule. */
const LOWEST_HZ = 20

/** A-weighted level, dB re full scale; -Infinity never: null for silence. Reference: IEC 61672-1 weighting in the frequency domain */
export function weightedLevel({ step, power }: Spectrum): number | null {
  let sum = 0
  for (let b = Math.ceil(LOWEST_HZ / step); b < power.length; b++)
    sum += power[b]! * 10 ** (aWeighting(b * step) / 10)
  return sum > 0 ? levelOf(sum) : null
}

export interface Band {
  nominal: number
  /** A-weighted, dB re full scale; null where it is silent */ level: number | null
}
/** Nominal one-third-octave bands. Reference: IEC 61260-1 (ISO 266 numbers) */
export const thirdOctaves = [
  25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500,
  3150, 4000, 5000, 6300, 8000, 10000, 12500, 16000,
] as const
const HALF_BAND = 10 ** 0.05

/** One-third-octave levels; bins on an edge are shared. Reference: IEC 61260-1, base-ten bands */
export function bandsOf({ step, power, rate }: Spectrum): Band[] {
  return thirdOctaves.map((nominal) => {
    const middle = 1000 * 10 ** (Math.round(10 * Math.log10(nominal / 1000)) / 10)
    const [low, high] = [middle / HALF_BAND, middle * HALF_BAND]
    if (high > rate / 2) return { nominal, level: null }
    let sum = 0
    for (let b = Math.max(1, Math.floor(low / step)); b <= Math.ceil(high / step) && b < power.length; b++) {
      const share = Math.min(high, (b + 0.5) * step) - Math.max(low, (b - 0.5) * step)
      if (share > 0) sum += power[b]! * Math.min(1, share / step) * 10 ** (aWeighting(b * step) / 10)
    }
    return { nominal, level: sum > 0 ? levelOf(sum) : null }
  })
}

export interface Line {
  hz: number
  /** A-weighted, dB re full scale */ level: number
  /** how far it stands above its surroundings, dB */ above: number
}
/**
 * A line must stand this far above the median of its surroundings, dB; the fewer windows are averaged, the more the
 * hiss itself scatters. A choice of ours.
 */
const STANDS_DB = 10
const SCATTER_DB = 10
const NEIGHBOURS = 24
/** A Hann window spreads a pure tone over this many bins to each side. */
const LOBE = 2
/** A rise beside a peak this many times as strong is the window’s, not a line of its own: 6 dB. */
const SHOULDER = 4

/**
 * Where between bins a line stands: a parabola through the logarithms of three of them.
 * Reference: quadratic interpolation of a windowed peak (J. O. Smith, from memory); a Hann window leaves 0.03 bins
 */
function peakAt(left: number, middle: number, right: number): number {
  const [l, m, r] = [left, middle, right].map((x) => Math.log(Math.max(x, 1e-300))) as [number, number, number]
  const bend = l - 2 * m + r
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (l - r) / (2 * bend))) : 0
}

/**
 * Narrow lines, loudest first: what the ear calls a whine or a hum.
 * @param most how many at most
 * Reference: discrete Fourier transform; IEC 61260 for bands
 */
export function linesOf({ step, power, windows }: Spectrum, most = 12): Line[] {
  const lines: Line[] = []
  const stands = 10 ** ((STANDS_DB + SCATTER_DB / Math.sqrt(windows)) / 10)
  const first = Math.max(NEIGHBOURS + LOBE, Math.ceil(LOWEST_HZ / step))
  for (let b = first; b < power.length - NEIGHBOURS; b++) {
    const p = power[b]!
    if (p <= power[b - 1]! || p < power[b + 1]!) continue
    if (Math.max(power[b - 2]!, power[b + 2]!) > SHOULDER * p) continue
    const around: number[] = []
    for (let k = LOBE + 1; k <= NEIGHBOURS; k++) around.push(power[b - k]!, power[b + k]!)
    around.sort((x, y) => x - y)
    const floor = around[around.length >> 1]!
    if (!(p > floor * stands)) continue
    let energy = 0
    for (let k = -LOBE; k <= LOBE; k++) energy += power[b + k]!
    const hz = (b + peakAt(power[b - 1]!, p, power[b + 1]!)) * step
    lines.push({ hz, level: levelOf(energy) + aWeighting(hz), above: levelOf(p / Math.max(floor, 1e-30)) })
  }
  return lines.sort((x, y) => y.level - x.level).slice(0, most)
}

/** A window of a recording in the course of time. */
export interface Frame {
  /** its middle, s */
  t: number
  lines: Line[]
}
/** Samples of one such window: what changes within it smears its lines. */
const FRAME = 8192

/**
 * The lines of a recording in the course of time.
 * @returns with the distance of bins, Hz
 * Reference: short-time Fourier transform, Hann window, half overlapping
 */
export function framesOf({ rate, samples }: Sound): { frames: Frame[]; step: number } {
  const frames: Frame[] = []
  const padded = new Float32Array(WINDOW)
  for (let from = 0; from + FRAME <= samples.length; from += FRAME / 2) {
    padded.fill(0)
    for (let i = 0; i < FRAME; i++)
      padded[i] = samples[from + i]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / FRAME))
    const spectrum = spectrumOf({ rate, samples: padded }, undefined, true)!
    frames.push({ t: (from + FRAME / 2) / rate, lines: linesOf(spectrum) })
  }
  return { frames, step: rate / FRAME }
}

/** A fan whose whine is looked for. */
export interface KnownFan {
  name: string
  rpm: number
  blades: number | null
}
export interface Traced {
  line: Line
  /** what it may be: fan, harmonic, and how far off */ fan: string
  what: string
  off: number
}
/**
 * A line belongs to a fan when it lies this near to a multiple of its blade-pass or shaft frequency. Speeds of small
 * fans scatter by some per cent: common practice.
 */
const NEAR = 0.04
const HARMONICS = 4

/**
 * Which lines are which fan's: blade-pass harmonics first, then the shaft's own turn (an unbalance).
 * Reference: discrete Fourier transform; IEC 61260 for bands
 */
export function traceLines(lines: readonly Line[], fans: readonly KnownFan[]): Traced[] {
  return lines.flatMap((line) => {
    let best: Traced | null = null
    for (const { name, rpm, blades } of fans) {
      const candidates = [
        ...(blades
          ? Array.from({ length: HARMONICS }, (_, h) => ({
              hz: bladePass(rpm, blades, h + 1),
              what: h ? `blade pass × ${h + 1}` : 'blade pass',
            }))
          : []),
        { hz: rpm / 60, what: 'unbalance, once a turn' },
        { hz: rpm / 30, what: 'twice a turn: commutation or a bent shaft' },
      ]
      for (const { hz, what } of candidates) {
        const off = line.hz / hz - 1
        if (Math.abs(off) <= NEAR && (!best || Math.abs(off) < Math.abs(best.off)))
          best = { line, fan: name, what, off }
      }
    }
    return best ? [best] : []
  })
}
