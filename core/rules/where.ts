import type { FactName } from './fact-catalogue'

export type StationKey = 'brief' | 'need' | 'air-path' | 'line-up' | 'fit' | 'power' | 'log' | 'verdict'

/** A place in the app: a station, there perhaps an element, a part of the feed or a run, and there perhaps a field. */
export interface Where {
  station: StationKey
  element?: string
  part?: string
  run?: string
  /** air stream that it belongs to, where a job has several */
  stream?: string
  /** second place of the fans */
  place?: 1
  /** key of the field in its record */
  field?: string
}

/** Which station a rule group belongs to. */
const groupStation: Record<string, StationKey> = {
  need: 'need',
  'air-path': 'air-path',
  fan: 'line-up',
  noise: 'line-up',
  fit: 'fit',
  power: 'power',
  wiring: 'power',
  control: 'power',
  battery: 'power',
  safety: 'brief',
  breathing: 'air-path',
  place: 'fit',
  feed: 'power',
  targets: 'need',
  measurement: 'verdict',
}
/** The station that the findings of a rule group belong to. */
export const stationOfGroup = (group: string): StationKey => groupStation[group] ?? 'brief'

/** Rule groups that speak of one air stream; the others speak of the whole machine. */
export const streamGroups = ['need', 'air-path', 'fan', 'noise', 'fit', 'place', 'breathing', 'targets']

type Place = [station: StationKey, field?: string]
const brief = (field: string): Place => ['brief', field]
const need = (field: string): Place => ['need', field]
const fit = (field: string): Place => ['fit', field]
const power = (field: string): Place => ['power', field]

/**
 * Where a fact is told: the station, and the field where one field holds it. Facts that are computed stand where their
 * result is shown, so that a missing one leads to what keeps it from being computed.
 */
