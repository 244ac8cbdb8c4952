import { GAS_CONSTANT_DRY, humidityRatio, vapourPressure, ZERO_CELSIUS_K } from '#core/air'

/** Steady excess of a gas over the fresh air, volume ratio, from its source and the flow (both m3/s). */
export const steadyExcess = (sourceM3s: number, flowM3s: number) => (flowM3s > 0 ? sourceM3s / flowM3s : null)

/**
 * Flow that keeps a gas at a level, m3/s; null when the fresh air carries as much.
 * @param inside volume ratio
 * @param outside volume ratio
 * Reference: mass balance of a mixed room
 */
export const airflowForExcess = (sourceM3s: number, inside: number, outside: number) =>
  inside > outside ? sourceM3s / (inside - outside) : null

export interface MoistureCase {
  insideC: number
  insideRh: number
  outsideC: number
  outsideRh: number
  pressurePa: number
}

/** Dry-air mass per volume of outdoor air, kg/m3, and the gain of humidity ratio, kg/kg. */
function carriage({
  insideC,
  insideRh,
  outsideC,
  outsideRh,
  pressurePa,
}: MoistureCase): { dryAir: number; gain: number } | null {
  const wIn = humidityRatio(insideC, insideRh, pressurePa)
  const wOut = humidityRatio(outsideC, outsideRh, pressurePa)
  const pv = vapourPressure(outsideC, outsideRh)
  if (wIn === null || wOut === null || pv === null) return null
  return { dryAir: (pressurePa - pv) / (GAS_CONSTANT_DRY * (outsideC + ZERO_CELSIUS_K)), gain: wIn - wOut }
}

/** Water carried off, kg/s, flow stated at the outdoor state; negative: ventilation brings water in. Reference: mass balance of water. */
export function moistureRemoval(flowM3s: number, state: MoistureCase): number | null {
  const c = carriage(state)
  return c && flowM3s * c.dryAir * c.gain
}

/**
 * Flow that carries off a water release (kg/s), m3/s; null when the outside air is no drier.
 * Reference: mass balance of a mixed room
 */
export function airflowForMoisture(waterKgS: number, state: MoistureCase): number | null {
  const c = carriage(state)
  return c && c.gain > 0 ? waterKgS / (c.dryAir * c.gain) : null
}

/**
 * Energy a stirring fan costs in a cooled box, J per day, its heat pumped out again. @param duty 0..1
 * @param cop coefficient of performance, above 0
 * Reference: mass balance of a mixed room
 */
export const stirEnergy = (fanW: number, cop: number, duty: number) => fanW * (1 + 1 / cop) * 86400 * duty
