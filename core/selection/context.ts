import type { AirState } from '#core/air'
import {
  blowsOf,
  seenAt,
  uncertainInputs,
  upperLimit,
  type Blows,
  type Job,
  type PathElement,
  type Place,
  type StreamPlan,
} from '#core/document'
import { doubtsOf, type Doubt, type Requirement } from '#core/requirement'
import {
  fanFlowFor,
  type FanPlace,
  fanPlaces,
  mainRow,
  pathDrop,
  pathSolver,
  type AirSystem,
  type PathSolver,
} from '#core/system'

/** What every candidate of a plan is held against. */
export interface SelectionContext {
  job: Job
  /** which way its fans blow */
  blows: Blows
  air: AirState
  solver: PathSolver
  /** the main row of the path */
  row: PathElement[]
  /** the place of its fans, or the one of them that is chosen for */
  home: Place
  /** where its fans stand, from the intake on; none where the path does not say */
  places: FanPlace[]
  /** pressure of the path at the planned flow, Pa; 0 where it is not known */
  designPressure: number
  /** airflow needed without and with margin, m3/s */
  needFlow: number | null
  /** the stated numbers of the job that are doubted */
  doubts: Doubt[]
  designFlow: number | null
  levelLimit: number | null
  costLimit: number | null
  thicknessLimit: number | null
}

/** The context that rankings and the report share: the requirement on the fan's side, leaks included, and the limits. */
export function selectionContextOf(
  plan: StreamPlan,
  { air, path }: AirSystem,
  requirement: Requirement,
): SelectionContext {
  const fanSide = (flow: number | null) => (flow === null ? null : fanFlowFor(path, flow))
  const designFlow = fanSide(requirement.design)
  return {
    job: plan.job,
    blows: blowsOf(plan),
    home: seenAt(plan).place,
    air,
    solver: pathSolver(path, designFlow),
    row: mainRow(plan),
    places: fanPlaces(plan),
    designPressure: designFlow !== null && path.complete ? pathDrop(path, designFlow) : 0,
    needFlow: fanSide(requirement.wanted),
    doubts: doubtsOf(plan, uncertainInputs),
    designFlow,
    levelLimit: requirement.levelLimit,
    costLimit: upperLimit(plan.targets, 'money'),
    thicknessLimit: upperLimit(plan.targets, 'thickness'),
  }
}
