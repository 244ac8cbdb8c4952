/**
 * Flow at another speed, any units: Q ~ n.
 * @param flow m3/s, 0 or more
 * @param speed1 speed before, any unit, above 0
 * @param speed2 speed after, same unit
 * Reference: fan laws (affinity laws), ISO 5801 annex; same fan, same density.
 */
export const scaleFlow = (flow: number, speed1: number, speed2: number) => (flow * speed2) / speed1
/**
 * Pressure at another speed: p ~ n^2.
 * @param pressure Pa
 * @param speed1 speed before, any unit, above 0
 * @param speed2 speed after, same unit
 * Reference: fan laws.
 */
export const scalePressure = (pressure: number, speed1: number, speed2: number) =>
  pressure * (speed2 / speed1) ** 2
/**
 * Shaft power at another speed: P ~ n^3.
 * @param power W, 0 or more
 * @param speed1 speed before, any unit, above 0
 * @param speed2 speed after, same unit
 * Reference: fan laws.
 */
export const scalePower = (power: number, speed1: number, speed2: number) => power * (speed2 / speed1) ** 3
/**
 * Pressure in air of another density at the same speed: p ~ rho.
 * @param pressure Pa
 * @param density1 kg/m3, above 0
 * @param density2 kg/m3, above 0
 * Reference: fan laws.
 */
export const scaleDensity = (pressure: number, density1: number, density2: number) =>
  (pressure * density2) / density1
/**
 * Flow of a geometrically similar fan of another diameter at the same speed: Q ~ D^3 (order of magnitude between real
 * frames).
 * @param flow m3/s, 0 or more
 * @param diameter1 m, above 0
 * @param diameter2 m, above 0
 * Reference: fan laws.
 */
export const scaleSizeFlow = (flow: number, diameter1: number, diameter2: number) =>
  flow * (diameter2 / diameter1) ** 3
