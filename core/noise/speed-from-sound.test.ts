import { describe, expect, test } from 'vitest'
import { normal, seeded } from '#core/numeric'
import { followSpeed, speedFromLines, type SoughtFan } from './speed-from-sound'
import { framesOf, linesOf, spectrumOf } from './spectrum'
import type { Sound } from './wav'

const RATE = 44100
interface Part {
  blades: number
  /** at a time, rpm */
  rpm: (t: number) => number
  /** amplitudes of the multiples */
  lines: number[]
}
/** A synthetic recording: fans with harmonics in hiss, and hum of the mains. */
function recording(parts: Part[], noise: number, seed: number, seconds = 4, hum = 0): Sound {
  const z = normal(seeded(seed))
  const phases = parts.map(() => 0)
  const samples = new Float32Array(RATE * seconds)
  for (let i = 0; i < samples.length; i++) {
    const t = i / RATE
    let value = noise * z() + hum * Math.sin(2 * Math.PI * 100 * t) + 0.4 * hum * Math.sin(2 * Math.PI * 50 * t)
    parts.forEach((p, k) => {
      phases[k]! += (2 * Math.PI * p.blades * p.rpm(t)) / 60 / RATE
      p.lines.forEach((a, h) => {
        value += a * Math.sin((h + 1) * phases[k]!)
      })
    })
    samples[i] = Math.max(-1, Math.min(1, value))
  }
  return { rate: RATE, samples }
}
const steady = (rpm: number) => () => rpm
function speedOf(sound: Sound, fan: SoughtFan) {
  const s = spectrumOf(sound)!
  return speedFromLines(linesOf(s), s.step, s.clipped, fan)
}

describe('two hundred synthetic recordings', () => {
  let [right, refused] = [0, 0]
  const wrong: string[] = []
  for (let seed = 1; seed <= 200; seed++) {
    const u = seeded(seed)
    const blades = [5, 7, 9, 11][Math.floor(4 * u())]!
    const rpm = 700 + 2600 * u()
    const first = 0.005 + 0.05 * u()
    // the strongest line need not be the first: half of them have a weaker one below
    const lines = u() < 0.5 ? [first, first * 0.4, first * 0.2] : [first * 0.5, first, first * 0.5, first * 0.2]
    const parts: Part[] = [{ blades, rpm: steady(rpm), lines }]
    if (seed % 3 === 0)
      parts.push({ blades: 7, rpm: steady(rpm * (1.3 + u())), lines: [first * 0.3, first * 0.1] })
    const sound = recording(parts, 0.02 + 0.06 * u(), seed, 3, seed % 4 === 0 ? 0.02 : 0)
    const rated = rpm * (0.95 + 0.4 * u())
    const made = speedOf(sound, { blades, lowRpm: 0.55 * rated, highRpm: 1.15 * rated })
    if (!made.ok) refused++
    else if (Math.abs(made.fans[0]!.rpm / rpm - 1) < 0.01) right++
    else wrong.push(`seed ${seed}: ${rpm.toFixed(0)} taken as ${made.fans[0]!.rpm.toFixed(0)}`)
  }
  test('within 1 % or refused', () => {
    expect(wrong).toEqual([])
  })
  test('and most are told', () => {
    expect(right).toBeGreaterThan(150)
    expect(right + refused).toBe(200)
  })
})

describe('what it can tell', () => {
  const fan: SoughtFan = { blades: 7, lowRpm: 1000, highRpm: 3200 }
  test('the range holds the truth and is narrower the more multiples are heard', () => {
    const of = (lines: number[]) => speedOf(recording([{ blades: 7, rpm: steady(2000), lines }], 0.01, 3), fan)
    const [one, four] = [of([0.05]), of([0.05, 0.03, 0.03, 0.03])]
    if (!one.ok || !four.ok) throw new Error('not told')
    for (const { fans } of [one, four]) {
      expect(fans[0]!.low).toBeLessThan(2000)
      expect(fans[0]!.high).toBeGreaterThan(2000)
    }
    expect(four.fans[0]!.high - four.fans[0]!.low).toBeLessThan(one.fans[0]!.high - one.fans[0]!.low)
  })
  test('two fans of a kind are told apart, their beat is told', () => {
    const parts = [2000, 2060].map((rpm) => ({ blades: 7, rpm: steady(rpm), lines: [0.05, 0.03] }))
    const made = speedOf(recording(parts, 0.01, 5, 8), fan)
    if (!made.ok) throw new Error(made.reason)
    const speeds = made.fans.map((f) => f.rpm).sort((a, b) => a - b)
    expect(speeds[0]! / 2000).toBeCloseTo(1, 2)
    expect(speeds[1]! / 2060).toBeCloseTo(1, 2)
    expect(made.beatHz).toBeCloseTo(7, 0)
  })
  test('a run-down is followed', () => {
    const rpm = (t: number) => 3000 * Math.exp(-t / 12)
    const sound = recording([{ blades: 7, rpm, lines: [0.1, 0.06, 0.03] }], 0.005, 6, 6)
    const { frames, step } = framesOf(sound)
    const found = followSpeed(frames, step, { ...fan, lowRpm: 1200 })
    expect(found.length).toBeGreaterThan(frames.length * 0.7)
    for (const { t, rpm: read } of found) expect(Math.abs(read / rpm(t) - 1)).toBeLessThan(0.02)
  })
})

describe('what it refuses', () => {
  const fan: SoughtFan = { blades: 7, lowRpm: 1000, highRpm: 3200 }
  const reason = (sound: Sound, of = fan) => {
    const made = speedOf(sound, of)
    return made.ok ? `told: ${made.fans[0]!.rpm}` : made.reason
  }
  test('hiss, clipping, no blades, hum of the mains alone', () => {
    expect(reason(recording([], 0.1, 1))).toMatch(/hiss/)
    expect(reason(recording([{ blades: 7, rpm: steady(2000), lines: [3] }], 0.01, 2))).toMatch(/clipped/)
    expect(reason(recording([], 0.1, 1), { ...fan, blades: 0 })).toMatch(/blades/)
    expect(reason(recording([], 0.005, 3, 4, 0.1), { ...fan, lowRpm: 400 })).toMatch(/No line fits/)
  })
  test('two speeds as likely', () => {
    const parts = [1300, 2270].map((rpm) => ({ blades: 7, rpm: steady(rpm), lines: [0.05, 0.03] }))
    expect(reason(recording(parts, 0.01, 4))).toMatch(/as likely/)
  })
})
