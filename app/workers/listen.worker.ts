import { expose } from 'comlink'
import {
  bandsOf,
  framesOf,
  linesOf,
  spectrumOf,
  weightedLevel,
  WINDOW,
  type Band,
  type Frame,
  type Line,
  readWav,
  type Sound,
} from '#core/noise'

/** What is heard in a recording. */
export interface Heard {
  level: number | null
  bands: Band[]
  lines: Line[]
  seconds: number
  rate: number
  clipped: number
  /** Hz between bins */
  step: number
  /** its lines in the course of time, and Hz between bins there */
  frames: Frame[]
  frameStep: number
  /** spectrum thinned for drawing: Hz and dB */ hz: number[]
  db: number[]
}

const DRAWN = 600

/** The spectrum for drawing: of each step of a logarithmic scale the highest bin. */
function drawn(step: number, power: Float64Array): { hz: number[]; db: number[] } {
  const [low, high] = [Math.log(20), Math.log(Math.min(16000, step * (power.length - 1)))]
  const hz: number[] = []
  const db: number[] = []
  for (let k = 0; k < DRAWN; k++) {
    const from = Math.max(1, Math.floor(Math.exp(low + ((high - low) * k) / DRAWN) / step))
    const to = Math.max(from + 1, Math.floor(Math.exp(low + ((high - low) * (k + 1)) / DRAWN) / step))
    let best = from
    for (let b = from; b < to && b < power.length; b++) if (power[b]! > power[best]!) best = b
    if (hz.at(-1) === best * step) continue
    hz.push(best * step)
    db.push(10 * Math.log10(Math.max(power[best]!, 1e-16)))
  }
  return { hz, db }
}

const worker = {
  /** @returns a sentence where nothing can be heard in it */
  hear(source: ArrayBuffer | Sound, progress: (share: number) => void): Heard | string {
    const sound = source instanceof ArrayBuffer ? readWav(source) : source
    if (typeof sound === 'string') return sound
    const spectrum = spectrumOf(sound, progress)
    if (!spectrum)
      return `The recording is too short: at least ${(WINDOW / sound.rate).toFixed(1)} s, better 20 s.`
    const { frames, step } = framesOf(sound)
    return {
      level: weightedLevel(spectrum),
      bands: bandsOf(spectrum),
      lines: linesOf(spectrum),
      seconds: spectrum.seconds,
      rate: sound.rate,
      clipped: spectrum.clipped,
      step: spectrum.step,
      frames,
      frameStep: step,
      ...drawn(spectrum.step, spectrum.power),
    }
  },
}
export type ListenWorker = typeof worker
expose(worker)
