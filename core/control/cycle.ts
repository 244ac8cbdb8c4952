import { thermostatCycle, timeTo, type SwitchedPart } from '#core/heat'

/** What a control means over hours and years. */

const HOUR_S = 3600
const DAYS_A_YEAR = 365

/**
 * Cycles of a thermostat an hour; null where it does not cycle.
 * Reference: first-order balance, switched (handbook CT8, CT9)
 */
export function cyclesPerHour(part: SwitchedPart): number | null {
  const cycle = thermostatCycle(part)
  return cycle && HOUR_S / (cycle.onS + cycle.offS)
}
/**
 * Years until a contact has made its rated operations; null where it never switches.
 * @param operations rated @param perHour cycles an hour @param dayS in use a day, s
 * Reference: handbook CT9
 */
export function contactYears(operations: number, perHour: number, dayS: number): number | null {
  const aDay = (perHour * dayS) / HOUR_S
  return aDay > 0 ? operations / (aDay * DAYS_A_YEAR) : null
}
/**
 * Cycles an hour with straight slopes.
 * @param heatingKPerS K/s, above 0 @param coolingKPerS K/s, above 0 @param differentialK K, above 0
 * Reference: handbook CT10, room-thermostat relation
 */
export const equalSlopeCycles = (heatingKPerS: number, coolingKPerS: number, differentialK: number) =>
  HOUR_S / (differentialK / heatingKPerS + differentialK / coolingKPerS)

/**
 * How long a fan runs on until a part has cooled, s; null where it never does.
 * @param tauS time constant with the fan running, s
 * Reference: first-order balance (handbook CT14)
 */
export const runOnHeat = (tauS: number, fromC: number, toC: number, settlesC: number): number | null =>
  timeTo(fromC, settlesC, tauS, toC)
/**
 * How long a fan runs on until an air is thinned, s.
 * @param volumeM3 m3 @param flowM3s m3/s, above 0 @param mixing 0.3 to 1 @param reduction first over last, above 1
 * Reference: one mixed room (handbook CT14)
 */
export const runOnAir = (volumeM3: number, flowM3s: number, mixing: number, reduction: number) =>
  (volumeM3 / (mixing * flowM3s)) * Math.log(reduction)
/**
 * How long the quiet level holds until a limit is reached, s; null: for ever.
 * @param tauS time constant at the quiet level, s @param settlesC where it would settle, degC
 * Reference: first-order balance (handbook control 7)
 */
export const quietInterval = (tauS: number, fromC: number, limitC: number, settlesC: number): number | null =>
  settlesC > limitC ? timeTo(fromC, settlesC, tauS, limitC) : null
