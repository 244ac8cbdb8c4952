/** Charts for paper, as SVG text: the same on the screen, in Markdown and in a PDF. */

const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const INK = '#1b2126'
const SOFT = '#4d5963'
const LINE = '#d8dee4'
const TEAL = '#1d6f82'
const CAP = '#b3202c'
const FONT = 'font-family="Roboto, Atkinson Hyperlegible Next Variable, sans-serif"'

const text = (
  x: number,
  y: number,
  words: string,
  anchor: 'start' | 'middle' | 'end' = 'start',
  colour = INK,
) =>
  `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" ${FONT} font-size="12" fill="${colour}" text-anchor="${anchor}">${escape(words)}</text>`
const line = (x1: number, y1: number, x2: number, y2: number, colour: string, width = 1, rest = '') =>
  `<line x1="${x1.toFixed(1)}" y1="${y1.toFixed(1)}" x2="${x2.toFixed(1)}" y2="${y2.toFixed(1)}" stroke="${colour}" stroke-width="${width}" ${rest}/>`

/** One measured value with its range and what was wanted of it, in any one unit. */
export interface IntervalRow {
  label: string
  value: number
  low: number
  high: number
  limit: number | null
  /** wanted at least or at most */ least: boolean
  words: string
}

const WIDTH = 620
const NAME = 210
const WORDS = 130
const ROW = 34

/** Each row on a scale of its own: the measured value with its range against the limit. */
export function intervalChart(rows: readonly IntervalRow[], title: string): string {
  const height = rows.length * ROW + 8
  const [left, right] = [NAME, WIDTH - WORDS]
  const body = rows.map((r, i) => {
    const y = i * ROW + ROW / 2 + 4
    const all = [r.low, r.high, r.value, ...(r.limit === null ? [] : [r.limit])]
    const [lowest, highest] = [Math.min(...all), Math.max(...all)]
    const margin = (highest - lowest || Math.abs(highest) || 1) * 0.15
    const x = (v: number) => left + ((v - lowest + margin) / (highest - lowest + 2 * margin)) * (right - left)
    return [
      line(left, y, right, y, LINE),
      r.limit === null
        ? ''
        : `<rect x="${(r.least ? x(r.limit) : left).toFixed(1)}" y="${y - 9}" width="${Math.max(0, r.least ? right - x(r.limit) : x(r.limit) - left).toFixed(1)}" height="18" fill="${TEAL}" opacity="0.12"/>${line(x(r.limit), y - 11, x(r.limit), y + 11, TEAL, 1.5, 'stroke-dasharray="4 3"')}`,
      line(x(r.low), y, x(r.high), y, CAP, 3),
      line(x(r.low), y - 5, x(r.low), y + 5, CAP, 1.5),
      line(x(r.high), y - 5, x(r.high), y + 5, CAP, 1.5),
      `<circle cx="${x(r.value).toFixed(1)}" cy="${y}" r="4.5" fill="${CAP}"/>`,
      text(0, y + 4, r.label),
      text(WIDTH, y + 4, r.words, 'end'),
    ].join('')
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" width="${WIDTH}" height="${height}" role="img" aria-label="${escape(title)}">${body.join('')}</svg>`
}

/** Steps of one level, state by state, against an everyday scale and the limit. */
export function rungChart(
  rungs: readonly { name: string; level: number; words: string }[],
  everyday: readonly { level: number; like: string }[],
  limit: number | null,
  title: string,
  width = WIDTH,
): string {
  const height = 230
  const [top, bottom] = [28, height - 28]
  const levels = [...rungs.map((r) => r.level), ...(limit === null ? [] : [limit])]
  const low = Math.min(20, Math.floor((Math.min(...levels) - 4) / 5) * 5)
  const high = Math.ceil((Math.max(...levels) + 4) / 5) * 5
  const y = (v: number) => bottom - ((v - low) / (high - low)) * (bottom - top)
  const [left, right] = [36, width - 176]
  const step = (right - left) / Math.max(1, rungs.length)
  const bar = Math.min(70, step * 0.55)
  const ticks = Array.from(
    { length: Math.floor((high - low) / 10) + 1 },
    (_, i) => Math.ceil(low / 10) * 10 + 10 * i,
  ).filter((v) => v <= high)
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="${escape(title)}">${[
    ...ticks.map((v) => line(left, y(v), right, y(v), LINE) + text(left - 6, y(v) + 4, String(v), 'end', SOFT)),
    ...everyday
      .filter((e) => e.level >= low && e.level <= high)
      .map(
        (e) =>
          line(right, y(e.level), right + 8, y(e.level), SOFT) +
          text(right + 12, y(e.level) + 4, e.like, 'start', SOFT),
      ),
    ...rungs.map((r, i) => {
      const x = left + step * (i + 0.5)
      return `<rect x="${(x - bar / 2).toFixed(1)}" y="${y(r.level).toFixed(1)}" width="${bar.toFixed(1)}" height="${(bottom - y(r.level)).toFixed(1)}" fill="${i === rungs.length - 1 ? CAP : '#8a97a3'}"/>${text(x, y(r.level) - 5, r.words, 'middle')}${text(x, bottom + 16, r.name, 'middle')}`
    }),
    limit === null
      ? ''
      : line(left, y(limit), right, y(limit), TEAL, 1.5, 'stroke-dasharray="5 4"') +
        text(right - 2, y(limit) - 4, 'target', 'end', TEAL),
    text(0, 10, 'dB(A)', 'start', SOFT),
  ].join('')}</svg>`
}
