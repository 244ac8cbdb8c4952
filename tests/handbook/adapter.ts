/**
 * Maps each check case's `calc` to the core, with unit conversion and nothing else: no rounding, no special cases per id.
 */
import * as air from '#core/air'
import * as fan from '#core/fan'
import { factCatalogue, judgeRules, type Facts } from '#core/rules'
import * as heat from '#core/heat'
import * as measure from '#core/measure'
import * as need from '#core/need'
import * as noise from '#core/noise'
import * as path from '#core/airpath'
import * as power from '#core/power'
import { controlCalcs } from './control-calcs'
import { fitCalcs } from './fit-calcs'

export interface Input {
  value: unknown
  unit: string
}
export interface CheckCase {
  id: string
  calc: string
  what: string
  inputs: Record<string, Input>
  expected: { value: unknown; unit: string; tolerance: number; tolerance_kind: 'abs' | 'rel' }
  source: string
  kind: string
}
export interface CheckFile {
  topic: string
  about: string
  cases: CheckCase[]
}

/** SI value = written * factor (+ offset). */
const factors: Record<string, number> = {
  '1': 1,
  '%': 0.01,
  mm: 1e-3,
  m: 1,
  m2: 1,
  cm2: 1e-4,
  mm2: 1e-6,
  m3: 1,
  s: 1,
  min: 60,
  h: 3600,
  Hz: 1,
  rpm: 1,
  'm/s': 1,
  'ft/min': 0.00508,
  'm3/s': 1,
  'm3/h': 1 / 3600,
  'L/s': 1e-3,
  'L/min': 1e-3 / 60,
  CFM: 0.3048 ** 3 / 60,
  Pa: 1,
  mmH2O: 9.80665,
  inH2O: 249.08891,
  degC: 1,
  K: 1,
  'K/h': 1 / 3600,
  'K/min': 1 / 60,
  'kg/m3': 1,
  'Pa.s': 1,
  'J/(kg.K)': 1,
  'J/kg': 1,
  'kg/kg': 1,
  'kg/s': 1,
  'kg/h': 1 / 3600,
  'g/h': 1e-3 / 3600,
  'L/day': 1 / 86400,
  ppm: 1e-6,
  W: 1,
  'W/K': 1,
  'K/W': 1,
  'J/K': 1,
  'W/(m2.K)': 1,
  'W/(m.K)': 1,
  'Wh/day': 3600,
  'BTU/h': 0.29307107,
  V: 1,
  A: 1,
  mA: 1e-3,
  ohm: 1,
  'ohm/m': 1,
  'ohm/km': 1e-3,
  'V.s/rad': 1,
  'N.m': 1,
  'N.m.s2/rad2': 1,
  'Pa.s/m3': 1,
  'Pa.s2/m6': 1,
  'Pa.s/m': 1,
  'Pa.s2/m2': 1,
  'm3/h/V': 1 / 3600,
  dB: 1,
  'dB(A)': 1,
  phon: 1,
  sone: 1,
  psi: 6894.757293168,
  mbar: 100,
  mmHg: 133.322387415,
  in2: 0.00064516,
  mph: 0.44704,
  lbf: 4.4482216152605,
  N: 1,
  hp: 745.6998715822702,
  'oz/in2': 430.922330823,
  'ohm.mm2/m': 1e-6,
  kg: 1,
  'A/V': 1,
  Ah: 3600,
  mAh: 3.6,
  Wh: 3600,
  uH: 1e-6,
  uF: 1e-6,
  mJ: 1e-3,
  day: 1,
  year: 1,
  'K/s': 1,
  '1/s': 1,
  // cycles are counted an hour
  '1/h': 1,
  'A/V2': 1,
  mV: 1e-3,
}

function toSi(value: number, unit: string): number {
  if (unit === 'degF') return (value - 32) / 1.8
  const factor = factors[unit]
  if (factor === undefined) throw new Error(`the adapter does not know the unit ${unit}`)
  return value * factor
}

function fromSi(value: number, unit: string): number {
  if (unit === 'degF') return value * 1.8 + 32
  return value / (factors[unit] ?? Number.NaN)
}

/** Typed access to a case's inputs in SI. */
class Inputs {
  constructor(readonly raw: Record<string, Input>) {}
  has(name: string) {
    return name in this.raw
  }
  n(name: string, otherwise?: number): number {
    const input = this.raw[name]
    if (!input) {
      if (otherwise !== undefined) return otherwise
      throw new Error(`input ${name} is missing`)
    }
    return toSi(input.value as number, input.unit)
  }

  list(name: string): number[] {
    return (this.raw[name]!.value as number[]).map((v) => toSi(v, this.raw[name]!.unit))
  }
  text(name: string): string {
    return this.raw[name]!.value as string
  }
  bool(name: string): boolean {
    return this.raw[name]!.value as boolean
  }
  unit(name: string): string {
    return this.raw[name]!.unit
  }
}

function curveOf(i: Inputs, flow = 'curve_flow', pressure = 'curve_pressure'): fan.FanCurve {
  const p = i.list(pressure)
  const made = fan.makeCurve(i.list(flow).map((q, k) => ({ q, p: p[k]! })))
  if (!made.ok) throw new Error(made.message)
  return made.curve
}
const pair = (i: Inputs) =>
  [curveOf(i, 'fan1_flow', 'fan1_pressure'), curveOf(i, 'fan2_flow', 'fan2_pressure')] as const
const backflow = (i: Inputs): fan.Backflow => ({
  flap: i.bool('flap'),
  ...(i.has('fan2_reverse_coefficient') ? { reverse: i.n('fan2_reverse_coefficient') } : {}),
})
const pathOf = (i: Inputs): fan.Resistance => ({
  a: i.n('a', 0),
  b: i.n('b', 0),
  staticHead: i.n('static_head', 0),
})
const branches = (i: Inputs) => i.list('a').map((a, k) => ({ a, b: i.list('b')[k]! }))
const densityAt = (i: Inputs, temperature: string) =>
  air.airDensity(i.n(temperature), i.n('pressure', 101325), i.n('relative_humidity_intake', 0))!
