import { scaleBand, scaleLinear } from 'd3-scale'
import type { PrintChart } from '#core/print'
import { everydayLevels } from '#core/verification'

/** Charts for paper, as SVG text: the same on the screen, in Markdown and in a PDF. */

const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const INK = '#1b2126'
const SOFT = '#4d5963'
const LINE = '#d8dee4'
const GREY = '#8a97a3'
const TEAL = '#1d6f82'
const CAP = '#b3202c'
const FONT = 'font-family="Roboto, Atkinson Hyperlegible Next Variable, sans-serif"'
const WIDTH = 620

const fixed = (x: number) => x.toFixed(1)
const text = (
  x: number,
  y: number,
  words: string,
  anchor: 'start' | 'middle' | 'end' = 'start',
  colour = INK,
) =>
  `<text x="${fixed(x)}" y="${fixed(y)}" ${FONT} font-size="12" fill="${colour}" text-anchor="${anchor}">${escape(words)}</text>`
const line = (x1: number, y1: number, x2: number, y2: number, colour: string, width = 1, rest = '') =>
  `<line x1="${fixed(x1)}" y1="${fixed(y1)}" x2="${fixed(x2)}" y2="${fixed(y2)}" stroke="${colour}" stroke-width="${width}" ${rest}/>`
const box = (x: number, y: number, width: number, height: number, rest: string) =>
  `<rect x="${fixed(x)}" y="${fixed(y)}" width="${fixed(Math.max(0, width))}" height="${fixed(Math.max(0, height))}" ${rest}/>`
const picture = (width: number, height: number, title: string, parts: readonly string[]) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" ` +
  `height="${height}" role="img" aria-label="${escape(title)}">${parts.join('')}</svg>`

type Intervals = Extract<PrintChart, { type: 'intervals' }>
type Rungs = Extract<PrintChart, { type: 'rungs' }>

const NAME = 210
const WORDS = 130
const ROW = 34

/** One row on a scale of its own: the measured value with its range against the limit. */
function intervalRow(r: Intervals['rows'][number], index: number): string {
  const [left, right] = [NAME, WIDTH - WORDS]
  const y = index * ROW + ROW / 2 + 4
  const all = [r.low, r.high, r.value, ...[r.wanted.low, r.wanted.high].filter((v) => v !== null)]
  const [lowest, highest] = [Math.min(...all), Math.max(...all)]
  const margin = (highest - lowest || Math.abs(highest) || 1) * 0.15
  const x = scaleLinear([lowest - margin, highest + margin], [left, right])
  const end = (v: number) => line(x(v), y - 5, x(v), y + 5, CAP, 1.5)
  const mark = (limit: number | null) =>
    limit === null ? '' : line(x(limit), y - 11, x(limit), y + 11, TEAL, 1.5, 'stroke-dasharray="4 3"')
  const wanted = ({ low, high }: Intervals['rows'][number]['wanted']) => {
    if (low === null && high === null) return ''
    const from = low === null ? left : x(low)
    const to = high === null ? right : x(high)
    return box(from, y - 9, to - from, 18, `fill="${TEAL}" opacity="0.12"`) + mark(low) + mark(high)
  }
  return [
    line(left, y, right, y, LINE),
    wanted(r.wanted),
    line(x(r.low), y, x(r.high), y, CAP, 3),
    end(r.low),
    end(r.high),
    `<circle cx="${fixed(x(r.value))}" cy="${y}" r="4.5" fill="${CAP}"/>`,
    text(0, y + 4, r.label),
    text(WIDTH, y + 4, r.words, 'end'),
  ].join('')
}

/** Height of a line of words, and width of a character, px. */
const LEADING = 14
const CHAR = 6.6
/** Words in lines that fit a width; a word that is longer stands alone. */
function wrapped(words: string, width: number): string[] {
  const lines: string[] = []
  for (const word of words.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && (last.length + 1 + word.length) * CHAR <= width)
      lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}
const stacked = (lines: readonly string[], x: number, y: number) =>
  lines.map((words, i) => text(x, y + LEADING * i, words, 'middle')).join('')

/** Steps of one level, state by state, against an everyday scale and the limit. */
function drawRungs({ rungs, limit, title }: Rungs, width: number): string {
  const [left, right] = [36, width - 176]
  const x = scaleBand(rungs.keys(), [left, right]).paddingInner(0.45).paddingOuter(0.225)
  const names = rungs.map((r) => wrapped(r.name, x.step()))
  const words = rungs.map((r) => wrapped(r.words, x.step()))
  const under = LEADING * Math.max(...names.map((n) => n.length))
  const over = LEADING * Math.max(...words.map((w) => w.length))
  const [top, bottom] = [14 + over, 188 + over]
  const height = bottom + under + 14
  const levels = [...rungs.map((r) => r.level), ...(limit === null ? [] : [limit])]
  const low = Math.min(20, Math.floor((Math.min(...levels) - 4) / 5) * 5)
  const high = Math.ceil((Math.max(...levels) + 4) / 5) * 5
  const y = scaleLinear([low, high], [bottom, top])
  const bar = Math.min(70, x.bandwidth())
  const latest = rungs.length - 1
  return picture(width, height, title, [
    ...y
      .ticks((high - low) / 10)
      .map((v) => line(left, y(v), right, y(v), LINE) + text(left - 6, y(v) + 4, String(v), 'end', SOFT)),
    ...everydayLevels
      .filter((e) => e.level >= low && e.level <= high)
      .map(
        (e) =>
          line(right, y(e.level), right + 8, y(e.level), SOFT) +
          text(right + 12, y(e.level) + 4, e.like, 'start', SOFT),
      ),
    ...rungs.map((r, i) => {
      const middle = x(i)! + x.bandwidth() / 2
      const fill = `fill="${i === latest ? CAP : GREY}"`
      return (
        box(middle - bar / 2, y(r.level), bar, bottom - y(r.level), fill) +
        stacked(words[i]!, middle, y(r.level) - 5 - LEADING * (words[i]!.length - 1)) +
        stacked(names[i]!, middle, bottom + 16)
      )
    }),
    limit === null
      ? ''
      : line(left, y(limit), right, y(limit), TEAL, 1.5, 'stroke-dasharray="5 4"') +
        text(left + 2, y(limit) - 4, 'target', 'start', TEAL),
    text(0, 10, 'dB(A)', 'start', SOFT),
  ])
}

/** A printed chart as SVG text. @param width of a chart of levels, px */
export function drawChart(chart: PrintChart, width = WIDTH): string {
  if (chart.type === 'rungs') return drawRungs(chart, width)
  return picture(WIDTH, chart.rows.length * ROW + 8, chart.title, chart.rows.map(intervalRow))
}
