import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { followLine, pickColour, thinTrace, type Raster } from './follow'
import { makeAxes, type Axis, type Pixel } from './axes'
import { readCurve, readingError } from './read-curve'

const axis = (
  x0: number,
  y0: number,
  v0: number,
  x1: number,
  y1: number,
  v1: number,
  logarithmic = false,
): Axis => ({
  first: { at: { x: x0, y: y0 }, value: v0 },
  second: { at: { x: x1, y: y1 }, value: v1 },
  logarithmic,
})
const flow = axis(50, 350, 0, 550, 350, 100)
const pressure = axis(50, 350, 0, 50, 50, 60)

/** A drawn chart: white, grey grid, a coloured curve, another one that crosses it. */
function chart(curve: (q: number) => number, other?: (q: number) => number, width = 2): Raster {
  const raster: Raster = { width: 600, height: 400, data: new Uint8ClampedArray(600 * 400 * 4).fill(255) }
  const dot = (x: number, y: number, r: number, g: number, b: number) => {
    if (x < 0 || y < 0 || x >= 600 || y >= 400) return
    raster.data.set([r, g, b, 255], 4 * (Math.round(y) * 600 + Math.round(x)))
  }
  for (let x = 50; x <= 550; x += 50) for (let y = 50; y <= 350; y++) dot(x, y, 205, 205, 205)
  for (let y = 50; y <= 350; y += 50) for (let x = 50; x <= 550; x++) dot(x, y, 205, 205, 205)
  const draw = (f: (q: number) => number, r: number, g: number, b: number) => {
    for (let x = 50; x <= 550; x += 0.25) {
      const p = f((x - 50) / 5)
      if (p < 0) continue
      for (let d = 0; d < width; d++) dot(x, 350 - p * 5 + d - (width - 1) / 2, r, g, b)
    }
  }
  if (other) draw(other, 20, 60, 190)
  draw(curve, 190, 30, 40)
  return raster
}

describe('axes', () => {
  test('marks have their values, the place between has the middle', () => {
    const made = makeAxes(flow, pressure)
    if (!made.ok) throw new Error(made.message)
    expect(made.axes.toValues({ x: 300, y: 200 })).toEqual({ x: 50, y: 30 })
    expect(made.axes.perPixel({ x: 300, y: 200 }).x).toBeCloseTo(0.2, 9)
  })
  test('a logarithmic axis, and a picture that is turned', () => {
    const log = makeAxes(axis(0, 100, 1, 300, 100, 1000, true), axis(0, 100, 0, 0, 0, 10))
    if (!log.ok) throw new Error(log.message)
    expect(log.axes.toValues({ x: 100, y: 50 }).x).toBeCloseTo(10, 9)
    fc.assert(
      fc.property(
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (angle, q, p) => {
          const turn = ({ x, y }: Pixel): Pixel => ({
            x: x * Math.cos(angle) - y * Math.sin(angle),
            y: x * Math.sin(angle) + y * Math.cos(angle),
          })
          const turned = (a: Axis): Axis => ({
            ...a,
            first: { ...a.first, at: turn(a.first.at) },
            second: { ...a.second, at: turn(a.second.at) },
          })
          const made = makeAxes(turned(flow), turned(pressure))
          if (!made.ok) throw new Error(made.message)
          const read = made.axes.toValues(turn({ x: 50 + 5 * q, y: 350 - 5 * p }))
          expect(read.x).toBeCloseTo(q, 6)
          expect(read.y).toBeCloseTo(p, 6)
        },
      ),
    )
  })
  test.each([
    [axis(50, 350, 0, 53, 350, 100), pressure, 'too near'],
    [axis(50, 350, 5, 550, 350, 5), pressure, 'same value'],
    [axis(50, 350, 0, 550, 350, 100, true), pressure, 'above zero'],
    [flow, axis(50, 350, 0, 550, 352, 60), 'same way'],
  ])('%# is refused', (f, p, message) => {
    expect(makeAxes(f, p)).toMatchObject({ ok: false, message: expect.stringContaining(message) })
  })
})

describe('following a line', () => {
  const fanCurve = (q: number) => 55 * (1 - (q / 90) ** 2)
  const dipped = (q: number) => 50 - 0.5 * q + 6 * Math.sin(q / 9)
  test.each([
    ['a plain curve', fanCurve, 30],
    ['a curve with a dip', dipped, 40],
  ] as const)('%s, through grid and a crossing curve, within 3 %%', (_, curve, at) => {
    const raster = chart(curve, (q) => 0.012 * q * q)
    const trace = followLine(raster, { x: 50 + 5 * at, y: 350 - 5 * curve(at) })
    if (typeof trace === 'string') throw new Error(trace)
    const made = makeAxes(flow, pressure)
    if (!made.ok) throw new Error(made.message)
    const points = readCurve(made.axes, thinTrace(trace.points, 16), trace.thickness)
    if (typeof points === 'string') throw new Error(points)
    expect(points.length).toBeGreaterThan(10)
    for (const p of points) expect(Math.abs(p.pressure - curve(p.flow))).toBeLessThan(0.03 * 55)
    expect(points[0]!.flow).toBeLessThan(2)
    expect(points.at(-1)!.flow).toBeGreaterThan(80)
    expect(readingError(points)).toBeLessThan(0.03)
  })
  test('beside a line there is none; a dot is no curve', () => {
    const raster = chart(fanCurve)
    expect(followLine(raster, { x: 575, y: 30 })).toContain('no line')
    const dot: Raster = { width: 60, height: 60, data: new Uint8ClampedArray(60 * 60 * 4).fill(255) }
    dot.data.set([0, 0, 0, 255], 4 * (30 * 60 + 30))
    expect(followLine(dot, { x: 30, y: 30 })).toContain('short piece')
  })
  test('a click two pixels off still means the line', () => {
    const raster = chart(fanCurve)
    expect(pickColour(raster, { x: 200, y: 350 - 5 * fanCurve(30) + 2 })).toEqual({ r: 190, g: 30, b: 40 })
  })
})

describe('thinning and reading', () => {
  test('keeps both ends and the bend', () => {
    const nonlinear = Array.from({ length: 101 }, (_, i) => ({ x: i, y: i < 50 ? 0 : i - 50 }))
    const thin = thinTrace(nonlinear, 5)
    expect(thin[0]).toEqual(nonlinear[0])
    expect(thin.at(-1)).toEqual(nonlinear[100])
    expect(thin.some((p) => Math.abs(p.x - 50) <= 2)).toBe(true)
    expect(thinTrace(nonlinear.slice(0, 3), 5)).toHaveLength(3)
  })
  test('a little below zero is zero, much below is wrong marks', () => {
    const made = makeAxes(flow, pressure)
    if (!made.ok) throw new Error(made.message)
    const read = readCurve(
      made.axes,
      [
        { x: 49, y: 100 },
        { x: 500, y: 351 },
      ],
      2,
    )
    expect(typeof read === 'string' ? read : read.map((p) => [p.flow, p.pressure])).toEqual([
      [0, 50],
      [90, 0],
    ])
    expect(
      readCurve(
        made.axes,
        [
          { x: 60, y: 100 },
          { x: 500, y: 390 },
        ],
        2,
      ),
    ).toContain('below zero')
    expect(readCurve(made.axes, [{ x: 60, y: 100 }], 2)).toContain('at least two')
  })
})
