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

/** Friction multiplier of a hose that is not stretched: 2 to 4 at 15 % slack (from memory). */
export const SLACK_FACTOR = 3
