import { dewPoint, humidityRatio, type AirState } from '#core/air'
import { filterMedia } from '#core/airpath'
import type { Facts, FactName, FactValue, FactInfo } from './fact-catalogue'
import { clearOutTime } from '#core/need'
import { bladePass } from '#core/noise'
import { awgDiameter, converterDefaults, crimpPull, insulatedDiameter, usbUnit } from '#core/power'
import { fromSi, quantityInfo } from '#core/units'
import { factCatalogue } from './fact-catalogue'
import type { Candidate } from '#core/selection'
import type { PathElement, PlanDocument, Side } from '#core/document'
import {
  freeAreaRatioOf,
  drivenSpeed,
  holeSpacing,
  impellerDiameter,
  sweptArea,
  fanAirC,
  endArea,
} from '#core/system'
import {
  drivenArray,
  endsOf,
  arrayLimits,
  membersOf,
  weakestPressure,
  type FanArray,
  elementFlows,
  fanFlowFor,
  pathDrop,
  usefulShare,
  type PathModel,
} from '#core/system'
import { CLEAR_SHARE, evaporationOf, MIXING, speedReached, type Need } from '#core/requirement'
import type { PowerReport, RuntimeReport } from '#core/supply'
import { connectorLimit } from '#core/supply'
import { measureFacts } from './measure-facts'
import type { VerdictReport } from '#core/verification'

export interface FactSources {
  plan: PlanDocument
  need: Need
  path: PathModel
  fanArray: FanArray | null
  candidate: Candidate | null
  air: AirState
  /** flow that does the job, leaks taken off, m3/s */
  usefulFlow: number | null
  /** flow with the filters loaded, m3/s */
  flowDirty: number | null
  /** flow of one fan alone, m3/s */
  flowOfOne: number | null
  power: PowerReport
  runtime: RuntimeReport
  verdict: VerdictReport
}

export type SiFacts = Partial<Record<FactName, FactValue | null | undefined>>

/** From SI to the unit that rules are written in. */
function inRuleUnit(name: FactName, value: FactValue): FactValue {
  const info: FactInfo = factCatalogue[name]
  if (typeof value !== 'number' || !info.quantity) return value
  return fromSi(
    value,
    quantityInfo(info.quantity).units.find((u) => u.symbol === info.symbol)!,
  )
}

const M3_TO_L = 1000
const HOUR = 3600

function needFacts({ plan, need, candidate, usefulFlow, air }: FactSources): SiFacts {
  const { job } = plan
  const hot = job.goal === 'cool' || job.goal === 'part'
  const clearing =
    (job.goal === 'fume' || job.goal === 'ventilate') && job.clearS !== null && job.volumeM3 !== null
  const water = job.goal === 'chill' ? evaporationOf(job, usefulFlow ?? need.flow.value) : null
  return {
    'need.kind': job.goal,
    'need.goalStated': plan.targets.length > 0 || need.insideMaxC !== null || job.partMaxC !== null,
    'need.flow': need.flow.value,
    'need.comparedWith': candidate?.flow ? 'operating-point' : null,
    'need.targetTemp': job.goal === 'cool' ? need.insideMaxC : job.goal === 'part' ? job.partMaxC : null,
    'need.ambientTemp': job.ambientC,
    'need.ambientMax': job.ambientMaxC,
    'need.activeCooling': hot ? (job.activeCooling ?? false) : job.activeCooling,
    'need.heatBasis': hot && job.heatW !== null ? job.heatBasis : null,
    'need.altitude': job.altitudeM,
    'need.densityCorrected': true,
    'need.mustNotFail': job.mustNotFail,
    'need.captureSpeed': job.goal === 'fume' && job.fumeWay !== 'enclosure' ? job.captureSpeedMs : null,
    'air.captureSpeed': job.goal === 'fume' ? speedReached(job, usefulFlow) : null,
    'need.clearMin': clearing ? job.clearS : null,
    'air.clearMin':
      clearing && usefulFlow
        ? clearOutTime(job.volumeM3!, usefulFlow, job.mixing ?? MIXING, 1, job.clearShare ?? CLEAR_SHARE)
        : null,
    'water.evapPerDay': water?.perDay,
    'water.daysUnattended': job.daysUnattended,
    'water.reserve': job.reserveM3 === null ? null : job.reserveM3 * M3_TO_L,
    'air.surfaceTemp': job.surfaceC,
    'air.dewPoint':
      job.insideRhMax === null
        ? dewPoint(job.ambientC, job.humidity)
        : dewPoint(job.insideC ?? job.ambientC, job.insideRhMax),
    'air.outdoorHumidity':
      job.insideRhMax === null ? null : gramsPerKg(job.ambientC, job.humidity, air.pressurePa),
    'air.indoorHumidity':
      job.insideRhMax === null
        ? null
        : gramsPerKg(job.insideC ?? job.ambientC, job.insideRhMax, air.pressurePa),
  }
}

