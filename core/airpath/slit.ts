/** Developed laminar loss between wide plates, Pa. Reference: plane Poiseuille flow. Gap and length m, velocity in the gap m/s. */
export const slitDrop = (gap: number, length: number, velocity: number, viscosity: number) => 12 * viscosity * length * velocity / gap ** 2

export interface FinChannels { gap: number, height: number, length: number, channels: number, finThickness: number }

/**
 * Loss of a finned heatsink with n channels, developing laminar flow, Pa; null above Re 2300. Real sinks ±25 %.
 * @param fins lengths in m
 * @param flow m3/s
 * Reference: heatsink literature (developing flow f_app Re, entrance and exit coefficients), from memory
 */
export function finChannelDrop(fins: FinChannels, flow: number, density: number, viscosity: number): number | null {
  if (flow === 0) return 0
  const { gap, height, length, channels, finThickness } = fins
  const speed = flow / (channels * gap * height)
  const dh = 2 * gap
  const reynolds = density * speed * dh / viscosity
  if (reynolds >= 2300) return null
  const sigma = channels * gap / (channels * gap + (channels + 1) * finThickness)
  const friction = Math.sqrt(11.83 * dh * reynolds / length + 24 ** 2) / reynolds
  const k = 0.42 * (1 - sigma ** 2) + 4 * friction * length / dh + (1 - sigma ** 2) ** 2
  return k * density * speed ** 2 / 2
}
