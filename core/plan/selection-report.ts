import { type StreamPlan, blowsOf } from '#core/document'
import type { Figure } from '#core/figure'
import type { Requirement } from '#core/requirement'
import {
  candidateFigures,
  lifeFigure,
  riseFigure,
  servedFigure,
  type Candidate,
  type Operation,
  type SelectionContext,
} from '#core/selection'
import { arrayName, fanAirC, type AirSystem, type FanArray } from '#core/system'

/** The selected fans where they run, with the part of their air that does the job. */
export interface SelectionReport {
  candidate: Candidate
  fanArray: FanArray
  fanName: string
  figures: Figure[]
  served: Figure
  /** bearing life at the fan's own air; null where the sheet states none */
  life: Figure | null
}

/** The selection as figures; null without one that can be computed. */
export function selectionReport(
  plan: StreamPlan,
  { air, fanArray }: AirSystem,
  { insideMaxC }: Requirement,
  context: SelectionContext,
  { candidate, delivered }: Operation,
): SelectionReport | null {
  if (!candidate || !fanArray) return null
  const { model } = fanArray
  const { job } = plan
  const airC = fanAirC(job, blowsOf(plan), insideMaxC, candidate.flow, air) ?? job.ambientMaxC ?? job.ambientC
  return {
    candidate,
    fanArray,
    fanName: arrayName(fanArray),
    figures: [...candidateFigures(context, candidate, fanArray), riseFigure(context, delivered)],
    served: servedFigure(candidate, delivered, model),
    life: lifeFigure(model, airC),
  }
}