function gramsPerKg(temperature: number, humidity: number, pressure: number): number | null {
  const w = humidityRatio(temperature, humidity, pressure)
  return w === null ? null : 1000 * w
}

/** Where the air goes in and out, and what the equipment itself does. */
function breathingFacts({ plan, need, path, usefulFlow, candidate }: FactSources): SiFacts {
  const { job, ports } = plan
  const moved = candidate?.flow ?? (need.design.value === null ? null : fanFlowFor(path, need.design.value))
  const own = (role: 'in' | 'out') => ports.filter((p) => p.role === role)
  const area = (role: 'in' | 'out') =>
    own(role).length && own(role).every((p) => p.areaM2 !== null)
      ? own(role).reduce((s, p) => s + p.areaM2!, 0)
      : null
  const blown = (role: 'in' | 'out') =>
    own(role).reduce((s, p) => s + (p.flowM3s ?? 0), 0) + (job.direction === role ? (usefulFlow ?? 0) : 0)
  const flowsKnown = usefulFlow !== null && job.direction !== null
  const served = (role: 'in' | 'out', side: Side | null) =>
    !own(role).length || side === null ? null : own(role).some((p) => p.side === side)
  return {
    'air.direction': job.direction,
    'fan.direction': job.mountedDirection,
    'air.intakeFlow': flowsKnown ? blown('in') : null,
    'air.exhaustFlow': flowsKnown ? blown('out') : null,
    'air.intakeHeight': job.intakeHeightM,
    'air.exhaustHeight': job.outletHeightM,
    'air.intakeTemp': job.intakeAirC,
    'air.gasketed': job.gasketed,
    'air.outlet': job.airOutlet,
    'air.outdoorOpening': job.airOutlet === null ? null : job.airOutlet === 'outdoors',
    'air.backflowFlap': job.backflowFlap ?? (plan.path.some((e) => e.kind === 'flap') ? true : null),
    'air.exhaustToOpening': job.outletToOpeningM,
    'filter.fumeRated': job.fumeRated,
    'filter.carbonHours': job.carbonHours === null ? null : job.carbonHours * HOUR,
    'filter.carbonLife': job.carbonLifeH === null ? null : job.carbonLifeH * HOUR,
    'port.intakeServed': served('in', job.intakeSide),
    'port.outletServed': served('out', job.outletSide),
    'port.sameSide':
      job.intakeSide === null || job.outletSide === null ? null : job.intakeSide === job.outletSide,
    'port.intakeArea': area('in'),
    'port.outletArea': area('out'),
    'path.elements': plan.path.filter((e) => e.kind !== 'fan').length,
    'path.leakShare': path.complete && moved ? 1 - usefulShare(path, moved) : null,
    'path.factor': path.factor === 1 ? null : path.factor,
  }
}

