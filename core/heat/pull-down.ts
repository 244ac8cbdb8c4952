/**
 * Time to pull a warmed box down again, s: C dθ/dt = -(spare + UA θ).
 * @param capacityJK heat capacity of air and contents, J/K, > 0
 * @param uaWK wall conductance, W/K, >= 0
 * @param spareW cooling power left over at the wanted temperature, W (the wall's gain and the fan's heat are taken off)
 * @param warmedK how much warmer than wanted it begins, K
 * @param nearK how near is near enough, K, above 0
 * @returns 0 when it is near already; null when the power does not suffice
 * Reference: heat balance of a well-stirred box, solved in closed form
 */
export function pullDownTime(
  capacityJK: number,
  uaWK: number,
  spareW: number,
  warmedK: number,
  nearK: number,
): number | null {
  if (nearK >= warmedK) return 0
  const end = spareW + uaWK * nearK
  if (!(end > 0)) return null
  return uaWK > 0
    ? (capacityJK / uaWK) * Math.log((spareW + uaWK * warmedK) / end)
    : (capacityJK * (warmedK - nearK)) / spareW
}
