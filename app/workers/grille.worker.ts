import { expose } from 'comlink'
import { madeGrille, openAreaOf, straighten, workshopGrille } from '#core/trace'
import type { Pixel, Raster, OpenArea, PlanePoint, Straight } from '#core/trace'

let photo: Raster | null = null

export interface GrilleRead {
  straight: Straight
  open: OpenArea
}

/** A thin wrapper: straightening and counting are the core's. */
const worker = {
  setPicture(width: number, height: number, data: Uint8ClampedArray): void {
    photo = { width, height, data }
  },
  /** The workshop's made-up photo. */
  madeUp(): Raster {
    return madeGrille(workshopGrille)!
  },
  read(
    corners: readonly Pixel[],
    size: { widthM: number; heightM: number },
    part: { from: PlanePoint; to: PlanePoint } | null,
    openIs: 'dark' | 'bright',
  ): GrilleRead | string {
    if (!photo) return 'There is no picture yet.'
    const flat = straighten(photo, corners, size, part)
    if (!flat.ok) return flat.reason
    const made = openAreaOf(flat.straight, openIs)
    return made.ok ? { straight: flat.straight, open: made.open } : made.reason
  },
}
export type GrilleWorker = typeof worker
expose(worker)
