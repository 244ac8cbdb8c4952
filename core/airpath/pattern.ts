/** How holes stand in a sheet: staggered rows at 60 degrees, square rows, woven wires, slots in rows. */
export type HolePattern = 'staggered' | 'square' | 'mesh' | 'slots'

/**
 * Free area over gross area of a hole pattern.
 * @param pattern layout of the holes
 * @param holeM hole diameter; clear width between wires; slot width, m
 * @param pitchM centre to centre (mesh: wire to wire), m, above the hole
 * @returns share above 0 to 1, or null where the holes would overlap
 * Reference: geometry. Round holes d at pitch t: 0.9069 (d/t)^2 staggered, 0.7854 (d/t)^2 square; square mesh (w/t)^2;
 * long slots w/t without their ends
 * @example freeShare('staggered', 0.003, 0.005) // 0.326
 */
export function freeShare(pattern: HolePattern, holeM: number, pitchM: number): number | null {
  const r = holeM / pitchM
  if (!(r > 0 && r < 1)) return null
  if (pattern === 'slots') return r
  return (pattern === 'mesh' ? 1 : pattern === 'square' ? Math.PI / 4 : Math.PI / (2 * Math.sqrt(3))) * r * r
}
