import makerjs from 'makerjs'

/** Templates at true scale: what is cut, what is drilled, what is only marked. Millimetres in every file. */

export type TemplateLayer = 'cut' | 'drill' | 'mark'
/** A circle to work to, m from the middle of the hole, y upwards. */
export interface Round {
  layer: TemplateLayer
  xM: number
  yM: number
  diameterM: number
}
export interface Stroke {
  /** only marked unless told */
  layer?: TemplateLayer
  fromM: readonly [number, number]
  toM: readonly [number, number]
}
/** An arc about a point, degrees from the right, anticlockwise; cut unless told. */
export interface Arc {
  layer?: TemplateLayer
  xM: number
  yM: number
  radiusM: number
  fromDeg: number
  toDeg: number
}
export interface Template {
  name: string
  rounds: Round[]
  arcs: Arc[]
  strokes: Stroke[]
  /** words with the point under their middle, m */
  words: { text: string; atM: readonly [number, number] }[]
}

/** A point on a circle about the middle. */
export const at = (radiusM: number, deg: number) =>
  [radiusM * Math.cos((deg * Math.PI) / 180), radiusM * Math.sin((deg * Math.PI) / 180)] as const

const mm = (m: number) => m * 1000
function modelOf({ rounds, strokes, arcs }: Template): makerjs.IModel {
  const paths: makerjs.IPathMap = {}
  rounds.forEach(({ layer, xM, yM, diameterM }, i) => {
    const circle = new makerjs.paths.Circle([mm(xM), mm(yM)], mm(diameterM) / 2)
    paths[`${layer}-${i}`] = Object.assign(circle, { layer })
  })
  arcs.forEach(({ layer = 'cut', xM, yM, radiusM, fromDeg, toDeg }, i) => {
    const arc = new makerjs.paths.Arc([mm(xM), mm(yM)], mm(radiusM), fromDeg, toDeg)
    paths[`${layer}-arc-${i}`] = Object.assign(arc, { layer })
  })
  strokes.forEach(({ layer = 'mark', fromM, toM }, i) => {
    const line = new makerjs.paths.Line([mm(fromM[0]), mm(fromM[1])], [mm(toM[0]), mm(toM[1])])
    paths[`${layer}-line-${i}`] = Object.assign(line, { layer })
  })
  return { paths, units: makerjs.unitType.Millimeter }
}

/** The template as DXF: millimetres, layers cut, drill and mark. */
export const templateDxf = (template: Template): string =>
  makerjs.exporter.toDXF(modelOf(template), { units: makerjs.unitType.Millimeter })

const colours: Record<TemplateLayer, string> = { cut: '#b3202c', drill: '#1b2126', mark: '#1d6f82' }
const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
/** White round the drawing, mm. */
const EDGE = 4

/** The template as SVG whose width and height are millimetres, one unit a millimetre. */
export function templateSvg(template: Template): string {
  const { low, high } = makerjs.measure.modelExtents(modelOf(template))!
  const lowest = Math.min(low[1]!, ...template.words.map((w) => mm(w.atM[1]) - 2))
  const [left, top] = [low[0]! - EDGE, high[1]! + EDGE]
  const [width, height] = [high[0]! - low[0]! + 2 * EDGE, top - lowest + EDGE]
  const x = (m: number) => (mm(m) - left).toFixed(3)
  const y = (m: number) => (top - mm(m)).toFixed(3)
  const round = ({ layer, xM, yM, diameterM }: Round) =>
    `<circle class="${layer}" cx="${x(xM)}" cy="${y(yM)}" r="${(mm(diameterM) / 2).toFixed(3)}" fill="none" ` +
    `stroke="${colours[layer]}" stroke-width="0.25"/>`
  const stroke = ({ layer = 'mark', fromM, toM }: Stroke) =>
    `<line x1="${x(fromM[0])}" y1="${y(fromM[1])}" x2="${x(toM[0])}" y2="${y(toM[1])}" ` +
    `stroke="${colours[layer]}" stroke-width="0.18"/>`
  const arc = ({ layer = 'cut', xM, yM, radiusM, fromDeg, toDeg }: Arc) => {
    const [start, end] = [fromDeg, toDeg].map((deg) => at(radiusM, deg))
    const r = mm(radiusM).toFixed(3)
    const point = (p: readonly [number, number]) => `${x(xM + p[0])} ${y(yM + p[1])}`
    return (
      `<path d="M${point(start!)} A${r} ${r} 0 ${toDeg - fromDeg > 180 ? 1 : 0} 0 ${point(end!)}" fill="none" ` +
      `stroke="${colours[layer]}" stroke-width="0.25"/>`
    )
  }
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width.toFixed(3)}mm" height="${height.toFixed(3)}mm" ` +
    `viewBox="0 0 ${width.toFixed(3)} ${height.toFixed(3)}" role="img" aria-label="${escape(template.name)}, at true scale">` +
    template.strokes.map(stroke).join('') +
    template.rounds.map(round).join('') +
    template.arcs.map(arc).join('') +
    template.words
      .map(
        ({ text, atM }) =>
          `<text x="${x(atM[0])}" y="${y(atM[1])}" font-size="3.4" font-family="Roboto, sans-serif" fill="#1b2126" ` +
          `text-anchor="middle">${escape(text)}</text>`,
      )
      .join('') +
    '</svg>'
  )
}
