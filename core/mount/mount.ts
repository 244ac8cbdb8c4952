import {
  areaShare,
  EAR_M,
  frameOf,
  gapCost,
  guardDistance,
  identifyFrame,
  LEAST_WEB_M,
  panelLayout,
  panelRoom,
  screwLength,
  screwMinLength,
  smallHoleK,
  TAPPING_M,
  threadOf,
  webWidth,
  type Frame,
  type GapCost,
  type PanelLayout,
} from '#core/fit'
import { figure, input, type Figure } from '#core/figure'
import type { Fan, Fit, Job, PlanDocument, Thread } from '#core/document'
import {
  arrayThickness,
  fanPlaces,
  holeSpacing,
  impellerDiameter,
  trueThickness,
  type AirSystem,
} from '#core/system'

/** How the fans of an air stream go into their place: what lies in the stack, what is left, hole, screws, guard. */

/** One thing in the stack, from the outside in. */
export interface Layer {
  key: 'guard' | 'panel' | 'gasket' | 'spacer' | 'pad' | 'fan' | 'far-pad' | 'filter'
  name: string
  thicknessM: number
  /** takes none of the depth inside */
  outside: boolean
}

/** The screws as they follow from the stack. */
export interface ScrewPlan {
  thread: Thread
  /** everything clamped, head to far side, m */
  gripM: number
  /** that must stand beyond the grip, and the most that may, m; null: not told */
  engageM: number
  mostM: number | null
  leastM: number
  /** next usual length that holds and does not go too far, m; null where none does */
  lengthM: number | null
  washers: number
}

/** What one hole of a diameter would be. */
export interface HoleOption {
  diameterM: number
  /** of the wanted area */
  share: number
  /** m; null without a screw pattern */
  webM: number | null
  /** Pa at the flow that is moved; null where it is not known or the table ends */
  dropPa: number | null
}

export interface MountReport {
  fan: Fan
  /** how many of them, and how many side by side in one opening */
  count: number
  inOpening: number
  /** hole that is there or will be cut, gasket, screws in the drawer, m; null: not told */
  holeM: number | null
  gasketM: number | null
  drawerM: number | null
  spacingM: number | null
  /** frame that a calliper shows; null where none or nothing was measured */
  measured: Frame | null
  /** why what was measured is not this fan's frame; '' where it is, or nothing was measured */
  measuredProblem: string
  layers: Layer[]
  /** inside, from the panel on, m */
  neededM: number
  leftM: number | null
  /** what the gap that is left costs, on its side; null: not known, or nearer than is tabled */
  cost: GapCost | null
  gapSide: 'intake' | 'exhaust' | null
  wantedM: number
  screw: ScrewPlan | null
  /** least distance of the guard, m; null: not known, or no guard at all */
  guardM: number | null
  /** fans that this panel takes; null: its size is not told */
  room: number | null
  /** where they stand in it; null where it is not told, or they do not go in */
  layout: PanelLayout | null
  figures: Figure[]
}

/** Pressed, a gasket is half as thick. Common practice, no source (handbook fit 3). */
const PRESSED = 0.5
/** Washers that a bolt has where nobody said otherwise. Common practice, no source. */
const USUAL_WASHERS = 2
/** Openings over this are none of a guard's: the table's largest distance counts. ISO 13857, from memory. */
const FARTHEST_M = 0.85

/** Wanted cut-out of a fan, m: the middle of what is usual for its frame, else its blades with 2 % of air. */
export function wantedCutout(fan: Fan): number {
  const frame = fan.kind === 'axial' ? frameOf(fan.frameM) : null
  return frame ? (frame.cutoutM[0] + frame.cutoutM[1]) / 2 : TIP_AIR * impellerDiameter(fan)
}
/** Cut-out over blade tips. Common practice, no source. */
const TIP_AIR = 1.02

function layersOf(fan: Fan, thicknessM: number, fit: Fit | null): Layer[] {
  const layer = (
    key: Layer['key'],
    name: string,
    value: number | null | undefined,
    outside = false,
  ): Layer[] => (value ? [{ key, name, thicknessM: value, outside }] : [])
  return [
    ...layer('guard', 'Guard', fit?.guardM, true),
    ...layer('panel', 'Panel', fit?.panelM, true),
    ...layer('gasket', 'Gasket, pressed', fit?.gasketM && PRESSED * fit.gasketM),
    ...layer('spacer', 'Spacer', fit?.spacerM),
    ...layer('pad', 'Pads', fit?.padM),
    ...layer('fan', fan.model, thicknessM),
    ...layer('far-pad', 'Pads', fit?.padM),
    ...layer('filter', 'Filter', fit?.filterM),
  ]
}

