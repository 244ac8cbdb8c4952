import { describe, expect, test } from 'vitest'
import { conversions, convert } from './conversions'

/** Runs a conversion on what was typed. */
function run(key: string, n: Record<string, number>, lists: Record<string, number[]> = {}) {
  const conversion = conversions.find((c) => c.key === key)!
  const all = Object.fromEntries(
    conversion.fields.filter((f) => !f.list).map((f) => [f.key, n[f.key] ?? f.usual]),
  )
  return convert(conversion, { n: all, lists, choice: {}, density: 1.2 })
}
function flowOf(...args: Parameters<typeof run>) {
  const made = run(...args)
  if (!made.ok) throw new Error(made.reason)
  const [first] = made.figures
  return { ...first!, warning: made.warning ?? '' }
}
const reason = (...args: Parameters<typeof run>) => {
  const made = run(...args)
  return made.ok ? `told ${made.figures[0]!.value}` : made.reason
}

describe('airflow without an instrument for it', () => {
  test('a bag of 60 L full in 6 s is 10 L/s; its own weight is next to nothing', () => {
    const flow = flowOf('bag', { v: 0.06, mass: 0.03, area: 0.2 }, { t: [6, 6.1, 5.9] })
    expect(flow.value).toBeCloseTo(0.01, 9)
    expect(flow.low!).toBeLessThan(0.01)
    const made = run('bag', { v: 0.06, mass: 0.03, area: 0.2 }, { t: [6] })
    expect(made.ok && made.figures[1]!.value).toBeCloseTo((0.03 * 9.80665) / 0.2, 9)
  })
  test('a bag smaller than a second’s flow is refused, under two seconds it is told', () => {
    expect(reason('bag', { v: 0.01 }, { t: [0.6] })).toMatch(/larger one/)
    expect(flowOf('bag', { v: 0.03 }, { t: [1.5, 1.5, 1.5] }).warning).toMatch(/watch decides/)
  })
  test('100 W and 8.3 K: 100/(1.2 · 1006 · 8.3) m3/s; walls take their part; a small rise is told', () => {
    expect(flowOf('heater', { watts: 100, rise: 8.3 }).value).toBeCloseTo(100 / (1.2 * 1006 * 8.3), 9)
    expect(flowOf('heater', { watts: 100, rise: 8.3, lost: 20 }).value).toBeCloseTo(80 / (1.2 * 1006 * 8.3), 9)
    expect(reason('heater', { watts: 20, rise: 5, lost: 30 })).toMatch(/nothing is left/)
    expect(flowOf('heater', { watts: 20, rise: 1.5 }).warning).toMatch(/more watts/)
  })
  test('a sharp-edged hole by hand: 50 mm, 10 Pa', () => {
    expect(flowOf('carton', { p: 10 }, { d: [0.05] }).value).toBeCloseTo(0.61 * 0.0019635 * 4.0825, 5)
    expect(flowOf('carton', { p: 10, box: 0.09 }, { d: [0.05, 0.05] }).value).toBeGreaterThan(
      2 * 0.61 * 0.0019635 * 4.0825,
    )
    expect(reason('carton', { p: 10, box: 0.001 }, { d: [0.05] })).toMatch(/larger than the carton/)
  })
  test('a jet on a scale: F = 1.12 · rho · Q²/A', () => {
    const area = (Math.PI / 4) * (0.11 ** 2 - 0.04 ** 2)
    const q = 0.02
    const grams = (1.12 * 1.2 * q ** 2) / area / 9.80665
    const flow = flowOf('thrust', { mass: grams, d: 0.11, hub: 0.04 })
    expect(flow.value).toBeCloseTo(q, 9)
    expect(flow.low!).toBeLessThan(q)
    expect(flow.high!).toBeGreaterThan(q)
    expect(reason('thrust', { mass: 0.001, d: 0.11 })).toMatch(/finer one/)
  })
})

describe('what clears out', () => {
  /** A mixed room step by step: dC/dt = −Q/V · (C − outside), by Runge and Kutta's fourth order. */
  function room(volume: number, flow: number, start: number, outside: number, at: readonly number[]): number[] {
    const f = (c: number) => (-flow / volume) * (c - outside)
    const [out, step] = [[] as number[], 0.5]
    let [c, t] = [start, 0]
    for (const until of at) {
      while (t < until - 1e-9) {
        const h = Math.min(step, until - t)
        const k1 = f(c)
        const k2 = f(c + (h / 2) * k1)
        const k3 = f(c + (h / 2) * k2)
        const k4 = f(c + h * k3)
        c += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4)
        t += h
      }
      out.push(c)
    }
    return out
  }
  const times = [60, 120, 240, 360, 480]
  test('the flow of a room that was stepped as a differential equation', () => {
    const read = room(8, 0.02, 2000, 420, times)
    const flow = flowOf('clear-out', { v: 8, base: 420 }, { t: times, c: read })
    expect(flow.value).toBeCloseTo(0.02, 6)
  })
  test('readings that scatter widen the range, which holds the truth', () => {
    const off = [1.06, 0.95, 1.04, 0.94, 1.03]
    const read = room(8, 0.02, 1600, 0, times).map((c, i) => c * off[i]!)
    const flow = flowOf('clear-out', { v: 8 }, { t: times, c: read })
    expect(flow.low!).toBeLessThan(0.02)
    expect(flow.high!).toBeGreaterThan(0.02)
    expect(flow.high! - flow.low!).toBeGreaterThan(0.1 * 0.02)
  })
  test('rising, at the background, too few, not alike: refused', () => {
    expect(reason('clear-out', { v: 8 }, { t: [1, 2, 3], c: [5, 6, 7] })).toMatch(/do not fall/)
    expect(reason('clear-out', { v: 8, base: 6 }, { t: [1, 2, 3], c: [9, 6, 7] })).toMatch(/background already/)
    expect(reason('clear-out', { v: 8 }, { t: [1, 2], c: [9, 6] })).toMatch(/Three readings/)
    expect(reason('clear-out', { v: 8 }, { t: [1, 2, 3], c: [9, 6] })).toMatch(/same order/)
    expect(reason('clear-out', { v: 8 }, { t: [1, 3, 2], c: [9, 6, 5] })).toMatch(/must rise/)
  })
  test('by eye: three time constants, two to four', () => {
    const flow = flowOf('by-eye', { v: 6, gone: 300 })
    expect([flow.low, flow.value, flow.high]).toEqual([0.04, 0.06, 0.08])
  })
})

describe('a phone as a level meter', () => {
  test('one comparison gives its offset', () => {
    expect(flowOf('phone', { read: 40, phone: 45, meter: 39, quiet: 28 }).value).toBe(34)
  })
  test('alone it tells no level; at its floor none; misread none', () => {
    expect(reason('phone', { read: 40 })).toMatch(/only differences/)
    expect(reason('phone', { read: 30, phone: 45, meter: 39, quiet: 29 })).toMatch(/own floor/)
    expect(reason('phone', { read: 40, phone: 75, meter: 39 })).toMatch(/misread/)
  })
})

describe('turns in a slow-motion film', () => {
  test('20 turns in 120 frames at 240 a second: 2400 rpm', () => {
    const speed = flowOf('slow-motion', { turns: 20, frames: 120, rate: 240 })
    expect(speed.value).toBe(2400)
    expect(speed.low!).toBeLessThan(2400)
  })
  test('half a turn a frame may as well be backwards', () => {
    expect(reason('slow-motion', { turns: 70, frames: 120, rate: 240 })).toMatch(/backwards/)
  })
})
