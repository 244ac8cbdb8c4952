import { describe, expect, test } from 'vitest'
import { seeded } from '#core/numeric'
import { aWeighting } from './levels'
import { bandsOf, linesOf, spectrumOf, thirdOctaves, traceLines, weightedLevel, WINDOW } from './spectrum'
import { madeFans, madeRecording } from './made-recording'
import { readWav, writeWav, type Sound } from './wav'

const rate = 48000
const sound = (f: (t: number) => number, seconds = 2): Sound => ({
  rate,
  samples: Float32Array.from({ length: rate * seconds }, (_, i) => f(i / rate)),
})
const tone = (hz: number, amplitude: number) => (t: number) => amplitude * Math.sin(2 * Math.PI * hz * t)
function noise(amplitude: number, seconds = 6): Sound {
  const random = seeded(7)
  return sound(() => amplitude * (2 * random() - 1), seconds)
}
const level = (s: Sound) => weightedLevel(spectrumOf(s)!)!

describe('levels of generated sounds', () => {
  test.each([100, 250, 1000, 4000, 8000])(
    'a tone of %i Hz has the level of its amplitude and the A-weighting of IEC 61672-1',
    (hz) => {
      expect(level(sound(tone(hz, 0.1)))).toBeCloseTo(10 * Math.log10(0.005) + aWeighting(hz), 1)
    },
  )
  test('half the amplitude is 6.02 dB less; two unlike tones add their energy', () => {
    expect(level(sound(tone(1000, 0.2))) - level(sound(tone(1000, 0.1)))).toBeCloseTo(6.02, 2)
    const both = level(sound((t) => tone(1000, 0.1)(t) + tone(1500, 0.1)(t)))
    expect(both - level(sound(tone(1000, 0.1)))).toBeCloseTo(
      10 * Math.log10(1 + 10 ** ((aWeighting(1500) - aWeighting(1000)) / 10)),
      1,
    )
  })
  test('white noise: each third-octave holds 1 dB more than the one below, before weighting', () => {
    const bands = bandsOf(spectrumOf(noise(0.3))!)
    const flat = bands
      .filter((b) => b.nominal >= 200 && b.nominal <= 10000)
      .map((b) => b.level! - aWeighting(1000 * 10 ** (Math.round(10 * Math.log10(b.nominal / 1000)) / 10)))
    for (let i = 1; i < flat.length; i++) expect(Math.abs(flat[i]! - flat[i - 1]! - 1)).toBeLessThan(1)
    expect((flat.at(-1)! - flat[0]!) / (flat.length - 1)).toBeCloseTo(1, 1)
  })
  test('the bands add up to the whole', () => {
    const s = spectrumOf(noise(0.3))!
    const sum =
      10 * Math.log10(bandsOf(s).reduce((x, b) => x + (b.level === null ? 0 : 10 ** (b.level / 10)), 0))
    expect(sum).toBeCloseTo(weightedLevel(s)!, 0)
    expect(bandsOf(s)).toHaveLength(thirdOctaves.length)
  })
  test('silence has no level, a short recording no spectrum, a loud one is told', () => {
    expect(weightedLevel(spectrumOf(sound(() => 0))!)).toBeNull()
    expect(spectrumOf({ rate, samples: new Float32Array(WINDOW - 1) })).toBeNull()
    expect(spectrumOf(sound((t) => Math.sign(Math.sin(6.28 * 100 * t)) || 1))!.clipped).toBeGreaterThan(0.9)
  })
  test('progress reaches far', () => {
    const shares: number[] = []
    spectrumOf(noise(0.1, 30), (s) => shares.push(s))
    expect(shares[0]).toBe(0)
    expect(Math.max(...shares)).toBeGreaterThan(0.5)
  })
})

describe('the whine', () => {
  const mixed = (hz: number) => {
    const hiss = noise(0.02)
    return { rate, samples: hiss.samples.map((s, i) => s + 0.05 * Math.sin((2 * Math.PI * hz * i) / rate)) }
  }
  test('a narrow line is found to a third of a hertz, and hiss alone has none', () => {
    expect(linesOf(spectrumOf(noise(0.2, 0.5))!)).toEqual([])
    const [line] = linesOf(spectrumOf(mixed(233.3))!)
    expect(Math.abs(line!.hz - 233.3)).toBeLessThan(0.35)
    expect(line!.above).toBeGreaterThan(20)
    expect(linesOf(spectrumOf(noise(0.2))!)).toEqual([])
  })
  test('it is traced to the fan whose blades make it', () => {
    // 2000 rpm, 7 blades: 233.3 Hz
    const lines = linesOf(spectrumOf(mixed(233.3))!)
    const fans = [
      { name: 'rear', rpm: 2000, blades: 7 },
      { name: 'front', rpm: 1200, blades: 9 },
    ]
    expect(traceLines(lines, fans)[0]).toMatchObject({ fan: 'rear', what: 'blade pass' })
    expect(traceLines([{ hz: 466, level: -40, above: 20 }], fans)[0]).toMatchObject({
      fan: 'rear',
      what: 'blade pass × 2',
    })
    expect(traceLines([{ hz: 20.2, level: -60, above: 20 }], fans)[0]).toMatchObject({
      fan: 'front',
      what: 'unbalance, once a turn',
    })
    expect(traceLines([{ hz: 1000, level: -60, above: 20 }], fans)).toEqual([])
  })
})

