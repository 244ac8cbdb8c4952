import { computeReport } from '#core/plan'
import type { JobSummary } from '#shared/api'
import { listPlans } from '../../db/repositories/jobs'
import { database } from '../../utils/store'
import { planInput } from '../../utils/plan-input'
import { route } from '../../utils/reply'

/** Which station a job waits for: the first that stops it, then the first to mend, then the first not begun. */
function waitsFor(stations: JobSummary['stations']): string {
  const first = (state: string) => stations.find((s) => s.state === state)
  return (first('stop') ?? first('fix') ?? first('not-begun'))?.title ?? ''
}

export default route(async (): Promise<JobSummary[]> => {
  const db = await database()
  const plans = await listPlans(db)
  return Promise.all(
    plans.map(async ({ plan, revision, updatedAt }) => {
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
      }
    }),
  )
})
