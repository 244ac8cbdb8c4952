import { expose } from 'comlink'
import { followLine, thinTrace, type Pixel, type Raster } from '#core/trace'

let raster: Raster | null = null

/** A thin wrapper: following the line is the core's. */
const worker = {
  setPicture(width: number, height: number, data: Uint8ClampedArray): void {
    raster = { width, height, data }
  },
  follow(
    start: Pixel,
    tolerance: number,
    points: number,
    limit: { left: number; right: number },
  ): { points: Pixel[]; thickness: number } | string {
    if (!raster) return 'There is no picture yet.'
    const trace = followLine(raster, start, tolerance, limit)
    return typeof trace === 'string'
      ? trace
      : { points: thinTrace(trace.points, points), thickness: trace.thickness }
  },
}
export type TraceWorker = typeof worker
expose(worker)
