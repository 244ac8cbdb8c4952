import type { Axes, Pixel } from './axes'

/** A point read off a picture with its reading error, in the picture's units. */
export interface ReadPoint {
  flow: number
  pressure: number
  flowError: number
  pressureError: number
}

/** A click is good to about one pixel. An assumption. */
const CLICK = 1

/**
 * Places of a picture as values of its axes, rising in flow; values a little below zero, as at the ends of an axis, are zero.
 * @param thickness of the line, pixels: half of it is doubt
 * @returns what is wrong where a curve cannot be made of them
 * Reference: a choice of ours
 */
export function readCurve(axes: Axes, places: readonly Pixel[], thickness: number): ReadPoint[] | string {
  const half = Math.hypot(thickness / 2, CLICK)
  const points = places
    .map((p): ReadPoint => {
      const { x, y } = axes.toValues(p)
      const per = axes.perPixel(p)
      return { flow: x, pressure: y, flowError: per.x * CLICK, pressureError: per.y * half }
    })
    .sort((a, b) => a.flow - b.flow)
  const clean = points.map((p) => ({
    ...p,
    flow: Math.abs(p.flow) < 2 * p.flowError ? Math.max(0, p.flow) : p.flow,
    pressure: Math.abs(p.pressure) < 2 * p.pressureError ? Math.max(0, p.pressure) : p.pressure,
  }))
  if (clean.length < 2) return 'A curve needs at least two points.'
  if (clean.some((p) => p.flow < 0 || p.pressure < 0))
    return 'Some points lie below zero: are the marks on the axes right?'
  return clean.filter((p, i) => i === 0 || p.flow > clean[i - 1]!.flow)
}

/**
 * The reading error of a whole curve as a share of its highest pressure.
 * Reference: a choice of ours
 */
export function readingError(points: readonly ReadPoint[]): number {
  const highest = Math.max(...points.map((p) => p.pressure))
  return highest > 0 ? Math.max(...points.map((p) => p.pressureError)) / highest : 1
}
