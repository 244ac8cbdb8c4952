import {
  gapCost,
  grommetFor,
  layoutGaps,
  leadNeeded,
  panelLayout,
  panelRoom,
  type GapCost,
  type LayoutGaps,
  type PanelLayout,
} from '#core/fit'
import type { Figure } from '#core/figure'
import { fromEachPlace, type Fan, type Fit, type Place, type PlacePlan, type StreamPlan } from '#core/document'
import type { Candidate } from '#core/selection'
import {
  arrayThickness,
  drivenSpeed,
  fanPlaces,
  holeSpacing,
  impellerDiameter,
  trueThickness,
  type AirSystem,
  type FanModel,
} from '#core/system'
import { adapterOf, type AdapterReport } from './adapter'
import { thingsOf, type ThingRoom } from './clearance'
import { figuresOf } from './figures'
import { measuredOf, sizesOf, type MeasuredFrame, type SizeRow } from './frame'
import { filterOf, guardNeeds, guardShareOf, type FilterReport } from './guard'
import { holeOption, screwHoleOf, wantedCutout } from './hole'
import { keepsOf, type KeepRow } from './keeps'
import { openingOf, type OpeningReport } from './opening'
import { screwOf, type ScrewPlan } from './screws'
import { softMountOf, type SoftMount } from './soft'
import { layersOf, type Layer } from './stack'

/** How the fans of an air stream go into their place: what lies in the stack, what is left, hole, screws, guard. */

interface CablePlan {
  /** for the hole it goes through, m; null: not told, or thicker than is usual */
  grommet: { boreM: number; holeM: number } | null
  /** lead that the way takes, m; null: not told */
  neededM: number | null
}

export interface MountReport extends MeasuredFrame {
  /** id of the place */
  place: string
  fan: Fan
  /** how many of them, and how many side by side in one opening */
  count: number
  inOpening: number
  /** through one of them, m3/s; null where it is not known */
  flowOfOne: number | null
  /** kg/m3 */
  density: number
  /** hole that is there or will be cut, gasket, screws in the drawer, m; null: not told */
  holeM: number | null
  gasketM: number | null
  drawerM: number | null
  /** the fan's own lead, m; what holds it; the hole is cut with a saw, as far as anybody said */
  leadM: number | null
  heldBy: Place['mountKind']
  sawn: boolean
  spacingM: number | null
  sizes: SizeRow[]
  layers: Layer[]
  /** inside, from the panel on, m */
  neededM: number
  leftM: number | null
  /** what the gap that is left costs, on its side; null: not known, or nearer than is tabled */
  cost: GapCost | null
  gapSide: 'intake' | 'exhaust' | null
  things: ThingRoom[]
  wantedM: number
  opening: OpeningReport | null
  screw: ScrewPlan | null
  soft: SoftMount | null
  cable: CablePlan
  /** a guard is planned; its least distance, m, and its free share; null: not known */
  guarded: boolean | null
  guardM: number | null
  guardShare: number | null
  filter: FilterReport | null
  adapter: AdapterReport | null
  /** fans that this panel takes, with 10 mm between them and frame to frame; null: its size is not told */
  room: number | null
  crowded: number | null
  /** where they stand in it; null where it is not told, or they do not go in */
  layout: PanelPlan | null
  keeps: KeepRow[]
  figures: Figure[]
}
/** How the fans stand in their panel, and what is left round them where somebody placed them by hand. */
interface PanelPlan extends PanelLayout {
  gaps: LayoutGaps | null
  /** how many were placed by hand */
  placed: number
}

/** Turns a minute where the fans run, rpm; null where the sheet or the operating point is not known. */
const turnsOf = (model: FanModel, candidate: Candidate | null): number | null =>
  model.fan.ratedRpm === null || !candidate
    ? null
    : model.fan.ratedRpm * drivenSpeed(model, candidate.driveV, candidate.duty)

/**
 * How the picked fans of an air stream go into a place; null without a fan there.
 * @param candidate where they run; null where it is not known
 */
