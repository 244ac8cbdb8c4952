/**
 * Input current of a buck or boost converter, A.
 * @param vIn V, above 0
 * @param vOut V
 * @param iOut A
 * @param efficiency 0..1
 * Reference: power balance.
 */
export const converterInputCurrent = (vIn: number, vOut: number, iOut: number, efficiency: number) =>
  (vOut * iOut) / (efficiency * vIn)
/**
 * Heat in the converter, W.
 * @param vOut V
 * @param iOut A
 * @param efficiency 0..1
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const converterLoss = (vOut: number, iOut: number, efficiency: number) =>
  vOut * iOut * (1 / efficiency - 1)
/**
 * Ideal duty of the switch.
 * @param vIn V, above 0
 * @param vOut V
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const idealDuty = (kind: 'buck' | 'boost', vIn: number, vOut: number) =>
  kind === 'buck' ? vOut / vIn : 1 - vIn / vOut
/**
 * Heat of a linear regulator, W.
 * @param vIn V, above 0
 * @param vOut V
 * @param current A, 0 or more
 * @param quiescent A
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const linearHeat = (vIn: number, vOut: number, current: number, quiescent: number) =>
  (vIn - vOut) * current + vIn * quiescent
/**
 * Junction temperature, degC.
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const junctionTemperature = (heatW: number, thetaJA: number, ambientC: number) =>
  ambientC + heatW * thetaJA
/**
 * Output of a 317-type adjustable regulator, V.
 * @param r1 ohm, above 0
 * @param r2 ohm, above 0
 * @param vRef V
 * @param iAdj A
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const adjustableRegulatorOutput = (r1: number, r2: number, vRef = 1.25, iAdj = 50e-6) =>
  vRef * (1 + r2 / r1) + iAdj * r2
/**
 * Voltage behind series diodes, V.
 * @param supply V
 * @param diodes in series
 * @param drop V
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const diodeDrop = (supply: number, diodes: number, drop: number) => supply - diodes * drop

/**
 * Voltage peak of a chopped supply: the supply itself, whatever the duty.
 * @param supply V
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const choppedPeak = (supply: number) => supply
/**
 * Mean voltage of a chopped supply, V.
 * @param supply V
 * @param duty 0..1
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const choppedAverage = (supply: number, duty: number) => supply * duty
/**
 * What a reverse-polarity MOSFET (on-resistance, ohm) saves against a series diode (forward voltage, V), W.
 * @param rdsOn ohm
 * @param current A, 0 or more
 * Reference: power balance; docs/physics.md, power and wiring
 */
export const protectionSaving = (rdsOn: number, current: number, forwardV: number) =>
  current * forwardV - current ** 2 * rdsOn

/** Accepted setting error of a converter, share. Common practice, no source. */
export const SETTING_TOLERANCE = 0.05
/** What a measured output may be off: the meter's error and the module's drift with its load, share. Common practice, no source. */
export const METERED_TOLERANCE = 0.02
/** A trimmer is set so near to what is wanted, share. A choice of ours: as near as a hand turns it. */
export const SETTING_NEAR = 0.02

/** Everything that may stand between a source and a load and change the voltage. */
export type ConverterKind = 'none' | 'buck' | 'boost' | 'linear' | 'resistor' | 'divider' | 'diode' | 'pwm'

/** What to plan with where the maker says nothing: efficiency and head-room V. Common practice, no source. */
export const converterDefaults: Record<
  Exclude<ConverterKind, 'none'>,
  { efficiency: number; dropoutV: number }
> = {
  buck: { efficiency: 0.88, dropoutV: 1.5 },
  boost: { efficiency: 0.85, dropoutV: 0 },
  linear: { efficiency: 1, dropoutV: 2 },
  resistor: { efficiency: 1, dropoutV: 0 },
  divider: { efficiency: 1, dropoutV: 0 },
  diode: { efficiency: 1, dropoutV: 0 },
  pwm: { efficiency: 1, dropoutV: 0 },
}
