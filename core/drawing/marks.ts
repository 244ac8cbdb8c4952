import { chainDrilling, frameOf, PILOT_M, ringDrilling } from '#core/fit'
import { screwHoleOf, type MountReport } from '#core/mount'
import { hubDiameter } from '#core/system'
import type { PlacePlan } from '#core/document'
import type { Arc, Round, Stroke, Template, TemplateLayer } from './template'

/** What is cut, drilled and marked of one fan, m from a point on the panel. */

/** The line that tells whether a print has its true size, m. */
const RULER_M = 0.1
const RULER_WORDS = 'measure me: if this is not 100 mm, print at 100 %'
/** Drawn beyond the frame, m. */
export const BEYOND_M = 0.006
/** Ends of the ruler, m. */
const TICK_M = 0.002

export type Marks = Pick<Template, 'rounds' | 'arcs' | 'strokes'>
export interface Spot {
  xM: number
  yM: number
}

const none: Marks = { rounds: [], arcs: [], strokes: [] }
/** Several lists of marks as one. */
export const together = (list: readonly Marks[]): Marks => ({
  rounds: list.flatMap((m) => m.rounds),
  arcs: list.flatMap((m) => m.arcs),
  strokes: list.flatMap((m) => m.strokes),
})
/** Two strokes through a point. @param x m @param y m @param half length of an arm, m */
export const cross = (x: number, y: number, half: number): Stroke[] => [
  { fromM: [x - half, y], toM: [x + half, y] },
  { fromM: [x, y - half], toM: [x, y + half] },
]
/** A rectangle about a point. */
export function outline(
  x: number,
  y: number,
  halfX: number,
  halfY: number,
  layer: TemplateLayer = 'mark',
): Stroke[] {
  const points = [
    [x - halfX, y - halfY],
    [x + halfX, y - halfY],
    [x + halfX, y + halfY],
    [x - halfX, y + halfY],
  ] as const
  return points.map((from, i) => ({ layer, fromM: from, toM: points[(i + 1) % points.length]! }))
}
/** The ruler with its words, below a line. */
export const ruler = (below: number): Pick<Template, 'strokes' | 'words'> => ({
  strokes: [
    { fromM: [-RULER_M / 2, below], toM: [RULER_M / 2, below] },
    ...[-1, 1].map((end): Stroke => ({
      fromM: [(end * RULER_M) / 2, below - TICK_M],
      toM: [(end * RULER_M) / 2, below + TICK_M],
    })),
  ],
  words: [{ text: RULER_WORDS, atM: [0, below - 2 * BEYOND_M] }],
})

/** A slot with round ends about a point. */
function slotMarks({ xM, yM }: Spot, widthM: number, heightM: number, layer: TemplateLayer): Marks {
  const r = Math.min(widthM, heightM) / 2
  const lying = widthM >= heightM
  const off = Math.max(widthM, heightM) / 2 - r
  const end = (side: 1 | -1): Arc => ({
    layer,
    xM: lying ? xM + side * off : xM,
    yM: lying ? yM : yM + side * off,
    radiusM: r,
    fromDeg: (lying ? -90 : 0) + (side === 1 ? 0 : 180),
    toDeg: (lying ? 90 : 180) + (side === 1 ? 0 : 180),
  })
  const side = (s: 1 | -1): Stroke => ({
    layer,
    fromM: lying ? [xM - off, yM + s * r] : [xM + s * r, yM - off],
    toM: lying ? [xM + off, yM + s * r] : [xM + s * r, yM + off],
  })
  return { rounds: [], arcs: [end(1), end(-1)], strokes: [side(1), side(-1)] }
}

