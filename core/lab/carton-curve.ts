import { airState, REFERENCE_DENSITY } from '#core/air'
import type { Carton, CartonReading, Fan, FanPoint } from '#core/document'
import { normal, seeded, Z95 } from '#core/numeric'
import { driveSpeed, freeDelivery, modelFan, shutOffPressure, type FanModel } from '#core/system'
import {
  approachFactor,
  flowThrough,
  holeArea,
  holeReynolds,
  leakArea,
  LEAST_REYNOLDS,
  SHARP,
  SHARP_SD,
} from './orifice'

/** From readings on a carton to the fan's own curve, with what each point is worth. */

export interface Spanned {
  value: number
  low: number
  high: number
}
/** A point of the measured curve, at rated voltage and reference air. */
export interface CartonPoint {
  reading: CartonReading
  flow: Spanned
  pressure: Spanned
  /** what is odd about the reading; '' where nothing is */
  odd: string
  /** how often it was read, and how far the readings lie apart, share of their mean */
  times: number
  apart: number
}
export interface CartonCurve {
  /** rising in flow */
  points: CartonPoint[]
  /** shut-off and free delivery, where they were read or follow from the points next to them */
  shutOff: Spanned | null
  free: Spanned | null
  /** the curve to be kept: at least three points, flow rising */
  curve: FanPoint[]
  /** what its flow is worth, share, 95 times in 100 */
  share: number | null
  /** leaks as effective area, m2, and whether they were read */
  leakM2: number
  leakRead: boolean
  /** why it cannot be told, or not yet */
  problem: string
  warnings: string[]
}

/** Cases drawn. Their quantiles scatter by less than a twentieth of the range. A choice of ours. */
const DRAWS = 400
/** Leaks of a taped carton where nobody read them: up to this, m2 for each metre of edge. Common practice, no source: measure it. */
const SEAM_LEAK_M = 2e-5
/** A voltmeter's share, and that of the air's density, as standard uncertainties. Common practice, no source. */
const VOLT_SD = 0.003
const DENSITY_SD = 0.005
/** Below this a curve's doubt is not believed: nobody's carton is better. Common practice, no source. */
const LEAST_SHARE = 0.03
/** A pressure may rise by this share although more is open before it is odd: stall does it, a slip of the tape too. */
const RISE = 0.05
/** Readings beyond this share of the claim are odd. Common practice, no source (handbook: measured over claimed flow 1.1). */
const BEYOND = 1.25

/** All edges of a box, m. */
const edges = ({ widthM, heightM, depthM }: Carton) => 4 * (widthM + heightM + depthM)
/** Area of the first holes, m2. */
export const openArea = ({ holesM }: Pick<Carton, 'holesM'>, open: number): number =>
  holesM.slice(0, open).reduce((sum, d) => sum + holeArea(d), 0)
const wall = ({ widthM, heightM }: Carton) => widthM * heightM

/** Pressure of the closed fan, Pa: mean of what was read with a card over it; null where that was not. */
function shutOffOf(carton: Carton): number | null {
  const closed = carton.readings.filter((r) => r.open === 0 && r.pressurePa > 0)
  return closed.length ? closed.reduce((s, r) => s + r.pressurePa, 0) / closed.length : null
}

/** One case: how the things that nobody knows exactly happen to be. */
interface Case {
  coefficient: number
  leakM2: number
  gauge: number
  offset: number
  density: number
  volts: number
  holes: readonly number[]
}

/** Flow and pressure of a reading in a case, at rated voltage and reference air. */
function pointOf(carton: Carton, r: CartonReading, speed: number, c: Case, pressure: number) {
  const p = Math.max(0, pressure * c.gauge + c.offset)
  const area = c.holes.slice(0, r.open).reduce((sum, d) => sum + holeArea(d), 0)
  const effective =
    r.open === 0 ? 0 : c.coefficient * area * approachFactor(area, wall(carton), c.coefficient) + c.leakM2
  const k = 1 / (speed * c.volts)
  return {
    flow: flowThrough(effective, p, c.density) * k,
    pressure: (p * k * k * REFERENCE_DENSITY) / c.density,
  }
}

/** Speed at the reading's voltage over that at rated voltage. */
const speedAt = (model: FanModel | null, fan: Fan, volts: number) =>
  (model && driveSpeed(model, volts)) || volts / fan.ratedV

/** What is wrong with a rig before anything was read; '' where nothing is. */
export function cartonProblem(carton: Carton): string {
  const area = openArea(carton, carton.holesM.length)
  const widest = Math.max(0, ...carton.holesM)
  if (!carton.holesM.length) return 'Say which holes were cut.'
  if (widest > Math.min(carton.widthM, carton.heightM)) return 'A hole is larger than the wall it is cut in.'
  if (area > 0.5 * wall(carton))
    return 'The holes take more than half of their wall: the air in the box is not still. Take a larger carton.'
  return ''
}

