import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { channelName, channelOf, type ChannelQuantity } from './channel'
import { channelView } from './view'
import { gapsOf, logWindow, summarise, tachLosses, usualStep } from './log'
import { jumpsOf } from './plausibility'
import { readBench, readBenchLine, writeBench, type BenchRow } from './bench-line'

describe('names of channels', () => {
  test.each<[string, string, ChannelQuantity, number, number]>([
    ['sink_degC', 'sink', 'temperature', 1, 0],
    ['case_top_degF', 'case top', 'temperature', 5 / 9, -160 / 9],
    ['fan_rpm', 'fan', 'rotation', 1, 0],
    ['duct_m3h', 'duct', 'flow', 1 / 3600, 0],
    ['supply_mV', 'supply', 'voltage', 1e-3, 0],
    ['chair_dba', 'chair', 'level', 1, 0],
    ['door', 'door', 'number', 1, 0],
    ['_degC', ' degC', 'number', 1, 0],
  ])('%s', (text, name, quantity, factor, offset) => {
    const c = channelOf(text)
    expect(c).toMatchObject({ name, quantity, factor })
    expect(c.offset).toBeCloseTo(offset, 9)
  })
  test('°F: 212 is 100 °C', () =>
    expect(212 * channelOf('x_degF').factor + channelOf('x_degF').offset).toBeCloseTo(100, 9))
  test('a name is written as it is read', () => {
    for (const name of ['sink_degC', 'fan_one_rpm', 'box_Pa', 'door'])
      expect(channelName(channelOf(name))).toBe(name)
  })
})

describe('bench lines', () => {
  test('a row, a gap, a comma for the decimals', () => {
    expect(readBenchLine('118 59000 sink_degC=41,25 box_Pa= fan_rpm=nan')).toEqual({
      row: { seq: 118, ms: 59000, values: { sink_degC: 41.25, box_Pa: null, fan_rpm: null } },
    })
    expect(readBenchLine('   ')).toBeNull()
    expect(readBenchLine('# boot=a7 name=box')).toEqual({ heading: { boot: 'a7', name: 'box' } })
  })
  test.each([
    ['garbage', 'running number'],
    ['-1 0 a=1', 'running number'],
    ['1 soon a=1', 'milliseconds'],
    ['1 2 a', 'no name=value'],
    ['1 2 a=warm', 'value of a'],
    ['1 2 3a=1', 'no name=value'],
    [`1 2 ${Array.from({ length: 40 }, (_, i) => `c${i}=1`).join(' ')}`, 'more than'],
  ])('%s is told, not taken', (line, why) =>
    expect(readBenchLine(line)).toMatchObject({ why: expect.stringContaining(why) }),
  )
  test('JSON says the same', () => {
    const rows = [{ seq: 1, ms: 1000, values: { sink_degC: 40, box_Pa: null } }]
    expect(
      readBench(JSON.stringify({ boot: 'b1', rows: [{ seq: 1, ms: 1000, sink_degC: 40, box_Pa: null }] })),
    ).toEqual({ boot: 'b1', rows, refused: [] })
    expect(readBench(JSON.stringify([{ seq: 1, ms: 1000, sink_degC: 40, box_Pa: null }])).rows).toEqual(rows)
  })
  test.each([
    ['{"rows":', 'is none'],
    ['{"a":1}', 'no rows'],
    ['[{"seq":1.5,"ms":0}]', 'seq'],
    ['[{"seq":1,"ms":"x"}]', 'ms'],
    ['[{"seq":1,"ms":1,"a":"x"}]', 'value of a'],
    ['[7]', 'not an object'],
    ['[{"seq":1,"ms":1,"a b":1}]', 'no name'],
  ])('%s is refused', (text, why) => {
    expect(readBench(text).refused[0]!.why).toContain(why)
  })
  test('good lines of a bad message are taken', () => {
    const { boot, rows, refused } = readBench('# boot=x9\n1 0 a_V=12\n%%%%\n2 1000 a_V=12.1\n')
    expect([boot, rows.map((r) => r.seq), refused.map((r) => r.line)]).toEqual(['x9', [1, 2], [3]])
  })
  test('what is written is read again', () => {
    const row = fc.record({
      seq: fc.nat(),
      ms: fc.nat(),
      values: fc.dictionary(
        fc.stringMatching(/^[a-z][a-z0-9_]{0,8}$/),
        fc.option(fc.double({ min: -1e4, max: 1e4, noNaN: true })),
      ),
    })
    fc.assert(
      fc.property(fc.array(row, { maxLength: 6 }), (rows: BenchRow[]) => {
        const read = readBench(writeBench('b', rows))
        expect(read.refused).toEqual([])
        expect(read.rows.map((r) => [r.seq, r.ms, Object.keys(r.values)])).toEqual(
          rows.map((r) => [r.seq, r.ms, Object.keys(r.values)]),
        )
        read.rows.forEach((r, i) =>
          Object.entries(r.values).forEach(([k, v]) =>
            v === null ? expect(rows[i]!.values[k]).toBeNull() : expect(v).toBeCloseTo(rows[i]!.values[k]!, 2),
          ),
        )
      }),
    )
  })
})

