import { supplyDefaults, type SupplyKind } from '../power'
import type { Battery, Branch, Calibration, Converter, ElementKind, Fan, FanTest, FeedPart, Job, PathElement, PlanDocument, Port, Run, RunKind, Source, Sun, Wiring } from './document'

/** Relative humidity, altitude and listening distance of a new job: an indoor room near sea level, one arm's length and a half. */
const NEW_JOB = { ambientC: 22, humidity: 0.5, altitudeM: 100, listenerM: 1, hoursPerDay: 8 }

export function newJob(id: string, name: string): Job {
  return {
    id, name, variantOf: null, goal: 'cool', equipment: '', complaint: '', untouchable: '',
    breathesIn: '', breathesOut: '', direction: null, mountedDirection: null, intakeSide: null, outletSide: null, intakeHeightM: null, outletHeightM: null,
    airOutlet: null, outletToOpeningM: null, gasketed: null, backflowFlap: null, intakeAirC: null,
    ...NEW_JOB, ambientMaxC: null, roomDbA: null, margin: null,
    heatW: null, heatBasis: 'estimate', insideMaxC: null, wallLossWK: null, activeCooling: null, partMaxC: null, partInnerKW: null,
    volumeM3: null, airChangesPerH: null, mixing: null, clearS: null, clearShare: null, waterKgS: null, insideC: null, insideRhMax: null, surfaceC: null, co2M3s: null, co2Max: null, co2Fresh: null,
    fumeWay: 'capture', captureSpeedMs: null, captureDistanceM: null, nozzleAreaM2: null, nozzleOpening: 'plain', slotLengthM: null, slotFlanged: false, leakAreaM2: null, boxPressurePa: null,
    workOpeningM2: null, faceSpeedMs: null, roomVolumeM3: null, roomChangesPerH: null, fumeRated: null, carbonHours: null, carbonLifeH: null,
    turnoversPerH: null, jetReachM: null, jetSpeedMs: null, cop: null, dutyShare: null, boxPowerW: null, contentsJK: null, warmedK: null, nearK: null,
    waterAreaM2: null, waterC: null, lid: 'open', surfaceSpeedMs: null, crossAreaM2: null, coolingW: null, reserveM3: null, daysUnattended: null,
    keepBasis: 'existing-fan', existingFanId: null, existingCount: 1, existingV: null, measuredRiseK: null, typedFlowM3s: null,
    fitDepthM: null, fitWidthM: null, inletClearM: null, outletClearM: null, openingGapM: null, baffled: null, hotPartInPath: null, mustNotFail: null,
    mains: null, flammable: null, openFlue: null, wet: null, domain: 'general', opensSupply: null, storedV: null, discharged: null, earthRefitted: null, supplyOpening: null, laser: null, lightBaffle: null, thermalCutout: null, adapterInWet: null, touchC: null,
    trust: 'own', shaft: null, stackExtraM: null, existingHolesM: null, holeM: null, screwHoleM: null, mountKind: null, mountCapacityKg: null, mountIsolated: null, thinPanel: null, panelHz: null, upstreamGapM: null,
    statedChange: null, statedOf: null, rankedBy: null, careFrom: null, bladesDays: null, filterDays: null, tariff: null,
  }
}

export function newPlan(id: string, name: string): PlanDocument {
  return { job: newJob(id, name), targets: [], ports: [], doubts: [], sink: [], path: [], branches: [], calibration: null, pick: null, source: null, converter: null, feed: [], wiring: newWiring(), battery: null, sun: null, runs: [] }
}

export const elementNames: Record<ElementKind, string> = {
  opening: 'Opening', slot: 'Slot', grille: 'Grille', hood: 'Hood or pipe end', filter: 'Filter', duct: 'Straight duct', bend: 'Bend', reducer: 'Reducer or expander', wye: 'Wye or tee', damper: 'Damper', flap: 'One-way flap',
  fins: 'Heatsink fins', adapter: 'Adapter box', chamber: 'Chamber', outlet: 'Outlet', custom: 'Own values', split: 'Ways side by side', fan: 'Fan',
}