function pathFacts({ plan, path, candidate }: FactSources): SiFacts {
  const { job } = plan
  const elements = plan.path
  const filters = elements.filter((e) => e.kind === 'filter' && e.areaM2)
  const grilles = elements
    .filter((e) => e.kind === 'grille')
    .map(freeAreaRatioOf)
    .filter((s) => s !== null)
  const ducts = elements.filter((e) => (e.kind === 'duct' || e.kind === 'bend') && e.diameterM !== null)
  const hoses = elements.filter((e) => e.kind === 'duct' && e.lengthM !== null)
  const flows = candidate?.flow ? elementFlows(path, candidate.flow) : null
  const through = (e: PathElement) => flows?.get(e.id) ?? null
  const narrow = ducts.toSorted((a, b) => a.diameterM! - b.diameterM!)[0]
  const speeds = ducts
    .map((e) => ({ e, flow: through(e) }))
    .filter((x) => x.flow !== null)
    .map(({ e, flow }) => flow! / ((Math.PI / 4) * e.diameterM! ** 2))
  const faceSpeed = (e: PathElement) => (through(e) ?? 0) / e.areaM2!
  const filter = filters.toSorted((a, b) => faceSpeed(b) - faceSpeed(a) || a.areaM2! - b.areaM2!)[0]
  return {
    'air.inletFreeArea': endArea(plan, 'in'),
    'air.outletFreeArea': endArea(plan, 'out'),
    'air.inletClear': job.inletClearM,
    'air.outletClear': job.outletClearM,
    'air.openingGap': job.openingGapM,
    'air.baffled': job.baffled,
    'air.hotPartInPath': job.hotPartInPath,
    'air.grilleOpen': grilles.length ? Math.min(...grilles) : null,
    'filter.present': elements.length ? filters.length > 0 : null,
    'filter.dpIncluded': filters.length
      ? path.elements.every((e) => e.element.kind !== 'filter' || !e.missing)
      : null,
    'filter.faceSpeed': filter && flows ? faceSpeed(filter) : null,
    'filter.ratedFaceSpeed': filter ? filterMedia.find((m) => m.key === filter.medium)?.maxFaceSpeed : null,
    'duct.diameter': narrow?.diameterM,
    'duct.speed': speeds.length ? Math.max(...speeds) : null,
    'duct.length': hoses.length ? hoses.reduce((s, e) => s + e.lengthM!, 0) : null,
    'duct.slack': hoses.length ? hoses.some((e) => (e.slack ?? 1) > 1) : null,
  }
}

