import { voltageBehind } from './fan-on-wire'

/** A fan's current over its voltage: in a line, by a power, or constant power (a speed regulator inside). */
export type FanLoad =
  | { kind: 'linear'; a: number; b: number }
  | { kind: 'power-law'; ratedA: number; ratedV: number; exponent: number }
  | { kind: 'constant-power'; watts: number }
/**
 * Current of a fan at a voltage, A.
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const currentOf =
  (load: FanLoad) =>
  (v: number): number =>
    load.kind === 'linear'
      ? load.a + load.b * v
      : load.kind === 'power-law'
        ? load.ratedA * (v / load.ratedV) ** load.exponent
        : v > 0
          ? load.watts / v
          : Infinity

/**
 * Voltage of a fan behind a resistor, V.
 * @param supply V
 * @param ohm ohm, above 0
 * @returns null where it has no operating point: a line that would end at or below zero (the fan stands), or a
 * regulated fan whose power the resistor cannot pass
 * Reference: Kirchhoff; docs/physics.md E15
 */
export function behindResistor(supply: number, ohm: number, load: FanLoad): number | null {
  if (load.kind === 'linear') {
    const v = (supply - ohm * load.a) / (1 + ohm * load.b)
    return v > 0 ? v : null
  }
  if (load.kind === 'constant-power') {
    const left = supply ** 2 - 4 * ohm * load.watts
    return left < 0 ? null : (supply + Math.sqrt(left)) / 2
  }
  return voltageBehind(supply, ohm, currentOf(load))
}

/**
 * Resistor that leaves a voltage at a fan, ohm.
 * @param supply V
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const resistorForVoltage = (supply: number, fanV: number, fanA: number) => (supply - fanV) / fanA
/**
 * Exponent of I ~ V^n from two measurements.
 * @param v1 V
 * @param i1 A
 * @param v2 V
 * @param i2 A
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const currentExponent = (v1: number, i1: number, v2: number, i2: number) =>
  Math.log(i2 / i1) / Math.log(v2 / v1)
/**
 * Does a fan start behind a resistor? It steals most exactly then.
 * @param supply V
 * @param ohm ohm, above 0
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const startsBehind = (supply: number, ohm: number, startA: number, startV: number) =>
  supply - ohm * startA >= startV

/**
 * Voltage of a linear fan on a divider, V; null where it would be zero or less.
 * @param supply V
 * @param top upper resistor, ohm, above 0
 * @param bottom lower resistor, ohm, above 0
 * @param a A of the fan at 0 V
 * @param b A per V of the fan
 * Reference: docs/physics.md E18
 */
export function dividerVoltage(
  supply: number,
  top: number,
  bottom: number,
  a: number,
  b: number,
): number | null {
  const v = (supply / top - a) / (1 / top + 1 / bottom + b)
  return v > 0 ? v : null
}
/**
 * Heat in both resistors of a divider, W.
 * @param supply V
 * @param top upper resistor, ohm, above 0
 * @param bottom lower resistor, ohm, above 0
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const dividerHeat = (supply: number, top: number, bottom: number, fanV: number) =>
  (supply - fanV) ** 2 / top + fanV ** 2 / bottom
/**
 * Useful share of a divider that carries `stiffness` times the fan's current in its foot.
 * @param supply V
 * @param stiffness current of the foot over the fan’s
 * Reference: Ohm’s and Kirchhoff’s laws; docs/physics.md E13 to E18
 */
export const stiffDividerEfficiency = (supply: number, fanV: number, fanA: number, stiffness: number) =>
  (fanV * fanA) / (supply * fanA * (1 + stiffness))
