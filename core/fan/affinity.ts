/** Flow at another speed, any units: Q ~ n. Reference: fan laws (affinity laws), ISO 5801 annex; same fan, same density. */
export const scaleFlow = (flow: number, speed1: number, speed2: number) => (flow * speed2) / speed1
/** Pressure at another speed: p ~ n^2. Reference: fan laws. */
export const scalePressure = (pressure: number, speed1: number, speed2: number) =>
  pressure * (speed2 / speed1) ** 2
/** Shaft power at another speed: P ~ n^3. Reference: fan laws. */
export const scalePower = (power: number, speed1: number, speed2: number) => power * (speed2 / speed1) ** 3
/** Pressure in air of another density at the same speed: p ~ rho. Reference: fan laws. */
export const scaleDensity = (pressure: number, density1: number, density2: number) =>
  (pressure * density2) / density1
/**
 * Flow of a geometrically similar fan of another diameter at the same speed: Q ~ D^3 (order of magnitude between real
 * frames).
 * Reference: fan laws.
 */
export const scaleSizeFlow = (flow: number, diameter1: number, diameter2: number) =>
  flow * (diameter2 / diameter1) ** 3