export function mountOf(plan: PlacePlan, system: AirSystem, candidate: Candidate | null): MountReport | null {
  const { fanArray, air } = system
  if (!fanArray) return null
  const { place } = plan
  const { fit } = place
  const groups = fanArray.groups.filter((g) => g.placeId === place.id)
  const [group] = groups
  if (!group) return null
  const { fan } = group.model
  const count = groups.reduce((sum, g) => sum + g.count, 0)
  const atPlaces = fanArray.arrangement === 'places'
  const thicknessM = atPlaces ? trueThickness(fan) : arrayThickness(fanArray)
  const layers = layersOf(fan, thicknessM, place)
  const depthOf = (outside: boolean) =>
    layers.reduce((s, l) => s + (l.outside === outside ? l.thicknessM : 0), 0)
  const neededM = place.stackExtraM === null ? depthOf(false) : thicknessM + place.stackExtraM
  const leftM = place.fitDepthM === null ? null : place.fitDepthM - neededM
  const gapSide = place.direction === null ? null : place.direction === 'in' ? 'exhaust' : 'intake'
  const spacingM = holeSpacing(fan)
  const wantedM = wantedCutout(fan, fit)
  const sideBySide = atPlaces || fanArray.arrangement === 'parallel' ? count : 1
  // openings alike have a panel each
  const inOpening = sideBySide / (fanPlaces(plan).find((p) => p.place === place)?.times ?? 1)
  const flow = candidate?.flow ?? null
  const flowOfOne = flow === null ? null : flow / sideBySide
  const base = {
    place: place.id,
    fan,
    count,
    inOpening,
    flowOfOne,
    density: air.density,
    holeM: place.holeM,
    gasketM: fit?.gasketM ?? null,
    drawerM: fit?.screwM ?? null,
    leadM: fit?.leadM ?? null,
    heldBy: place.mountKind,
    sawn: !fit?.opening && (fit?.cutWay ?? 'saw') === 'saw',
    spacingM,
    ...measuredOf(fan, fit),
    sizes: sizesOf(fan, fit),
    layers: place.stackExtraM === null ? layers : layers.filter((l) => l.outside || l.key === 'fan'),
    neededM,
    leftM,
    cost: leftM === null || leftM < 0 || !gapSide ? null : gapCost(leftM / impellerDiameter(fan), gapSide),
    gapSide,
    things: thingsOf(fit, neededM, depthOf(true) - (fit?.panelM ?? 0) + (fit?.adapterLengthM ?? 0)),
    wantedM,
    opening: openingOf(place, fan),
    screw: screwOf(place, fan, layers),
    soft: softMountOf(fit, turnsOf(group.model, candidate)),
    cable: cableOf(fit),
    guarded: fit?.guard == null ? null : fit.guard !== 'none',
    guardM: guardNeeds(fit),
    guardShare: guardShareOf(fit),
    filter: filterOf(fit, flow),
    adapter: adapterOf(place, fan, place.holeM ?? wantedM, flowOfOne, air.density),
    ...panelOf(fit, fan, Math.ceil(inOpening)),
  } satisfies Omit<MountReport, 'figures' | 'keeps'>
  const screwHoleM = screwHoleOf(place, fan)
  const hole =
    place.holeM === null
      ? null
      : holeOption({ wantedM, spacingM, screwHoleM }, place.holeM, flowOfOne, air.density)
  return {
    ...base,
    keeps: keepsOf(place, base, hole),
    figures: figuresOf(plan, base, hole, screwHoleM),
  }
}

const cableOf = (fit: Fit | null): CablePlan => ({
  grommet: fit?.cableM == null ? null : grommetFor(fit.cableM),
  neededM: fit?.routeM == null ? null : leadNeeded(fit.routeM, fit.slackM ?? 0),
})

/** How the fans stand in their panel: as placed by hand, else spread evenly. */
function panelOf(fit: Fit | null, fan: Fan, count: number): Pick<MountReport, 'room' | 'crowded' | 'layout'> {
  const { panelWidthM: w, panelHeightM: h } = fit ?? { panelWidthM: null, panelHeightM: null }
  if (w === null || h === null) return { room: null, crowded: null, layout: null }
  const { keepClear, positions } = fit!
  const room = panelRoom(w, h, fan.frameM, keepClear)
  const crowded = panelRoom(w, h, fan.frameM, keepClear, 0)
  const spread = panelLayout(count, w, h, fan.frameM, keepClear)
  if (!positions.length) return { room, crowded, layout: spread && { ...spread, gaps: null, placed: 0 } }
  const layout: PanelPlan = {
    ...(spread ?? { columns: count, rows: 1, pitchXM: 0, pitchYM: 0 }),
    centres: positions.slice(0, count).map(({ xM, yM }) => ({ xM: xM - w / 2, yM: yM - h / 2 })),
    gaps: layoutGaps(positions.slice(0, count), w, h, fan.frameM, keepClear),
    placed: positions.length,
  }
  return { room, crowded, layout }
}

/** How the fans go into each of their places. */
export const mountsOf = (plan: StreamPlan, system: AirSystem, candidate: Candidate | null): MountReport[] =>
  fromEachPlace(plan).flatMap((at) => mountOf(at, system, candidate) ?? [])
