import type { Lane } from '#core/day'

/** Where the lanes of a day stand, and their paths. Plain geometry: colours are the drawing's. */

export interface Scale {
  from: number
  to: number
  /** px */
  top: number
  height: number
}
/** y of a value, px. */
export const yOf = ({ from, to, top, height }: Scale, value: number): number =>
  top + height - ((Math.min(to, Math.max(from, value)) - from) / (to - from || 1)) * height

const STEPS = [1, 2, 5, 10, 20, 50, 100]
/** Round ends around values, and the lines between, at most five. */
export function niceScale(values: readonly number[], top: number, height: number): Scale & { ticks: number[] } {
  const known = values.filter(Number.isFinite)
  const low = known.length ? Math.min(...known) : 0
  const high = known.length ? Math.max(...known) : 1
  const step = STEPS.find((s) => (high - low) / s <= 5) ?? STEPS.at(-1)!
  const from = Math.floor(low / step) * step
  const to = Math.max(from + step, Math.ceil(high / step) * step)
  const ticks = Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step)
  return { from, to, top, height, ticks }
}

const at = (x: number) => Math.round(10 * x) / 10
/** Both ends of every column as one line: a peak within a column is seen. */
export function linePath({ low, high }: Lane, left: number, width: number, scale: Scale): string {
  const n = low.length
  let path = ''
  let pen = false
  for (let i = 0; i < n; i++) {
    if (Number.isNaN(low[i]!)) {
      pen = false
      continue
    }
    const x = at(left + (width * (i + 0.5)) / n)
    const [a, b] = [at(yOf(scale, low[i]!)), at(yOf(scale, high[i]!))]
    path += `${pen ? 'L' : 'M'}${x} ${a}${a === b ? '' : `L${x} ${b}`}`
    pen = true
  }
  return path
}
/** Filled from the foot up to the most of every column. */
export function areaPath({ high }: Lane, left: number, width: number, scale: Scale): string {
  const n = high.length
  const foot = at(scale.top + scale.height)
  let path = ''
  for (let i = 0; i < n; i++) {
    const value = high[i]!
    if (!(value > scale.from)) continue
    const [x, w] = [at(left + (width * i) / n), at(width / n + 0.2)]
    const y = at(yOf(scale, value))
    path += `M${x} ${foot}V${y}h${w}V${foot}z`
  }
  return path
}
/** The middle of a lane at a share of the time, 0..1; null where nothing is. */
export function laneAt({ low, high }: Lane, share: number): number | null {
  const i = Math.min(low.length - 1, Math.max(0, Math.floor(share * low.length)))
  const value = (low[i]! + high[i]!) / 2
  return Number.isFinite(value) ? value : null
}