/** What a reading tells against those already there: odd ones are said at once. */
function oddOf(
  carton: Carton,
  r: CartonReading,
  claims: { flow: number; pressure: number } | null,
  flow: number,
) {
  const before = carton.readings.filter(
    (o) => o.open < r.open && o.pressurePa > 0 && Math.abs(o.volts / r.volts - 1) < 0.03,
  )
  const nearest = before.sort((a, b) => b.open - a.open)[0]
  if (r.open > carton.holesM.length) return 'More holes are open than were cut.'
  if (r.pressurePa === 0) return 'No pressure: the tube is off, or the gauge reads nothing so low.'
  if (nearest && r.pressurePa > nearest.pressurePa * (1 + RISE))
    return 'The pressure rose although more is open: stall, or tape that came off. Read it again.'
  if (claims && r.pressurePa > BEYOND * claims.pressure)
    return 'Far more than the sheet’s highest pressure: look at the gauge’s unit.'
  if (claims && flow > BEYOND * claims.flow)
    return 'More than the sheet’s free delivery: look at the holes’ diameters and the gauge’s unit.'
  return ''
}

function spanned(value: number, draws: number[]): Spanned {
  const mean = draws.reduce((s, x) => s + x, 0) / draws.length
  const sd = Math.sqrt(draws.reduce((s, x) => s + (x - mean) ** 2, 0) / (draws.length - 1))
  return { value, low: Math.max(0, value - Z95 * sd), high: value + Z95 * sd }
}

/** Where the line through the last two points meets no pressure; null where it does not fall. */
function drawnOn(a: { flow: number; pressure: number }, b: { flow: number; pressure: number }): number | null {
  const fall = a.pressure - b.pressure
  if (!(fall > 0) || !(b.flow > a.flow)) return null
  // a line at most half as far again: beyond that nobody knows the curve
  return Math.min(1.5 * b.flow, b.flow + (b.pressure * (b.flow - a.flow)) / fall)
}

const nothing = (problem: string): CartonCurve => ({
  points: [],
  shutOff: null,
  free: null,
  curve: [],
  share: null,
  leakM2: 0,
  leakRead: false,
  problem,
  warnings: [],
})

/** The usual pressure of each number of open holes: repeats are one point, their scatter counts. */
function groupsOf(carton: Carton): CartonReading[][] {
  const groups = new Map<number, CartonReading[]>()
  for (const r of carton.readings) groups.set(r.open, [...(groups.get(r.open) ?? []), r])
  return [...groups.entries()].sort(([a], [b]) => a - b).map(([, g]) => g)
}

/** Repeats at other voltages brought to their mean one (p ~ n²): only then they can be held against each other. */
function atOneVoltage(group: CartonReading[], speed: (volts: number) => number): CartonReading[] {
  const volts = group.reduce((s, r) => s + r.volts, 0) / group.length
  return group.map((r) => ({ ...r, volts, pressurePa: r.pressurePa * (speed(volts) / speed(r.volts)) ** 2 }))
}

/**
 * The fan's curve from what was read on a carton: flow by the sharp-edged holes and the leaks, brought to rated voltage by
 * the affinity laws and to reference air. Doubts of coefficient, cut, gauge, leaks, air and voltage are drawn together.
 * @param fan whose rated voltage and claims count
 * @param seed of the draws
 * @returns with a problem, and no curve, where nothing can be told yet
 * Reference: ISO 5801 idea of a chamber with an orifice, ISO 5167 coefficient (both from memory); JCGM 101 (propagation by draws)
 */