const surface = (i: Inputs): need.WaterSurface => ({
  areaM2: i.n('area'),
  waterC: i.n('t_water'),
  airC: i.n('t_air'),
  relativeHumidity: i.n('relative_humidity'),
  airSpeed: i.n('air_speed'),
  activity: i.n('activity_factor'),
  pressurePa: i.has('pressure') ? i.n('pressure') : 101325,
})
const moisture = (i: Inputs): need.MoistureCase => ({
  insideC: i.n('t_inside'),
  insideRh: i.n('rh_inside'),
  outsideC: i.n('t_outside'),
  outsideRh: i.n('rh_outside'),
  pressurePa: i.n('pressure'),
})
const motor = (i: Inputs): fan.Motor => ({
  resistance: i.n('resistance'),
  motorConstant: i.n('motor_constant'),
  frictionTorque: i.n('friction_torque'),
  loadCoefficient: i.n('load_coefficient'),
})
const area = (diameter: number) => (Math.PI / 4) * diameter ** 2
const cut = (i: Inputs, name: string) =>
  fan.parallelOperatingPoint(...pair(i), pathOf(i), backflow(i))?.[name as 'total'] ?? null

type Calc = (i: Inputs, unit: string) => unknown

const toDifference = (i: Inputs) =>
  (i.raw.difference!.value as number) * (i.unit('difference') === 'degF' ? 5 / 9 : 1)

