import { describe, expect, test } from 'vitest'
import { convert } from '#core/verification'
import { sums } from './index'

const run = (
  key: string,
  n: Record<string, number | null>,
  lists: Record<string, number[]> = {},
  choice: Record<string, string> = {},
) => {
  const sum = sums.find((s) => s.key === key)!
  const usual = Object.fromEntries(sum.fields.map((f) => [f.key, f.usual]))
  return convert(sum, { n: { ...usual, ...n }, lists, choice, density: 1.2 })
}
const values = (...of: Parameters<typeof run>) => {
  const result = run(...of)
  return result.ok ? result.figures.map((f) => f.value) : result.reason
}
const near = (got: ReturnType<typeof values>, wanted: number[], digits = 3) => {
  expect(Array.isArray(got), String(got)).toBe(true)
  wanted.forEach((w, i) => expect((got as number[])[i]! / w).toBeCloseTo(1, digits))
}

describe('quick sums, worked by hand from the formula that stands beside each', () => {
  test('air', () => {
    near(values('flow-speed-area', { v: 2, a: 0.01 }), [0.02])
    near(values('speed-flow-area', { q: 0.02, a: 0.01 }), [2])
    // 1 m3, 36 m3/h, K 3, 5 %: 300 s · ln 20
    near(values('clear-out', { volume: 1, flow: 0.01 }), [300 * Math.log(20), 36])
    // 20 holes of 10 mm: 15.7 cm2, of 100 cm2 15.7 %
    near(values('holes', { d: 0.01, n: 20, whole: 0.01 }), [1.5708e-3, 0.15708])
    // 120 × 60 mm: π/4 · 7200, 60 · 60 + π/4 · 3600 mm2
    near(values('oval', { w: 0.12, h: 0.06 }), [5.65487e-3, 6.42743e-3, 0.0904637])
    near(values('filter-area', { q: 0.02, v: 0.5 }), [0.04, 0.2])
  })
  test('sound: 3 dB for twice, 10 dB for twice as loud, 6 dB a doubling of distance (ISO 532, free field)', () => {
    near(values('levels-sum', {}, { levels: [30, 30] }), [33.01])
    near(values('levels-minus', { all: 40, off: 33 }), [39.03])
    expect(values('levels-minus', { all: 40, off: 38 })).toMatch(/Less than 3 dB/)
    near(values('loudness', { before: 40, after: 30 }), [0.5, -10])
    near(values('distance', { level: 40, from: 1, to: 2 }), [33.98])
  })
  test('power and wire', () => {
    // (12 − 7) / 0.1 = 50 Ω, next of E24 51 Ω, 0.5 W, part for 1 W
    near(values('resistor', { current: 0.1 }), [50, 51, 0.5, 1])
    expect(values('resistor', { fan: 12, current: 0.1 })).toMatch(/only takes voltage away/)
    // (12 − 2) / 10 mA = 1 kΩ, 0.1 W
    near(values('led', {}), [1000, 1000, 0.1])
    expect(values('led', { current: 0 })).toBe('Current must be above zero.')
    expect(values('led', { leds: 6 })).toMatch(/more than the supply/)
    // 22 AWG is 0.3255 mm2 (ASTM B258); 2 m there and back of 0.017241 Ω mm2/m
    near(values('wire', { length: 2, current: 0.5 }, {}, { awg: '22' }), [0.1059, 0.1059 / 12], 2)
    // 5 V · 1 A / (0.88 · 12 V)
    near(values('converter', { current: 1 }), [0.47348, 0.68182])
    // 37 Wh · 0.85 / 1 W
    near(values('running-time', { energy: 37 * 3600, load: 1 }), [113220])
  })
  test('heat and water', () => {
    // 100 W and 10 K: 100 / (1.2 · 1006 · 10) m3/s, the 3.1 P/ΔT of common practice in m3/h to 5 %
    near(values('air-for-heat', { heat: 100 }), [8.2836e-3])
    // 42 kJ/K from 10 K to 1 K with 100 W and no loss: 3780 s
    near(values('pull-down', { capacity: 42000, spare: 100, warm: 10 }), [3780])
    // 20 °C at 50 %: 9.3 °C (psychrometric tables)
    near(values('dew-point', { t: 20, rh: 0.5 }), [9.27], 1)
    expect(values('dew-point', { t: 20, rh: 1.2 })).toMatch(/at most 100 %/)
    const water = run('evaporation', { area: 0.24, water: 24, air: 27 })
    expect(water.ok && water.figures[0]!.low! < water.figures[0]!.value!).toBe(true)
  })
  test('control, against the chapter’s check values', () => {
    // 40 W, 400 J/K, 2.5 and 0.8 W/K, 25 °C, on at 55, off at 45: 8.929 cycles an hour (control-thermostat-003)
    const part = { heat: 40, capacity: 400, off: 0.8, on: 2.5, ambient: 25, high: 55, low: 45 }
    near(values('thermostat', part).slice(0, 1) as number[], [8.9290143])
    // 100 000 of them, all day: 1.28 years
    near((values('thermostat', part) as number[]).slice(3), [100_000 / (8.9290143 * 24 * 365)])
    expect(values('thermostat', { ...part, heat: 5 })).toMatch(/stays off/)
    expect(values('thermostat', { ...part, heat: 200 })).toMatch(/stays on/)
    expect(values('thermostat', { ...part, low: 60 })).toMatch(/goes off below/)
    // 62 to 40 °C towards 27 with τ 180 s (control-thermostat-015)
    near(values('run-on', { tau: 180, from: 62, to: 40, end: 27 }), [178.27])
    expect(values('run-on', { tau: 180, from: 62, to: 20, end: 27 })).toMatch(/never gets there/)
    // control-schedule-006
    near(values('quiet', { tau: 900, from: 32, limit: 45, end: 60 }), [561.75])
    expect(values('quiet', { tau: 900, from: 32, limit: 45, end: 44 })).toMatch(/for ever/)
    // 16 MHz, 25 kHz: counts to 639
    near(values('pwm-timer', { clock: 16e6 }), [639, 25000, 640])
    const coarse = run('pwm-timer', { clock: 1e6 })
    expect(coarse.ok && coarse.warning).toMatch(/heard as steps/)
  })
  test('each asks for what is missing, and never shows a number that is none', () => {
    for (const sum of sums) {
      const empty = convert(sum, { n: {}, lists: {}, choice: {}, density: 1.2 })
      expect(empty, sum.key).toMatchObject({ ok: false, reason: expect.stringMatching(/^Wanted: /) })
      const zeros = convert(sum, {
        n: Object.fromEntries(sum.fields.map((f) => [f.key, 0])),
        lists: Object.fromEntries(sum.fields.filter((f) => f.list).map((f) => [f.key, [0]])),
        choice: { awg: '22' },
        density: 1.2,
      })
      if (zeros.ok) expect(zeros.figures.every((f) => f.value === null || Number.isFinite(f.value))).toBe(true)
      expect(sum.convert.length <= 1 && sum.title.length > 0).toBe(true)
    }
    expect(new Set(sums.map((s) => s.key)).size).toBe(sums.length)
  })
})
