/** Several fans in one panel. Lengths in m, from the panel's middle, x to the right and y upwards. */

/** Left between two frames, and between a frame and the edge of the panel, m. Common practice, no source. */
export const BETWEEN_M = 0.01

export interface PanelLayout {
  columns: number
  rows: number
  /** middle to middle, m */
  pitchXM: number
  pitchYM: number
  centres: { xM: number; yM: number }[]
}

/** How many frames go beside each other on a side. */
const across = (sideM: number, frameM: number) =>
  Math.max(0, Math.floor((sideM - BETWEEN_M + ROUNDING_M) / (frameM + BETWEEN_M)))
const ROUNDING_M = 1e-9

/**
 * How many fans a panel has room for, in rows and columns.
 * @param widthM m @param heightM m @param frameM side of a frame, m
 * Reference: 10 mm between frames and to the edges, common practice, no source
 */
export const panelRoom = (widthM: number, heightM: number, frameM: number): number =>
  across(widthM, frameM) * across(heightM, frameM)

/**
 * Fans spread evenly over a panel, in the rows and columns that leave the most between them; a last row that is not full
 * stands in the middle. Null where they do not go on it.
 * @param count fans, 1 or more @param widthM m @param heightM m @param frameM side of a frame, m
 * Reference: equal cells; 10 mm between frames, common practice, no source
 */
export function panelLayout(
  count: number,
  widthM: number,
  heightM: number,
  frameM: number,
): PanelLayout | null {
  const choices = Array.from({ length: count }, (_, i) => i + 1).flatMap((columns) => {
    const rows = Math.ceil(count / columns)
    if (columns > across(widthM, frameM) || rows > across(heightM, frameM)) return []
    return [{ columns, rows, pitchXM: widthM / columns, pitchYM: heightM / rows }]
  })
  const [best] = choices.toSorted(
    (a, b) => Math.min(b.pitchXM, b.pitchYM) - Math.min(a.pitchXM, a.pitchYM) || b.columns - a.columns,
  )
  if (!best) return null
  const { columns, rows, pitchXM, pitchYM } = best
  const centres = Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / columns)
    const inRow = Math.min(columns, count - row * columns)
    return {
      xM: ((i % columns) - (inRow - 1) / 2) * pitchXM,
      yM: ((rows - 1) / 2 - row) * pitchYM,
    }
  })
  return { columns, rows, pitchXM, pitchYM, centres }
}
