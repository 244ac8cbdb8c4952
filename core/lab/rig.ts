import { airState, REFERENCE_DENSITY } from '#core/air'
import type { Carton, CartonReading, Fan } from '#core/document'
import { asSheet, operatingPoint, scaleCurve, type FanCurve } from '#core/fan'
import { normal, seeded } from '#core/numeric'
import { driveSpeed, modelFan, type FanModel } from '#core/system'
import { openArea } from './carton-curve'
import { approachFactor, holeArea, SHARP, SHARP_SD } from './orifice'

/**
 * A stand-in for a carton on a table: a fan that is not quite what its sheet says, holes that are not cut quite true,
 * seams that leak, a gauge with an offset and noise. Everything follows from a seed; it is a stand-in, no measurement.
 */
export interface Rig {
  /** the fan's true curve at rated voltage and reference air */
  curve: FanCurve
  /** the holes as they really are, m */
  holesM: number[]
  coefficient: number
  leakM2: number
  gauge: { share: number; offsetPa: number; noisePa: number }
  density: number
}

/** How this fan differs from its sheet: shares of flow and pressure, from the lowest to the highest. Invented. */
const FLOW_OF_CLAIM = [0.82, 1] as const
const PRESSURE_OF_CLAIM = [0.85, 1.02] as const
/** Leaks, m2 for each metre of edge: up to this. Invented. */
const LEAK_M = 2e-5

/** A hole that was cut wrong, share of its diameter. Invented. */
const MIS_CUT = 0.7

const between = ([low, high]: readonly [number, number], u: number) => low + (high - low) * u

/**
 * A rig like the one that was described.
 * @param seed of everything that nobody knows of it
 * @param misCut one hole was cut far too small, as a slip of the knife does
 * @returns null where the fan's sheet gives no curve, or the air does not exist
 */
export function rigOf(carton: Carton, fan: Fan, seed: number, misCut = false): Rig | null {
  const made = modelFan(fan)
  const air = airState(carton.ambientC, carton.altitudeM, 0.5)
  if (!made.ok || !air) return null
  const uniform = seeded(seed)
  const z = normal(uniform)
  const { middle } = made.model.curves
  const curve = scaleCurve(middle, between(FLOW_OF_CLAIM, uniform()), between(PRESSURE_OF_CLAIM, uniform()))
  const wrong = misCut ? Math.floor(carton.holesM.length / 2) : -1
  return {
    curve,
    leakM2: uniform() * LEAK_M * 4 * (carton.widthM + carton.heightM + carton.depthM),
    coefficient: SHARP + SHARP_SD * z(),
    holesM: carton.holesM.map((d, i) =>
      Math.max(0.001, (i === wrong ? MIS_CUT * d : d) + (z() * carton.cutM) / Math.sqrt(3)),
    ),
    gauge: {
      share: 1 + (z() * carton.gaugeShare) / 1.96,
      offsetPa: (z() * carton.gaugePa) / Math.sqrt(12),
      noisePa: carton.gaugePa / Math.sqrt(12),
    },
    density: air.density,
  }
}

/** The pressure in the rig's box, Pa. @param open holes that are open; 0: a card over the fan @param speed over rated */
export function truePressure(rig: Rig, carton: Carton, open: number, speed: number): number {
  const densityRatio = rig.density / REFERENCE_DENSITY
  const area = openArea(rig, open)
  if (open === 0) return rig.curve.p[0]! * speed ** 2 * densityRatio
  const { coefficient: c } = rig
  const effective = c * area * approachFactor(area, carton.widthM * carton.heightM, c) + rig.leakM2
  const point = operatingPoint(
    rig.curve,
    { a: 0, b: rig.density / (2 * effective ** 2) },
    { ...asSheet, speed, densityRatio },
  )
  return point.pressure ?? 0
}

/** What the gauge shows of a pressure. */
const shown = ({ gauge }: Rig, pressure: number, z: () => number) =>
  Math.max(0, (pressure - gauge.offsetPa + gauge.noisePa * z()) / gauge.share)

const speedOf = (model: FanModel, volts: number) => driveSpeed(model, volts)

/**
 * Reads the stand-in.
 * @param open holes that are open
 * @param seed of this reading's noise
 */
export function readRig(
  rig: Rig,
  carton: Carton,
  fan: Fan,
  open: number,
  volts: number,
  seed: number,
): Omit<CartonReading, 'id'> {
  const made = modelFan(fan)
  const speed = made.ok ? speedOf(made.model, volts) : volts / fan.ratedV
  const pressurePa = shown(rig, truePressure(rig, carton, open, speed), normal(seeded(seed)))
  const rpm = fan.ratedRpm === null ? null : Math.round(fan.ratedRpm * speed)
  return { open, pressurePa: Math.round(pressurePa * 100) / 100, volts, rpm }
}

/** Reads the stand-in's leak card: a card with a small hole over the fan, everything else closed. */
export function readRigLeak(rig: Rig, carton: Carton, holeM: number, seed: number): number {
  const hole = SHARP * holeArea(holeM)
  const closed = truePressure(rig, carton, 0, 1)
  const box = (closed * hole ** 2) / (hole ** 2 + rig.leakM2 ** 2)
  return Math.round(100 * shown(rig, box, normal(seeded(seed)))) / 100
}
