import { coneSheet, transitionSheet, type TransitionEnd } from '#core/fit'
import type { AdapterReport } from '#core/mount'
import type { StreamPlan } from '#core/document'
import { at, type Arc, type Stroke, type Template } from './template'
import { BEYOND_M, ruler } from './marks'

/** Width of the tab that is glued under, m. */
const TAB_M = 0.012
const cut = (stroke: Stroke): Stroke => ({ ...stroke, layer: 'cut' })

const mm = (m: number) => (m * 1000).toFixed(1).replace(/\.0$/, '')
const endWords = ({ shape, widthM, heightM }: TransitionEnd) =>
  shape === 'round' ? `Ø ${mm(widthM)}` : `${shape} ${mm(widthM)} × ${mm(heightM)}`
/** Both ends and the length, as they are written beside the drawing. */
const sizesOf = ({ fanEnd, farEnd, lengthM }: AdapterReport) =>
  `${endWords(fanEnd)} to ${endWords(farEnd)}, ${mm(lengthM)} long (mm)`

/**
 * The flat sheet of an adapter, with a tab to glue; the edges are cut, folds are marked. Null where both ends are alike
 * and round: a tube, which is a rectangle.
 */
export function adapterTemplate({ job }: StreamPlan, adapter: AdapterReport): Template | null {
  const { fanEnd, farEnd, lengthM } = adapter
  const round = fanEnd.shape === 'round' && farEnd.shape === 'round'
  const drawn = round ? coneTemplate(fanEnd.widthM, farEnd.widthM, lengthM) : transitionTemplate(adapter)
  if (!drawn) return null
  const { lowM, ...marks } = drawn
  const below = ruler(lowM - 3 * BEYOND_M)
  const [words] = below.words
  return {
    name: `${job.name}, adapter`,
    rounds: [],
    ...marks,
    strokes: [...marks.strokes, ...below.strokes],
    words: [...below.words, { text: sizesOf(adapter), atM: [0, words!.atM[1] - BEYOND_M] }],
  }
}

type Drawn = Pick<Template, 'arcs' | 'strokes'> & { lowM: number }

/** A cone: exactly, by its two arcs. */
function coneTemplate(oneM: number, otherM: number, lengthM: number): Drawn | null {
  const sheet = coneSheet(Math.max(oneM, otherM), Math.min(oneM, otherM), lengthM)
  if (!sheet) return null
  const { outerM, innerM, angleDeg } = sheet
  // stands on its open middle, so that it is as low as it can be
  const [from, to] = [90 - angleDeg / 2, 90 + angleDeg / 2]
  const tabDeg = (180 * TAB_M) / (Math.PI * ((outerM + innerM) / 2))
  const edge = (deg: number): Stroke => ({ fromM: at(innerM, deg), toM: at(outerM, deg) })
  const arc = (radiusM: number): Arc => ({ xM: 0, yM: 0, radiusM, fromDeg: from, toDeg: to + tabDeg })
  const fall = Math.sin((from * Math.PI) / 180)
  return {
    arcs: [arc(outerM), arc(innerM)],
    strokes: [cut(edge(from)), edge(to), cut(edge(to + tabDeg))],
    lowM: fall < 0 ? outerM * fall : innerM * fall,
  }
}

type Point = readonly [number, number]
/** Any other transition, by its triangles. */
function transitionTemplate({ fanEnd, farEnd, lengthM }: AdapterReport): Drawn {
  const sheet = transitionSheet(fanEnd, farEnd, lengthM)
  const place = placing(sheet.fromEdge, sheet.toEdge)
  const [near, far] = [sheet.fromEdge.map(place), sheet.toEdge.map(place)]
  const line = (edge: readonly Point[]): Stroke[] =>
    edge.slice(1).map((p, i) => cut({ fromM: edge[i]!, toM: p }))
  const [nearEnd, farEnd2] = [near.at(-1)!, far.at(-1)!]
  const tab = tabOf(nearEnd, farEnd2, near.at(-2)!)
  const all = [...near, ...far, ...tab]
  return {
    arcs: [],
    strokes: [
      ...line(near).filter(isLong),
      ...line(far).filter(isLong),
      cut({ fromM: near[0]!, toM: far[0]! }),
      { fromM: nearEnd, toM: farEnd2 },
      ...line([nearEnd, ...tab, farEnd2]),
      ...sheet.bends.map(([a, b]): Stroke => ({ fromM: place(a), toM: place(b) })),
    ],
    lowM: Math.min(...all.map(([, y]) => y)),
  }
}
const SHORT_M = 1e-9
const isLong = ({ fromM: [x1, y1], toM: [x2, y2] }: Stroke) => Math.hypot(x2 - x1, y2 - y1) > SHORT_M

/** How a sheet is turned and moved: both ends of its seam on one height, the sheet above them, the ruler under its middle. */
function placing(near: readonly Point[], far: readonly Point[]): (p: Point) => Point {
  const [a, b] = [near[0]!, near.at(-1)!]
  const middle = near[Math.floor(near.length / 2)]!
  const level = -Math.atan2(b[1] - a[1], b[0] - a[0])
  const [c, s] = [Math.cos(level), Math.sin(level)]
  const above = s * (middle[0] - a[0]) + c * (middle[1] - a[1]) >= 0
  const turned = ([x, y]: Point): Point => {
    const [u, v] = [c * x - s * y, s * x + c * y]
    return above ? [u, v] : [-u, -v]
  }
  const xs = [...near, ...far].map((p) => turned(p)[0])
  const shift = (Math.min(...xs) + Math.max(...xs)) / 2
  return (p) => {
    const [x, y] = turned(p)
    return [x - shift, y]
  }
}
/** The far side of the tab: beside the last edge, away from the sheet, drawn in at its ends. */
function tabOf(near: Point, far: Point, inside: Point): [Point, Point] {
  const d = Math.hypot(far[0] - near[0], far[1] - near[1])
  const [ux, uy] = [(far[0] - near[0]) / d, (far[1] - near[1]) / d]
  const away = (inside[0] - near[0]) * -uy + (inside[1] - near[1]) * ux > 0 ? -1 : 1
  const [nx, ny] = [-uy * away, ux * away]
  const inset = Math.min(TAB_M / 2, d / 4)
  return [
    [near[0] + TAB_M * nx + inset * ux, near[1] + TAB_M * ny + inset * uy],
    [far[0] + TAB_M * nx - inset * ux, far[1] + TAB_M * ny - inset * uy],
  ]
}
