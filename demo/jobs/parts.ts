/** Small helpers that make the invented jobs short to write. */
import {
  newElement,
  newReading,
  newRun,
  newTarget,
  type Branch,
  type ElementKind,
  type PathElement,
  type Reading,
  type ReadingQuantity,
  type Run,
  type Target,
  type TargetKind,
} from '#core/document'

export const m3h = (x: number) => x / 3600
export const cm2 = (x: number) => x / 1e4
export const mm = (x: number) => x / 1000
export const minutes = (x: number) => x * 60

export const element = (id: string, kind: ElementKind, rest: Partial<PathElement>): PathElement => ({
  ...newElement(id, kind),
  ...rest,
})
export const branch = (id: string, splitId: string, name: string, leak = false, times = 1): Branch => ({
  id,
  splitId,
  name,
  leak,
  times,
})
export const reading = (
  id: string,
  quantity: ReadingQuantity,
  place: string,
  value: number,
  rest: Partial<Reading> = {},
): Reading => ({ ...newReading(id, quantity, place, value), ...rest })
export const run = (id: string, kind: Run['kind'], takenAt: string, rest: Partial<Run>): Run => ({
  ...newRun(id, kind, takenAt),
  ...rest,
})
export const target = (kind: TargetKind, limit: number, place: string, setBy: string, why: string): Target =>
  newTarget({ id: `target-${kind}`, kind, limit, place, setBy, why }, 'main')