/** What the screws pass: both flanges, or the near ear alone. */
function screwOf(job: Job, fan: Fan, fit: Fit | null, layers: readonly Layer[]): ScrewPlan | null {
  const way = job.mountKind
  const bolted = way === 'screws' || way === 'near-flange'
  if (!bolted && way !== 'self-tapping') return null
  const thread = fit?.thread ?? frameOf(fan.frameM)?.thread ?? null
  if (thread === null) return null
  const at = layers.findIndex((l) => l.key === 'fan')
  const before = layers.slice(0, at).map((l) => l.thicknessM)
  const washers = fit?.washers ?? (bolted ? USUAL_WASHERS : 0)
  const sum = (list: readonly number[]) => list.reduce((s, x) => s + x, 0)
  if (!bolted) {
    const gripM = sum(before) + washers * threadOf(thread)!.washerM
    const leastM = gripM + TAPPING_M[0]
    const mostM = TAPPING_M[1]
    const next = screwLength(leastM)
    const lengthM = next !== null && next <= gripM + mostM + 1e-9 ? next : null
    return { thread, gripM, engageM: TAPPING_M[0], mostM, leastM, lengthM, washers }
  }
  const clamped =
    way === 'screws'
      ? [
          ...before,
          ...layers
            .slice(at, at + 2)
            .filter((l) => l.key !== 'filter')
            .map((l) => l.thicknessM),
        ]
      : [...before, EAR_M]
  const leastM = screwMinLength(clamped, washers, thread)!
  const gripM = sum(clamped)
  const mostM = fit?.behindM ?? null
  const next = screwLength(leastM)
  const lengthM = next !== null && (mostM === null || next <= gripM + mostM + 1e-9) ? next : null
  return { thread, gripM, engageM: leastM - gripM, mostM, leastM, lengthM, washers }
}

/**
 * What a hole would be for a fan: its share of the wanted area, the web to the screw holes, and what it costs.
 * @param flowM3s of one fan, m3/s; null where it is not known
 * @param density of the air, kg/m3
 */
export function holeOption(
  { wantedM, spacingM, screwHoleM }: { wantedM: number; spacingM: number | null; screwHoleM: number | null },
  diameterM: number,
  flowM3s: number | null,
  density: number,
): HoleOption {
  const k = smallHoleK(diameterM / wantedM)
  const speed = flowM3s === null ? null : flowM3s / ((Math.PI / 4) * wantedM ** 2)
  return {
    diameterM,
    share: areaShare(diameterM, wantedM),
    webM: spacingM === null || screwHoleM === null ? null : webWidth(spacingM, diameterM, screwHoleM),
    dropPa: k === null || speed === null ? null : 0.5 * k * density * speed ** 2,
  }
}

/** Least web for a material, m. */
export const leastWeb = (material: Fit['material'] | undefined): number =>
  material === 'metal' ? LEAST_WEB_M.metal : LEAST_WEB_M.other
/** The screw holes: as told, else the medium clearance of the screw. */
export const screwHoleOf = ({ job, fit }: PlanDocument, fan: Fan): number | null =>
  job.screwHoleM ?? threadOf(fit?.thread ?? frameOf(fan.frameM)?.thread ?? 0)?.clearanceM ?? null

function measuredOf(fan: Fan, fit: Fit | null): Pick<MountReport, 'measured' | 'measuredProblem'> {
  const { sideMeasuredM, spacingMeasuredM } = fit ?? { sideMeasuredM: null, spacingMeasuredM: null }
  if (sideMeasuredM === null || spacingMeasuredM === null) return { measured: null, measuredProblem: '' }
  const measured = identifyFrame(sideMeasuredM, spacingMeasuredM)
  const mm = (m: number) => `${Number((m * 1000).toFixed(1))} mm`
  if (!measured)
    return {
      measured,
      measuredProblem:
        `No usual frame has holes ${mm(spacingMeasuredM)} apart and a side of ${mm(sideMeasuredM)}: ` +
        'measure both again, or take the holes from the fan itself.',
    }
  return {
    measured,
    measuredProblem:
      frameOf(fan.frameM)?.sideM === measured.sideM
        ? ''
        : `That is a frame of ${mm(measured.sideM)}; the picked fan has ${mm(fan.frameM)}.`,
  }
}