/** A new element with what is usual; sizes are left for the person. */
export function newElement(id: string, kind: ElementKind, branchId: string | null = null): PathElement {
  const blank: PathElement = {
    id, kind, name: elementNames[kind], branchId, basis: 'good-guess', style: null, areaM2: null, freeAreaRatio: null, pattern: null, holeM: null, pitchM: null, edge: null, medium: null, c1: null, c2: null, loadFactor: null,
    diameterM: null, diameter2M: null, widthM: null, heightM: null, lengthM: null, gapM: null, finM: null, grainM: null, surface: null, slack: null, radiusRatio: null, angleDeg: null, count: null, a: null, b: null, points: [],
  }
  const usual: Partial<Record<ElementKind, Partial<PathElement>>> = {
    opening: { edge: 'sharp' }, grille: { freeAreaRatio: 0.5, style: 'plate' }, filter: { medium: 'coarse', loadFactor: 1, basis: 'rough-guess' }, duct: { surface: 'pvc', slack: 1 },
    bend: { radiusRatio: 1, angleDeg: 90, count: 1, style: 'round' }, hood: { style: 'flush' }, outlet: { style: 'free-exit' }, wye: { style: 'wye' }, damper: { style: 'blade', angleDeg: 0 },
    reducer: { angleDeg: 180 }, fins: { finM: 0.001 }, custom: { basis: 'measured' },
  }
  return { ...blank, ...usual[kind] }
}

/** A split with its two ways, each still to be filled. */
export function newSplit(id: string, names: readonly { id: string, name: string, leak: boolean }[]): { element: PathElement, branches: Branch[] } {
  return { element: newElement(id, 'split'), branches: names.map(n => ({ ...n, splitId: id })) }
}

export function newCalibration(id: string): Calibration {
  return { id, kind: 'flow', used: true, fanId: null, count: 1, volts: null, flowM3s: null, heatW: null, riseK: null, points: [] }
}

export const newPort = (id: string, role: Port['role']): Port => ({ id, role, name: role === 'in' ? 'Own intake' : 'Own outlet', side: role === 'in' ? 'front' : 'back', areaM2: null, flowM3s: null })

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
    wireAwg: null, wireLengthM: null, fuseA: null, fuseFitted: null, fuseDistanceM: null, polarityChecked: null, openV: null, usbKind: kind === 'usb' ? 'usb2-configured' : null, typeCPullDown: null, tap: null, fiveLoadA: null,
    transientProtected: null, reversible: null,
  }
}

/** A part of the feed that hangs on the source, a converter or a branch. */
export function newFeedPart(id: string, kind: FeedPart['kind'], parentId: string | null): FeedPart {
  const load = kind === 'load'
  return {
    id, parentId, kind, name: load ? 'Indicator' : kind === 'branch' ? 'Branch' : 'Step-down converter', wireAwg: null, wireLengthM: null, fuseA: null, converterKind: kind === 'converter' ? 'buck' : null, outV: kind === 'converter' ? 5 : null,
    iMaxA: null, efficiency: null, ohm: null, setFirst: kind === 'converter' ? false : null, loadKind: load ? 'other' : null, count: 1, currentA: load ? 0.01 : null, startA: null, ratedV: null, fanId: null, ledString: null, ledV: null,
  }
}

export function newWiring(): Wiring {
  return {
    plusColour: 'red', minusColour: 'black', identifiedBy: null, connector: null, join: null, strainRelief: null, reverseProtected: null, routeM: null, bundle: null, insulationC: null, wireAirC: null, tachUsed: null, tachJoined: null,
    hub: null, headerMode: null, pwmSinkA: null, pwmPinV: null, electricalSeries: null, barrelPlugM: null, barrelJackM: null, crimpPullN: null, shrinkBoreM: null, shrinkRatio: null, switchDcV: null, switchDcA: null,
  }
}

