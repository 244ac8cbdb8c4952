/** A drawing larger than a sheet of paper, in pieces at true scale. Millimetres. */

export const papers = { A4: [210, 297], LETTER: [215.9, 279.4] } as const
export type Paper = keyof typeof papers
/** Margin that printers need, and what two sheets have in common, mm. */
const EDGE = 5
const OVERLAP = 10
/** Below the drawing, for the ruler and the sheet's name, mm. */
const FOOT = 16
/** Half a join mark, and how far along a seam they stand, share. */
const MARK = 4
const ALONG = [0.25, 0.75] as const
const RULER = 100

export interface Sheet {
  /** A1, A2, B1: the letter across, the number down */
  name: string
  svg: string
}
const box = (svg: string) => {
  const [, w, h, inner] = /width="([\d.]+)mm" height="([\d.]+)mm"[^>]*>([\s\S]*)<\/svg>$/.exec(svg)!
  return { w: Number(w), h: Number(h), inner: inner! }
}
const line = (x1: number, y1: number, x2: number, y2: number, width = 0.18) =>
  `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="#1b2126" stroke-width="${width}"/>`
const text = (x: number, y: number, words: string) =>
  `<text x="${x}" y="${y}" font-size="3.4" font-family="Roboto, sans-serif" fill="#1b2126">${words}</text>`
const nameOf = (column: number, row: number) => `${String.fromCodePoint(65 + column)}${row + 1}`

/** Crosses on every seam, in the drawing's millimetres: sheets that share a seam show the same ones. */
function seams(w: number, h: number, stepX: number, stepY: number, columns: number, rows: number): string {
  const cross = (x: number, y: number) =>
    line(x - MARK, y, x + MARK, y, 0.25) + line(x, y - MARK, x, y + MARK, 0.25)
  const marks: string[] = []
  for (let c = 1; c < columns; c++)
    for (let r = 0; r < rows; r++)
      for (const s of ALONG) marks.push(cross(c * stepX + OVERLAP / 2, Math.min(h, (r + s) * stepY)))
  for (let r = 1; r < rows; r++)
    for (let c = 0; c < columns; c++)
      for (const s of ALONG) marks.push(cross(Math.min(w, (c + s) * stepX), r * stepY + OVERLAP / 2))
  return marks.join('')
}

export interface Sheets {
  /** the paper lies */
  landscape: boolean
  sheets: Sheet[]
}
/**
 * The sheets of a drawing whose unit is a millimetre: one where it goes on the paper, upright or lying, else several that
 * overlap by 10 mm, with crosses to lay on each other, a ruler and a name each; upright or lying, whichever takes fewer.
 */
export function tilesOf(svg: string, paper: Paper): Sheets {
  const { w, h } = box(svg)
  const [short, long] = papers[paper]
  const one = [false, true].find((landscape) => {
    const [page, tall] = landscape ? [long, short] : [short, long]
    return w <= page - 2 * EDGE && h <= tall - 2 * EDGE
  })
  if (one !== undefined) return { landscape: one, sheets: [{ name: 'A1', svg }] }
  const upright = gridOf(w, h, short, long)
  const lying = gridOf(w, h, long, short)
  const landscape = lying.columns * lying.rows < upright.columns * upright.rows
  return { landscape, sheets: cutUp(svg, landscape ? lying : upright) }
}

interface Grid {
  columns: number
  rows: number
  /** of a sheet within its margins; the drawing's part of its height */
  width: number
  height: number
  room: number
}
function gridOf(w: number, h: number, page: number, tall: number): Grid {
  const [width, height] = [page - 2 * EDGE, tall - 2 * EDGE]
  const room = height - FOOT
  const count = (size: number, step: number) => Math.max(1, Math.ceil((size - OVERLAP) / (step - OVERLAP)))
  return { columns: count(w, width), rows: count(h, room), width, height, room }
}
function cutUp(svg: string, { columns, rows, width, height, room }: Grid): Sheet[] {
  const { w, h, inner } = box(svg)
  const [stepX, stepY] = [width - OVERLAP, room - OVERLAP]
  const marks = seams(w, h, stepX, stepY, columns, rows)
  const last = nameOf(columns - 1, rows - 1)
  return Array.from({ length: columns * rows }, (_, i) => {
    const [column, row] = [i % columns, Math.floor(i / columns)]
    const [x, y] = [column * stepX, row * stepY]
    const name = nameOf(column, row)
    const foot = y + room
    const words = `${name} of ${last}: lay the crosses on each other. Measure me: 100 mm, or print at 100 %`
    const ruled =
      line(x + 1, foot + 6, x + 1 + RULER, foot + 6, 0.25) +
      line(x + 1, foot + 4, x + 1, foot + 8) +
      line(x + 1 + RULER, foot + 4, x + 1 + RULER, foot + 8)
    // what belongs to the sheet below is not drawn under the ruler
    const cover =
      `<rect x="${x - EDGE}" y="${foot}" width="${width + 2 * EDGE}" height="${FOOT + EDGE}" ` +
      'fill="#ffffff"/>'
    return {
      name,
      svg:
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" ` +
        `viewBox="${x} ${y} ${width} ${height}">` +
        `${inner}${marks}${cover}${ruled}${text(x + 1, foot + 13, words)}</svg>`,
    }
  })
}
