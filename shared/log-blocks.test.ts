import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { normal, seeded } from '#core/numeric'
import { decodeColumn, encodeColumn } from './block-column'
import { BLOCK_ROWS, checkBlock, decodeBlock, encodeBlock, joinBlocks, readBlocks } from './log-blocks'

/** Blocks of readings: small, and the same doubles again. */

const back = (values: readonly number[]) => {
  const out = new Float64Array(values.length)
  const bytes = encodeColumn(values, 0, values.length)
  expect(decodeColumn(bytes, 0, out)).toBe(bytes.length)
  return { bytes, values: Array.from(out) }
}
const gaps = (tenths: number, of: fc.Arbitrary<number>) =>
  fc.oneof({ weight: 10 - tenths, arbitrary: of }, { weight: tenths, arbitrary: fc.constant(NaN) })
const decimals = (places: number) => fc.integer({ min: -1e6, max: 1e6 }).map((k) => Number(`${k}e-${places}`))

describe('a column', () => {
  test.each([
    ['whole numbers', gaps(1, fc.integer())],
    ['one decimal', gaps(3, decimals(1))],
    ['six decimals', gaps(1, decimals(6))],
    ['decimals of all kinds', fc.oneof(decimals(0), decimals(2), decimals(7))],
    ['any doubles, zeros with a minus and infinities', gaps(1, fc.double())],
    ['large beside small', fc.oneof(fc.constantFrom(2 ** 51, 2 ** 53, 1e300, -0), decimals(9))],
  ])('of %s comes back to the last bit', (_, value) => {
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 60 }), (values) => {
        const got = back(values).values
        for (const [i, v] of values.entries()) expect(Object.is(got[i], v), `${v}`).toBe(true)
      }),
      { numRuns: 300, seed: 5 },
    )
  })
  test('of a logger takes a byte or less a reading', () => {
    const gauss = normal(seeded(3))
    const rows = 1000
    const of = (make: (i: number) => number) =>
      back(Array.from({ length: rows }, (_, i) => make(i))).bytes.length
    const head = 20
    expect(of(() => 22.1)).toBe(head)
    expect(of((i) => i / 10)).toBe(head)
    expect(of(() => NaN)).toBe(head + rows / 8)
    expect(of((i) => Number((45 + 0.1 * gauss() - i / 100).toFixed(2)))).toBe(head + rows - 1)
    expect(of((i) => 1500 + 100 * (i % 7))).toBe(head + 2 * (rows - 1))
    expect(of(() => gauss())).toBe(1 + 8 * rows)
  })
})

describe('a block', () => {
  const times = Array.from({ length: 50 }, (_, i) => i / 10)
  const warm = times.map((t) => Number((30 + t).toFixed(1)))
  test('some rows of it, with all channels', () => {
    const block = encodeBlock(times, [warm, times.map(() => NaN)], 10, 20)
    const columns = decodeBlock(block, 2)!
    expect(columns.map((c) => c.length)).toEqual([10, 10, 10])
    expect([...columns[0]!]).toEqual(times.slice(10, 20))
    expect([...columns[1]!]).toEqual(warm.slice(10, 20))
    expect(columns[2]!.every(Number.isNaN)).toBe(true)
    expect(decodeBlock(block, 1)).toBeNull()
    // as a server holds it: a part of a larger piece of memory, at any place
    const held = Buffer.concat([Buffer.alloc(3), block]).subarray(3)
    expect(decodeBlock(held, 2)).toEqual(columns)
  })
  test('an older one of plain doubles is still read, also beside a packed one', () => {
    const plain = new Uint8Array(Float64Array.from([0, 1, 2, 40, 41, NaN]).buffer)
    expect(checkBlock(plain, 1)).toBe(3)
    const channels = [{ name: 'a', quantity: 'temperature' as const }]
    const joined = joinBlocks([
      { seq: 0, rows: 3, channels: 1, data: plain },
      { seq: 1, rows: 2, channels: 1, data: encodeBlock([3, 4], [[42, 43.5]]) },
    ])
    const { log, last } = readBlocks(joined.buffer as ArrayBuffer, channels)
    expect([...log.times]).toEqual([0, 1, 2, 3, 4])
    expect([...log.channels[0]!.values]).toEqual([40, 41, NaN, 42, 43.5])
    expect(last).toBe(1)
  })
  test('a few bytes that promise many rows are refused', () => {
    const many = new Float64Array(BLOCK_ROWS + 1)
    const block = encodeBlock(many, [many])
    expect(block.length).toBeLessThan(100)
    expect(checkBlock(block, 1)).toContain('more than 20000')
    // rows beyond all sense: nothing is laid out for them
    new DataView(block.buffer).setUint32(8, 4e9, true)
    expect(decodeBlock(block, 1)).toBeNull()
  })
  test('bytes that were spoiled are refused or read as numbers, never worse', () => {
    const block = encodeBlock(times, [warm])
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(block.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }),
        fc.nat(block.length),
        (changes, length) => {
          const spoiled = block.slice()
          for (const [at, byte] of changes) spoiled[at] = byte
          const columns = decodeBlock(spoiled.subarray(0, length), 1)
          if (columns) expect(columns.map((c) => c.length).every((n) => n === columns[0]!.length)).toBe(true)
        },
      ),
      { numRuns: 2000, seed: 9 },
    )
  })
})