function fanFacts({
  plan,
  need,
  path,
  fanArray,
  candidate,
  air,
  usefulFlow,
  flowDirty,
  flowOfOne,
  power,
}: FactSources): SiFacts {
  const { selection, job } = plan
  if (!fanArray || !selection || !candidate) return {}
  const { model } = fanArray
  const { fan } = model
  const { flow, arrangement } = candidate
  const drive = { volts: candidate.driveV, duty: candidate.duty }
  const driven = drivenArray(fanArray, drive, air)
  const ends = driven && endsOf(driven)
  const limits = arrayLimits(fanArray)
  const level = candidate.level?.value ?? null
  const passes = membersOf(fanArray).map((m) =>
    m.fan.blades === null || m.fan.ratedRpm === null
      ? null
      : bladePass(m.fan.ratedRpm * drivenSpeed(m, drive.volts, drive.duty), m.fan.blades),
  )
  return {
    'op.exists': path.complete ? flow !== null : null,
    'op.flow': usefulFlow,
    'op.flowDirty': flowDirty,
    'op.dp': candidate.pressure,
    'op.dpAtNeed':
      path.complete && need.flow.value !== null ? pathDrop(path, fanFlowFor(path, need.flow.value)) : null,
    'fan.ratedV': fan.ratedV,
    'fan.vMin': fan.minV,
    'fan.vMax': limits.maxV,
    'fan.startV': limits.startV,
    'fan.drivenV': power.fanLowV ?? power.fanV,
    'fan.highV': power.fanHighV,
    // the label's power speaks of rated voltage: over-driven curves are not held against it
    'fan.ratedA': fan.ratedA,
    'fan.currentKnown': fan.ratedA !== null,
    'fan.startA': power.fanStartA,
    'fan.ratedW': fan.ratedW ?? (fan.ratedA === null || candidate.speed > 1 ? null : fan.ratedA * fan.ratedV),
    'fan.freeFlow': ends?.free,
    'fan.maxPressure': ends?.highest,
    'fan.stallFlow': candidate.stallFlow,
    'fan.size': fan.frameM,
    'fan.thickness': candidate.thicknessM,
    'fan.impeller': impellerDiameter(fan),
    'fan.annulus': sweptArea(fan),
    'fan.holeSpacing': holeSpacing(fan),
    'fan.mass': membersOf(fanArray).some((m) => m.fan.massKg === null) ? null : fan.massKg,
    'fan.bearing': fan.bearing,
    'fan.wires': fan.wires,
    'fan.shaft': job.shaft,
    'fan.minDuty': fan.pwmMinDuty,
    'fan.startDuty': fan.pwmStartDuty,
    'fan.airTemp':
      job.direction === 'out' && need.insideMaxC !== null
        ? need.insideMaxC
        : fanAirC(plan, need, flow, air.density),
    'fan.maxAirTemp': fan.maxAirC,
    'fan.ipWater': fan.ipWater,
    'fan.curveBasis': model.curves.basis,
    'fan.ratedRpm': fan.ratedRpm,
    'fan.exCertified': false,
    // a claim printed twice: the first stands for the metric figure, the second for the other unit
    'fan.flowMetric': fan.alsoFlowM3s === null ? null : fan.maxFlowM3s,
    'fan.flowCfm': fan.maxFlowM3s === null ? null : fan.alsoFlowM3s,
    'fan.pressurePa': fan.alsoPressurePa === null ? null : fan.maxPressurePa,
    'fan.pressureMm': fan.maxPressurePa === null ? null : fan.alsoPressurePa,
    'group.count': fanArray.count,
    'group.alike': fanArray.second === null || fanArray.second.fan.id === fan.id,
    'group.arrangement': arrangement === 'places' ? 'series' : arrangement,
    'group.voltagesMixed': fanArray.second !== null && fanArray.second.fan.ratedV !== fan.ratedV,
    'group.flowGain': flow && flowOfOne ? flow / flowOfOne : null,
    'group.weakestPressure': weakestPressure(fanArray, drive, air),
    'group.bladePassDiff':
      passes.length > 1 && passes.every((p) => p !== null)
        ? Math.max(...(passes as number[])) - Math.min(...(passes as number[]))
        : null,
    'noise.level': level,
    'noise.distanceStated': model.claimDbA === null ? null : model.claimDistanceM !== null,
    'noise.bladePass': passes[0],
    'noise.basis': model.claimDbA === null ? null : 'corrected',
    'safety.exposure': level === null ? null : exposureOf(level, job.hoursPerDay),
  }
}

/** Hours of the working day that exposure limits speak of. Directive 2003/10/EC (from memory). */
const DAY_H = 8
/** Level over a working day, dB(A): energy mean of the hours beside it. */
const exposureOf = (level: number, hours: number) =>
  hours > 0 ? level + 10 * Math.log10(Math.min(hours, 24) / DAY_H) : null

/** What is known of the place for the fan. */
function fitFacts({ plan: { job } }: FactSources): SiFacts {
  return {
    'fit.depth': job.fitDepthM,
    'fit.stackExtra': job.stackExtraM ?? (job.fitDepthM === null ? null : 0),
    'fit.width': job.fitWidthM,
    'fit.hole': job.holeM,
    'fit.holeSpacing': job.existingHolesM,
    'fit.screwHole': job.screwHoleM,
    'mount.kind': job.mountKind,
    'mount.capacity': job.mountCapacityKg,
    'mount.isolated': job.mountIsolated,
    'mount.thinPanel': job.thinPanel,
    'mount.panelHz': job.panelHz,
    'air.upstreamGap': job.upstreamGapM,
  }
}