export function cartonCurve(carton: Carton, fan: Fan, seed = 1): CartonCurve {
  const wrong = cartonProblem(carton)
  if (wrong) return nothing(wrong)
  const air = airState(carton.ambientC, carton.altitudeM, 0.5)
  if (!air) return nothing('This altitude and temperature do not exist together.')
  if (!carton.readings.length)
    return nothing('Take the first reading: a card over the fan tells its highest pressure.')
  const made = modelFan(fan)
  const model = made.ok ? made.model : null
  const claims = model && { flow: freeDelivery(model), pressure: shutOffPressure(model) }
  const shutOff = shutOffOf(carton)
  const { leakHoleM, leakPressurePa } = carton
  const leakOf = (hole: number, closed: number, box: number) => leakArea(hole, closed, box) ?? 0
  const leakRead = leakHoleM !== null && leakPressurePa !== null && shutOff !== null
  const most = SEAM_LEAK_M * edges(carton)
  const leakM2 = leakRead ? leakOf(leakHoleM, shutOff, leakPressurePa) : most / 2
  if (leakM2 > SHARP * openArea(carton, 1))
    return nothing(
      'More air leaves through leaks than through the first hole: tape the seams, then read the leak card again.',
    )
  const groups = groupsOf(carton)
    .filter(([r]) => r!.open <= carton.holesM.length && r!.pressurePa > 0)
    .map((g) => atOneVoltage(g, (volts) => speedAt(model, fan, volts)))
  const usual = {
    coefficient: SHARP,
    leakM2,
    gauge: 1,
    offset: 0,
    density: air.density,
    volts: 1,
    holes: carton.holesM,
  }
  const meanOf = (g: CartonReading[]) => g.reduce((s, r) => s + r.pressurePa, 0) / g.length
  const valueOf = (g: CartonReading[], c: Case, pressure: number) =>
    pointOf(carton, g[0]!, speedAt(model, fan, g[0]!.volts), c, pressure)
  const middles = groups.map((g) => valueOf(g, usual, meanOf(g)))
  const gaugeSd = carton.gaugePa / Math.sqrt(12)
  const noises = groups.map((g) => {
    const mean = meanOf(g)
    const scatter =
      g.length > 1 ? Math.sqrt(g.reduce((s, r) => s + (r.pressurePa - mean) ** 2, 0) / (g.length - 1)) : 0
    return Math.max(gaugeSd, scatter) / Math.sqrt(g.length)
  })
  const uniform = seeded(seed)
  const z = normal(uniform)
  const flows: number[][] = groups.map(() => [])
  const pressures: number[][] = groups.map(() => [])
  const frees: number[] = []
  for (let k = 0; k < DRAWS; k++) {
    const offset = (z() * carton.gaugePa) / Math.sqrt(12)
    const gauge = 1 + (z() * carton.gaugeShare) / Z95
    const leak = leakRead
      ? leakOf(
          leakHoleM + (z() * carton.cutM) / Math.sqrt(3),
          shutOff + z() * gaugeSd,
          Math.max(0.01, leakPressurePa + z() * gaugeSd),
        )
      : uniform() * most
    const drawn: Case = {
      coefficient: SHARP + SHARP_SD * z(),
      leakM2: Number.isFinite(leak) ? leak : leakM2,
      gauge,
      offset,
      density: air.density * (1 + DENSITY_SD * z()),
      volts: 1 + VOLT_SD * z(),
      holes: carton.holesM.map((d) => d + (z() * carton.cutM) / Math.sqrt(3)),
    }
    const points = groups.map((g, i) => valueOf(g, drawn, meanOf(g) + z() * noises[i]!))
    points.forEach((p, i) => {
      flows[i]!.push(p.flow)
      pressures[i]!.push(p.pressure)
    })
    const end = points.length > 1 ? drawnOn(points.at(-2)!, points.at(-1)!) : null
    if (end !== null) frees.push(end)
  }
  const points = groups.map((g, i): CartonPoint => ({
    reading: g[0]!,
    flow: spanned(middles[i]!.flow, flows[i]!),
    pressure: spanned(middles[i]!.pressure, pressures[i]!),
    times: g.length,
    apart: (Math.max(...g.map((r) => r.pressurePa)) - Math.min(...g.map((r) => r.pressurePa))) / meanOf(g),
    odd: g.map((r) => oddOf(carton, r, claims, middles[i]!.flow)).find(Boolean) ?? '',
  }))
  const end = middles.length > 1 ? drawnOn(middles.at(-2)!, middles.at(-1)!) : null
  const free = end === null || frees.length < DRAWS / 2 ? null : spanned(end, frees)
  const closed = points.find((p) => p.reading.open === 0) ?? null
  return {
    points,
    shutOff: closed?.pressure ?? null,
    free,
    ...keptCurve(points, free),
    leakM2,
    leakRead,
    problem: '',
    warnings: warningsOf(carton, air.viscosity, air.density, leakRead, fan),
  }
}

/** The curve as a fan keeps it: flows rising, ended where no pressure is left; and what its flow is worth. */
function keptCurve(points: readonly CartonPoint[], free: Spanned | null): Pick<CartonCurve, 'curve' | 'share'> {
  const rising = points.filter((p, i) => i === 0 || p.flow.value > points[i - 1]!.flow.value)
  if (rising.length < 3 || !free) return { curve: [], share: null }
  const curve = [
    ...rising.map((p) => ({ flowM3s: p.flow.value, pressurePa: p.pressure.value })),
    ...(free.value > rising.at(-1)!.flow.value ? [{ flowM3s: free.value, pressurePa: 0 }] : []),
  ]
  const shares = rising
    .filter((p) => p.flow.value > 0)
    .map((p) => (p.flow.high - p.flow.low) / (2 * p.flow.value))
    .sort((a, b) => a - b)
  return { curve, share: Math.max(LEAST_SHARE, shares[shares.length >> 1] ?? LEAST_SHARE) }
}

function warningsOf(carton: Carton, viscosity: number, density: number, leakRead: boolean, fan: Fan): string[] {
  const slow = carton.readings.some(
    (r) =>
      r.open > 0 &&
      r.pressurePa > 0 &&
      holeReynolds(carton.holesM[r.open - 1] ?? 0, r.pressurePa, density, viscosity) < LEAST_REYNOLDS,
  )
  const narrow = Math.min(carton.widthM, carton.heightM) < 2 * fan.frameM
  return [
    ...(leakRead
      ? []
      : ['Leaks are assumed, measure them: one reading with a card over the fan that has a small hole.']),
    ...(slow
      ? ['Some holes are so small that their coefficient is less certain (Reynolds number below 5000).']
      : []),
    ...(narrow
      ? ['The carton is hardly wider than the fan: its jet may reach the holes. Hang a mesh between.']
      : []),
  ]
}
