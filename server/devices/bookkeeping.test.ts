import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { BenchRow } from '#core/measure'
import { book, newBoot, type Boot } from './bookkeeping'

const row = (seq: number, ms = 100 * seq): BenchRow => ({ seq, ms, values: { a_degC: seq } })
const rows = (...seqs: number[]) => seqs.map((seq) => row(seq))
/** Books messages one after the other. */
function booked(messages: BenchRow[][], start = newBoot(messages[0]![0]!, 0)) {
  let boot: Boot = start
  const kept: number[] = []
  let [repeated, late, stray] = [0, 0, 0]
  for (const message of messages) {
    const b = book(boot, message)
    boot = b.boot
    kept.push(...b.kept.map((k) => k.row.seq))
    repeated += b.repeated
    late += b.late
    stray += b.stray
  }
  return { boot, kept, repeated, late, stray }
}

describe('rows in their places', () => {
  test('in order, with some missing, sent twice', () => {
    const b = booked([rows(0, 1, 2), rows(5, 6), rows(5, 6, 7)])
    expect(b.kept).toEqual([0, 1, 2, 5, 6, 7])
    expect(b).toMatchObject({ repeated: 2, late: 0, boot: { lost: 2, lastSeq: 7, gaps: [[3, 4, true]] } })
  })
  test('messages that overtake each other are not taken for repeats', () => {
    const b = booked([rows(0, 1), rows(6, 7), rows(2, 3), rows(2, 3), rows(5, 4)])
    expect(b.kept.toSorted((x, y) => x - y)).toEqual([0, 1, 2, 3, 4, 5, 6, 7])
    expect(b).toMatchObject({ late: 4, repeated: 2, boot: { lost: 0, gaps: [], late: 4 } })
  })
  test('rows from before the first that was heard are late, and never were lost', () => {
    const b = booked([rows(10, 11), rows(8, 9), rows(8)])
    expect(b.kept).toEqual([10, 11, 8, 9])
    expect(b).toMatchObject({ late: 2, repeated: 1, boot: { lost: 0 } })
  })
  test('a running number that leaps is held until the next row confirms it', () => {
    const away = booked([rows(0, 1), rows(5000)])
    expect(away.kept).toEqual([0, 1])
    expect(away.boot).toMatchObject({ lastSeq: 1, held: row(5000) })
    const back = booked([rows(0, 1), rows(5000), rows(5001, 5002)])
    expect(back.kept).toEqual([0, 1, 5000, 5001, 5002])
    expect(back.boot).toMatchObject({ lost: 4998, held: null })
    // sent again because it was not acknowledged
    expect(booked([rows(0, 1), rows(5000), rows(5000, 5001)]).kept).toEqual([0, 1, 5000, 5001])
  })
  test('a garbled one swallows nothing of what follows', () => {
    const garbled = booked([rows(0, 1), rows(2, 9e14, 3), rows(4)])
    expect(garbled.kept).toEqual([0, 1, 2, 3, 4])
    expect(garbled).toMatchObject({ stray: 1, boot: { lost: 0, held: null } })
    // also where it is the last of its message, and where it is the very first
    expect(booked([rows(0, 1, 9e14), rows(2, 3)])).toMatchObject({ kept: [0, 1, 2, 3], stray: 1 })
    expect(booked([rows(9e14), rows(1, 2)]).kept).toEqual([9e14, 1, 2])
  })
  test('a clock that falls or leaps goes on behind; the order stays', () => {
    const b = book(newBoot(row(0, 5000), 10), [
      row(0, 5000),
      row(1, 6000),
      row(2, 100),
      row(3, 1e14),
      row(4, 1e14 + 500),
    ])
    const times = b.kept.map((k) => k.t)
    expect(times.map((t) => Math.round(1000 * t))).toEqual([10_000, 11_000, 11_001, 11_002, 11_502])
    expect(times).toEqual(times.toSorted((x, y) => x - y))
    expect(b.boot.clockJumps).toBe(2)
  })
  test('whatever order the messages of a board come in, each row is kept once and none is said to be lost', () => {
    const order = fc.shuffledSubarray([0, 1, 2, 3, 4, 5, 6, 7], { minLength: 8 })
    const again = fc.array(fc.nat(7), { maxLength: 6 })
    fc.assert(
      fc.property(order, again, (first, twice) => {
        const message = (n: number) => rows(3 * n, 3 * n + 1, 3 * n + 2)
        const b = booked([...first, ...twice].map(message))
        expect(b.kept.toSorted((x, y) => x - y)).toEqual(Array.from({ length: 24 }, (_, i) => i))
        expect(b.boot).toMatchObject({ lost: 0, lastSeq: 23 })
        expect(b.repeated).toBe(3 * twice.length)
      }),
    )
  })
  test('what is given is not changed', () => {
    const start = newBoot(row(5), 0)
    const before = structuredClone(start)
    book(start, rows(5, 900, 3))
    expect(start).toEqual(before)
  })
})