function powerFacts({ plan, fanArray, power }: FactSources): SiFacts {
  const { source, converter, wiring } = plan
  if (!source) return plan.selection ? { 'supply.kind': 'none' } : {}
  const chops = converter?.kind === 'pwm'
  const regulated = converter?.kind === 'buck' || converter?.kind === 'boost' || converter?.kind === 'linear'
  const usb = source.kind === 'usb'
  const conv = converter ? (power.feed.nodes.find((n) => n.id === converter.id) ?? null) : null
  const nodes = power.feed.nodes
  // the worst lead of the whole feed stands for all of them
  const leads = nodes.filter((n) => n.lead?.awg && n.inA !== null)
  const worst = leads.toSorted((a, b) => b.inA! / b.lead!.ampacityA! - a.inA! / a.lead!.ampacityA!)[0]
  const hottest =
    converter?.kind === 'linear' && converter.junctionToAirKPerW !== null && conv
      ? (plan.job.ambientMaxC ?? plan.job.ambientC) + conv.heatW * converter.junctionToAirKPerW
      : null
  const leds = nodes.filter((n) => plan.feed.find((f) => f.id === n.id)?.loadKind === 'led')
  const led = leds[0] && plan.feed.find((f) => f.id === leds[0]!.id)
  const further = plan.feed.filter((f) => f.kind === 'converter' && f.converterKind !== 'resistor')
  const resistor = converter?.kind === 'resistor' && conv
  const wires = fanArray?.model.fan.wires ?? null
  const outer = source.wireAwg === null ? null : insulatedDiameter(awgDiameter(source.wireAwg))
  const splice = outer === null ? null : { over: SPLICE * outer, under: outer }
  const hub = wiring.hub === 'passive' || wiring.hub === 'powered'
  return {
    'supply.kind': source.kind,
    'supply.nominalV': source.nominalV,
    'supply.vMin': source.lowV,
    'supply.vMax': source.highV,
    'supply.openV': source.openV,
    'supply.regulated': source.regulated,
    'supply.tap': source.tap,
    'supply.output': source.output,
    'supply.iMax': source.iMaxA,
    'supply.iPeak': source.iPeakA ?? source.iMaxA,
    'supply.transientProtected': source.transientProtected,
    'supply.reversible': source.reversible,
    'load.runA': power.loadRunA,
    'load.startA': power.loadStartA,
    'load.nonFanPresent': plan.feed.some((f) => f.kind === 'load'),
    'load.nonFanCounted': true,
    'header.loadA': source.kind === 'header' && wiring.hub !== 'powered' ? power.loadRunA : null,
    'header.iMax': source.kind === 'header' ? source.iMaxA : null,
    'header.startA': source.kind === 'header' && wiring.hub !== 'powered' ? power.loadStartA : null,
    'header.iPeak': source.kind === 'header' ? source.iPeakA : null,
    'header.mode': wiring.headerMode,
    'header.pwmSink': wiring.pwmSinkA,
    'usb.loadA': usb ? power.loadRunA : null,
    'usb.budgetA': usb ? source.iMaxA : null,
    'usb.unitA': usb ? usbUnit(source.usbKind ?? 'usb2-configured') : null,
    'usb.configures': usb ? false : null,
    'usb.boost': usb || source.kind === 'power-bank' ? converter?.kind === 'boost' : null,
    'usb.typeC': source.typeCPullDown === null ? null : true,
    'usb.ccPresent': source.typeCPullDown,
    'usb.wantsV': usb ? source.nominalV : null,
    'boost.inputA': converter?.kind === 'boost' ? power.loadRunA : null,
    'conv.kind': converter ? (regulated ? (converter.kind as 'buck') : null) : 'none',
    'conv.vOut': regulated ? converter.outV : converter ? power.fanV : null,
    'conv.vSet': regulated ? converter.measuredV : null,
    'conv.outA': regulated ? power.converterOutA : null,
    'conv.iMax': converter?.iMaxA,
    'conv.dropout':
      converter?.kind === 'buck' || converter?.kind === 'linear'
        ? (converter.dropoutV ?? converterDefaults[converter.kind].dropoutV)
        : null,
    'conv.adjustable': regulated
      ? converter.adjustable || further.length > 0
      : further.length > 0
        ? true
        : null,
    'conv.setFirst':
      regulated || further.length
        ? (!regulated || converter.setFirst) && further.every((f) => f.setFirst === true)
        : null,
    'reg.tj': hottest,
    'reg.tjMax': hottest === null ? null : JUNCTION_LIMIT_C,
    'reg.caps': converter?.kind === 'linear' ? converter.capsFitted : null,
    'resistor.ohm': resistor ? resistor.ohm : null,
    'resistor.power': resistor ? resistor.heatW : null,
    'resistor.rating': resistor ? converter.ratingW : null,
    'divider.feedsFan': converter?.kind === 'divider' ? true : null,
    'cap.ratingV': converter?.capV,
    'cap.highV': converter?.capV ? (source.highV ?? source.nominalV) : null,
    'tap.fanA': source.tap === '7V' ? power.fanRunA : null,
    'tap.fiveLoadA': source.fiveLoadA,
    'wire.drop': power.wireDropV,
    'wire.lineV': power.feedV,
    'wire.current': worst?.inA ?? power.fanRunA,
    'wire.ampacity': worst?.lead?.ampacityA ?? power.wireAmpacityA,
    'wire.polarityChecked': source.polarityChecked,
    'wire.length': wiring.routeM === null ? null : source.wireLengthM,
    'wire.route': wiring.routeM,
    'wire.identifiedBy': wiring.identifiedBy,
    'wire.strainRelief': wiring.strainRelief,
    'wire.reverseProtected': wiring.reverseProtected,
    'fuse.present': source.fuseFitted,
    'fuse.rating': source.fuseFitted === false ? null : source.fuseA,
    'fuse.distance': source.fuseDistanceM,
    'switch.device':
      wiring.switchDcV !== null || wiring.switchDcA !== null ? 'contact' : chops ? 'mosfet' : null,
    'switch.dcV': wiring.switchDcV,
    'switch.dcA': wiring.switchDcA,
    'switch.lineV': source.highV,
    'switch.lineA': power.loadRunA,
    'switch.side': chops ? converter.switchSide : null,
    'switch.flyback': chops ? converter.flyback : null,
    'splitter.tachJoined': wiring.tachJoined,
    'splitter.pwmInputs': plan.selection?.duty !== null && plan.selection ? fanArray?.count : null,
    'splitter.threeWire': hub && wires !== null ? (wires === 3 ? fanArray?.count : 0) : null,
    'connector.current': wiring.connector ? power.fanRunA : null,
    'connector.rating': wiring.connector ? connectorLimit[wiring.connector].amps : null,
    'barrel.plug': wiring.barrelPlugM,
    'barrel.jack': wiring.barrelJackM,
    'crimp.pull': wiring.crimpPullN,
    'crimp.required': wiring.crimpPullN === null || source.wireAwg === null ? null : crimpPull(source.wireAwg),
    'shrink.supplied': splice === null ? null : wiring.shrinkBoreM,
    'shrink.ratio': splice === null ? null : wiring.shrinkRatio,
    'shrink.over': splice?.over,
    'shrink.under': splice?.under,
    'led.stringV': led ? (led.ledString ?? 1) * (led.ledV ?? LED_V) : null,
    'led.feedV': led ? leds[0]!.lowV : null,
    'led.current':
      led && leds[0]!.ohm
        ? Math.max(0, leds[0]!.highV - (led.ledString ?? 1) * (led.ledV ?? LED_V)) / leds[0]!.ohm
        : null,
    'led.rated': led ? LED_RATED_A : null,
    'fan.tachUsed': wiring.tachUsed,
    'fan.pwmPinV': wiring.pwmPinV,
    'ctl.usesPwmWire': plan.selection ? plan.selection.duty !== null : null,
    'ctl.chopsSupply': chops,
    'ctl.pwmHz': chops ? converter.pwmHz : null,
    'ctl.dutyCap': chops ? converter.duty : null,
    'ctl.dutyMin': plan.selection?.duty,
    'group.electricalSeries': wiring.electricalSeries ?? false,
    'fan.reversedByPolarity': fanArray ? false : null,
  }
}