/** The hole of a fan: one that is there is marked, another is cut the way that was said. */
function holeMarks({ place: { fit } }: PlacePlan, { fan }: MountReport, holeM: number, at: Spot): Marks {
  const round = (layer: TemplateLayer, diameterM: number): Round => ({ layer, ...at, diameterM })
  const { opening, openingWidthM: w, openingHeightM: h, drillM, cutWay } = fit ?? {}
  if (opening === 'square' && w && h) return { ...none, strokes: outline(at.xM, at.yM, w / 2, h / 2) }
  if (opening === 'oval' && w && h) return slotMarks(at, w, h, 'mark')
  if (opening)
    return {
      ...none,
      rounds: [round('mark', holeM), ...(opening === 'tapered' && w ? [round('mark', w)] : [])],
    }
  const cut = round('cut', holeM)
  const ringOf = ({ diameterM, count }: { diameterM: number; count: number }): Round[] =>
    Array.from({ length: count }, (_, i) => {
      const a = (2 * Math.PI * i) / count
      const [x, y] = [(Math.cos(a) * diameterM) / 2, (Math.sin(a) * diameterM) / 2]
      return { layer: 'drill', xM: at.xM + x, yM: at.yM + y, diameterM: drillM! }
    })
  if (cutWay === 'saw' || cutWay === 'fly-cutter') return { ...none, rounds: [cut, round('drill', PILOT_M)] }
  const chain = cutWay === 'chain' && drillM ? chainDrilling(holeM, drillM) : null
  if (chain) return { ...none, rounds: [cut, ...ringOf(chain)] }
  const grille = cutWay === 'ring' && drillM ? ringDrilling(holeM, hubDiameter(fan), drillM) : null
  if (grille) return { ...none, rounds: grille.rings.flatMap(ringOf) }
  return { ...none, rounds: [cut] }
}

/** A blower by its own measures: the outlet's slot, or its intake with the lugs that were measured. */
function blowerMarks(plan: PlacePlan, mount: MountReport, holeM: number, at: Spot): Marks {
  const { fit } = plan.place
  const { fan } = mount
  const [left, bottom] = [at.xM - fan.frameM / 2, at.yM - fan.frameM / 2]
  if (fit?.blowerFace === 'outlet' && fit.outletWidthM && fit.outletHeightM) {
    // its side that holds the outlet, seen from the front: as wide as the housing, as high as it is thick
    const from = fit.outletFromM ?? (fan.frameM - fit.outletWidthM) / 2
    const middle = left + from + fit.outletWidthM / 2
    return {
      ...none,
      strokes: [
        ...outline(middle, at.yM, fit.outletWidthM / 2, fit.outletHeightM / 2, 'cut'),
        ...outline(at.xM, at.yM, fan.frameM / 2, fan.thicknessM / 2),
        ...cross(middle, at.yM, fit.outletHeightM / 2 + BEYOND_M),
      ],
    }
  }
  const screwM = screwHoleOf(plan.place, fan)
  const lugs = screwM === null ? [] : (fit?.lugs ?? [])
  return {
    arcs: [],
    rounds: [
      { layer: 'cut', ...at, diameterM: holeM },
      ...lugs.map(({ xM, yM }): Round => ({
        layer: 'drill',
        xM: left + xM,
        yM: bottom + yM,
        diameterM: screwM!,
      })),
    ],
    strokes: [
      ...outline(at.xM, at.yM, fan.frameM / 2, fan.frameM / 2),
      ...cross(at.xM, at.yM, fan.frameM / 2 + BEYOND_M),
      ...lugs.flatMap(({ xM, yM }) => cross(left + xM, bottom + yM, screwM!)),
    ],
  }
}

/** What is worked to and what is marked of one fan with its middle at a point. */
export function fanMarks(plan: PlacePlan, mount: MountReport, holeM: number, at: Spot): Marks {
  const { fan, spacingM } = mount
  if (fan.kind === 'blower') return blowerMarks(plan, mount, holeM, at)
  const half = fan.frameM / 2
  const screwM = screwHoleOf(plan.place, fan) ?? frameOf(fan.frameM)?.holeM[1] ?? null
  const s = spacingM === null ? null : spacingM / 2
  const corners =
    s === null || screwM === null
      ? []
      : [-1, 1].flatMap((x) => [-1, 1].map((y) => [at.xM + x * s, at.yM + y * s] as const))
  return together([
    holeMarks(plan, mount, holeM, at),
    {
      arcs: [],
      rounds: corners.map(([xM, yM]): Round => ({ layer: 'drill', xM, yM, diameterM: screwM! })),
      strokes: [
        ...outline(at.xM, at.yM, half, half),
        ...cross(at.xM, at.yM, half + BEYOND_M),
        ...corners.flatMap(([x, y]) => cross(x, y, screwM!)),
      ],
    },
  ])
}