/** Every calculation of the handbook that the core has. */
export const calcs: Record<string, Calc> = {
  'units.convert': (i, unit) => i.n('x') + (unit === 'K' ? air.ZERO_CELSIUS_K : 0),
  'units.convertDifference': toDifference,
  'air.isaTemperature': (i) => air.isaTemperature(i.n('altitude')),
  'air.isaPressure': (i) => air.isaPressure(i.n('altitude')),
  'air.isaDensity': (i) => air.isaDensity(i.n('altitude')),
  'air.density': (i) => air.airDensity(i.n('temperature'), i.n('pressure'), i.n('relative_humidity')),
  'air.viscosity': (i) =>
    air.airViscosity(i.n('temperature') + (i.unit('temperature') === 'K' ? 0 : air.ZERO_CELSIUS_K)),
  'air.saturationPressure': (i) => air.saturationPressure(i.n('temperature')),
  'air.dewPoint': (i) => air.dewPoint(i.n('temperature'), i.n('relative_humidity')),
  'air.humidityRatio': (i) => air.humidityRatio(i.n('temperature'), i.n('relative_humidity'), i.n('pressure')),
  'air.latentHeat': (i) => air.latentHeat(i.n('temperature')),
  'air.wetBulb': (i) => air.wetBulb(i.n('temperature'), i.n('relative_humidity'), i.n('pressure')),

  'need.airflowForHeat': (i) => {
    const intake = densityAt(i, 't_intake')
    const pv = air.vapourPressure(i.n('t_intake'), i.n('relative_humidity_intake', 0))!
    const exhaust = air.airDensity(
      i.n('t_exhaust'),
      i.n('pressure'),
      pv / air.saturationPressure(i.n('t_exhaust'))!,
    )!
    return need.airflowForHeat(
      i.n('heat'),
      i.n('t_intake'),
      i.n('t_exhaust'),
      i.text('flow_at') === 'exhaust' ? exhaust : intake,
    )
  },
  'need.airflowForHeatStandard': (i) => need.airflowForHeatStandard(i.n('heat'), i.n('delta_t')),
  'need.temperatureRise': (i) => need.stirredRise(i.n('heat'), 0, i.n('flow'), densityAt(i, 't_intake')),
  'need.cabinetTemperature': (i) => {
    const rise = need.stirredRise(i.n('heat'), i.n('ua'), i.n('flow'), densityAt(i, 't_ambient'))
    return rise === null ? null : i.n('t_ambient') + rise
  },
  'need.airflowWithWallLoss': (i) =>
    need.airflowWithWallLoss(
      i.n('heat'),
      i.n('ua'),
      i.n('t_inside'),
      i.n('t_ambient'),
      densityAt(i, 't_ambient'),
    ),
  'need.effectiveArea': (i) =>
    need.effectiveArea(i.n('height'), i.n('width'), i.n('depth'), i.text('placement') as 'wall'),
  'need.airChangesFlow': (i) => need.airChangesFlow(i.n('volume'), i.n('changes_per_hour')),
  'need.clearOutTime': (i) =>
    need.clearOutTime(
      i.n('volume'),
      i.n('flow'),
      i.n('mixing_factor'),
      i.n('start'),
      i.n('target'),
      i.n('background', 0),
      i.n('source', 0),
    ),
  'need.captureFlow': (i) =>
    need.captureFlow(
      i.n('capture_velocity'),
      i.n('distance'),
      i.n('opening_area'),
      i.text('opening') as need.CaptureOpening,
    ),
  // at 1 m/s in the opening what is left of it is the share
  'need.captureVelocityRatio': (i) =>
    need.captureSpeedAt(i.n('opening_area'), i.n('distance'), i.n('opening_area'), 'plain'),
  'need.slotCaptureFlow': (i) =>
    need.slotCaptureFlow(
      i.n('capture_velocity'),
      i.n('distance'),
      i.n('slot_length'),
      i.text('opening') === 'slot-flanged',
    ),
  'need.openingFlow': (i) =>
    need.openingFlow(
      i.n('pressure_difference'),
      i.n('leak_area'),
      i.n('discharge_coefficient'),
      i.n('density'),
    ),
  'need.openingPressure': (i) =>
    need.openingPressure(i.n('flow'), i.n('leak_area'), i.n('discharge_coefficient'), i.n('density')),
  'need.evaporationRate': (i) => need.evaporationRate(surface(i)),
  'need.evaporationPerDay': (i) => need.evaporationRate(surface(i)),
  'need.evaporativeCooling': (i) => need.evaporativeCooling(surface(i)),
  'need.waterNetCooling': (i) => need.waterNetCooling(surface(i)),
  'need.steadyExcess': (i) => need.steadyExcess(i.n('source'), i.n('flow')),
  'need.airflowForExcess': (i) => need.airflowForExcess(i.n('source'), i.n('inside'), i.n('outside')),
  'need.moistureRemoval': (i) => need.moistureRemoval(i.n('flow'), moisture(i)),
  'need.airflowForMoisture': (i) => need.airflowForMoisture(i.n('water'), moisture(i)),
  'need.stirEnergy': (i) => need.stirEnergy(i.n('fan_power'), i.n('cop'), i.n('duty')),

  'fan.pressureAt': (i) => fan.pressureAt(curveOf(i), i.n('flow')),
  'fan.flowAt': (i) => fan.flowAt(curveOf(i), i.n('pressure')),
  'fan.estimatedPressure': (i) =>
    fan.estimatedPressure(
      i.n('max_pressure'),
      i.n('max_flow'),
      fan.estimateExponents[i.text('fan_kind') as fan.FanKind].middle,
      i.n('flow'),
    ),
  'fan.scaleFlow': (i) => fan.scaleFlow(i.n('flow_1'), i.n('speed_1'), i.n('speed_2')),
  'fan.scalePressure': (i) => fan.scalePressure(i.n('pressure_1'), i.n('speed_1'), i.n('speed_2')),
  'fan.scalePower': (i) => fan.scalePower(i.n('power_1'), i.n('speed_1'), i.n('speed_2')),
  'fan.scaleDensity': (i) => fan.scaleDensity(i.n('pressure_1'), i.n('density_1'), i.n('density_2')),
  'fan.scaleSizeFlow': (i) => fan.scaleSizeFlow(i.n('flow_1'), i.n('diameter_1'), i.n('diameter_2')),
  'fan.speedFromVoltage': (i) =>
    i.n('rated_speed') *
    fan.speedRatio(i.n('voltage'), i.n('rated_voltage'), i.n('intercept_voltage'), i.n('min_running_voltage')),
  'fan.currentFromVoltage': (i) =>
    fan.currentAtVoltage(i.n('voltage'), i.n('rated_voltage'), i.n('rated_current'), i.n('exponent')),
  'fan.motorSpeed': (i) => fan.motorSpeed(i.n('voltage'), motor(i)),
  'fan.motorCurrent': (i) => fan.motorCurrent(i.n('voltage'), motor(i)),
  'fan.speedFromDuty': (i) =>
    fan.speedFromDuty(i.n('duty'), i.n('min_duty'), i.n('min_speed'), i.n('max_speed')),
  'fan.seriesPressure': (i) => fan.seriesPressure(...pair(i), i.n('flow')),
  'fan.parallelFlow': (i) => fan.parallelFlow(...pair(i), i.n('pressure'), backflow(i)),
  'fan.staticEfficiency': (i) => fan.staticEfficiency(i.n('flow'), i.n('pressure'), i.n('power')),
  'fan.stallLimit': (i) => fan.stallLimit(curveOf(i)),
  'fan.dataPlausibility': (i) => fan.dataPlausibility(i.n('max_flow'), i.n('max_pressure'), i.n('power')),
  'fan.deliveredClass': (i) => fan.deliveredClass(i.n('delivered'), i.n('rated')),

  'path.frictionFactor': (i) => path.frictionFactor(i.n('reynolds'), i.n('relative_roughness')),
  'path.frictionFactorExplicit': (i) => path.frictionFactorExplicit(i.n('reynolds'), i.n('relative_roughness')),
  'path.laminarConstant': (i) => path.laminarConstant(i.n('side_ratio')),
  'path.ductDrop': (i) =>
    path.ductDrop(
      i.n('flow'),
      i.n('diameter'),
      i.n('length'),
      i.n('roughness'),
      i.n('density'),
      i.n('viscosity'),
    ),
  'path.hydraulicDiameter': (i) => path.hydraulicDiameter(i.n('width'), i.n('height')),
  'path.equalFrictionDiameter': (i) => path.equalFrictionDiameter(i.n('width'), i.n('height')),
  'path.kElbow': (i) => path.kElbow(i.n('radius_ratio'), i.n('angle', 90)),
  'path.kDamper': (i) => path.kDamper(i.n('angle')),
  'path.kExpansion': (i) => path.kExpansion(area(i.n('d_small')), area(i.n('d_large'))),
  'path.kContraction': (i) => path.kContraction(area(i.n('d_large')), area(i.n('d_small'))),
  'path.kPerforated': (i) => path.kPerforated(i.n('free_area_ratio'), i.text('place') as path.GrillePlace),
  'path.kMesh': (i) => path.kMesh(i.n('free_area_ratio')),
  'path.bFromK': (i) => path.bFromK(i.n('k'), area(i.n('diameter')), i.n('density')),
  'path.filterDrop': (i) => path.filterDrop(i.n('flow'), i.n('area'), i.n('linear'), i.n('quadratic')),
  'path.packedBedDrop': (i) =>
    path.packedBedDrop(
      i.n('length'),
      i.n('void_fraction'),
      i.n('grain'),
      i.n('face_velocity'),
      i.n('density'),
      i.n('viscosity'),
    ),
  'path.slitDrop': (i) => path.slitDrop(i.n('gap'), i.n('length'), i.n('velocity'), i.n('viscosity')),
  'path.finChannelDrop': (i) =>
    path.finChannelDrop(
      {
        gap: i.n('gap'),
        height: i.n('fin_height'),
        length: i.n('length'),
        channels: i.n('channels'),
        finThickness: i.n('fin_thickness'),
      },
      i.n('flow'),
      i.n('density'),
      i.n('viscosity'),
    ),
  'path.orificeFlow': (i) =>
    path.orificeFlow(i.n('area'), i.n('discharge_coefficient'), i.n('pressure_difference'), i.n('density')),
  'path.flowAtDrop': (i) => path.flowAtDrop(i.n('a'), i.n('b'), i.n('pressure_difference')),
  'path.parallelFlowAtDrop': (i) => path.parallelFlowAtDrop(branches(i), i.n('pressure_difference')),
  'path.parallelDrop': (i) => path.parallelDrop(branches(i), i.n('flow')),
  'path.seriesDrop': (i) => fan.dropOf(path.seriesResistance(branches(i)), i.n('flow')),
  'path.quadraticParallel': (i) => path.quadraticParallel(i.list('b')),
  'path.dropOtherAir': (i) =>
    path.dropOtherAir(
      pathOf(i),
      i.n('flow'),
      i.n('density_2') / i.n('density_1'),
      i.n('viscosity_2') / i.n('viscosity_1'),
    ),
  'path.fitA': (i) => path.fitResistance(i.list('flow'), i.list('pressure_difference'))?.a ?? null,
  'path.fitB': (i) => path.fitResistance(i.list('flow'), i.list('pressure_difference'))?.b ?? null,
  'path.exponent': (i) =>
    path.pathExponent(
      i.list('flow')[0]!,
      i.list('pressure_difference')[0]!,
      i.list('flow')[1]!,
      i.list('pressure_difference')[1]!,
    ),

  'op.flow': (i) => fan.operatingPoint(curveOf(i), pathOf(i)).flow,
  'op.pressure': (i) => fan.operatingPoint(curveOf(i), pathOf(i)).pressure,
  'op.status': (i) => fan.operatingPoint(curveOf(i), pathOf(i)).status,
  'op.allFlows': (i) => fan.crossings(curveOf(i), pathOf(i)).map((c) => c.flow),
  'op.stableFlows': (i) =>
    fan
      .crossings(curveOf(i), pathOf(i))
      .filter((c) => c.stable)
      .map((c) => c.flow),
  'op.region': (i) => fan.operatingPoint(curveOf(i), pathOf(i)).region,
  'op.flowOtherDensity': (i) => {
    const ratio = i.n('density') / air.REFERENCE_DENSITY
    const p = pathOf(i)
    return fan.operatingPoint(curveOf(i), { ...p, b: p.b * ratio }, { ...fan.asSheet, densityRatio: ratio })
      .flow
  },
  'op.flowAtSpeed': (i) =>
    fan.operatingPoint(curveOf(i), pathOf(i), { ...fan.asSheet, speed: i.n('speed_ratio') }).flow,
  'op.speedForFlow': (i) => fan.speedForFlow(curveOf(i), pathOf(i), i.n('target_flow')),
  'op.flowPerVolt': (i) =>
    fan.flowPerVolt(curveOf(i), pathOf(i), i.n('voltage'), i.n('rated_voltage'), i.n('intercept_voltage')),
  'op.flowAtVoltage': (i) =>
    fan.operatingPoint(curveOf(i), pathOf(i), {
      ...fan.asSheet,
      speed: fan.speedRatio(
        i.n('voltage'),
        i.n('rated_voltage'),
        i.n('intercept_voltage'),
        i.n('min_running_voltage'),
      ),
    }).flow,
  'op.estimatedBand': (i) => {
    const band = fan.estimatedBand(i.text('fan_kind') as fan.FanKind, i.n('max_pressure'), i.n('max_flow'))
    return [band.low, band.middle, band.high].map((c) => fan.operatingPoint(c!, pathOf(i)).flow)
  },
  'op.series': (i) => fan.seriesOperatingFlow(...pair(i), pathOf(i)),
  'op.parallelTotal': (i) => cut(i, 'total'),
  'op.parallelFan2': (i) => cut(i, 'second'),
  'op.exhaustCabinetIntake': (i) =>
    fan.leakyBox(curveOf(i), i.n('b_intake'), i.n('b_outlet'), i.has('b_leak') ? i.n('b_leak') : null)
      ?.wanted ?? null,
  'op.exhaustCabinetPressure': (i) =>
    fan.leakyBox(curveOf(i), i.n('b_intake'), i.n('b_outlet'), i.has('b_leak') ? i.n('b_leak') : null)
      ?.boxPressure ?? null,
  'op.pushPullBoxPressure': (i) => pushPull(i)?.boxPressure ?? null,
  'op.pushPullExhaustFlow': (i) => pushPull(i)?.exhaust ?? null,
  'op.pathFromDelivered': (i) => fan.pathFromDelivered(curveOf(i), i.n('flow')),

  'noise.sum': (i) => noise.sumLevels(i.list('levels')),
  'noise.identical': (i) => noise.identicalLevels(i.n('level'), i.n('count')),
  'noise.minusBackground': (i) => noise.minusBackground(i.n('reading'), i.n('background')),
  'noise.backgroundClass': (i) => noise.backgroundClass(i.n('reading'), i.n('background')),
  'noise.k1': (i) => noise.k1(i.n('difference')),
  'noise.distance': (i) => noise.atDistance(i.n('level'), i.n('distance_1'), i.n('distance_2')),
  'noise.powerToPressure': (i) =>
    noise.powerToPressure(i.n('power_level'), i.n('distance'), i.text('field') as 'sphere'),
  'noise.roomLevel': (i) =>
    noise.roomLevel(i.n('power_level'), i.n('distance'), i.n('directivity'), i.n('surface'), i.n('absorption')),
  'noise.criticalDistance': (i) =>
    noise.criticalDistance(i.n('directivity'), i.n('surface'), i.n('absorption')),
  'noise.atSpeed': (i) => noise.atSpeed(i.n('level'), i.n('speed_1'), i.n('speed_2')),
  'noise.loudnessRatio': (i) => noise.loudnessRatio(i.n('change')),
  'noise.phonToSone': (i) => noise.phonToSone(i.n('loudness_level')),
  'noise.soneToDbA': (i) => noise.soneToDbA(i.n('loudness')),
  'noise.aWeighting': (i) => noise.aWeighting(noise.exactBand(i.n('frequency'))),
  'noise.spectrumToDbA': (i) => noise.spectrumToDbA(i.list('frequency'), i.list('levels')),
  'noise.bladePass': (i) => noise.bladePass(i.n('speed'), i.n('blades'), i.n('harmonic', 1)),
  'noise.nextToFix': (i) => noise.nextToFix(i.list('levels')),
  'noise.maxDrop': (i) => noise.maxDrop(i.list('levels')),
  'noise.afterReduction': (i) => noise.afterReduction(i.list('levels'), i.n('index'), i.n('reduction')),
  'noise.reductionForTarget': (i) => noise.reductionForTarget(i.list('levels'), i.n('index'), i.n('target')),
  'noise.leq': (i) => noise.leq(i.list('levels'), i.list('durations')),
  'noise.readingClass': (i) => noise.readingClass(i.n('reading'), i.n('instrument_floor')),
  'noise.allowedTime': (i) => noise.allowedTime(i.n('level')),
  'noise.dose': (i) => noise.dose(i.list('levels'), i.list('durations')),
  'noise.isolatorFrequency': (i) => noise.isolatorFrequency(i.n('static_deflection')),
  'noise.transmissibility': (i) => noise.transmissibility(i.n('speed'), i.n('natural_frequency')),

  'power.utilisation': (i) => power.utilisation(i.list('counts'), i.list('currents'), i.n('source')),
  'power.headroomVerdict': (i) => power.headroomVerdict(i.n('utilisation')),
  'power.surge': (i) => power.surge(i.list('start'), i.list('run'), i.n('together')),
  'power.adapterMinimumEfficiency': (i) => power.adapterMinimumEfficiency(i.n('power')),
  'power.sourceWindow': (i) => power.sourceWindow(i.n('nominal'), i.n('tolerance'), i.text('end') as 'low'),
  'power.linearHeat': (i) => power.linearHeat(i.n('v_in'), i.n('v_out'), i.n('current'), i.n('quiescent')),
  'power.junctionTemperature': (i) =>
    power.junctionTemperature(
      power.linearHeat(i.n('v_in'), i.n('v_out'), i.n('current'), i.n('quiescent')),
      i.n('theta_ja'),
      i.n('ambient'),
    ),
  'power.adjustableRegulatorOutput': (i) =>
    power.adjustableRegulatorOutput(i.n('r1'), i.n('r2'), i.n('v_ref'), i.n('i_adj')),
  'power.buckInputCurrent': (i) =>
    power.converterInputCurrent(i.n('v_in'), i.n('v_out'), i.n('i_out'), i.n('efficiency')),
  'power.boostInputCurrent': (i) =>
    power.converterInputCurrent(i.n('v_in'), i.n('v_out'), i.n('i_out'), i.n('efficiency')),
  'power.converterLoss': (i) => power.converterLoss(i.n('v_out'), i.n('i_out'), i.n('efficiency')),
  'power.idealDuty': (i) => power.idealDuty(i.text('kind') as 'buck', i.n('v_in'), i.n('v_out')),
  'power.diodeDrop': (i) => power.diodeDrop(i.n('supply'), i.n('diodes'), i.n('drop')),
  'power.protectionLoss': (i) => power.protectionSaving(i.n('rds_on'), i.n('current'), i.n('forward_voltage')),
  'power.choppedPeak': (i) => power.choppedPeak(i.n('supply')),
  'power.choppedAverage': (i) => power.choppedAverage(i.n('supply'), i.n('duty')),
  'power.awgDiameter': (i) => power.awgDiameter(i.n('awg')),
  'power.awgArea': (i) => power.awgArea(i.n('awg')),
  'power.awgResistancePerKm': (i) => awgResistance(i),
  'power.copperResistivity': (i) => power.copperResistivity(i.n('temperature')),
  'power.metricResistancePerKm': (i) =>
    power.metricResistance[i.text('conductor_class') as '5'][i.n('area') * 1e6] ?? null,
  'power.wireDrop': (i) => power.wireDrop(i.n('length_one_way'), awgResistance(i), i.n('current')),
  'power.wireMaxLength': (i) => power.longestWire(i.n('drop_allowed'), awgResistance(i), i.n('current')),
  'power.fanVoltageAfterWire': (i) =>
    power.voltageBehind(
      i.n('supply'),
      2 * i.n('length_one_way') * awgResistance(i),
      (v) => i.n('fan_a') + i.n('fan_b') * v,
    ),
  'power.ampacityDerated': (i) =>
    power.allowedCurrent(
      i.n('plan_ampacity'),
      i.n('loaded_conductors'),
      i.n('insulation_rating'),
      i.n('ambient'),
    ),
  'power.preeceFusing': (i) => power.fusingCurrent(i.n('diameter')),
  'power.hotSideHeat': (i) => power.hotSideHeat(i.n('pumped'), i.n('voltage'), i.n('current')),

  'power.bankRuntime': (i) =>
    power.bankRuntime(i.n('capacity') * i.n('cell_voltage'), i.n('efficiency'), i.n('load'), i.n('idle')),
  'power.bankOutputCapacity': (i) =>
    power.outputCharge(i.n('capacity') * i.n('cell_voltage'), i.n('efficiency'), i.n('v_out')),
  'power.packVoltage': (i) =>
    power.packVoltage(i.text('chemistry') as 'li-ion', i.n('cells_in_series'), i.text('state') as 'full'),
  'power.directRuntimeLinear': (i) =>
    power.directRuntime(i.n('capacity'), i.n('v_full'), i.n('v_empty'), i.n('fan_a'), i.n('fan_b')),
  'power.directRuntimeConstantPower': (i) =>
    power.constantPowerRuntime(i.n('capacity'), i.n('v_full'), i.n('v_empty'), i.n('load')),
  'power.peukertRuntime': (i) =>
    power.peukertRuntime(i.n('capacity'), i.n('rate_hours'), i.n('exponent'), i.n('current')),
  'power.keepAlivePower': (i) => power.keepAlivePower(i.n('v_out'), i.n('i_min'), i.n('i_load')),
  'power.keepAliveResistor': (i) => power.keepAliveResistor(i.n('v_out'), i.n('i_min'), i.n('i_load')),
  'power.underFlightLimit': (i) => i.n('capacity') * i.n('cell_voltage') <= power.FLIGHT_LIMIT_J,
  'power.dividerFanVoltage': (i) =>
    power.dividerVoltage(i.n('supply'), i.n('r_top'), i.n('r_bottom'), i.n('fan_a'), i.n('fan_b')),
  'power.dividerHeat': (i) =>
    power.dividerHeat(
      i.n('supply'),
      i.n('r_top'),
      i.n('r_bottom'),
      power.dividerVoltage(i.n('supply'), i.n('r_top'), i.n('r_bottom'), i.n('fan_a'), i.n('fan_b'))!,
    ),
  'power.stiffDividerEfficiency': (i) =>
    power.stiffDividerEfficiency(i.n('supply'), i.n('fan_voltage'), i.n('fan_current'), i.n('stiffness')),
  'power.preferredSeries': (i) => power.preferredSeries(i.text('series') as 'E6'),
  'power.preferredCount': (i) => power.preferredSeries(i.text('series') as 'E6').length,
  'power.preferredValue': (i) => power.preferredSeries(i.text('series') as 'E96')[i.n('index')] ?? null,
  'power.nearestPreferred': (i) => power.nearestPreferred(i.n('value'), i.text('series') as 'E12'),
  'power.nextPreferred': (i) => power.nextPreferred(i.n('value'), i.text('series') as 'E12'),
  'power.ledResistor': (i) =>
    power.ledResistor(i.n('supply'), i.n('leds'), i.n('forward_voltage'), i.n('current')),
  'power.ledResistorPower': (i) =>
    power.ledResistorPower(i.n('supply'), i.n('leds'), i.n('forward_voltage'), i.n('current')),
  'power.ledMaxPerString': (i) => power.ledMaxPerString(i.n('supply'), i.n('forward_voltage'), i.n('reserve')),
  'power.seriesResistorLinear': (i) => power.behindResistor(i.n('supply'), i.n('resistor'), linearFan(i)),
  'power.seriesResistorHeat': (i) => {
    const v = power.behindResistor(i.n('supply'), i.n('resistor'), linearFan(i))
    return v === null ? null : (i.n('supply') - v) ** 2 / i.n('resistor')
  },
  'power.seriesResistorQuadratic': (i) =>
    power.behindResistor(i.n('supply'), i.n('resistor'), {
      kind: 'power-law',
      ratedA: i.n('fan_k'),
      ratedV: 1,
      exponent: 2,
    }),
  'power.seriesResistorPowerLaw': (i) =>
    power.behindResistor(i.n('supply'), i.n('resistor'), {
      kind: 'power-law',
      ratedA: i.n('rated_current'),
      ratedV: i.n('rated_voltage'),
      exponent: i.n('exponent'),
    }),
  'power.seriesResistorConstantPower': (i) =>
    power.behindResistor(i.n('supply'), i.n('resistor'), { kind: 'constant-power', watts: i.n('power') }),
  'power.resistorForVoltage': (i) =>
    power.resistorForVoltage(
      i.n('supply'),
      i.n('fan_voltage'),
      i.n('fan_a') + i.n('fan_b') * i.n('fan_voltage'),
    ),
  'power.fanCurrentExponent': (i) => power.currentExponent(i.n('v1'), i.n('i1'), i.n('v2'), i.n('i2')),
  'power.startsWithResistor': (i) =>
    power.startsBehind(i.n('supply'), i.n('resistor'), i.n('start_current'), i.n('start_voltage')),
  'power.resistorRating': (i) => power.resistorRating(i.n('heat'), i.n('margin')),
  'power.resistorDerated': (i) =>
    power.resistorDerated(i.n('rating'), i.n('ambient'), i.n('full_to'), i.n('zero_at')),
  'power.panelNeeded': (i) => power.panelNeeded(i.n('load'), i.n('hours'), i.n('sun_hours'), i.n('efficiency')),
  'power.autonomyDays': (i) =>
    power.autonomyDays(i.n('battery'), i.n('depth'), i.n('efficiency'), i.n('daily_use')),
  'power.batteryForAutonomy': (i) =>
    power.batteryForAutonomy(i.n('days'), i.n('daily_use'), i.n('depth'), i.n('efficiency')),
  'power.seriesControllerEfficiency': (i) =>
    power.seriesControllerEfficiency(i.n('battery'), i.n('v_mp'), i.n('other')),
  'power.recoveryDays': (i) =>
    power.recoveryDays(i.n('panel'), i.n('sun_hours'), i.n('efficiency'), i.n('daily_use'), i.n('deficit')),
  'power.filterRipple': (i) =>
    power.filterRipple(i.n('supply'), i.n('duty'), i.n('inductor'), i.n('capacitor'), i.n('frequency')),
  'power.filterCorner': (i) => power.filterCorner(i.n('inductor'), i.n('capacitor')),
  'power.holdUpDip': (i) => power.holdUpDip(i.n('current'), i.n('off_time'), i.n('capacitor')),
  'power.flybackEnergy': (i) => power.flybackEnergy(i.n('inductor'), i.n('current')),
  'power.snubberCapacitor': (i) => power.snubber(i.n('voltage'), i.n('current')).farad,
  'power.snubberResistor': (i) => power.snubber(i.n('voltage'), i.n('current')).ohm,
  'power.fuseChoice': (i) =>
    power.fuseChoice(i.n('run_current'), i.n('wire_ampacity'), i.text('standard') as 'blade'),
  'power.capacitorRating': (i) => power.capacitorRating(i.n('v_max'), i.n('factor')),
  'power.crimpPullUl': (i) => power.crimpPullUl[i.n('awg')] ?? null,
  'power.crimpPullIec': (i) => power.crimpPullIec[i.n('awg')] ?? null,
  'power.crimpPullRequired': (i) => power.crimpPull(i.n('awg')),
  'power.heatShrinkRatio': (i) => power.heatShrinkRatio(i.n('over'), i.n('under')),
  'power.usbBudget': (i) => power.usbBudget[i.text('kind') as 'bc12'],
  'power.usbPower': (i) => i.n('voltage') * i.n('current'),
  'power.usbMandatoryVoltages': (i) => power.usbMandatoryVoltages[i.text('range') as 'standard'],
  'power.usbSinkPullDown': () => power.USB_SINK_OHM,
  'measure.ptResistance': (i) => measure.ptResistance(i.n('temperature'), i.n('r0')),
  'measure.ptTemperature': (i) => measure.ptTemperature(i.n('resistance'), i.n('r0')),
  'measure.ptTolerance': (i) => measure.ptTolerance(i.text('class') as 'A', i.n('temperature')),
  'measure.ptLeadError': (i) => measure.ptLeadError(i.n('lead'), i.n('r0')),
  'measure.ntcTemperatureBeta': (i) => measure.ntcTemperature(i.n('resistance'), i.n('r25'), i.n('beta')),
  'measure.ntcBeta': (i) => measure.ntcBeta(i.n('t1'), i.n('r1'), i.n('t2'), i.n('r2')),
  'measure.ntcSteinhartHart': (i) =>
    measure.steinhartHart(
      i.list('temperatures').map((t, k) => ({ t, r: i.list('resistances')[k]! })),
      i.n('resistance'),
    ),
  'measure.dividerResistance': (i) => measure.dividerResistance(i.n('fraction'), i.n('r_fixed')),
  'measure.typeKMillivolt': (i) => measure.typeKVoltage(i.n('temperature')),
  'measure.typeKTemperature': (i) => measure.typeKTemperature(i.n('measured'), i.n('cold_junction')),
  'measure.tQuantile': (i) => measure.tQuantile(i.n('df'), i.n('confidence')),
  'measure.standardDeviation': (i) => measure.standardDeviation(i.list('values')),
  'measure.intervalHalfWidth': (i) => measure.intervalHalfWidth(i.list('values'), i.n('confidence')),
  'measure.welchDf': (i) => measure.welch(i.list('before'), i.list('after'), i.n('confidence'))?.df ?? null,
  'measure.welchHalfWidth': (i) =>
    measure.welch(i.list('before'), i.list('after'), i.n('confidence'))?.halfWidth ?? null,
  'measure.differenceShown': (i) =>
    measure.welch(i.list('before'), i.list('after'), i.n('confidence'))?.shown ?? null,
  'measure.wilsonInterval': (i) => {
    const w = measure.wilsonInterval(i.n('hits'), i.n('trials'))
    return w && [w.low, w.high]
  },
  'measure.endValue': (i) => measure.endValue(i.n('t1'), i.n('t2'), i.n('t3')),
  'measure.timeConstant': (i) => measure.timeConstantOf(i.n('t1'), i.n('t2'), i.n('t3'), i.n('spacing')),
  'measure.slope': (i) => measure.slopeOf(i.list('times'), i.list('values')),
  'measure.soakFraction': (i) => measure.soakFraction(i.n('time_constants')),
  'measure.lttbIndices': (i) => measure.lttbIndices(i.list('values'), i.n('keep')),
  'measure.minMaxIndices': (i) => measure.minMaxIndices(i.list('values'), i.n('keep')),
  'measure.rpmFromBladePass': (i) => measure.speedFromBladePass(i.n('frequency'), i.n('blades')),
  'measure.flowFromSpeed': (i) => measure.flowFromSpeed(i.n('diameter'), i.n('mean_speed'), i.n('hub', 0)),
  'measure.traversePoints': (i) => measure.traversePoints(i.text('rule') as 'circle-log-linear', i.n('points')),
  'measure.flowFromGrid': (i) => measure.flowFromGrid(i.n('width'), i.n('height'), i.list('speeds')),
  'measure.speedFromVelocityPressure': (i) =>
    measure.speedFromVelocityPressure(i.n('pressure'), i.n('density')),
  'measure.columnPressure': (i) => measure.columnPressure(i.n('length'), i.n('density'), i.n('angle_deg')),
  'measure.swapPressure': (i) => measure.swappedSensorPressure(i.n('d1'), i.n('d2')),
  'measure.heightPressure': (i) => measure.heightPressure(i.n('height'), i.n('density')),
  'measure.pairNoise': (i) => measure.pairNoise(i.n('sigma'), i.n('samples')),
  'measure.plausibility': (i) =>
    measure.plausible(
      (
        {
          speed_rpm: 'rotation',
          flow_m3h: 'flow',
          pressure_Pa: 'pressure',
          level_dBA: 'level',
          fan_voltage_V: 'voltage',
          fan_current_A: 'current',
          air_temperature_degC: 'temperature',
        } as const
      )[i.text('quantity')]!,
      i.n('value'),
    ),
  'measure.cleanSentinels': (i) => measure.cleanSentinels(i.raw.readings!.value as (number | null)[]),
  'measure.flowUncertainty': (i) =>
    measure.flowUncertainty(i.n('speed'), i.n('u_speed'), i.n('diameter'), i.n('u_diameter')),
  'measure.powerUncertainty': (i) =>
    measure.powerUncertainty(i.n('voltage'), i.n('u_voltage'), i.n('current'), i.n('u_current')),
  'measure.pitotUncertainty': (i) =>
    measure.pitotUncertainty(i.n('pressure'), i.n('u_pressure'), i.n('density'), i.n('u_density')),
  'measure.rectangularUncertainty': (i) =>
    measure.rectangularUncertainty(i.text('kind') as 'limit', i.n('value')),
  'measure.meterLimit': (i) =>
    measure.meterLimit(i.n('reading'), i.n('percent'), i.n('digits'), i.n('resolution')),
  'measure.levelMean': (i) => measure.levelMean(i.list('levels')),
  'measure.rankPerLoudness': (i) => measure.rankPerLoudness(i.list('flows'), i.list('levels')),
  'measure.topplingSpeed': (i) =>
    measure.topplingSpeed(i.n('mass'), i.n('width'), i.n('height'), i.n('foot'), i.n('drag'), i.n('density')),
  'heat.chainTemperature': (i) => heat.chainTemperature(i.n('heat'), i.list('resistances'), i.n('t_ambient')),
  'heat.twoPathTemperature': (i) =>
    heat.twoPathTemperature(i.n('heat'), i.list('path_1'), i.list('path_2'), i.n('t_ambient')),
  'heat.finEfficiency': (i) =>
    heat.finEfficiency(i.n('h'), i.n('conductivity'), i.n('thickness'), i.n('fin_height')),
  'heat.sinkResistance': (i) =>
    heat.finnedResistance(
      i.n('density') * i.n('flow') * i.n('cp'),
      i.n('h'),
      i.n('area'),
      i.n('fin_efficiency'),
    ),
  'heat.nusselt': (i) => {
    const shape = i.text('shape')
    const named = Object.keys(heat.nusselt).find((k) => k === shape)
    const kind = named ?? (shape.includes('square') ? 'square' : shape.includes('plate') ? 'plates' : 'tube')
    return heat.nusselt[kind as 'plates'][i.text('boundary') as 'flux']
  },
  'heat.temperatureAt': (i) => heat.temperatureAt(i.n('t_start'), i.n('t_final'), i.n('tau'), i.n('time')),
  'heat.timeTo': (i) => heat.timeTo(i.n('t_start'), i.n('t_final'), i.n('tau'), i.n('target')),
  'heat.remaining': (i) => heat.remainingChange(i.n('slope'), i.n('tau')),
  'heat.threePoint': (i) => {
    const [a, b, c] = i.list('readings')
    return measure.endValue(a!, b!, c!)
  },
  'heat.fitFinal': (i) => heat.fitRise(i.list('times'), i.list('temperatures'))?.final ?? null,
  'heat.fitTau': (i) => heat.fitRise(i.list('times'), i.list('temperatures'))?.tau ?? null,
  'heat.fitFinalStdError': (i) => heat.fitRise(i.list('times'), i.list('temperatures'))?.finalError ?? null,
  'heat.fitTrust': (i) =>
    heat.fitRise(i.list('times'), i.list('temperatures'))?.trusted ? 'trusted' : 'not-trusted',
  'heat.isSteady': (i) => heat.isSteady(i.list('times'), i.list('temperatures'), i.n('limit')),
  'heat.resistance': (i) => heat.resistanceOf(i.n('t_part'), i.n('t_ambient'), i.n('heat')),
  'heat.normalisedTemperature': (i) =>
    heat.restated(i.n('t_part'), i.n('t_ambient'), i.n('heat'), i.n('t_ambient_ref'), i.n('heat_ref')),
  'heat.improvement': (i) =>
    heat.improvement(
      heat.resistanceOf(i.n('t_part_before'), i.n('t_ambient_before'), i.n('heat_before'))!,
      heat.resistanceOf(i.n('t_part_after'), i.n('t_ambient_after'), i.n('heat_after'))!,
    ),
  'heat.resistanceUncertainty': (i) =>
    heat.resistanceUncertainty(
      i.n('t_part'),
      i.n('t_ambient'),
      i.n('heat'),
      i.n('u_temperature'),
      i.n('u_heat'),
    ),
  'heat.thermostatState': (i) => heat.thermostatState(switched(i)),
  'heat.thermostatPeriod': (i) => periodOf(heat.thermostatCycle(switched(i))),
  'heat.thermostatDuty': (i) => dutyOf(heat.thermostatCycle(switched(i))),
  'heat.thermostat2Period': (i) =>
    periodOf(
      heat.twoNodeCycle({
        ...switched(i),
        capacity1: i.n('capacity_1'),
        capacity2: i.n('capacity_2'),
        g12: i.n('g_12'),
      }),
    ),
  'heat.thermostat2Duty': (i) =>
    dutyOf(
      heat.twoNodeCycle({
        ...switched(i),
        capacity1: i.n('capacity_1'),
        capacity2: i.n('capacity_2'),
        g12: i.n('g_12'),
      }),
    ),
  'heat.dayMaximum': (i) =>
    heat.dayMaximum(i.n('heat'), i.n('conductance'), i.n('capacity'), i.n('t_mean'), i.n('amplitude')),
  'heat.dayLag': (i) => heat.dayLag(i.n('conductance'), i.n('capacity')),
  'heat.energyPerDay': (i) => heat.energyPerDay(i.n('power'), i.n('duty')),
  'heat.meanLife': (i) => heat.meanLife(i.n('l10'), i.n('shape')),
  'heat.setLife': (i) => heat.setLife(i.n('l10'), i.n('shape'), i.n('count')),
  'heat.throttleSuspected': (i) => heat.throttleSuspected(i.list('temperatures'), i.list('power')),
  'heat.bearingLife': (i) => heat.bearingLife(i.n('l10'), i.n('t_ref'), i.n('t'), i.n('doubling')),

  'findings.evaluate': (i) =>
    judgeRules(
      {
        facts: Object.fromEntries(Object.entries(i.raw).map(([name, input]) => [name, input.value])) as Facts,
        open: new Set(Object.keys(factCatalogue) as (keyof typeof factCatalogue)[]),
        quantities: {},
      },
      null,
    ).findings.map((f) => f.id),
  'measure.percentChange': (i) => measure.relativeChange(i.n('before'), i.n('after')),
  'measure.percentDifference': (i) => measure.symmetricDifference(i.n('a'), i.n('b')),
  'measure.claimRatio': (i) =>
    measure.claimRatio(i.n('measured'), i.n('speed'), i.n('claimed'), i.n('claimed_speed')),
  'measure.targetVerdict': (i) =>
    measure.targetVerdict(i.n('target'), i.text('sense') as 'at-least', i.n('mean'), i.n('half_width')),
  'measure.tachRpm': (i) => measure.tachSpeed(i.n('frequency'), i.n('pulses')),
}