/** A soldered splice over its wire. Common practice, no source. */
const SPLICE = 1.5
/** Junction temperature to stay under, degC. Handbook, linear regulator. */
const JUNCTION_LIMIT_C = 100
/** Drop of an LED that states none, V, and the current that common indicator LEDs are rated for, A. Common practice, no source. */
const LED_V = 2.1
const LED_RATED_A = 0.02

const wattHours = (joule: number | null | undefined) =>
  joule === null || joule === undefined ? null : joule / 3600

function batteryFacts({ plan, runtime, power }: FactSources): SiFacts {
  const { battery, sun, source } = plan
  const packHigh = source?.kind === 'pack' ? { 'batt.vFull': source.highV } : {}
  if (!battery) return packHigh
  return {
    ...packHigh,
    'batt.runtime': runtime.runtimeS,
    'need.runtime': battery.wishedS,
    'batt.loadMa': runtime.bankLoadA,
    'batt.autoOffMa': battery.autoOffA,
    'batt.energyBasis': battery.energyBasis,
    'batt.chemistry': battery.chemistry,
    'batt.protected': battery.protectedPack,
    'batt.dod': battery.depth,
    'batt.loadA': runtime.loadA,
    'batt.maxA': battery.maxA,
    'batt.chargedBelowZero': battery.chargedCold,
    'batt.energy': wattHours(runtime.energyJ),
    'batt.airTravel': battery.airTravel,
    'batt.autonomyDays': sun ? runtime.autonomyDays : null,
    'need.autonomyDays': sun?.wishedDays,
    'load.dailyWh': sun ? wattHours(runtime.dailyJ) : null,
    'solar.dailyWh': wattHours(runtime.worst?.harvestJ),
    'solar.voc': sun?.panelVoc,
    'solar.regulated': sun ? sun.controller !== 'none' || power.feedV !== source?.nominalV : null,
  }
}

