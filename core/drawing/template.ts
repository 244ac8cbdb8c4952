import makerjs from 'makerjs'
import { coneSheet, frameOf } from '#core/fit'
import { screwHoleOf, type MountReport } from '#core/mount'
import type { PlanDocument } from '#core/document'

/** Templates at true scale: what is cut, what is drilled, what is only marked. Millimetres in every file. */

export type TemplateLayer = 'cut' | 'drill' | 'mark'
/** A circle to work to, m from the middle of the hole, y upwards. */
interface Round {
  layer: TemplateLayer
  xM: number
  yM: number
  diameterM: number
}
interface Stroke {
  /** only marked unless told */
  layer?: TemplateLayer
  fromM: readonly [number, number]
  toM: readonly [number, number]
}
/** An arc about a point, degrees from the right, anticlockwise. */
interface Arc {
  xM: number
  yM: number
  radiusM: number
  fromDeg: number
  toDeg: number
}
export interface Template {
  name: string
  rounds: Round[]
  arcs?: Arc[]
  strokes: Stroke[]
  /** words with the point under their middle, m */
  words: { text: string; atM: readonly [number, number] }[]
}

/** The line that tells whether a print has its true size, m. */
export const RULER_M = 0.1
export const RULER_WORDS = 'measure me: if this is not 100 mm, print at 100 %'
/** Drawn beyond the frame, m. */
const BEYOND_M = 0.006
/** Ends of the ruler, m. */
const TICK_M = 0.002

const cross = (x: number, y: number, half: number): Stroke[] => [
  { fromM: [x - half, y], toM: [x + half, y] },
  { fromM: [x, y - half], toM: [x, y + half] },
]

/** What is worked to and what is marked of one fan with its middle at a point. */
function fanMarks(
  plan: PlanDocument,
  { fan, spacingM }: MountReport,
  holeM: number,
  at: { xM: number; yM: number },
) {
  const half = fan.frameM / 2
  const screwM = screwHoleOf(plan, fan) ?? frameOf(fan.frameM)?.holeM[1] ?? null
  const s = spacingM === null ? null : spacingM / 2
  const { xM: x0, yM: y0 } = at
  const corners =
    s === null || screwM === null
      ? []
      : [-1, 1].flatMap((x) => [-1, 1].map((y) => [x0 + x * s, y0 + y * s] as const))
  return {
    rounds: [
      { layer: 'cut', xM: x0, yM: y0, diameterM: holeM },
      ...corners.map(([xM, yM]): Round => ({ layer: 'drill', xM, yM, diameterM: screwM! })),
    ] as Round[],
    strokes: [
      ...outline(x0, y0, half, half),
      ...cross(x0, y0, half + BEYOND_M),
      ...corners.flatMap(([x, y]) => cross(x, y, screwM!)),
    ],
  }
}
/** A rectangle about a point. */
function outline(x: number, y: number, halfX: number, halfY: number): Stroke[] {
  const points = [
    [x - halfX, y - halfY],
    [x + halfX, y - halfY],
    [x + halfX, y + halfY],
    [x - halfX, y + halfY],
  ] as const
  return points.map((from, i) => ({ fromM: from, toM: points[(i + 1) % points.length]! }))
}
/** The ruler with its words, below a line. */
const ruler = (below: number): Pick<Template, 'strokes' | 'words'> => ({
  strokes: [
    { fromM: [-RULER_M / 2, below], toM: [RULER_M / 2, below] },
    ...[-1, 1].map((end): Stroke => ({
      fromM: [(end * RULER_M) / 2, below - TICK_M],
      toM: [(end * RULER_M) / 2, below + TICK_M],
    })),
  ],
  words: [{ text: RULER_WORDS, atM: [0, below - 2 * BEYOND_M] }],
})

/**
 * The template of the whole panel: every fan where it stands, and the panel's edge. Null without a layout.
 * @param holeM diameter to cut, m
 */
export function panelTemplate(plan: PlanDocument, mount: MountReport, holeM: number): Template | null {
  const { panelWidthM, panelHeightM } = plan.fit ?? { panelWidthM: null, panelHeightM: null }
  if (!mount.layout || panelWidthM === null || panelHeightM === null) return null
  const fans = mount.layout.centres.map((at) => fanMarks(plan, mount, holeM, at))
  const zones = plan.fit!.keepClear.map((z) => ({
    ...z,
    xM: z.leftM + z.widthM / 2 - panelWidthM / 2,
    yM: z.bottomM + z.heightM / 2 - panelHeightM / 2,
  }))
  const below = ruler(-panelHeightM / 2 - 2 * BEYOND_M)
  return {
    name: `${plan.job.name}, panel`,
    rounds: fans.flatMap((f) => f.rounds),
    strokes: [
      ...outline(0, 0, panelWidthM / 2, panelHeightM / 2),
      ...zones.flatMap((z) => outline(z.xM, z.yM, z.widthM / 2, z.heightM / 2)),
      ...fans.flatMap((f) => f.strokes),
      ...below.strokes,
    ],
    words: [
      ...below.words,
      ...zones.map((z) => ({ text: `${z.name}: keep clear`, atM: [z.xM, z.yM] as const })),
    ],
  }
}

