/** What a channel looks like over a window: its peaks stay, silences stay gaps. */
export interface ChannelView {
  x: number[]
  y: number[]
}

/**
 * The smallest and the largest value of equal buckets, in order of time; a silence or a missing value breaks the line.
 * @param start first row, end one behind the last @param keep about as many points as are drawn
 * @param gapS silence from which the line is broken, s
 * @param times s, rising
 * @param values in any one unit
 * @param end last value wanted
 * Reference: docs/physics.md, decimation (min-max)
 */
export function channelView(
  times: Float64Array,
  values: Float64Array,
  start: number,
  end: number,
  keep: number,
  gapS: number,
): ChannelView {
  const view: ChannelView = { x: [], y: [] }
  const n = end - start
  const buckets = Math.max(1, Math.min(n, keep >> 1))
  const put = (i: number) => {
    view.x.push(times[i]!)
    view.y.push(values[i]!)
  }
  const cut = (t: number) => {
    if (view.y.length && !Number.isNaN(view.y.at(-1)!)) {
      view.x.push(t)
      view.y.push(NaN)
    }
  }
  for (let b = 0; b < buckets; b++) {
    const from = start + Math.floor((b * n) / buckets)
    const to = start + Math.floor(((b + 1) * n) / buckets)
    let [low, high, silent, missing] = [-1, -1, false, 0]
    for (let i = from; i < to; i++) {
      if (i > start && times[i]! - times[i - 1]! > gapS) silent = true
      const v = values[i]!
      if (v !== v) {
        missing++
        continue
      }
      if (low < 0 || v < values[low]!) low = i
      if (high < 0 || v > values[high]!) high = i
    }
    if (silent || missing === to - from) cut(times[from]!)
    if (low < 0) continue
    put(Math.min(low, high))
    if (low !== high) put(Math.max(low, high))
  }
  return view
}

/**
 * The silence from which a line is broken: several usual steps, and wide enough to be seen in the window.
 * @param step difference of two values
 * @param span range of the instrument
 * Reference: a choice of ours
 */
export const breakAfter = (step: number | null, span: number) => Math.max(3.5 * (step ?? 0), span / 400)