function safetyFacts({ plan }: FactSources): SiFacts {
  const { job } = plan
  return {
    'safety.opensSupply': job.opensSupply,
    'safety.storedV': job.storedV,
    'safety.discharged': job.discharged,
    'safety.earthRefitted': job.earthRefitted,
    'safety.supplyOpening': job.supplyOpening,
    'safety.laser': job.laser,
    'safety.lightBaffle': job.lightBaffle,
    'safety.thermalCutout': job.thermalCutout,
    'safety.adapterInWet': job.adapterInWet,
    'safety.touchTemp': job.touchC,
    'safety.mainsExposed': job.mains,
    'safety.flammable': job.flammable,
    'safety.openFlue': job.openFlue,
    'safety.wet': job.wet,
    'safety.domain': job.domain,
    'noise.target': plan.targets.find((t) => t.kind === 'level')?.limit,
    'noise.other': job.roomDbA,
    ...(job.flammable ? { 'fan.exCertified': false } : {}),
  }
}

/** The plan's facts for the findings engine: what is not known is left out. */
export function planFacts(sources: FactSources): Facts {
  const facts: Facts = {}
  for (const part of [
    needFacts,
    breathingFacts,
    pathFacts,
    fanFacts,
    fitFacts,
    powerFacts,
    batteryFacts,
    safetyFacts,
    measureFacts,
  ]) {
    const si = part(sources)
    for (const name in si) {
      const value = si[name as FactName]
      if (value === null || value === undefined || (typeof value === 'number' && !Number.isFinite(value)))
        continue
      facts[name as FactName] = inRuleUnit(name as FactName, value)
    }
  }
  return facts
}
