import { seeded } from '#core/numeric'
import { writeWav } from '#core/noise'

const RATE = 24000
const SECONDS = 4

/** 4 s of hiss with tones, each half as strong as the one before. */
export function wav(tones: number[], amplitude: number, hiss: number): Buffer {
  const random = seeded(1)
  const sound = (i: number) =>
    tones.reduce(
      (sum, hz, k) => sum + (amplitude / 2 ** k) * Math.sin((2 * Math.PI * hz * i) / RATE),
      hiss * (2 * random() - 1),
    )
  return Buffer.from(
    writeWav({ rate: RATE, samples: Float32Array.from({ length: SECONDS * RATE }, (_, i) => sound(i)) }),
  )
}
