import { latentHeat, saturationPressure, vapourPressure } from '#core/air'

export interface WaterSurface {
  areaM2: number
  waterC: number
  airC: number
  /** 0..1 */
  relativeHumidity: number
  /** over the surface, m/s: 0.05 to 0.7, beyond it is an extrapolation (±40 %) */
  airSpeed: number
  /** 1 blown or disturbed, 0.5 still */
  activity: number
  /** of the site, Pa: thin air carries less heat to the water */
  pressurePa: number
}

/**
 * Evaporation from a water surface, kg/s; 0 where vapour would condense instead.
 * Reference: ASHRAE pool formula (from memory), pressures in kPa
 */
export function evaporationRate({
  areaM2,
  waterC,
  airC,
  relativeHumidity,
  airSpeed,
  activity,
}: WaterSurface): number | null {
  const pw = saturationPressure(waterC)
  const pa = vapourPressure(airC, relativeHumidity)
  if (pw === null || pa === null) return null
  return Math.max(
    0,
    (((activity * areaM2 * (pw - pa)) / 1000) * (0.089 + 0.0782 * airSpeed)) / (latentHeat(waterC) / 1000),
  )
}

/**
 * Heat that leaves with the vapour, W.
 * Reference: ASHRAE pool formula (from memory)
 */
export function evaporativeCooling(surface: WaterSurface): number | null {
  const rate = evaporationRate(surface)
  return rate === null ? null : rate * latentHeat(surface.waterC)
}

/** Cooling of the water itself, W: warmer air pays part of the evaporation. Reference: psychrometric constant gamma = cp p/(0.622 hfg). */
export function waterNetCooling(surface: WaterSurface): number | null {
  const latent = evaporativeCooling(surface)
  const pw = saturationPressure(surface.waterC)
  const pa = vapourPressure(surface.airC, surface.relativeHumidity)
  if (latent === null || pw === null || pa === null) return null
  if (latent === 0) return 0
  const gamma = (1.006 * surface.pressurePa) / 1000 / ((0.622 * latentHeat(surface.waterC)) / 1000)
  return latent * (1 + (gamma * (surface.waterC - surface.airC)) / ((pw - pa) / 1000))
}

/**
 * How a lid changes the surface: share of the air speed that reaches it, and the activity factor. Mesh halves the
 * speed (common practice, an assumption).
 */
export const lidEffect = {
  open: { speed: 1, activity: 1 },
  mesh: { speed: 0.5, activity: 1 },
  still: { speed: 0, activity: 0.5 },
} as const
/** Doubt of an evaporation from small tanks and above 0.15 m/s: an extrapolation. Common practice, no source. */
export const EVAPORATION_UNCERTAINTY = 0.4
/** Fastest air that the formula has been tried with, m/s; above it is told as an extrapolation. */
export const EVAPORATION_MAX_SPEED = 0.7

/**
 * Air speed over the water that gives it a net cooling, m/s; null where even no wind overshoots nothing or 5 m/s do not suffice.
 * Reference: ASHRAE pool formula (from memory)
 */
export function speedForCooling(surface: Omit<WaterSurface, 'airSpeed'>, coolingW: number): number | null {
  const at = (airSpeed: number) => waterNetCooling({ ...surface, airSpeed }) ?? 0
  const still = at(0)
  const perSpeed = at(1) - still
  if (still >= coolingW) return 0
  const speed = perSpeed > 0 ? (coolingW - still) / perSpeed : Infinity
  return speed <= 5 ? speed : null
}