const switched = (i: Inputs): heat.SwitchedPart => ({
  heat: i.n('heat'),
  capacity: i.n('capacity', 1),
  gOn: i.n('g_on'),
  gOff: i.n('g_off'),
  ambientC: i.n('t_ambient'),
  onC: i.n('switch_on'),
  offC: i.n('switch_off'),
})
const periodOf = (cycle: { onS: number; offS: number } | null) => cycle && cycle.onS + cycle.offS
const dutyOf = (cycle: { onS: number; offS: number } | null) => cycle && cycle.onS / (cycle.onS + cycle.offS)
const linearFan = (i: Inputs) => ({ kind: 'linear' as const, a: i.n('fan_a'), b: i.n('fan_b') })
const awgResistance = (i: Inputs) => power.copperResistance(power.awgArea(i.n('awg')), i.n('temperature', 20))
const pushPull = (i: Inputs) =>
  fan.pushPullBox(
    curveOf(i, 'supply_flow', 'supply_pressure'),
    i.n('b_supply'),
    curveOf(i, 'exhaust_flow', 'exhaust_pressure'),
    i.n('b_exhaust'),
    i.n('b_leak'),
  )

export type CaseResult = { state: 'passed' } | { state: 'not-covered' } | { state: 'failed'; got: unknown }

