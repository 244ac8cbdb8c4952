import type { AirState } from '#core/air'
import { fansOf, type Fan, type StreamPlan } from '#core/document'
import { calibrate, type CalibrationReport } from './calibration'
import { fanArrayOf, type FanArray } from './fan-array'
import { modelPath, type PathModel } from './path'

/** What moves the air and what stands in its way. */
export interface AirSystem {
  air: AirState
  /** the path as guessed from its elements */
  guess: PathModel
  /** the path that is computed with: the guess, or scaled by a measurement */
  path: PathModel
  calibration: CalibrationReport | null
  fanArray: FanArray | null
  /** sheet of the selected fan, also where it cannot be computed */
  fan: Fan | null
  /** why the selected fans cannot be computed */
  arrayProblem: string | null
}

/**
 * The air system of a plan: its path, calibrated where a measurement is used, and its fan array.
 * @param fans the fans that the plan speaks of, as it believes them
 */
export function airSystem(plan: StreamPlan, air: AirState, fans: readonly Fan[]): AirSystem {
  const guess = modelPath(plan, air)
  const { path, report } = calibrate(plan, guess, air, fans)
  const selection = fansOf(plan)
  const made = selection && fanArrayOf(selection, fans)
  const fanArray = made?.ok ? made.fanArray : null
  return {
    air,
    guess,
    path,
    calibration: report,
    fanArray,
    fan: fanArray?.model.fan ?? fans.find((f) => f.id === selection?.groups[0]!.fanId) ?? null,
    arrayProblem: made && !made.ok ? made.reason : null,
  }
}
