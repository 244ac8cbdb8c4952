import { supplyDefaults, type SupplyKind } from '../power'
import type { Converter, ElementKind, Fan, Job, PathElement, PlanDocument, Run, RunKind, Source } from './document'

/** Relative humidity, altitude and listening distance of a new job: an indoor room near sea level, one arm's length and a half. */
const NEW_JOB = { ambientC: 22, humidity: 0.5, altitudeM: 100, listenerM: 1, hoursPerDay: 8 }

export function newJob(id: string, name: string): Job {
  return {
    id, name, goal: 'cool', equipment: '', complaint: '', untouchable: '', breathesIn: '', breathesOut: '', direction: null,
    ...NEW_JOB, ambientMaxC: null, roomDbA: null, margin: null,
    heatW: null, heatBasis: 'estimate', insideMaxC: null, wallLossWK: null, volumeM3: null, airChangesPerH: null,
    keepBasis: 'existing-fan', existingFanId: null, existingCount: 1, existingV: null, measuredRiseK: null, typedFlowM3s: null,
    fitDepthM: null, fitWidthM: null, inletClearM: null, outletClearM: null, openingGapM: null, baffled: null, hotPartInPath: null, mustNotFail: null,
    mains: null, flammable: null, openFlue: null, wet: null, domain: 'general',
  }
}

export function newPlan(id: string, name: string): PlanDocument {
  return { job: newJob(id, name), targets: [], path: [], pick: null, source: null, converter: null, loads: [], runs: [] }
}

export const elementNames: Record<ElementKind, string> = {
  opening: 'Opening', grille: 'Grille', filter: 'Filter', duct: 'Straight duct', bend: 'Bend', chamber: 'Chamber', custom: 'Own values', fan: 'Fan',
}

/** A new element with what is usual; sizes are left for the person. */
export function newElement(id: string, kind: ElementKind): PathElement {
  const blank: PathElement = {
    id, kind, name: elementNames[kind], basis: 'good-guess', areaM2: null, freeAreaRatio: null, edge: null, medium: null, c1: null, c2: null, loadFactor: null,
    diameterM: null, lengthM: null, surface: null, slack: null, radiusRatio: null, angleDeg: null, count: null, a: null, b: null,
  }
  const usual: Record<ElementKind, Partial<PathElement>> = {
    opening: { edge: 'sharp' }, grille: { freeAreaRatio: 0.5 }, filter: { medium: 'coarse', loadFactor: 1, basis: 'rough-guess' }, duct: { surface: 'pvc', slack: 1 },
    bend: { radiusRatio: 1, angleDeg: 90, count: 1 }, chamber: {}, custom: { basis: 'measured' }, fan: {},
  }
  return { ...blank, ...usual[kind] }
}

/** Paths to begin with: the usual elements in their order, sizes left for the person. */
export const pathStarters: { name: string, kinds: { kind: ElementKind, name: string }[] }[] = [
  { name: 'Box, grille in and out', kinds: [{ kind: 'grille', name: 'Intake grille' }, { kind: 'chamber', name: 'Box' }, { kind: 'fan', name: 'Fan' }, { kind: 'grille', name: 'Outlet guard' }] },
  { name: 'Filtered intake', kinds: [{ kind: 'opening', name: 'Intake slot' }, { kind: 'filter', name: 'Filter' }, { kind: 'fan', name: 'Fan' }, { kind: 'chamber', name: 'Box' }, { kind: 'opening', name: 'Outlet' }] },
  { name: 'Hose to the window', kinds: [{ kind: 'opening', name: 'Intake' }, { kind: 'chamber', name: 'Box' }, { kind: 'fan', name: 'Fan' }, { kind: 'duct', name: 'Hose' }, { kind: 'bend', name: 'Bend' }] },
]

export function newSource(id: string, kind: SupplyKind): Source {
  const usual = supplyDefaults.find(s => s.kind === kind)
  return {
    id, kind, name: usual?.name ?? 'Nothing yet', nominalV: usual?.nominalV ?? null, lowV: usual?.lowV ?? null, highV: usual?.highV ?? null,
    iMaxA: usual?.iMaxA ?? null, iPeakA: null, regulated: kind === 'adapter' || kind === 'usb' || kind === 'tap' ? true : null, output: 'dc',
    wireAwg: null, wireLengthM: null, fuseA: null, fuseFitted: null, polarityChecked: null,
  }
}

export function newConverter(id: string, outV: number): Converter {
  return { id, kind: 'buck', outV, iMaxA: null, efficiency: null, dropoutV: null, adjustable: true, setFirst: false, measuredV: null }
}

export function newRun(id: string, kind: RunKind, takenAt: string): Run {
  return {
    id, kind, name: kind === 'baseline' ? 'Baseline' : 'After the change', takenAt, fanV: null, voltageAt: null, ambientC: null, heatW: null, distanceM: null, soakS: null,
    steady: null, lid: null, backgroundDbA: null, instrument: null, floorDbA: null, changes: kind === 'after' ? 1 : null, notes: '', readings: [],
  }
}

/** A new fan: what is most usual, with nothing claimed for it. */
export function newFan(id: string): Fan {
  return {
    id, maker: '', model: '', kind: 'axial', frameM: 0.08, thicknessM: 0.025, ratedV: 12, minV: null, maxV: null, startV: null, interceptV: null, ratedA: null, ratedRpm: null,
    maxFlowM3s: null, maxPressurePa: null, noiseDbA: null, noiseDistanceM: null, wires: null, bearing: null, massKg: null, ipWater: null, maxAirC: null, price: null, owned: false,
    curveBasis: 'curve', notes: '', points: [],
  }
}