function within(got: number, expected: number, c: CheckCase): boolean {
  const { tolerance, tolerance_kind: kind } = c.expected
  return Math.abs(got - expected) <= (kind === 'abs' ? tolerance : tolerance * Math.abs(expected))
}

function agrees(got: unknown, c: CheckCase): boolean {
  const wanted = c.expected.value
  if (wanted === null) return got === null
  if (typeof wanted === 'number') return typeof got === 'number' && within(got, wanted, c)
  if (Array.isArray(wanted) && wanted.every((x) => typeof x === 'number')) {
    return (
      Array.isArray(got) &&
      got.length === wanted.length &&
      wanted.every((w, k) => typeof got[k] === 'number' && within(got[k], w, c))
    )
  }
  if (typeof wanted === 'object' && !Array.isArray(wanted)) {
    const { must_fire: fire, must_not_fire: not } = wanted as { must_fire: string[]; must_not_fire: string[] }
    const fired = got as string[]
    return (
      fired.length === fire.length &&
      fire.every((id) => fired.includes(id)) &&
      !not.some((id) => fired.includes(id))
    )
  }
  return JSON.stringify(got) === JSON.stringify(wanted)
}

const inUnit = (got: unknown, unit: string): unknown =>
  typeof got === 'number'
    ? fromSi(got, unit)
    : Array.isArray(got) && typeof got[0] === 'number'
      ? got.map((x: number | null) => (x === null ? null : fromSi(x, unit)))
      : got

/** Runs one case through the core. */
export function runCase(c: CheckCase): CaseResult {
  const calc = calcs[c.calc] ?? fitCalcs[c.calc] ?? controlCalcs[c.calc]
  if (!calc) return { state: 'not-covered' }
  try {
    const got = inUnit(calc(new Inputs(c.inputs), c.expected.unit), c.expected.unit)
    return agrees(got, c) ? { state: 'passed' } : { state: 'failed', got }
  } catch (error) {
    return { state: 'failed', got: error instanceof Error ? error.message : error }
  }
}
