import { Refused } from '../../../db/errors'
import { getPlan } from '../../../db/repositories/jobs'
import { database } from '../../../utils/store'
import { reportOf } from '../../../utils/plan-input'
import { idOf, route } from '../../../utils/reply'

export default route('inside', async (event) => {
  const db = await database()
  const { plan } = await getPlan(db, idOf(event))
  const result = await reportOf(db, plan)
  if (!result.ok) throw new Refused(result.reason)
  const { need, path, selection, power, verdict, findings, stations, density } = result.report
  return {
    density,
    need: { flow: need.flow, design: need.design, missing: need.missing },
    path: { drop: path.drop, elements: path.elements },
    selection,
    power: power.figures,
    verdict,
    stations,
    findings: findings.findings,
    notChecked: findings.notChecked,
  }
})
