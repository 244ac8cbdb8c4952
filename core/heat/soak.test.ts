import { describe, expect, test } from 'vitest'
import { normal, seeded } from '#core/numeric'
import { soakOf } from './soak'

/** A box of two parts (a small sink in a large case) stepped finely: the truth that predictions are held against. */
function box({
  seconds,
  every = 5,
  noise = 0,
  heatW = 40,
  tauS = 900,
  doorAt = Infinity,
  dropouts = 0,
  ambient = (_: number) => 22,
  seed = 1,
}: {
  seconds: number
  every?: number
  noise?: number
  heatW?: number
  tauS?: number
  doorAt?: number
  dropouts?: number
  ambient?: (t: number) => number
  seed?: number
}) {
  const random = seeded(seed)
  const gauss = normal(random)
  const [g, gInner] = [2, 8]
  const [c, cSink] = [g * tauS, 60]
  let [sink, air] = [ambient(0), ambient(0)]
  const t: number[] = []
  const v: number[] = []
  const a: number[] = []
  const dt = 0.1
  for (let i = 0; i * dt <= seconds; i++) {
    const now = i * dt
    if (i % Math.round(every / dt) === 0) {
      t.push(now)
      v.push(random() < dropouts ? NaN : sink + noise * gauss())
      a.push(ambient(now))
    }
    const open = now >= doorAt && now < doorAt + 120 ? 3 : 1
    sink += (dt * (heatW - gInner * (sink - air))) / cSink
    air += (dt * (gInner * (sink - air) - open * g * (air - ambient(now)))) / c
  }
  return { t, v, a, end: ambient(seconds) + heatW / g + heatW / gInner }
}

describe('the end of a soak, told early', () => {
  test('after 1.3 time constants it is within half a kelvin of the truth, and says so with a range that holds it', () => {
    const { t, v, end } = box({ seconds: 1200, noise: 0.1 })
    const s = soakOf(t, v)
    expect(s.state).toBe('predicted')
    expect(Math.abs(s.final! - end)).toBeLessThan(0.7)
    expect(s.tau! / 900).toBeCloseTo(1, 0)
    // 95 % of the rise at three time constants (1 - e^-3)
    expect((1200 + s.to95S!) / 60).toBeCloseTo(3 * 15, -1)
  })
  test('its 95 % interval holds the truth of a one-part box in nearly all of forty runs', () => {
    let held = 0
    for (let seed = 1; seed <= 40; seed++) {
      const tau = 700
      const random = seeded(seed)
      const t = Array.from({ length: 280 }, (_, i) => 5 * i)
      const v = t.map(
        (x) =>
          50 - 28 * Math.exp(-x / tau) + 0.2 * (random() + random() + random() + random() - 2) * Math.sqrt(3),
      )
      const s = soakOf(t, v)
      if (s.low! <= 50 && s.high! >= 50) held++
    }
    expect(held).toBeGreaterThanOrEqual(35)
  })
  test('too early it says rising, and why', () => {
    const { t, v } = box({ seconds: 300, noise: 0.1 })
    expect(soakOf(t, v)).toMatchObject({ state: 'rising', final: null, low: null })
    expect(soakOf(t, v).why).not.toBe('')
    expect(soakOf([0, 1, 2], [20, 21, 22]).why).toContain('8 readings')
  })
  test('with drop-outs as well', () => {
    const { t, v, end } = box({ seconds: 1500, noise: 0.1, dropouts: 0.2 })
    expect(v.some(Number.isNaN)).toBe(true)
    expect(Math.abs(soakOf(t, v).final! - end)).toBeLessThan(0.7)
  })
  test('a door opened half-way: the fit begins anew and says where', () => {
    const { t, v, end } = box({ seconds: 4500, noise: 0.05, doorAt: 1500 })
    const s = soakOf(t, v)
    expect(s.changedAt).not.toBeNull()
    expect(s.changedAt!).toBeGreaterThan(500)
    expect(Math.abs(s.final! - end)).toBeLessThan(0.7)
  })
  test('a log that only scatters has not changed on the way, whatever its noise', () => {
    let blamed = 0
    for (let seed = 1; seed <= 60; seed++) {
      const gauss = normal(seeded(seed))
      const t = Array.from({ length: 300 }, (_, k) => 10 * k)
      const s = soakOf(
        t,
        t.map(() => 40 + 0.15 * gauss()),
      )
      if (s.changedAt !== null) blamed++
      expect(s.state).toBe('steady')
    }
    expect(blamed).toBe(0)
  })
  test('steady when nothing is left to wait for; not before', () => {
    const { t, v, end } = box({ seconds: 4200, noise: 0.05 })
    const s = soakOf(t, v)
    expect(s.state).toBe('steady')
    expect(s.final!).toBeCloseTo(end, 0)
    expect(s.remaining!).toBeLessThan(0.5)
    expect(
      soakOf(...(Object.values(box({ seconds: 2000, noise: 0.05 })).slice(0, 2) as [number[], number[]])).state,
    ).toBe('predicted')
    const flat = Array.from({ length: 200 }, (_, i) => 5 * i)
    expect(
      soakOf(
        flat,
        flat.map((_, i) => 30 + 0.02 * (i % 2)),
      ),
    ).toMatchObject({ state: 'steady', to95S: 0 })
  })
  test.each([1, 2, 3, 4, 5, 6])(
    'what rose quickly and stands since is steady: no curve is read into its noise, seed %i',
    (seed) => {
      const gauss = normal(seeded(seed))
      const t = Array.from({ length: 1800 }, (_, i) => i)
      const s = soakOf(
        t,
        t.map((x) => 25 - 3 * Math.exp(-x / 40) - 1 * Math.exp(-x / 6) + 0.08 * gauss()),
      )
      expect(s).toMatchObject({ state: 'steady', to95S: 0 })
      expect(s.final!).toBeCloseTo(25, 1)
    },
  )
  test('a room that warms up is taken out where it was logged', () => {
    const drift = (x: number) => 22 + (3 * x) / 3600
    const { t, v, a } = box({ seconds: 2400, noise: 0.05, ambient: drift })
    const s = soakOf(t, v, a)
    expect(Math.abs(s.final! - (drift(2400) + 20 + 5))).toBeLessThan(1.2)
  })
  test('a ramp has no end', () => {
    const t = Array.from({ length: 200 }, (_, i) => 5 * i)
    expect(
      soakOf(
        t,
        t.map((x) => 20 + 0.02 * x),
      ),
    ).toMatchObject({ state: 'rising', final: null })
  })
})
