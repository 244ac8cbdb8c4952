import { frictionFactor } from './friction'

/**
 * Developed laminar loss between wide plates, Pa.
 * @param gap m, above 0
 * @param length m, above 0
 * @param velocity m/s
 * @param viscosity Pa.s, above 0
 * Reference: plane Poiseuille flow. Gap and length m, velocity in the gap m/s.
 */
export const slitDrop = (gap: number, length: number, velocity: number, viscosity: number) =>
  (12 * viscosity * length * velocity) / gap ** 2

export interface FinChannels {
  gap: number
  height: number
  length: number
  channels: number
  finThickness: number
}

/** Highest Reynolds number of the laminar fin formula. */
const RE_LAMINAR = 2300

/**
 * Loss of a finned heatsink with n channels, developing laminar flow, Pa; null above Re 2300. Real sinks ±25 %.
 * @param fins lengths in m
 * @param flow m3/s
 * @param density kg/m3, above 0
 * @param viscosity Pa.s, above 0
 * Reference: heatsink literature (developing flow f_app Re, entrance and exit coefficients), from memory
 */
export function finChannelDrop(
  fins: FinChannels,
  flow: number,
  density: number,
  viscosity: number,
): number | null {
  return flow > 0 && finReynolds(fins, flow, density, viscosity) >= RE_LAMINAR
    ? null
    : finDrop(fins, flow, density, viscosity)
}

const finSpeed = ({ channels, gap, height }: FinChannels, flow: number) => flow / (channels * gap * height)
const finReynolds = (fins: FinChannels, flow: number, density: number, viscosity: number) =>
  (density * finSpeed(fins, flow) * 2 * fins.gap) / viscosity

/**
 * The same at any flow, for a path that must have a loss everywhere: above Re 2300 the friction of a smooth duct of the
 * same hydraulic diameter takes over (an extrapolation), never less than the laminar one at that flow.
 * @param flow m3/s, 0 or more
 * @param density kg/m3, above 0
 * @param viscosity Pa.s, above 0
 * Reference: laminar flow between plates
 */
export function finDrop(fins: FinChannels, flow: number, density: number, viscosity: number): number {
  if (flow === 0) return 0
  const { gap, length, channels, finThickness } = fins
  const speed = finSpeed(fins, flow)
  const dh = 2 * gap
  const reynolds = finReynolds(fins, flow, density, viscosity)
  const sigma = (channels * gap) / (channels * gap + (channels + 1) * finThickness)
  const laminar = Math.sqrt((11.83 * dh * reynolds) / length + 24 ** 2) / reynolds
  const friction = reynolds < RE_LAMINAR ? laminar : Math.max(laminar, frictionFactor(reynolds, 0) / 4)
  const k = 0.42 * (1 - sigma ** 2) + (4 * friction * length) / dh + (1 - sigma ** 2) ** 2
  return (k * density * speed ** 2) / 2
}
