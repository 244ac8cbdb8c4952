import { describe, expect, test } from 'vitest'
import { panelLayout, panelRoom } from './layout'

/** By hand: 10 mm between frames and to the edges. */

test('room of a panel', () => {
  // 420 x 250 mm for 92 mm: four across (4 x 102 + 10 = 418), two high (2 x 102 + 10 = 214)
  expect(panelRoom(0.42, 0.25, 0.092)).toBe(8)
  expect(panelRoom(0.417, 0.25, 0.092)).toBe(6)
  expect(panelRoom(0.1, 0.25, 0.092)).toBe(0)
  // exactly one fits
  expect(panelRoom(0.112, 0.112, 0.092)).toBe(1)
})
test('two side by side, four in a square, three with the last one in the middle', () => {
  expect(panelLayout(2, 0.42, 0.25, 0.092)).toMatchObject({ columns: 2, rows: 1, pitchXM: 0.21 })
  expect(panelLayout(2, 0.42, 0.25, 0.092)!.centres).toEqual([
    { xM: -0.105, yM: 0 },
    { xM: 0.105, yM: 0 },
  ])
  expect(panelLayout(4, 0.4, 0.4, 0.12)).toMatchObject({ columns: 2, rows: 2, pitchXM: 0.2, pitchYM: 0.2 })
  const three = panelLayout(3, 0.3, 0.3, 0.12)!
  expect(three).toMatchObject({ columns: 2, rows: 2 })
  expect(three.centres[2]).toEqual({ xM: 0, yM: -0.075 })
})
test('every fan keeps its distance to the others and to the edge', () => {
  for (const count of [1, 2, 3, 5, 7, 8]) {
    const { centres } = panelLayout(count, 0.42, 0.25, 0.092)!
    expect(centres).toHaveLength(count)
    for (const [i, a] of centres.entries()) {
      expect(0.21 - Math.abs(a.xM) - 0.046).toBeGreaterThanOrEqual(0.005)
      expect(0.125 - Math.abs(a.yM) - 0.046).toBeGreaterThanOrEqual(0.005)
      for (const b of centres.slice(i + 1))
        expect(Math.max(Math.abs(a.xM - b.xM), Math.abs(a.yM - b.yM))).toBeGreaterThanOrEqual(0.102 - 1e-9)
    }
  }
})
test('what does not go on it has no layout', () => {
  expect(panelLayout(9, 0.42, 0.25, 0.092)).toBeNull()
  expect(panelLayout(40, 1, 1, 0.2)).toBeNull()
})

describe('with a beam across', () => {
  // 420 x 250 mm, a beam of 40 mm whose lower edge lies at 110 mm: 110 mm below it, 100 mm above
  const beam = { leftM: 0, bottomM: 0.11, widthM: 0.42, heightM: 0.04 }
  test('the fans go below it, where frames of 80 mm have room', () => {
    // (420 - 10) / 90: four beside each other, one high, on either side of it
    expect(panelRoom(0.42, 0.25, 0.08, [beam])).toBe(8)
    const { centres } = panelLayout(2, 0.42, 0.25, 0.08, [beam])!
    expect(centres.map((c) => c.xM)).toEqual([-0.105, 0.105])
    for (const c of centres) {
      const [low, high] = [c.yM + 0.125 - 0.04, c.yM + 0.125 + 0.04]
      expect(high <= 0.11 || low >= 0.15).toBe(true)
    }
  })
  test('more than one part takes stand on both sides, none on the beam', () => {
    const { centres, rows } = panelLayout(6, 0.42, 0.25, 0.08, [beam])!
    expect(rows).toBe(2)
    const below = centres.filter((c) => c.yM + 0.125 + 0.04 <= 0.11)
    const above = centres.filter((c) => c.yM + 0.125 - 0.04 >= 0.15 - 1e-9)
    expect([below.length, above.length]).toEqual([3, 3])
    expect(panelLayout(9, 0.42, 0.25, 0.08, [beam])).toBeNull()
  })
  test('frames of 120 mm have none', () => {
    expect(panelRoom(0.42, 0.25, 0.12, [beam])).toBe(0)
    expect(panelLayout(1, 0.42, 0.25, 0.12, [beam])).toBeNull()
  })
  test('a post besides leaves the larger side', () => {
    const post = { leftM: 0.1, bottomM: 0, widthM: 0.05, heightM: 0.25 }
    // 270 mm to its right: two of 80 mm beside each other, above and below the beam; to its left one each
    expect(panelRoom(0.42, 0.25, 0.08, [beam, post])).toBe(6)
    const { centres } = panelLayout(1, 0.42, 0.25, 0.08, [beam, post])!
    expect(centres[0]!.xM).toBeCloseTo(0.285 - 0.21, 9)
  })
})
