export interface Surface {
  key: string
  name: string
  /** m */ roughness: number
}

/** Inner surfaces of ducts. Source: docs/physics.md, ducts; ASHRAE roughness classes (from memory); printed parts common practice. */
export const surfaces: Surface[] = [
  { key: 'smooth', name: 'Smooth plastic or drawn tube', roughness: 0.0015e-3 },
  { key: 'pvc', name: 'PVC pipe, clean', roughness: 0.03e-3 },
  { key: 'spiral', name: 'Sheet metal, spiral seam', roughness: 0.12e-3 },
  { key: 'printed', name: 'Printed part, layers across the flow', roughness: 0.2e-3 },
  { key: 'corrugated', name: 'Corrugated semi-rigid metal', roughness: 1.5e-3 },
  { key: 'hose', name: 'Flexible wire-helix hose, stretched', roughness: 3e-3 },
]

/**
 * Friction multiplier of a hose that is not stretched, with its band. From memory: 2 to 4 at about 15 % slack, up to 10
 * at 30 %.
 */
export const slackLevels = [
  { factor: 1, low: 1, high: 1, name: 'straight or stretched' },
  { factor: 3, low: 2, high: 4, name: 'slack hose, 15 % too long (two to four times the friction)' },
  { factor: 6.3, low: 4, high: 10, name: 'very slack, 30 % too long (four to ten times)' },
] as const

/**
 * Doubt of a slack hose's friction, as the share by which it may be more (or the factor less).
 * @param factor friction multiplier, 1 or more
 * Reference: the bands of the levels, from memory
 */
export function slackDoubt(factor: number): number {
  const level = slackLevels.findLast((l) => factor >= l.factor) ?? slackLevels[0]
  return Math.sqrt(level.high / level.low) - 1
}