function figuresOf(
  job: Job,
  mount: Omit<MountReport, 'figures'>,
  hole: HoleOption | null,
  screwHoleM: number | null,
): Figure[] {
  const { layers, neededM, leftM, screw, spacingM } = mount
  const inside = layers.filter((l) => !l.outside)
  const figures = [
    figure(
      'fit.needed',
      'Depth needed',
      'length',
      neededM,
      't = Σ tᵢ',
      'what lies behind the panel, piece by piece',
      {
        inputs: inside.map((l, i) => input(`t${i + 1}`, l.name, l.thicknessM, 'length')),
        note: job.stackExtraM === null ? '' : 'With the guards, gasket and heads as told together.',
      },
    ),
  ]
  if (job.stackExtraM !== null) figures[0]!.inputs.push(input('tₓ', 'told together', job.stackExtraM, 'length'))
  if (leftM !== null && job.fitDepthM !== null)
    figures.push(
      figure('fit.left', 'Left in the depth', 'length', leftM, 'x = d − t', 'difference', {
        inputs: [
          input('d', 'depth for the fan', job.fitDepthM, 'length'),
          input('t', 'depth needed', neededM, 'length'),
        ],
        note: leftM < 0 ? 'It does not go in.' : '',
      }),
    )
  if (hole && hole.webM !== null && spacingM !== null && job.holeM !== null)
    figures.push(
      figure(
        'fit.web',
        'Between hole and screw holes',
        'length',
        hole.webM,
        'w = s/√2 − D/2 − h/2',
        'half the diagonal less both radii',
        {
          inputs: [
            input('s', 'screw holes, centre to centre', spacingM, 'length'),
            input('D', 'hole', job.holeM, 'length'),
            input('h', 'screw hole', screwHoleM, 'length'),
          ],
          note: hole.webM < 0 ? 'They run into each other.' : '',
        },
      ),
    )
  if (screw)
    figures.push(
      figure(
        'fit.screw',
        'Screw, at least',
        'length',
        screw.leastM,
        'l = g + e',
        'clamped thickness, and what must stand beyond it: washers, nut and two pitches, or 5 mm of thread in the ear',
        {
          inputs: [
            input('g', 'everything clamped', screw.gripM, 'length'),
            input('e', 'beyond it', screw.engageM, 'length'),
          ],
        },
      ),
    )
  return figures
}

/**
 * How the picked fans of an air stream go into their place; null without a fan.
 * @param flow that all of them move, m3/s; null where it is not known
 */
export function mountOf(
  plan: PlanDocument,
  { fanArray, air }: AirSystem,
  flow: number | null,
): MountReport | null {
  if (!fanArray) return null
  const { fan } = fanArray.model
  const { job, fit } = plan
  const thicknessM = fanArray.arrangement === 'places' ? trueThickness(fan) : arrayThickness(fanArray)
  const layers = layersOf(fan, thicknessM, fit)
  const inside = layers.filter((l) => !l.outside).reduce((s, l) => s + l.thicknessM, 0)
  const neededM = job.stackExtraM === null ? inside : thicknessM + job.stackExtraM
  const leftM = job.fitDepthM === null ? null : job.fitDepthM - neededM
  const gapSide = job.direction === null ? null : job.direction === 'in' ? 'exhaust' : 'intake'
  const spacingM = holeSpacing(fan)
  const wantedM = wantedCutout(fan)
  const sideBySide = fanArray.arrangement === 'parallel' ? fanArray.count : 1
  // openings alike have a panel each
  const inOpening = sideBySide / (fanPlaces(plan)[0]?.times ?? 1)
  const base = {
    fan,
    count: fanArray.count,
    inOpening,
    holeM: job.holeM,
    gasketM: fit?.gasketM ?? null,
    drawerM: fit?.screwM ?? null,
    spacingM,
    ...measuredOf(fan, fit),
    layers: job.stackExtraM === null ? layers : layers.filter((l) => l.outside || l.key === 'fan'),
    neededM,
    leftM,
    cost: leftM === null || leftM < 0 || !gapSide ? null : gapCost(leftM / impellerDiameter(fan), gapSide),
    gapSide,
    wantedM,
    screw: screwOf(job, fan, fit, layers),
    guardM: guardNeeds(fit),
    ...panelOf(fit, fan, Math.ceil(inOpening)),
  } satisfies Omit<MountReport, 'figures'>
  const screwHoleM = screwHoleOf(plan, fan)
  const hole =
    job.holeM === null
      ? null
      : holeOption(
          { wantedM, spacingM, screwHoleM },
          job.holeM,
          flow === null ? null : flow / sideBySide,
          air.density,
        )
  return { ...base, figures: figuresOf(job, base, hole, screwHoleM) }
}

/** How the fans stand in their panel. */
function panelOf(fit: Fit | null, fan: Fan, count: number): Pick<MountReport, 'room' | 'layout'> {
  const { panelWidthM, panelHeightM } = fit ?? { panelWidthM: null, panelHeightM: null }
  if (panelWidthM === null || panelHeightM === null) return { room: null, layout: null }
  return {
    room: panelRoom(panelWidthM, panelHeightM, fan.frameM, fit!.keepClear),
    layout: panelLayout(count, panelWidthM, panelHeightM, fan.frameM, fit!.keepClear),
  }
}

/** Least distance of a planned guard, m; null without one, or where its openings are not told. */
function guardNeeds(fit: Fit | null): number | null {
  if (!fit || fit.guard === null || fit.guard === 'none' || fit.guardOpeningM === null) return null
  const shape =
    fit.guardShape ?? (fit.guard === 'mesh' ? 'square' : fit.guard === 'perforated' ? 'round' : 'slot')
  return guardDistance(fit.guardOpeningM, shape) ?? FARTHEST_M
}
