import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, test } from 'vitest'
import { compareRuns, mainComparison } from './comparison'
import { newReading, newRun, readingMean, runStates, usualPair, type Reading, type Run } from '#core/document'

const r = (quantity: Reading['quantity'], value: number, rest: Partial<Reading> = {}): Reading => ({
  ...newReading(`${quantity}-${rest.place ?? 'x'}-${rest.source ?? ''}`, quantity, 'x', value),
  ...rest,
})
let made = 0
const run = (kind: Run['kind'], readings: Reading[], rest: Partial<Run> = {}): Run => ({
  ...newRun(
    `run-${made++}`,
    kind,
    `2026-03-${kind === 'after' ? '02' : '01'}T10:${String(made % 60).padStart(2, '0')}:00.000Z`,
  ),
  fanV: 12,
  voltageAt: 'fan',
  ambientC: 22,
  heatW: 60,
  distanceM: 1,
  soakS: 1800,
  steady: true,
  lid: 'closed',
  readings,
  ...rest,
})
const one = (b: Run[], a: Run[], quietens = false) => compareRuns(b, a, quietens).comparisons[0]!

describe('states', () => {
  test('runs after the same change are replicates; bench tests stand aside', () => {
    const runs = [
      run('after', [], { changeNo: 2 }),
      run('baseline', []),
      run('after', []),
      run('after', [], { changeNo: 2 }),
      run('bench', []),
    ]
    const states = runStates(runs)
    expect(states.map((s) => [s.name, s.runs.length])).toEqual([
      ['baseline', 1],
      ['after change 1', 1],
      ['after change 2', 2],
      ['bench tests', 1],
    ])
    expect(usualPair(states)).toMatchObject({ before: { kind: 'baseline' }, after: { changeNo: 2 } })
    expect(usualPair(runStates([]))).toEqual({ before: null, after: null })
  })
  test('repeats have a mean; that of levels is of their energy', () => {
    expect(readingMean(r('temperature', 40, { repeats: [42, 44] }))).toBe(42)
    expect(readingMean(r('level', 30, { repeats: [40] }))).toBeCloseTo(10 * Math.log10((1e3 + 1e4) / 2), 9)
  })
})

describe('the interval', () => {
  const flows = (values: number[]) => values.map((v) => r('flow', v))
  // three and four runs: the Welch interval worked out with a general statistics package; t(0.975, 4.946) from tables
  // lies between 2.571 (5) and 2.776 (4)
  const [b, a] = [
    [0.01, 0.0104, 0.0098],
    [0.0124, 0.012, 0.0127, 0.0125],
  ]
  const far = (i: number) => ({ takenAt: `2026-05-${String(i + 1).padStart(2, '0')}T10:00:00.000Z` })
  test('replicates with unlike spreads', () => {
    const c = one(
      flows(b).map((x, i) => run('baseline', [x], far(i))),
      flows(a).map((x, i) => run('after', [x], far(10 + i))),
    )
    const v = (x: number[]) => sampleStandardDeviation(x) ** 2 / x.length
    const df = (v(b) + v(a)) ** 2 / (v(b) ** 2 / 2 + v(a) ** 2 / 3)
    expect(df).toBeGreaterThan(3)
    expect(df).toBeLessThan(5)
    const t = c.halfWidth / Math.sqrt(v(b) + v(a))
    expect(t).toBeGreaterThan(2.571)
    expect(t).toBeLessThan(3.182)
    expect(c).toMatchObject({ basis: 'welch', n: [3, 4], shown: true })
  })
  test('runs in pairs within the hour cancel what drifts', () => {
    const drift = [0, 5, 10]
    const before = drift.map((d, i) =>
      run('baseline', [r('temperature', 50 + d)], { takenAt: `2026-05-0${i + 1}T10:00:00.000Z` }),
    )
    const after = drift.map((d, i) =>
      run('after', [r('temperature', 44 + d + 0.1 * i)], { takenAt: `2026-05-0${i + 1}T10:40:00.000Z` }),
    )
    const c = one(before, after)
    expect(c).toMatchObject({ basis: 'paired', shown: true })
    expect(c.difference).toBeCloseTo(-5.9, 9)
    // n = 3: t(0.975, 2) = 4.303 (Student), s of the differences 0.1
    expect(c.halfWidth).toBeCloseTo((4.303 * 0.1) / Math.sqrt(3), 3)
  })
  test('single runs have the range of their instruments, widened by how repeats scatter', () => {
    const plain = one([run('baseline', [r('temperature', 50)])], [run('after', [r('temperature', 44)])])
    expect(plain).toMatchObject({ basis: 'instruments', shown: true })
    const scattered = one(
      [run('baseline', [r('temperature', 50, { repeats: [45, 55] })])],
      [run('after', [r('temperature', 44)])],
    )
    expect(scattered.halfWidth).toBeGreaterThan(plain.halfWidth)
    expect(scattered.shown).toBe(false)
  })
})

