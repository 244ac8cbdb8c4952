const OMEGA = (2 * Math.PI) / 86400
/**
 * Hottest moment of the day, degC: the ambient swing damped by the time constant.
 * @param heat W
 * @param conductance W/K
 * @param capacity J/K, above 0
 * @param amplitude half of the swing, K
 * Reference: docs/physics.md HT21
 */
export const dayMaximum = (
  heat: number,
  conductance: number,
  capacity: number,
  meanC: number,
  amplitude: number,
) => meanC + heat / conductance + amplitude / Math.sqrt(1 + ((OMEGA * capacity) / conductance) ** 2)
/**
 * How long after the hottest ambient that is, s.
 * @param conductance W/K
 * @param capacity J/K, above 0
 * Reference: lumped heat balance over a day; docs/physics.md, heat and time
 */
export const dayLag = (conductance: number, capacity: number) =>
  Math.atan((OMEGA * capacity) / conductance) / OMEGA
/**
 * Energy of a day, J.
 * @param power W
 * @param duty 0..1
 * Reference: lumped heat balance over a day; docs/physics.md, heat and time
 */
export const energyPerDay = (power: number, duty: number) => power * duty * 86400