describe('logs', () => {
  const times = Float64Array.from([0, 1, 2, 3, 10, 11, 12])
  test('windows, steps and silences', () => {
    expect(logWindow({ times, channels: [] }, 1, 10)).toEqual({ start: 1, end: 5 })
    expect(logWindow({ times, channels: [] }, 20, 30)).toEqual({ start: 7, end: 7 })
    expect(usualStep(times)).toBe(1)
    expect(gapsOf(times)).toEqual([{ from: 3, to: 10 }])
    expect(gapsOf(Float64Array.from([1]))).toEqual([])
  })
  test('gaps are not zeros', () => {
    expect(summarise(Float64Array.from([1, NaN, 3]))).toEqual({
      n: 2,
      mean: 2,
      low: 1,
      high: 3,
      last: 3,
      sd: Math.SQRT2,
    })
    expect(summarise(Float64Array.from([NaN]))).toBeNull()
  })
  const t = Float64Array.from({ length: 20 }, (_, i) => i)
  const rpm = (f: (i: number) => number) => Float64Array.from(t, f)
  test('a fan that stands although it is fed is an alarm; one that is switched off is not', () => {
    const stops = rpm((i) => (i < 8 ? 1500 : i < 14 ? 0 : 1500))
    expect(tachLosses(t, stops, null)).toEqual([{ at: 8, lasted: 6 }])
    expect(
      tachLosses(
        t,
        stops,
        rpm((i) => (i < 8 || i >= 14 ? 12 : 0)),
      ),
    ).toEqual([])
    expect(
      tachLosses(
        t,
        rpm((i) => (i < 8 ? 1500 : NaN)),
        null,
      ),
    ).toEqual([{ at: 8, lasted: 11 }])
    expect(
      tachLosses(
        t,
        rpm((i) => (i === 8 ? NaN : 1500)),
        null,
      ),
    ).toEqual([])
    expect(
      tachLosses(
        t,
        rpm(() => 0),
        null,
      ),
    ).toEqual([])
  })
})

describe('a long log drawn', () => {
  const n = 100_000
  const times = Float64Array.from({ length: n }, (_, i) => i)
  const values = Float64Array.from({ length: n }, (_, i) => (i === 54_321 ? 900 : Math.sin(i / 500)))
  test('a single spike of one sample is still there, in few points', () => {
    const view = channelView(times, values, 0, n, 1000, 10)
    expect(view.y.length).toBeLessThanOrEqual(1000)
    expect(Math.max(...view.y)).toBe(900)
    expect(view.x.every((t, i) => i === 0 || t >= view.x[i - 1]!)).toBe(true)
  })
  test('silences and missing values break the line; a window shows its own rows only', () => {
    const t = Float64Array.from([0, 1, 2, 50, 51, 52])
    expect(channelView(t, Float64Array.from([1, 2, 3, 4, 5, 6]), 0, 6, 100, 5).y).toEqual([
      1,
      2,
      3,
      NaN,
      4,
      5,
      6,
    ])
    expect(channelView(t, Float64Array.from([1, NaN, 3, NaN, NaN, 6]), 0, 3, 100, 5).y).toEqual([1, NaN, 3])
    expect(channelView(t, new Float64Array(6), 4, 4, 100, 5)).toEqual({ x: [], y: [] })
  })
})

describe('steps that no probe and no fan can make (docs/physics.md, measuring: common practice)', () => {
  const jumps = (quantity: string, rows: [number, number][]) =>
    jumpsOf(quantity, Float64Array.from(rows.map((r) => r[0])), Float64Array.from(rows.map((r) => r[1])))
  test.each([
    [
      'temperature',
      '12 K in two seconds',
      [
        [0, 40],
        [2, 52],
      ],
      1,
    ],
    [
      'temperature',
      '9 K in two seconds',
      [
        [0, 40],
        [2, 49],
      ],
      0,
    ],
    [
      'temperature',
      'the last digit of a sensor read ten times a second',
      [
        [0, 40],
        [0.1, 40.5],
        [0.2, 40],
      ],
      0,
    ],
    [
      'temperature',
      'a step over a silence is held against its length',
      [
        [0, 40],
        [1, NaN],
        [10, 70],
      ],
      0,
    ],
    [
      'rotation',
      'half as fast again',
      [
        [0, 1000],
        [1, 1500],
      ],
      0,
    ],
    [
      'rotation',
      'from 1500 to 600 rpm',
      [
        [0, 1500],
        [1, 600],
      ],
      1,
    ],
    [
      'rotation',
      'a start',
      [
        [0, 0],
        [1, 700],
        [2, 1500],
      ],
      0,
    ],
    [
      'rotation',
      'a stop',
      [
        [0, 1500],
        [1, 700],
        [2, 0],
      ],
      0,
    ],
    [
      'level',
      'has no limit',
      [
        [0, 20],
        [1, 80],
      ],
      0,
    ],
  ] as [string, string, [number, number][], number][])('%s: %s', (quantity, _, rows, count) => {
    expect(jumps(quantity, rows)).toHaveLength(count)
  })
})
