/** Axis speed of a round jet falls as v = 6.2 v0 d/x behind its core of about 6 diameters. From memory. */
const JET = 6.2
const CORE = 6

/**
 * Air speed on the axis of a round jet, m/s.
 * @param flow m3/s
 * @param diameter of the opening it leaves, m
 * @param distance from it, m
 * Reference: free round jet, handbook stirring (from memory)
 */
export function jetSpeed(flow: number, diameter: number, distance: number): number {
  const first = flow / ((Math.PI / 4) * diameter ** 2)
  return distance <= CORE * diameter ? first : Math.min(first, (JET * first * diameter) / distance)
}

/**
 * Distance at which a jet has fallen to a speed, m; 0 where it never has it.
 * @param flow m3/s, 0 or more
 * @param diameter m, above 0
 * @param speed m/s, 0 or more
 * Reference: free round jet (from memory)
 */
export function jetReach(flow: number, diameter: number, speed: number): number {
  const first = flow / ((Math.PI / 4) * diameter ** 2)
  if (first < speed) return 0
  return Math.max(CORE * diameter, (JET * first * diameter) / speed)
}

/**
 * Flow whose jet still has a speed at a distance, m3/s.
 * @param diameter m, above 0
 * @param distance m, above 0
 * @param speed m/s, 0 or more
 * Reference: free round jet (from memory)
 */
export function flowForJet(diameter: number, distance: number, speed: number): number {
  const area = (Math.PI / 4) * diameter ** 2
  return distance <= CORE * diameter
    ? speed * area
    : Math.max(speed, (speed * distance) / (JET * diameter)) * area
}