/** A battery of a kind of source, with what is usual. Capacity is left for the label. */
export function newBattery(id: string, kind: SupplyKind): Battery {
  const lead = kind === 'vehicle' || kind === 'house-battery' || kind === 'solar'
  return {
    id, chemistry: lead ? 'lead-acid' : 'li-ion', cells: kind === 'pack' ? 3 : kind === 'power-bank' ? 1 : null, chargeC: null, cellV: null, depth: null, maxA: null, autoOffA: kind === 'power-bank' ? 0.06 : null, idleW: null,
    protectedPack: null, coldC: null, chargedCold: null, airTravel: null, energyBasis: 'cell-voltage', wishedS: null, dutyShare: null,
  }
}

/** Peak-sun hours of the months at a middle latitude, for a panel set steep. A guess to be replaced by those of the place. */
const MIDDLE_SUN = [1, 1.8, 2.9, 4, 4.8, 5, 4.9, 4.4, 3.4, 2.2, 1.2, 0.8]
export const newSun = (id: string): Sun => ({ id, panelW: null, panelVoc: 21.6, panelVmp: 18, controller: 'series', sunHours: [...MIDDLE_SUN], wishedDays: null })

export function newConverter(id: string, outV: number): Converter {
  return {
    id, kind: 'buck', outV, iMaxA: null, efficiency: null, dropoutV: null, adjustable: true, setFirst: false, measuredV: null, ohm: null, ohm2: null, ratingW: null, diodes: null, duty: null, pwmHz: null, switchSide: null, flyback: null,
    thetaKW: null, capsFitted: null, capV: null,
  }
}

export function newRun(id: string, kind: RunKind, takenAt: string): Run {
  return {
    id, kind, name: kind === 'baseline' ? 'Baseline' : kind === 'after' ? 'After the change' : 'Bench test', takenAt, changeNo: kind === 'after' ? 1 : null, changed: null, stage: '', who: '', stoodAt: '', fanV: null, voltageAt: null,
    ambientC: null, heatW: null, distanceM: null, soakS: null, steady: null, lid: null, otherOpenings: null, backgroundDbA: null, instrument: null, calibrated: null, floorDbA: null, changes: kind === 'after' ? 1 : null, notes: '',
    photoId: null, logId: null, slopeKS: null, tauS: null, readings: [],
  }
}

/** A new fan: what is most usual, with nothing claimed for it. */
export function newFan(id: string): Fan {
  return {
    id, maker: '', model: '', kind: 'axial', frameM: 0.08, thicknessM: 0.025, thicknessMeasuredM: null, holeSpacingM: null, ratedV: 12, minV: null, maxV: null, startV: null, interceptV: null, ratedA: null, ratedW: null, ratedRpm: null,
    maxFlowM3s: null, maxPressurePa: null, alsoFlowM3s: null, alsoPressurePa: null, noiseDbA: null, noiseDistanceM: null, noiseSone: null, wires: null, connector: null, pwmMinDuty: null, pwmStartDuty: null, pwmMinSpeed: null,
    blades: null, bearing: null, shaftAllowed: null, lifeH: null, lifeC: null, massKg: null, ipSolid: null, ipWater: null, minAirC: null, maxAirC: null, price: null, priceOn: null, owned: false,
    curveBasis: 'curve', notes: '', points: [], curves: [], sources: [], tests: [],
  }
}

export function newTest(id: string, volts: number, takenAt: string): FanTest {
  return {
    id, specimen: 'A', takenAt, volts, ambientC: null, currentA: null, startA: null, startV: null, rpm: null, flowM3s: null, pressurePa: null, airSpeedMs: null, levelDbA: null, levelDistanceM: null,
    backgroundDbA: null, notes: '',
  }
}