describe('normalised, and refused where physics does not allow it', () => {
  test('rises over ambient, and to the same load within a factor 0.5 to 1.5', () => {
    expect(
      one([run('baseline', [r('temperature', 52)])], [run('after', [r('temperature', 50)], { ambientC: 30 })]),
    ).toMatchObject({ asRise: true, before: 30, after: 20, difference: -10 })
    expect(
      one([run('baseline', [r('temperature', 52)])], [run('after', [r('temperature', 42)], { heatW: 80 })])
        .after,
    ).toBeCloseTo(15, 9)
    expect(
      one([run('baseline', [r('temperature', 52)])], [run('after', [r('temperature', 42)], { heatW: 200 })])
        .refused,
    ).toContain('loads differ')
  })
  test('levels to the same distance between 0.3 and 1.5 m only', () => {
    const c = one([run('baseline', [r('level', 40)])], [run('after', [r('level', 46.02)], { distanceM: 0.5 })])
    expect(c.after).toBeCloseTo(40, 1)
    expect(c.refused).toBe('')
    expect(
      one([run('baseline', [r('level', 40)])], [run('after', [r('level', 46)], { distanceM: 0.1 })]).refused,
    ).toContain('distance law')
  })
  test('another voltage: taken back by the fan laws, unless the voltage or the fan was the change', () => {
    const [b, a] = [
      [run('baseline', [r('flow', 0.01), r('pressure', 16), r('level', 40)])],
      [
        run('after', [r('flow', 0.009), r('pressure', 12.96), r('level', 40 + 50 * Math.log10(0.9))], {
          fanV: 10.8,
          changed: 'path' as const,
        }),
      ],
    ]
    const all = compareRuns(b, a, false).comparisons
    expect(all.map((c) => c.after)).toEqual([
      expect.closeTo(0.01, 9),
      expect.closeTo(16, 9),
      expect.closeTo(40, 6),
    ])
    expect(all.every((c) => c.steps.join().includes('same voltage'))).toBe(true)
    expect(compareRuns(b, a, false).unfair.map((u) => u.what)).toEqual(['fan voltage'])
    // half the voltage is too far to guess the speed from; where the tach was read it is no guess
    a[0]!.fanV = 6
    expect(compareRuns(b, a, false).comparisons.every((c) => c.refused.includes('speed was not read'))).toBe(
      true,
    )
    b[0]!.readings.push(r('rotation', 2000))
    a[0]!.readings.push(r('rotation', 900))
    const tach = compareRuns(b, a, false).comparisons
    expect(tach[0]!.after).toBeCloseTo((0.009 * 2000) / 900, 9)
    expect(tach[3]!.refused).toContain('speed was not read')
    a[0]!.changed = 'voltage'
    expect(compareRuns(b, a, false).comparisons[0]!.after).toBe(0.009)
    expect(compareRuns(b, a, false).unfair).toEqual([])
    a[0]!.changed = null
    expect(compareRuns(b, a, true).comparisons[0]!.after).toBe(0.009)
  })
  test('a temperature at another voltage is refused: its air was another', () => {
    const [b, a] = [
      [run('baseline', [r('temperature', 50)])],
      [run('after', [r('temperature', 45)], { fanV: 10.8, changed: 'path' as const })],
    ]
    expect(one(b, a).refused).toContain('another voltage')
    a[0]!.changed = 'voltage'
    expect(one(b, a).refused).toBe('')
  })
  test.each<[string, Partial<Run>, Partial<Reading>, string]>([
    ['another lid', { lid: 'open' }, {}, 'another air path'],
    ['other openings', { otherOpenings: false }, {}, 'another way'],
    ['a jet against a hood', {}, { method: 'jet' }, 'free jet'],
  ])('%s', (_, rest, reading, why) => {
    expect(
      one(
        [run('baseline', [r('flow', 0.01, { method: 'hood' })])],
        [run('after', [r('flow', 0.012, { method: 'hood', ...reading })], rest)],
      ).refused,
    ).toContain(why)
  })
  test('a shorter soak that is not steady is refused for temperatures, not for levels', () => {
    const readings = [r('temperature', 50), r('level', 40)]
    const { comparisons } = compareRuns(
      [run('baseline', readings, { steady: false })],
      [run('after', readings, { soakS: 600, steady: false })],
      false,
    )
    expect(comparisons.map((c) => c.refused !== '')).toEqual([true, false])
  })
  test('two upper bounds say nothing; two jets give a ratio only', () => {
    expect(
      one(
        [run('baseline', [r('level', 31)], { floorDbA: 30 })],
        [run('after', [r('level', 30.5)], { floorDbA: 30 })],
      ).refused,
    ).toContain('upper bounds')
    expect(
      one(
        [run('baseline', [r('flow', 0.01, { method: 'jet' })])],
        [run('after', [r('flow', 0.014, { method: 'jet' })])],
      ),
    ).toMatchObject({ refused: '', ratioOnly: true })
  })
})

