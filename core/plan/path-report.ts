import type { Figure } from '#core/figure'
import { withAlso, type Finding } from '#core/rules'
import type { Operation, SelectionContext } from '#core/selection'
import {
  dropFigure,
  elementDrop,
  elementFigure,
  elementFlows,
  pathDrop,
  usefulFigure,
  usefulShare,
  type AirSystem,
  type CalibrationReport,
  type PathModel,
} from '#core/system'

/** One element: its drop, the flow through it, and its share of the power the path takes (shares add up to one, branches or not). */
export interface ElementReport {
  id: string
  figure: Figure
  flow: number | null
  share: number | null
  missing: string | null
  findings: Finding[]
}

export interface PathReport {
  model: PathModel
  /** the same before it was calibrated */
  guess: PathModel
  calibration: CalibrationReport | null
  complete: boolean
  elements: ElementReport[]
  drop: Figure
  /** the whole guess at the same flow, where a calibration is used */
  guessDrop: number | null
  /** fan-side flow that the drops are told at, m3/s */
  atFlow: number | null
  /** share of the fan's flow that does the job */
  useful: Figure | null
}

/** Drop, flow and share of every element, with the findings that speak of it. */
function elementReports(path: PathModel, atFlow: number | null, findings: readonly Finding[]): ElementReport[] {
  const flow = path.complete ? atFlow : null
  const total = flow === null ? null : pathDrop(path, flow)
  const flows = flow === null ? null : elementFlows(path, flow)
  const spoken = withAlso(findings)
  const times = new Map(
    path.main.flatMap(({ branches }) =>
      (branches ?? []).flatMap((b) => b.elements.map((x) => [x.element.id, b.branch.times] as const)),
    ),
  )
  return path.elements.map((e) => {
    const { id, kind } = e.element
    const through = flows?.get(id) ?? null
    const counted = total && flow && through !== null && !e.missing && kind !== 'split'
    return {
      id,
      flow: through,
      figure: elementFigure(e, through, path.factor),
      missing: kind === 'fan' ? null : e.missing,
      // of openings alike each takes its share
      share: counted ? (elementDrop(e, through) * through * (times.get(id) ?? 1)) / (total * flow) : null,
      findings: spoken.filter((f) => f.elements.includes(id)),
    }
  })
}

/** The air path at the operating point, or at the planned flow where there is none. */
export function pathReport(
  { path, guess, calibration }: AirSystem,
  { designFlow }: SelectionContext,
  { candidate }: Operation,
  findings: readonly Finding[],
): PathReport {
  const atFlow = candidate?.flow ?? designFlow
  const leaks = atFlow !== null && path.complete && usefulShare(path, atFlow) < 1
  return {
    model: path,
    guess,
    calibration,
    complete: path.complete,
    elements: elementReports(path, atFlow, findings),
    drop: dropFigure(path, atFlow, Boolean(candidate?.flow)),
    atFlow,
    guessDrop: path === guess || atFlow === null ? null : pathDrop(guess, atFlow),
    useful: leaks ? usefulFigure(path, atFlow) : null,
  }
}
