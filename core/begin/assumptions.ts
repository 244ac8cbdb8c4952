import type { Goal, Job, UncertainInput } from '#core/document'

/** What is assumed of a fact that the person does not know: a usual value and the range that it mostly lies in, SI. */
export interface Assumption {
  key: UncertainInput
  value: number
  low: number
  high: number
}
/** An assumption may follow from what is known. */
type Assume = (job: Job) => Assumption
const usual =
  (key: UncertainInput, value: number, low: number, high: number): Assume =>
  () => ({ key, value, low, high })
/** A limit above the air at the intake, so that the assumption never asks for what air cannot do, K. */
const aboveAmbient =
  (key: 'insideMaxC' | 'partMaxC', value: number, low: number, high: number): Assume =>
  ({ ambientC: t }) => ({ key, value: t + value, low: t + low, high: t + high })

/**
 * What each goal's first facts are when nobody knows them: hobby equipment, wide on purpose. Heat, rises and volumes are
 * common practice without a source; air changes, capture speeds and turnovers stand in docs/physics.md.
 */
const assumed: Record<Goal, Assume[]> = {
  cool: [usual('heatW', 40, 15, 100), aboveAmbient('insideMaxC', 20, 12, 30)],
  part: [
    usual('heatW', 15, 5, 40),
    aboveAmbient('partMaxC', 45, 35, 60),
    // paste, pad and what is not known of the heatsink itself
    usual('partInnerKPerW', 0.3, 0, 0.8),
  ],
  ventilate: [usual('volumeM3', 0.3, 0.05, 1), usual('airChangesPerH', 15, 5, 40)],
  fume: [
    usual('captureDistanceM', 0.15, 0.08, 0.25),
    usual('captureSpeedMs', 0.4, 0.25, 0.6),
    usual('nozzleAreaM2', 0.008, 0.004, 0.013),
  ],
  stir: [usual('volumeM3', 0.2, 0.05, 0.5), usual('turnoversPerH', 25, 10, 60)],
  chill: [
    usual('waterAreaM2', 0.2, 0.08, 0.5),
    usual('waterC', 25, 22, 28),
    usual('crossAreaM2', 0.03, 0.01, 0.06),
    usual('surfaceSpeedMs', 1, 0.5, 2),
  ],
  quieten: [],
}

/** The facts that a goal begins with and what each is taken for when it is not known. */
export const assumptionsOf = (job: Job): Assumption[] => assumed[job.goal].map((of) => of(job))
