import { computeReport } from '#core/plan'
import type { JobSummary, StoredPlan } from '#shared/api'
import type { Database } from '../../db/database'
import { listPlans, type UnreadablePlan } from '../../db/repositories/jobs'
import { database } from '../../utils/store'
import { planInput } from '../../utils/plan-input'
import { route } from '../../utils/reply'

/** Which station a job waits for: the first that stops it, then the first to mend, then the first not begun. */
function waitsFor(stations: JobSummary['stations']): string {
  const first = (state: string) => stations.find((s) => s.state === state)
  return (first('stop') ?? first('fix') ?? first('not-begun'))?.title ?? ''
}

/** A job as the bench shows it. */
async function summaryOf(db: Database, { plan, revision, updatedAt }: StoredPlan): Promise<JobSummary> {
  const { id, name, goal, equipment, variantOf } = plan.job
  const result = computeReport(await planInput(db, plan))
  const stations = result.ok ? result.report.stations : []
  const findings = result.ok ? result.report.findings.findings : []
  const count = (severity: string) => findings.filter((f) => f.severity === severity).length
  return {
    id,
    variantOf,
    name,
    goal,
    equipment,
    revision,
    updatedAt,
    stations,
    stops: count('stop'),
    fixes: count('fix'),
    waitsFor: waitsFor(stations),
    problem: '',
  }
}
/** One that cannot be read is named, and stands in nobody's way. */
const named = ({ id, name, revision, updatedAt, problem }: UnreadablePlan): JobSummary => ({
  id,
  variantOf: null,
  name,
  goal: 'cool',
  equipment: '',
  revision,
  updatedAt,
  stations: [],
  stops: 0,
  fixes: 0,
  waitsFor: '',
  problem,
})

export default route(async (): Promise<JobSummary[]> => {
  const db = await database()
  return Promise.all((await listPlans(db)).map((p) => ('plan' in p ? summaryOf(db, p) : named(p))))
})
