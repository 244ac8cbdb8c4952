/** Voltage of one cell, V: empty (to plan with), nominal, full. From memory. */
export const cellVoltage = {
  'li-ion': { empty: 3, nominal: 3.6, full: 4.2 },
  lifepo4: { empty: 2.5, nominal: 3.2, full: 3.65 },
} as const
export type CellChemistry = keyof typeof cellVoltage

/**
 * Pack voltage, V: cells in series times the cell's.
 * @param cells in series
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export const packVoltage = (chemistry: CellChemistry, cells: number, state: 'empty' | 'nominal' | 'full') =>
  cells * cellVoltage[chemistry][state]

/** Efficiency of a power bank's converter where nothing was measured, share. Common practice, no source (0.80 to 0.90). */
export const BANK_EFFICIENCY = 0.85

/**
 * Running time of a bank or of a pack behind a converter, s.
 * @param energyJ energy in the cells, J (capacity times **cell** voltage)
 * @param efficiency of the converter, 0..1
 * @param idleW what the converter itself draws, W
 * Reference: energy balance (docs/physics.md E5)
 */
export const bankRuntime = (energyJ: number, efficiency: number, loadW: number, idleW = 0) =>
  energyJ / (loadW / efficiency + idleW)

/**
 * What a bank gives at its output, C: cell energy times efficiency over the output voltage.
 * @param efficiency 0..1
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export const outputCharge = (energyJ: number, efficiency: number, outV: number) => (energyJ * efficiency) / outV

/**
 * Running time of a fan straight on a pack whose voltage falls in a line with its charge, s: fan I = a + b V.
 * @param chargeC usable charge between the two voltages, C
 * @param chargeCoulomb C
 * @param a A of the fan at 0 V
 * @param b A per V of the fan
 * Reference: derived in the handbook (E8); b = 0: C/a
 */
export function directRuntime(
  chargeCoulomb: number,
  fullV: number,
  emptyV: number,
  a: number,
  b: number,
): number {
  const fall = fullV - emptyV
  return b === 0
    ? chargeCoulomb / a
    : (chargeCoulomb / (b * fall)) * Math.log((a + b * fullV) / (a + b * emptyV))
}

/**
 * The same for a constant-power load behind a converter, s.
 * @param chargeCoulomb C
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export const constantPowerRuntime = (chargeCoulomb: number, fullV: number, emptyV: number, loadW: number) =>
  (chargeCoulomb * (fullV + emptyV)) / (2 * loadW)

/**
 * Running time of a lead-acid battery, s. Below its rated current no gain is extrapolated.
 * @param chargeC capacity at the rate, C
 * @param rateS time that the capacity is stated for, s (usually 20 h)
 * @param exponent 1.05 to 1.15 AGM, 1.2 to 1.3 flooded (from memory)
 * @param chargeCoulomb C
 * @param current A, 0 or more
 * Reference: W. Peukert
 */
export function peukertRuntime(
  chargeCoulomb: number,
  rateS: number,
  exponent: number,
  current: number,
): number {
  const rated = chargeCoulomb / rateS
  return current <= rated ? chargeCoulomb / current : rateS * (rated / current) ** exponent
}

/**
 * Power that must be burnt to keep a bank from switching itself off, W; 0 where the load suffices.
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export const keepAlivePower = (outV: number, leastA: number, loadA: number) =>
  Math.max(0, outV * (leastA - loadA))
/**
 * Resistor for it, ohm; null where none is needed.
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export const keepAliveResistor = (outV: number, leastA: number, loadA: number) =>
  loadA < leastA ? outV / (leastA - loadA) : null

/** Energy that may fly in a cabin without approval, J: 100 Wh. Reference: ICAO/IATA rules (from memory). */
export const FLIGHT_LIMIT_J = 100 * 3600

/** Share of the capacity to plan with. Common practice, no source. */
export const usableDepth = { 'li-ion': 0.9, lifepo4: 0.85, 'lead-acid': 0.5, nimh: 0.8, alkaline: 0.8 } as const
export type Chemistry = keyof typeof usableDepth
/** Share of the capacity left in the cold, at -10 degC and below; in between a straight line from 20 degC. Common practice, no source. */
const COLD = { 'li-ion': 0.75, lifepo4: 0.7, 'lead-acid': 0.65, nimh: 0.75, alkaline: 0.5 } as const
/**
 * Share of the capacity at a temperature. @param celsius of the battery, degC
 * Reference: charge and energy balance; docs/physics.md E4 to E9
 */
export function coldFactor(chemistry: Chemistry, celsius: number): number {
  const at = Math.min(1, Math.max(0, (20 - celsius) / 30))
  return 1 - (1 - COLD[chemistry]) * at
}
