import { describe, expect, test } from 'vitest'
import { chainDrilling, coneSheet, grommetFor, layoutGaps, leadNeeded, ringDrilling, tapDrill } from './index'
import { endAreaOf, steepestDeg, transitionSheet, type TransitionEnd } from './transition'

const round = (d: number): TransitionEnd => ({ shape: 'round', widthM: d, heightM: d })
const square = (s: number): TransitionEnd => ({ shape: 'square', widthM: s, heightM: s })
const oval = (w: number, h: number): TransitionEnd => ({ shape: 'oval', widthM: w, heightM: h })
const lengthOf = (edge: readonly (readonly [number, number])[]) =>
  edge.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - edge[i]![0], p[1] - edge[i]![1]), 0)
const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!)

describe('a sheet by triangles', () => {
  test('of a cone is the ring that the exact formula gives', () => {
    const sheet = transitionSheet(round(0.116), round(0.1), 0.06)
    const exact = coneSheet(0.116, 0.1, 0.06)!
    // every point of an edge lies on one circle: chords of 24 parts a quarter, within a thousandth
    const turn = (exact.angleDeg * Math.PI) / 180
    const share = (edge: typeof sheet.fromEdge, radius: number) => lengthOf(edge) / (radius * turn)
    expect(Math.abs(share(sheet.fromEdge, exact.outerM) - 1)).toBeLessThan(0.0003)
    expect(Math.abs(share(sheet.toEdge, exact.innerM) - 1)).toBeLessThan(0.0003)
    const chord = 2 * exact.outerM * Math.sin(turn / 2)
    expect(Math.abs(distance(sheet.fromEdge[0]!, sheet.fromEdge.at(-1)!) / chord - 1)).toBeLessThan(0.001)
    expect(distance(sheet.fromEdge[0]!, sheet.toEdge[0]!)).toBeCloseTo(exact.outerM - exact.innerM, 9)
    expect(sheet.bends).toEqual([])
  })
  test('keeps every length: edges, seam, and the lines to bend', () => {
    const sheet = transitionSheet(square(0.12), round(0.1), 0.08)
    expect(lengthOf(sheet.fromEdge)).toBeCloseTo(4 * 0.12, 9)
    // 96 chords of a circle of 100 mm
    expect(lengthOf(sheet.toEdge)).toBeCloseTo(96 * 0.1 * Math.sin(Math.PI / 96), 9)
    const seam = Math.hypot(0.06 - 0.05, 0.08)
    expect(distance(sheet.fromEdge[0]!, sheet.toEdge[0]!)).toBeCloseTo(seam, 9)
    expect(distance(sheet.fromEdge.at(-1)!, sheet.toEdge.at(-1)!)).toBeCloseTo(seam, 9)
    // from each corner to the two ends of its quarter: 60, 60 against 50, 0
    const bend = Math.hypot(0.06 - 0.05, 0.06, 0.08)
    expect(sheet.bends).toHaveLength(8)
    for (const [a, b] of sheet.bends) expect(distance(a, b)).toBeCloseTo(bend, 9)
  })
  test('of a pyramid: four bends, and its area as that of four trapezia', () => {
    const sheet = transitionSheet(square(0.12), square(0.06), 0.04)
    expect(sheet.bends).toHaveLength(4)
    expect(lengthOf(sheet.toEdge)).toBeCloseTo(0.24, 9)
    const outline = [...sheet.fromEdge, ...sheet.toEdge.toReversed()]
    const area = outline.reduce((s, [x, y], i) => {
      const [nx, ny] = outline[(i + 1) % outline.length]!
      return s + (x * ny - nx * y) / 2
    }, 0)
    // slant √(40² + 30²) = 50 mm: 4 · (120 + 60)/2 · 50 mm²
    expect(Math.abs(area)).toBeCloseTo(4 * 0.09 * 0.05, 9)
  })
  test('to an oval: straight sides stay straight', () => {
    const sheet = transitionSheet(round(0.1), oval(0.14, 0.06), 0.1)
    // 2 · 80 mm and 96 chords of a circle of 60 mm
    expect(lengthOf(sheet.toEdge)).toBeCloseTo(0.16 + 96 * 0.06 * Math.sin(Math.PI / 96), 4)
    expect(endAreaOf(oval(0.14, 0.06))).toBeCloseTo(0.08 * 0.06 + (Math.PI / 4) * 0.06 ** 2, 12)
    expect(steepestDeg(round(0.1), oval(0.14, 0.06), 0.1)).toBeCloseTo(11.31, 2)
  })
})

describe('holes without a saw', () => {
  test('a chain stands inside the line', () => {
    // 86 − 5 = 81 mm round, 5.5 mm apart: π/asin(5.5/81) = 46.2
    expect(chainDrilling(0.086, 0.005)).toEqual({ diameterM: expect.closeTo(0.081, 9) as number, count: 46 })
    expect(chainDrilling(0.01, 0.006)).toBeNull()
  })
  test('rings over what the blades sweep, never onto the hub', () => {
    const grille = ringDrilling(0.116, 0.047, 0.006)!
    for (const { diameterM, count } of grille.rings) {
      expect(diameterM - 0.006).toBeGreaterThanOrEqual(0.047 - 1e-9)
      // no two holes of a ring nearer than a pitch
      expect(diameterM * Math.sin(Math.PI / count)).toBeGreaterThanOrEqual(grille.pitchM - 1e-12)
    }
    expect(grille.areaM2).toBeCloseTo((grille.count * Math.PI * 0.006 ** 2) / 4, 12)
    expect(grille.share).toBeGreaterThan(0.3)
    expect(grille.share).toBeLessThan(0.5)
    expect(ringDrilling(0.03, 0.028, 0.006)).toBeNull()
  })
})

describe('small parts', () => {
  test('a grommet takes the cable, a lead its bends and the door, a tap its core', () => {
    expect(grommetFor(0.0045)).toEqual({ boreM: 0.005, holeM: 0.008 })
    expect(grommetFor(0.04)).toBeNull()
    expect(leadNeeded(0.5, 0.2)).toBeCloseTo(0.75, 9)
    // M4 coarse: 3.3 mm (ISO 2306)
    expect(tapDrill(4, 0.0007)).toBeCloseTo(0.0033, 9)
  })
  test('frames by hand: nearest pair, nearest edge, nearest zone', () => {
    const gaps = layoutGaps(
      [
        { xM: 0.06, yM: 0.06 },
        { xM: 0.16, yM: 0.06 },
      ],
      0.3,
      0.12,
      0.092,
      [{ leftM: 0, bottomM: 0.1, widthM: 0.3, heightM: 0.02 }],
    )
    expect(gaps.frameM).toBeCloseTo(0.008, 9)
    expect(gaps.edgeM).toBeCloseTo(0.014, 9)
    expect(gaps.zoneM).toBeCloseTo(-0.006, 9)
  })
})
