/** End of laminar and start of turbulent pipe flow; between them the factor runs linearly so that dp(Q) stays continuous and rising. */
const RE_LAMINAR = 2300
const RE_TURBULENT = 4000

/**
 * Friction factor (Darcy) by the explicit form of Haaland, within 2 % of Colebrook.
 * @param reynolds above 4000
 * @param relativeRoughness e/D, 0..0.05
 * Reference: S. E. Haaland, J. Fluids Eng. 105 (1983)
 */
export function frictionFactorExplicit(reynolds: number, relativeRoughness: number): number {
  return (-1.8 * Math.log10((relativeRoughness / 3.7) ** 1.11 + 6.9 / reynolds)) ** -2
}

function colebrook(reynolds: number, relativeRoughness: number): number {
  let x = 1 / Math.sqrt(frictionFactorExplicit(reynolds, relativeRoughness))
  for (let i = 0; i < 8; i++) x = -2 * Math.log10(relativeRoughness / 3.7 + (2.51 * x) / reynolds)
  return 1 / (x * x)
}

/** f Re of laminar flow in a round duct. Published (Hagen and Poiseuille). */
export const ROUND_LAMINAR = 64

/**
 * Friction factor (Darcy) of a duct: C/Re laminar, Colebrook turbulent, linear in Re between 2300 and 4000 (a zone that
 * is uncertain by ±30 %), so that the drop is continuous and rising for every shape.
 * @param reynolds on the hydraulic diameter, above 0
 * @param relativeRoughness e/D, 0..0.1
 * @param laminar C = f Re of the duct's shape: 64 round, 56.9 square, 96 a flat slot
 * Reference: C. F. Colebrook, J. Inst. Civ. Eng. 11 (1939); laminar shapes Shah and London (1978)
 */
export function frictionFactor(
  reynolds: number,
  relativeRoughness: number,
  laminar: number = ROUND_LAMINAR,
): number {
  if (reynolds < RE_LAMINAR) return laminar / reynolds
  if (reynolds > RE_TURBULENT) return colebrook(reynolds, relativeRoughness)
  const start = laminar / RE_LAMINAR
  const end = colebrook(RE_TURBULENT, relativeRoughness)
  return start + ((end - start) * (reynolds - RE_LAMINAR)) / (RE_TURBULENT - RE_LAMINAR)
}

/**
 * f Re of laminar flow in a rectangular duct, s short over long side, 0..1.
 * @param s open share, 0..1
 * Reference: Shah and London (1978).
 */
export function laminarConstant(s: number): number {
  return 96 * (1 - s * (1.3553 - s * (1.9467 - s * (1.7012 - s * (0.9564 - s * 0.2537)))))
}

/**
 * Hydraulic diameter of a rectangle, 4 A/perimeter, same unit as the sides.
 * @param width m, above 0
 * @param height m, above 0
 * Reference: Darcy and Weisbach, Colebrook
 */
export const hydraulicDiameter = (width: number, height: number) => (2 * width * height) / (width + height)

/**
 * Round duct of equal flow and equal friction for a rectangle (sides in one unit).
 * @param width m, above 0
 * @param height m, above 0
 * Reference: ASHRAE Fundamentals, duct design (Huebscher).
 */
export const equalFrictionDiameter = (width: number, height: number) =>
  (1.3 * (width * height) ** 0.625) / (width + height) ** 0.25

/**
 * Friction loss of a straight round duct, Pa.
 * @param flow m3/s, >= 0; 0 gives 0
 * @param diameter m, > 0
 * @param length m
 * @param roughness m
 * @param density kg/m3
 * @param viscosity Pa.s
 * @param laminar f Re of the duct's shape in laminar flow; for another shape than round the diameter is the hydraulic
 * one, and the flow that of a round duct with the same mean velocity
 * Reference: Darcy-Weisbach
 */
export function ductDrop(
  flow: number,
  diameter: number,
  length: number,
  roughness: number,
  density: number,
  viscosity: number,
  laminar: number = ROUND_LAMINAR,
): number {
  if (flow === 0) return 0
  const speed = flow / ((Math.PI / 4) * diameter * diameter)
  const reynolds = (density * speed * diameter) / viscosity
  const f = frictionFactor(reynolds, roughness / diameter, laminar)
  return (((f * length) / diameter) * density * speed * speed) / 2
}

/**
 * Loss coefficient of a free exit: 1 where the flow is turbulent, 2 where it is laminar (its profile carries twice the
 * energy of the mean velocity). Between Re 2300 and 4000 K·Re² runs straight, so that the drop keeps rising.
 * @param reynolds above 0
 * Reference: kinetic energy of a parabolic profile; hydraulics handbooks
 */
export function kExit(reynolds: number): number {
  if (reynolds <= RE_LAMINAR) return 2
  if (reynolds >= RE_TURBULENT) return 1
  const share = (reynolds - RE_LAMINAR) / (RE_TURBULENT - RE_LAMINAR)
  const start = 2 * RE_LAMINAR ** 2
  return (start + (RE_TURBULENT ** 2 - start) * share) / reynolds ** 2
}