describe('WAV files', () => {
  const original = sound(tone(440, 0.5), 0.1)
  test('what is written is read again', () => {
    const read = readWav(writeWav(original)) as Sound
    expect(read.rate).toBe(rate)
    expect(read.samples).toHaveLength(original.samples.length)
    for (const i of [0, 17, 999]) expect(read.samples[i]).toBeCloseTo(original.samples[i]!, 3)
  })
  function wav(
    format: number,
    bits: number,
    channels: number,
    write: (view: DataView, at: number, frame: number, channel: number) => void,
    frames = 100,
  ): ArrayBuffer {
    const size = (frames * channels * bits) / 8
    const bytes = new ArrayBuffer(44 + size)
    new Uint8Array(bytes).set(new Uint8Array(writeWav({ rate: 44100, samples: new Float32Array(0) })))
    const view = new DataView(bytes)
    view.setUint16(20, format, true)
    view.setUint16(22, channels, true)
    view.setUint16(34, bits, true)
    view.setUint32(40, size, true)
    for (let i = 0; i < frames; i++)
      for (let c = 0; c < channels; c++) write(view, 44 + ((i * channels + c) * bits) / 8, i, c)
    return bytes
  }
  const first = (bytes: ArrayBuffer) => (readWav(bytes) as Sound).samples[0]
  test('8, 24 and 32 bits, floats, two channels averaged', () => {
    expect(first(wav(1, 8, 1, (v, at) => v.setUint8(at, 192)))).toBe(0.5)
    expect(first(wav(1, 24, 1, (v, at) => v.setUint8(at + 2, 0xc0)))).toBe(-0.5)
    expect(first(wav(1, 32, 1, (v, at) => v.setInt32(at, 2 ** 30, true)))).toBe(0.5)
    expect(first(wav(3, 32, 1, (v, at) => v.setFloat32(at, 0.25, true)))).toBe(0.25)
    expect(first(wav(3, 64, 1, (v, at) => v.setFloat64(at, 0.25, true)))).toBe(0.25)
    expect(first(wav(1, 16, 2, (v, at, _, c) => v.setInt16(at, c ? 0 : 16384, true)))).toBe(0.25)
  })
  test('what is no WAV, or of an unknown kind, is told', () => {
    expect(readWav(new ArrayBuffer(10))).toBe('This is no WAV file.')
    // a float of no value in the middle of a good recording
    const broken = wav(3, 32, 1, (v, at, frame) => v.setFloat32(at, frame === 1 ? NaN : 0.25, true))
    expect(readWav(broken)).toMatch(/^The recording holds a sample that is no number, 0\.00 s from its start/)
    expect(readWav(wav(2, 4, 1, () => {}))).toContain('save it as 16 or 24 bit')
    const cut = writeWav(original).slice(0, 44 + 200)
    expect((readWav(cut) as Sound).samples).toHaveLength(100)
  })
})

describe('recordings that are made up to try it', () => {
  const [before, after] = [madeFans.before, madeFans.after].map((f) => ({ fan: f, heard: madeRecording(f) }))
  test('the whine stands at the blades’ frequency, is traced to its fan, and is gone in the second', () => {
    const { fan, heard } = before!
    const hz = (fan.blades * fan.rpm) / 60
    const lines = linesOf(spectrumOf(heard)!)
    expect(Math.abs(lines[0]!.hz / hz - 1)).toBeLessThan(0.01)
    expect(traceLines(lines.slice(0, 1), [{ name: 'old', blades: fan.blades, rpm: fan.rpm }])[0]).toBeTruthy()
    expect(linesOf(spectrumOf(after!.heard)!).some((l) => Math.abs(l.hz / hz - 1) < 0.02)).toBe(false)
  })
  test('the second is quieter, neither is clipped, and the same seed makes the same sound', () => {
    expect(level(after!.heard)).toBeLessThan(level(before!.heard) - 5)
    for (const { heard } of [before!, after!]) expect(heard.samples.every((v) => Math.abs(v) < 1)).toBe(true)
    expect(madeRecording(before!.fan).samples).toEqual(before!.heard.samples)
  })
})