const factPlaces: Partial<Record<FactName, Place>> = {
  'need.flow': ['need'],
  'need.targetTemp': need('insideMaxC'),
  'need.ambientTemp': brief('ambientC'),
  'need.ambientMax': brief('ambientMaxC'),
  'need.activeCooling': need('activeCooling'),
  'need.heatBasis': need('heatBasis'),
  'need.altitude': brief('altitudeM'),
  'need.mustNotFail': brief('mustNotFail'),
  'need.captureSpeed': need('captureSpeedMs'),
  'need.clearMin': need('clearS'),
  'need.runtime': power('wishedS'),
  'need.autonomyDays': power('wishedDays'),
  'water.daysUnattended': need('daysUnattended'),
  'water.reserve': need('reserveM3'),
  'air.surfaceTemp': need('surfaceC'),
  'op.flow': ['line-up'],
  'op.dp': ['line-up'],
  'op.exists': ['air-path'],
  'op.dpAtNeed': ['air-path'],
  'air.direction': brief('direction'),
  'air.intakeHeight': brief('intakeHeightM'),
  'air.exhaustHeight': brief('outletHeightM'),
  'air.intakeTemp': brief('intakeAirC'),
  'air.gasketed': brief('gasketed'),
  'air.outlet': brief('airOutlet'),
  'air.outdoorOpening': brief('airOutlet'),
  'air.backflowFlap': brief('backflowFlap'),
  'air.exhaustToOpening': brief('outletToOpeningM'),
  'air.inletFreeArea': ['air-path'],
  'air.outletFreeArea': ['air-path'],
  'air.inletClear': brief('inletClearM'),
  'air.outletClear': brief('outletClearM'),
  'air.openingGap': brief('openingGapM'),
  'air.baffled': brief('baffled'),
  'air.hotPartInPath': brief('hotPartInPath'),
  'air.grilleOpen': ['air-path', 'freeAreaRatio'],
  'air.upstreamGap': fit('upstreamGapM'),
  'filter.present': ['air-path'],
  'filter.faceSpeed': ['air-path', 'areaM2'],
  'filter.ratedFaceSpeed': ['air-path', 'medium'],
  'filter.fumeRated': need('fumeRated'),
  'filter.carbonHours': need('carbonHours'),
  'filter.carbonLife': need('carbonLifeH'),
  'duct.diameter': ['air-path', 'diameterM'],
  'duct.speed': ['air-path', 'diameterM'],
  'duct.length': ['air-path', 'lengthM'],
  'port.intakeServed': brief('intakeSide'),
  'port.outletServed': brief('outletSide'),
  'port.intakeArea': ['brief'],
  'port.outletArea': ['brief'],
  'fan.vMax': ['line-up'],
  'fan.startV': ['line-up'],
  'fan.shaft': fit('shaft'),
  'fan.airTemp': brief('direction'),
  'fit.depth': brief('fitDepthM'),
  'fit.stackExtra': fit('stackExtraM'),
  'fit.width': brief('fitWidthM'),
  'fit.hole': fit('holeM'),
  'fit.holeSpacing': fit('existingHolesM'),
  'fit.screwHole': fit('screwHoleM'),
  'fit.panelSide': fit('panelWidthM'),
  'fit.panelRoom': fit('panelWidthM'),
  'fit.panelCrowded': fit('panelWidthM'),
  'fit.cableGap': fit('cableGapM'),
  'fit.surfaceTemp': fit('surfaceC'),
  'mount.softenTemp': fit('softenC'),
  'guard.present': fit('guard'),
  'guard.reach': fit('reach'),
  'guard.distance': fit('guardGapM'),
  'guard.required': fit('guardOpeningM'),
  'guard.child': fit('childReach'),
  'fan.impeller': fit('intakeM'),
  'fan.annulus': fit('intakeM'),
  'fit.frameGap': fit('positions'),
  'fit.edgeGap': fit('positions'),
  'fit.zoneGap': fit('positions'),
  'fit.placed': fit('positions'),
  'fit.inDuct': fit('sitsIn'),
  'opening.side': fit('openingWidthM'),
  'opening.within': fit('openingWidthM'),
  'opening.corners': fit('opening'),
  'thing.room': fit('things'),
  'guard.share': fit('guardBarM'),
  'place.filterSpeed': fit('filterAreaM2'),
  'place.filterReach': fit('filterReach'),
  'adapter.halfAngle': fit('adapterLengthM'),
  'mount.ownHz': fit('sinkM'),
  'lead.own': fit('leadM'),
  'blower.face': fit('blowerFace'),
  'screw.length': fit('screwM'),
  'screw.maxDepth': fit('behindM'),
  'mount.kind': fit('mountKind'),
  'mount.capacity': fit('mountCapacityKg'),
  'mount.isolated': fit('mountIsolated'),
  'mount.thinPanel': fit('thinPanel'),
  'mount.panelHz': fit('panelHz'),
  'noise.other': brief('roomDbA'),
  'noise.target': ['need'],
  'safety.opensSupply': brief('opensSupply'),
  'safety.storedV': brief('storedV'),
  'safety.discharged': brief('discharged'),
  'safety.earthRefitted': brief('earthRefitted'),
  'safety.supplyOpening': brief('supplyOpening'),
  'safety.laser': brief('laser'),
  'safety.lightBaffle': brief('lightBaffle'),
  'safety.thermalCutout': brief('thermalCutout'),
  'safety.adapterInWet': brief('adapterInWet'),
  'safety.touchTemp': brief('touchC'),
  'safety.mainsExposed': brief('mains'),
  'safety.flammable': brief('flammable'),
  'safety.openFlue': brief('openFlue'),
  'safety.wet': brief('wet'),
  'supply.kind': ['power'],
  'supply.regulated': power('regulated'),
  'supply.openV': power('openV'),
  'supply.iMax': power('iMaxA'),
  'supply.iPeak': power('iPeakA'),
  'supply.transientProtected': power('transientProtected'),
  'supply.reversible': power('reversible'),
  'usb.ccPresent': power('typeCPullDown'),
  'tap.fiveLoadA': power('fiveLoadA'),
  'header.iMax': power('iMaxA'),
  'header.iPeak': power('iPeakA'),
  'header.mode': power('headerMode'),
  'header.pwmSink': power('pwmSinkA'),
  'conv.iMax': power('iMaxA'),
  'conv.vSet': power('measuredV'),
  'reg.tj': power('junctionToAirKPerW'),
  'reg.caps': power('capsFitted'),
  'resistor.rating': power('ratingW'),
  'resistor.power': power('ohm'),
  'cap.ratingV': power('capV'),
  'wire.length': power('wireLengthM'),
  'wire.route': power('routeM'),
  'wire.ampacity': power('wireAwg'),
  'wire.identifiedBy': power('identifiedBy'),
  'wire.polarityChecked': power('polarityChecked'),
  'wire.strainRelief': power('strainRelief'),
  'wire.reverseProtected': power('reverseProtected'),
  'fuse.present': power('fuseFitted'),
  'fuse.rating': power('fuseA'),
  'fuse.distance': power('fuseDistanceM'),
  'group.electricalSeries': power('electricalSeries'),
  'splitter.tachJoined': power('tachJoined'),
  'fan.tachUsed': power('tachTo'),
  'pwm.undriven': power('pwmFrom'),
  'hub.onHeader': power('hub'),
  'signal.groundsJoined': power('groundsJoined'),
  'fan.pwmPinV': power('pwmPinV'),
  'switch.side': power('switchSide'),
  'switch.flyback': power('flyback'),
  'ctl.pwmHz': power('pwmHz'),
  'batt.protected': power('protectedPack'),
  'batt.chargedBelowZero': power('chargedCold'),
  'batt.maxA': power('maxA'),
  'batt.dod': power('depth'),
  'batt.airTravel': power('airTravel'),
  'batt.autoOffMa': power('autoOffA'),
  'batt.runtime': power('chargeCoulomb'),
  'solar.voc': power('panelVoc'),
  'solar.dailyWh': power('panelW'),
}

/** Where a fact is told, or what keeps it from being told; null for facts of no single place. */
export function placeOfFact(name: FactName): Where | null {
  const place = factPlaces[name] ?? (name.startsWith('meas.') ? (['log'] as const) : undefined)
  return place ? { station: place[0], ...(place[1] ? { field: place[1] } : {}) } : null
}