describe('per cent', () => {
  test('50 to 70 is a change of +40 %, a difference of 33 %, and never the same thing', () => {
    const c = one([run('baseline', [r('flow', 0.005)])], [run('after', [r('flow', 0.007)])])
    expect(c.change).toBeCloseTo(0.4, 9)
    expect(c.symmetric).toBeCloseTo(1 / 3, 9)
  })
  test('neither decibels nor degrees are told in per cent', () => {
    const { comparisons } = compareRuns(
      [run('baseline', [r('level', 40), r('temperature', 40)], { ambientC: null })],
      [run('after', [r('level', 30), r('temperature', 30)], { ambientC: null })],
      false,
    )
    expect(comparisons.map((c) => [c.change, c.symmetric])).toEqual([
      [null, null],
      [null, null],
    ])
    expect(comparisons[0]!.loudness).toBe(0.5)
  })
})

test('only what is read at the same place, stage and source is compared; the rest is named', () => {
  const b = run('baseline', [
    r('level', 40, { place: 'Chair ' }),
    r('level', 36, { source: 'pump' }),
    r('flow', 0.01),
  ])
  const a = run('after', [
    r('level', 30, { place: 'chair' }),
    r('level', 36, { source: 'pump', stage: 'idle' }),
  ])
  const { comparisons, unmatched } = compareRuns([b], [a], false)
  expect(comparisons.map((c) => c.place)).toEqual(['Chair '])
  expect(unmatched).toEqual(['level, x, pump', 'flow, x', 'level, x, idle, pump'])
  expect(mainComparison(comparisons, 'level', 'chair')?.difference).toBe(-10)
  expect(mainComparison(comparisons, 'flow')).toBeNull()
})

test('swapping the states turns every difference round', () => {
  const value = fc.double({ min: 30, max: 90, noNaN: true })
  fc.assert(
    fc.property(
      fc.array(value, { minLength: 1, maxLength: 4 }),
      fc.array(value, { minLength: 1, maxLength: 4 }),
      (b, a) => {
        const runs = (kind: Run['kind'], list: number[]) =>
          list.map((v, i) =>
            run(kind, [r('level', v)], {
              takenAt: `2026-0${kind === 'after' ? 5 : 4}-0${i + 1}T10:00:00.000Z`,
            }),
          )
        const [there, back] = [
          one(runs('baseline', b), runs('after', a)),
          one(runs('after', a), runs('baseline', b)),
        ]
        expect(there.difference).toBeCloseTo(-back.difference, 8)
        expect(there.halfWidth).toBeCloseTo(back.halfWidth, 8)
      },
    ),
  )
})
