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
    // behind 51 Ω: V + 51·0.1·(V/7)^1.3 = 12, by Newton's method by hand 6.949
    const [behind] = (values('resistor', { current: 0.1 }) as number[]).slice(-1)
    expect(behind).toBeCloseTo(6.949, 3)
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
  test('air through holes, in ducts, before a suction opening', () => {
    // 0.61 · 10 cm2 · √(2 · 10 / 1.2), the jet at √(2 · 10 / 1.2)
    near(values('hole-flow', { area: 1e-3, pressure: 10 }), [
      0.61e-3 * Math.sqrt(20 / 1.2),
      Math.sqrt(20 / 1.2),
    ])
    expect(values('hole-flow', { area: 1e-3, pressure: 10, share: 1.2 })).toMatch(/at most 100 %/)
    // a square of 100 mm: 1.30 · (0.01)^0.625 / 0.2^0.25 m, hydraulic diameter its side
    near(values('round-duct', { width: 0.1, height: 0.1 }), [(1.3 * 0.01 ** 0.625) / 0.2 ** 0.25, 0.01, 0.1])
    // 100 m3/h, 100 cm2, 200 mm before it: Q / (10 x2 + A); resting on a bench Q / (5 x2 + A)
    near(values('capture', { flow: 100 / 3600, area: 0.01, distance: 0.2 }), [100 / 3600 / 0.41, 100 / 36])
    near(values('capture', { flow: 100 / 3600, area: 0.01, distance: 0.2 }, {}, { opening: 'bench' }), [
      100 / 3600 / 0.21,
    ])
    const far = run('capture', { flow: 0.03, area: 0.01, distance: 0.3 })
    expect(far.ok && far.warning).toMatch(/draught/)
  })
  test('fan laws: half the speed, half the flow, a quarter of the pressure, an eighth of the power, 15 dB less', () => {
    near(values('fan-laws', { from: 2000, to: 1000, flow: 0.02, pressure: 40, power: 4, level: 40 }), [
      0.01,
      10,
      0.5,
      40 - 50 * Math.log10(2),
    ])
    expect(values('fan-laws', { from: 2000, to: 1000 })).toMatch(/at least one of/)
    const level = run('fan-laws', { from: 1000, to: 3000, level: 30 })
    expect(level.ok && level.warning).toMatch(/rough guide/)
    // louder or quieter, the level lies within its range
    for (const to of [700, 1400]) {
      const made = run('fan-laws', { from: 1000, to, level: 30 })
      const [l] = made.ok ? made.figures : []
      expect(l!.low! < l!.value! && l!.value! < l!.high!).toBe(true)
    }
  })
  test('a fan high up, of another size, at work, on its sheet, in warm air', () => {
    // 2000 m and 20 °C, dry: 79 495 Pa / (287.05 · 293.15) (ISO 2533)
    near(
      values('thin-air', { altitude: 2000, humidity: 1e-6, pressure: 50 }),
      [0.94469, 0.78724, 39.362, 1.0066],
      2,
    )
    expect(values('thin-air', { altitude: 20000 })).toMatch(/No air is known/)
    near(values('other-size', { flow: 0.01, from: 0.08, to: 0.12 }), [0.03375, 0.0225])
    // 0.02 m3/s · 20 Pa of 2 W
    near(values('efficiency', { flow: 0.02, pressure: 20, power: 2 }), [0.2, 0.4])
    expect(values('efficiency', { flow: 0.2, pressure: 20, power: 2 })).toMatch(/units/)
    const sheet = (power: number) => {
      const made = run('sheet', { flow: 0.04, pressure: 100, power })
      return made.ok && made.warning
    }
    expect([sheet(4), sheet(1.5), sheet(0.9)].map((w) => !w)).toEqual([true, false, false])
    expect(sheet(0.9)).toMatch(/More air power than goes in/)
    // 20 K cooler than stated: four times the life at 10 K, 2.52 times at 15 K; two fans 1/√2 of it
    const life = run('bearing-life', { life: 1e8, stated: 60, air: 40, count: 2 })
    const [one, set, mean] = life.ok ? life.figures : []
    expect([one!.low! / 1e8, one!.high! / 1e8].map((x) => x.toFixed(2))).toEqual(['2.52', '4.00'])
    expect(set!.value! / one!.value!).toBeCloseTo(Math.SQRT1_2, 9)
    // Γ(1.5) / √(−ln 0.9)
    expect(mean!.value! / one!.value!).toBeCloseTo(Math.sqrt(Math.PI) / 2 / Math.sqrt(-Math.log(0.9)), 6)
  })
  test('levels over stages, sone, rooms and bands', () => {
    // half the time 10 dB more: 10 lg(5.5) over the lower one; 85 dB(A) for 8 h is the whole day's allowance (NIOSH)
    near(values('mean-level', {}, { levels: [30, 40], times: [600, 600] }), [30 + 10 * Math.log10(5.5), 1200])
    near(values('mean-level', {}, { levels: [85], times: [8 * 3600] }), [85, 28800, 1])
    expect(values('mean-level', {}, { levels: [85, 80], times: [60] })).toBe(
      'As many times as levels: there are 2 levels and 1 times.',
    )
    near(values('sone', { sone: 1 }), [28])
    // 4 × 5 × 2.5 m is 85 m2, a tenth absorbed: R 9.444 m2; on a surface at 1 m
    const room = { power: 50, distance: 1, length: 4, width: 5, height: 2.5, absorption: 0.1 }
    near(values('room', room), [
      50 + 10 * Math.log10(2 / (4 * Math.PI) + 4 / 9.4444),
      Math.sqrt((2 * 9.4444) / (16 * Math.PI)),
      50 + 10 * Math.log10(4 / 9.4444),
    ])
    expect(values('room', { ...room, absorption: 1 })).toMatch(/below 100 %/)
    // 1 kHz counts as it is, 125 Hz 16.1 dB less (IEC 61672-1)
    near(values('bands', { f1000: 40 }), [40, 40])
    near(values('bands', { f125: 50 }), [50 - 16.1], 2)
    expect(values('bands', {})).toMatch(/at least one band/)
  })
  test('switched and regulated supplies', () => {
    // 12 V, half on, 100 µH, 470 µF, 25 kHz: 12 · 0.25 / (8 L C f2); corner 1 / (2π √(L C))
    const filter = { henry: 100e-6, farad: 470e-6 }
    near(values('smoothing', filter), [
      3 / (8 * 100e-6 * 470e-6 * 625e6),
      6,
      1 / (2 * Math.PI * Math.sqrt(4.7e-8)),
    ])
    const near2 = run('smoothing', { henry: 10e-6, farad: 1e-6 })
    expect(near2.ok && near2.warning).toMatch(/too near/)
    // 0.2 A for 20 ms from 4 mF: 1 V
    near(values('hold-up', { current: 0.2, off: 0.02, farad: 4e-3 }), [1, 4e-3])
    // 240 Ω and 1.2 kΩ: 7.5 V and 0.06 V
    near(values('regulator', { r2: 1200 }), [7.56, 7.56])
    // half of 0.3 H · (0.08 A)2
    near(values('opening', { current: 0.08, henry: 0.3 }), [0.96e-3, 0.64e-9], 3)
    near(values('reverse', { current: 1 }), [0.38, 0.4, 0.02, 0.4])
    // 24 W: 0.071 · ln 24 − 0.0336 + 0.67
    const share = 0.071 * Math.log(24) - 0.0014 * 24 + 0.67
    near(values('wall', { load: 6, rated: 24, hours: 12 }), [6 / share, share, (6 / share) * 43200])
    expect(values('wall', { load: 30, rated: 24 })).toMatch(/no more than its label/)
    const light = run('wall', { load: 5, rated: 24 })
    expect(light.ok && light.warning).toMatch(/a smaller one takes less/)
    // what it draws at the start: 12 V − 50 Ω · 0.2 A leaves 2 V
    const weak = run('resistor', { current: 0.1, startA: 0.2, startV: 5 })
    expect(weak.ok && weak.warning).toMatch(/does not start/)
    const strong = run('resistor', { current: 0.1, startA: 0.12, startV: 5 })
    expect(strong.ok && strong.warning).toBeUndefined()
    // a part for 1 W may burn 55/85 W in air of 100 °C
    near((values('resistor', { current: 0.1, ambient: 100 }) as number[]).slice(4), [55 / 85])
    expect(values('led', { leds: 6 })).toMatch(/4 at most/)
  })
  test('temperatures: another load, before and after, chains, a day, a cooler', () => {
    near(values('other-load', { part: 65, ambient: 25, heat: 20, otherAmbient: 30, otherHeat: 30 }), [90, 2])
    expect(values('other-load', { part: 20, ambient: 25, heat: 20, otherAmbient: 30, otherHeat: 30 })).toMatch(
      /no warmer/,
    )
    // 2 K/W before, 1.5 after: a quarter better
    const pair = { part: 65, ambient: 25, heat: 20, part2: 60, ambient2: 30, heat2: 20 }
    near(values('before-after', pair), [0.25, 2, 1.5])
    const close = run('before-after', { ...pair, part2: 69 })
    expect(close.ok && close.warning).toMatch(/Not told apart/)
    const better = run('before-after', pair)
    const [share] = better.ok ? better.figures : []
    expect(share!.low! > 0 && share!.high! < 0.5).toBe(true)
    near(values('chain', { heat: 10 }, { chain: [1, 0.5] }), [40, 1.5])
    // 2 K/W beside 2 K/W is 1 K/W
    near(values('chain', { heat: 10 }, { chain: [1.5, 0.5], beside: [2] }), [35, 1])
    // a box that holds nothing follows the day; one that holds much stays at the mean
    near(values('day-swing', { ua: 2, capacity: 1, mean: 15, heat: 10 }), [15 + 5 + 6])
    near(values('day-swing', { ua: 2, capacity: 1e9, mean: 15, heat: 10 }), [20, 6 * 3600])
    near(values('cooler', { pumped: 20, amps: 4 }), [68])
  })
  test('slopes, a tach, meters and what is sure', () => {
    // 5 K at 1 K a minute up and 2.5 down: 5 min and 2 min
    near(values('slopes', { warmer: 1, cooler: 2.5 }), [60 / 7, 120, 300])
    near(values('tach', { full: 2000, duty: 0.4 }), [800, 800 / 30, 560])
    // 12.00 V at ±(1 % + 3): 0.15
    near(values('meter', { reading: 12 }), [0.15, 0.15 / Math.sqrt(3), 0.01 / Math.sqrt(12), 0.0125])
    // 12 V ± 0.12, 0.5 A ± 0.01: 1 and 2 %, twice over √3
    near(values('power-sure', { volts: 12, uVolts: 0.12, amps: 0.5, uAmps: 0.01 }), [
      6,
      (2 * 6 * Math.hypot(0.01, 0.02)) / Math.sqrt(3),
    ])
    const bore = { speed: 2, uSpeed: 0.1, diameter: 0.1, uDiameter: 0.001 }
    const flow = (Math.PI / 4) * 0.01 * 2
    near(values('flow-sure', bore), [flow, (2 * flow * Math.hypot(0.05, 0.02)) / Math.sqrt(3)])
    near(values('speed-sure', { pressure: 6, uPressure: 0.6 }), [Math.sqrt(10)])
    const blind = run('speed-sure', { pressure: 1, uPressure: 1 })
    expect(blind.ok && blind.warning).toMatch(/says little/)
    // 0.5 Pa of scatter, ten readings each: 2 · 0.5 · √0.2; for 0.2 Pa fifty
    near(values('pairs', { scatter: 0.5, wanted: 0.2 }), [Math.sqrt(0.2), 50])
  })
  test('a thermistor of 10 kΩ and B 3950, by two points and by three', () => {
    const at = (t: number) => 10_000 * Math.exp(3950 * (1 / (t + 273.15) - 1 / 298.15))
    const two = { r1: 10_000, t2: 50, r2: at(50) }
    near(values('thermistor', { r: at(37), ...two }), [37, 3950, 10_000])
    near(values('thermistor', { r: at(37), ...two, t3: 0, r3: at(0) }), [37, 3950, 10_000])
    expect(values('thermistor', { r: 9000, ...two, t2: 25 })).toMatch(/two temperatures/)
    expect(values('thermistor', { r: 9000, ...two, r2: 12_000 })).toMatch(/falls as it warms up/)
  })
  test('three readings of a rise lead to its end', () => {
    const rise = (t: number) => 60 - 35 * Math.exp(-t / 900)
    const three = { t1: rise(0), t2: rise(600), t3: rise(1200), spacing: 600 }
    near(values('three-readings', three), [60, 900, 1 - Math.exp(-4 / 3), 1500])
    expect(values('three-readings', { ...three, t3: three.t2 })).toMatch(/smaller than the first/)
    const close = { t1: rise(0), t2: rise(60), t3: rise(120), spacing: 60 }
    const made = run('three-readings', close)
    expect(made.ok && made.warning).toMatch(/close together/)
  })
  test('each asks for what is missing, and never shows a number that is none', () => {
    for (const sum of sums) {
      const empty = convert(sum, { n: {}, lists: {}, choice: {}, density: 1.2 })
      expect(empty, sum.key).toMatchObject({ ok: false, reason: expect.stringMatching(/^Wanted: /) })
      // what is asked for is told apart by its name alone
      expect(new Set(sum.fields.map((f) => f.label)).size, sum.key).toBe(sum.fields.length)
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
