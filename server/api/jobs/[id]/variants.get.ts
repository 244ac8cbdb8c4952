import type { VariantSummary } from '#shared/api'
import { listVariants } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { reportOf } from '../../../utils/plan-input'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event): Promise<VariantSummary[]> => {
  const db = await database()
  const plans = await listVariants(db, idOf(event))
  return Promise.all(
    plans.map(async ({ plan }) => {
      const result = await reportOf(db, plan)
      const report = result.ok ? result.report : null
      const selection = report?.selection ?? null
      const flow = selection?.served.value ?? null
      const need = report?.need.flow.value ?? null
      return {
        id: plan.job.id,
        name: plan.job.name,
        fan: selection?.fanName ?? '',
        driveV: selection?.candidate.driveV ?? null,
        flow,
        margin: flow !== null && need ? flow / need - 1 : null,
        level: selection?.candidate.level?.value ?? null,
        powerW: selection?.candidate.powerW ?? null,
        cost: selection?.candidate.cost ?? null,
        stops: report?.findings.findings.filter((f) => f.severity === 'stop').length ?? 0,
      }
    }),
  )
})
