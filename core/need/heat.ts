import { CP_AIR, REFERENCE_DENSITY } from '#core/air'

/**
 * Airflow that carries heat off, m3/s.
 * @param heatW heat released inside, W, >= 0
 * @param intakeC air entering, degC
 * @param exhaustC mean air leaving, degC, above the intake
 * @param density kg/m3 at the place where the flow is stated (intake or exhaust)
 * @returns m3/s; 0 without heat; null when the air would have to leave no warmer than it came
 * Reference: heat balance Q = P/(rho cp (t_out - t_in)), ASHRAE Fundamentals
 */
export function airflowForHeat(
  heatW: number,
  intakeC: number,
  exhaustC: number,
  density: number,
): number | null {
  if (heatW === 0) return 0
  if (!(heatW > 0) || exhaustC <= intakeC) return null
  return heatW / (density * CP_AIR * (exhaustC - intakeC))
}

/**
 * The same at standard air, 1.2 kg/m3: m3/s from W and K; null for a rise of 0 or less.
 * Reference: heat balance, ASHRAE Fundamentals
 */
export function airflowForHeatStandard(heatW: number, riseK: number): number | null {
  return airflowForHeat(heatW, 0, riseK, REFERENCE_DENSITY)
}

/**
 * Rise of the air in a stirred box over its intake, K: walls and moved air carry the heat.
 * @param heatW W, 0 or more
 * @param uaWK wall loss, W/K, 0 or more
 * @param flowM3s at the fan, m3/s, 0 or more
 * @param density of the intake air, kg/m3
 * @param exhaustFromK intake temperature, K, where the flow is that of the warm air which leaves (its density falls with
 * the rise); null where it is stated at the intake
 * @returns null where neither walls nor air carry the heat
 * Reference: heat balance Δt = P/(UA + ρ·cp·Q), ASHRAE Fundamentals; ρ of an ideal gas at the exhaust gives a quadratic
 */
export function stirredRise(
  heatW: number,
  uaWK: number,
  flowM3s: number,
  density: number,
  exhaustFromK: number | null = null,
): number | null {
  const carried = density * CP_AIR * flowM3s
  if (heatW === 0) return 0
  if (exhaustFromK === null) return uaWK + carried > 0 ? heatW / (uaWK + carried) : null
  // UA·r + k·T·r/(T + r) = P
  const b = (uaWK + carried) * exhaustFromK - heatW
  if (uaWK === 0) return b > 0 ? (heatW * exhaustFromK) / b : null
  return (2 * heatW * exhaustFromK) / (b + Math.sqrt(b * b + 4 * uaWK * heatW * exhaustFromK))
}

/**
 * Airflow that keeps a cabinet at a temperature, the wall loss taken off first, m3/s.
 * @param density kg/m3, above 0
 * @returns 0 where the walls do it alone; null where the inside may not be warmer than ambient
 * Reference: heat balance Q = max(0, P - UA (t_i - t_a))/(rho cp (t_i - t_a))
 */
export function airflowWithWallLoss(
  heatW: number,
  uaWK: number,
  insideC: number,
  ambientC: number,
  density: number,
): number | null {
  const rise = insideC - ambientC
  return rise > 0 ? Math.max(0, heatW - uaWK * rise) / (density * CP_AIR * rise) : null
}

/**
 * Effective cooling surface of a box, m2, all lengths in m; the floor never counts.
 * Reference: factors of the enclosure temperature-rise method, IEC/TR 60890 family (from memory)
 */
export function effectiveArea(
  heightM: number,
  widthM: number,
  depthM: number,
  placement: 'free-standing' | 'wall',
): number {
  return placement === 'wall'
    ? 1.4 * widthM * (heightM + depthM) + 1.8 * depthM * heightM
    : 1.8 * heightM * (widthM + depthM) + 1.4 * widthM * depthM
}
