import { normal, seeded } from '#core/numeric'
import type { Pixel } from './axes'
import type { Raster } from './follow'
import { inPlane, planeOf, type PlanePoint } from './plane'

/** A photo of a grille, drawn: to try the reading without a camera. It is a stand-in, no measurement. */
export interface MadeGrille {
  width: number
  height: number
  /** whether a point of the plane is open */
  open: (p: PlanePoint) => boolean
  /** of the grille's frame in the photo, in order */
  corners: readonly Pixel[]
  widthM: number
  heightM: number
  /** brightness of what is seen through the holes, and of the plate, 0..255 */
  dark: number
  bright: number
  /** how much darker its far corner is, 0..1 */
  shade: number
  /** standard deviation of the noise, 0..255 */
  noise: number
  /** half width of the blur, pixels */
  blur: number
  seed: number
}

/** Points taken in a pixel, each way. */
const FINE = 2

/** @returns the photo; null where the corners are no rectangle's */
export function madeGrille(made: MadeGrille): Raster | null {
  const { width, height, open, dark, bright, shade, noise } = made
  const map = planeOf(made.corners, made.widthM, made.heightM)
  if (!map) return null
  const z = normal(seeded(made.seed))
  const data = new Uint8ClampedArray(4 * width * height)
  const spread = 1 + 2 * made.blur
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let share = 0
      for (let a = 0; a < FINE; a++)
        for (let b = 0; b < FINE; b++) {
          const at = {
            x: x + 0.5 + ((a + 0.5) / FINE - 0.5) * spread,
            y: y + 0.5 + ((b + 0.5) / FINE - 0.5) * spread,
          }
          if (open(inPlane(map, at))) share += 1 / FINE ** 2
        }
      const lit = 1 - shade * (x / width) * (0.5 + y / (2 * height))
      const i = 4 * (y * width + x)
      data[i] = data[i + 1] = data[i + 2] = lit * (bright + (dark - bright) * share) + noise * z()
      data[i + 3] = 255
    }
  return { width, height, data }
}

const mod = (x: number, m: number) => ((x % m) + m) % m
/** A plate with round holes, rows shifted by half a pitch. @param pitch m @param hole diameter, m */
export function staggeredHoles(pitch: number, hole: number): (p: PlanePoint) => boolean {
  const row = (pitch * Math.sqrt(3)) / 2
  return (p) => {
    const k = Math.floor(p.y / row)
    const x = mod(p.x + (k % 2 ? pitch / 2 : 0), pitch)
    return Math.hypot(x - pitch / 2, mod(p.y, row) - row / 2) < hole / 2
  }
}

/** A stamped grille of the workshop, seen a little from the side. Invented. */
export const workshopGrille: MadeGrille = {
  width: 720,
  height: 560,
  open: staggeredHoles(0.009, 0.0062),
  corners: [
    { x: 70, y: 60 },
    { x: 660, y: 84 },
    { x: 636, y: 500 },
    { x: 92, y: 512 },
  ],
  widthM: 0.12,
  heightM: 0.09,
  dark: 38,
  bright: 188,
  shade: 0.3,
  noise: 4,
  blur: 0.4,
  seed: 4,
}