/**
 * The template of one fan: its hole, its screw holes, its frame, the middle lines, and a ruler.
 * @param holeM diameter to cut, m
 */
export function fanTemplate(plan: PlanDocument, mount: MountReport, holeM: number): Template {
  const { rounds, strokes } = fanMarks(plan, mount, holeM, { xM: 0, yM: 0 })
  const below = ruler(-mount.fan.frameM / 2 - 3 * BEYOND_M)
  return {
    name: `${plan.job.name}, ${mount.fan.model}`,
    rounds,
    strokes: [...strokes, ...below.strokes],
    words: below.words,
  }
}

/** Width of the tab that is glued under, m. */
const TAB_M = 0.012
const at = (radiusM: number, deg: number) =>
  [radiusM * Math.cos((deg * Math.PI) / 180), radiusM * Math.sin((deg * Math.PI) / 180)] as const

/**
 * The flat sheet of an adapter from the fan's hole to another bore, with a tab to glue; the edges are cut, the tab's fold
 * is marked. Null without a bore and a length, or where both ends are alike.
 * @param holeM diameter of the fan's end, m
 */
export function adapterTemplate({ job, fit }: PlanDocument, holeM: number): Template | null {
  if (!fit || fit.adapterM === null || fit.adapterLengthM === null) return null
  const sheet = coneSheet(Math.max(holeM, fit.adapterM), Math.min(holeM, fit.adapterM), fit.adapterLengthM)
  if (!sheet) return null
  const { outerM, innerM, angleDeg } = sheet
  // stands on its open middle, so that it is as low as it can be
  const [from, to] = [90 - angleDeg / 2, 90 + angleDeg / 2]
  const middle = (outerM + innerM) / 2
  const tabDeg = (180 * TAB_M) / (Math.PI * middle)
  const cut = (stroke: Stroke): Stroke => ({ ...stroke, layer: 'cut' })
  const edge = (deg: number): Stroke => ({ fromM: at(innerM, deg), toM: at(outerM, deg) })
  const arc = (radiusM: number, fromDeg: number, toDeg: number): Arc => ({
    xM: 0,
    yM: 0,
    radiusM,
    fromDeg,
    toDeg,
  })
  const fall = Math.sin((from * Math.PI) / 180)
  const low = fall < 0 ? outerM * fall : innerM * fall
  const below = ruler(low - 3 * BEYOND_M)
  return {
    name: `${job.name}, adapter`,
    rounds: [],
    arcs: [arc(outerM, from, to + tabDeg), arc(innerM, from, to + tabDeg)],
    strokes: [cut(edge(from)), edge(to), cut(edge(to + tabDeg)), ...below.strokes],
    words: below.words,
  }
}

const mm = (m: number) => m * 1000
function modelOf({ rounds, strokes, arcs = [] }: Template): makerjs.IModel {
  const paths: makerjs.IPathMap = {}
  rounds.forEach(({ layer, xM, yM, diameterM }, i) => {
    const circle = new makerjs.paths.Circle([mm(xM), mm(yM)], mm(diameterM) / 2)
    paths[`${layer}-${i}`] = Object.assign(circle, { layer })
  })
  arcs.forEach(({ xM, yM, radiusM, fromDeg, toDeg }, i) => {
    const arc = new makerjs.paths.Arc([mm(xM), mm(yM)], mm(radiusM), fromDeg, toDeg)
    paths[`cut-arc-${i}`] = Object.assign(arc, { layer: 'cut' })
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
const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')
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
  const arc = ({ xM, yM, radiusM, fromDeg, toDeg }: Arc) => {
    const [start, end] = [fromDeg, toDeg].map((deg) => at(radiusM, deg))
    const r = mm(radiusM).toFixed(3)
    const point = (p: readonly [number, number]) => `${x(xM + p[0])} ${y(yM + p[1])}`
    return (
      `<path d="M${point(start!)} A${r} ${r} 0 ${toDeg - fromDeg > 180 ? 1 : 0} 0 ${point(end!)}" fill="none" ` +
      `stroke="${colours.cut}" stroke-width="0.25"/>`
    )
  }
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width.toFixed(3)}mm" height="${height.toFixed(3)}mm" ` +
    `viewBox="0 0 ${width.toFixed(3)} ${height.toFixed(3)}" role="img" aria-label="${escape(template.name)}, at true scale">` +
    template.strokes.map(stroke).join('') +
    template.rounds.map(round).join('') +
    (template.arcs ?? []).map(arc).join('') +
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
