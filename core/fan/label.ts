import type { FanKind } from './estimate'

/**
 * What a fan of which only the label is known can be expected to do. Small fans are built so much alike that flow and
 * pressure follow from size and speed, and the speed, roughly, from the power on the label.
 */

/** What stands on a label; null is not printed. SI units. */
export interface FanLabel {
  kind: FanKind
  /** side of the frame, m */
  frameM: number
  ratedV: number
  ratedA: number | null
  ratedW: number | null
  ratedRpm: number | null
  maxFlowM3s: number | null
  maxPressurePa: number | null
}

export interface LabelEstimate {
  /** free delivery, m3/s */
  maxFlow: number
  /** shut-off pressure, Pa */
  maxPressure: number
  /** speed it rests on, 1/min */
  rpm: number
  /** factors between which its speed may lie, 95 times in 100: flow by n, pressure by n² */
  low: number
  high: number
  /** what it rests on, in words */
  from: string
}

/** Air at 20 °C and sea level, kg/m3. */
const DENSITY = 1.2

/**
 * Dimensionless figures of usual small fans on the side of their frame D and their speed n (1/s): flow Q/(n·D³) and
 * pressure p/(ρ·n²·D²) at the ends of the curve, and electrical power P/(ρ·n³·D⁵) of a 120 mm frame; it grows towards
 * small frames by (0.12 m/D)^1.5, as small motors are worse. Common practice, no source.
 */
const usual: Record<FanKind, { flow: number; pressure: number; power: number }> = {
  axial: { flow: 0.62, pressure: 1.6, power: 1.7 },
  blower: { flow: 0.2, pressure: 5, power: 2.5 },
}
const POWER_FRAME_M = 0.12
const POWER_EXPONENT = 1.5
/** What a motor takes in free air of the current on its label. docs/physics.md, power and wiring: 60 to 80 %. */
const LABEL_SHARE = 0.8
/** Blade-tip speed of a usual fan of which nothing but the size is known, m/s. Common practice, no source. */
const TIP_SPEED = 11

/** By which factor each thing may be off, 95 times in 100. Common practice, no source. */
const off = { shape: 1.4, rpmPrinted: 1.1, rpmFromPower: 1.45, rpmFromSize: 1.8, rpmFromFlow: 1.15 }
/** Independent factors together: their logarithms add as squares. */
const together = (...factors: number[]) =>
  Math.exp(Math.sqrt(factors.reduce((sum, f) => sum + Math.log(f) ** 2, 0)))

/** Speed of a fan, 1/s, how far it may be off, and what it rests on. */
function speedOf(label: FanLabel): { n: number; doubt: number; from: string } {
  const { kind, frameM: d, ratedV, ratedA, ratedW, ratedRpm, maxFlowM3s, maxPressurePa } = label
  const k = usual[kind]
  if (ratedRpm) return { n: ratedRpm / 60, doubt: off.rpmPrinted, from: 'size and speed' }
  if (maxFlowM3s) return { n: maxFlowM3s / (k.flow * d ** 3), doubt: off.rpmFromFlow, from: 'size and airflow' }
  if (maxPressurePa)
    return {
      n: Math.sqrt(maxPressurePa / (k.pressure * DENSITY * d ** 2)),
      doubt: off.rpmFromFlow,
      from: 'size and pressure',
    }
  const power = ratedA ? ratedV * ratedA : ratedW
  if (power) {
    const perSpeed = k.power * (POWER_FRAME_M / d) ** POWER_EXPONENT * DENSITY * d ** 5
    return {
      n: Math.cbrt((LABEL_SHARE * power) / perSpeed),
      doubt: off.rpmFromPower,
      from: ratedA ? 'size, voltage and current' : 'size and power',
    }
  }
  return { n: TIP_SPEED / (Math.PI * d), doubt: off.rpmFromSize, from: 'size alone' }
}

/**
 * Free delivery and shut-off pressure of a fan from its label, with the range they lie in. A printed flow or pressure
 * stays as printed; only the other is estimated.
 * @param label frame above 0; whatever else is printed
 * @returns null for a frame of no size
 * Reference: fan laws; coefficients are common practice, no source
 */
export function estimateFromLabel(label: FanLabel): LabelEstimate | null {
  if (!(label.frameM > 0)) return null
  const k = usual[label.kind]
  const { n, doubt, from } = speedOf(label)
  const spread = together(doubt, off.shape)
  return {
    maxFlow: label.maxFlowM3s ?? k.flow * n * label.frameM ** 3,
    maxPressure: label.maxPressurePa ?? k.pressure * DENSITY * (n * label.frameM) ** 2,
    rpm: 60 * n,
    low: 1 / spread,
    high: spread,
    from,
  }
}
