import { demoJobs } from '../demo/jobs'
import { demoFans } from '../demo/fans'
import { computeReport } from '#core/plan'
import { newControlOf, newDay } from '#core/document'
import { compareSchools, quietestCurve, runDay, stepOf, drawnDays } from '#core/day'
const jobs = demoJobs()
for (const name of ['job-battery-locker','job-choir-amplifier','job-kiln-box','job-hydroponic-tank','job-wax-bench']) {
  const plan = jobs.find(j=>j.job.id===name) ?? jobs.find(j=>j.job.id.includes(name.split('-')[1]!))!
  plan.controls=[{...newControlOf('c1','thermostat'), onC: 32, offC: 27, actuator:'relay'}]
  plan.day={...newDay('d')}
  const input={plan,fans:demoFans,shown:null}
  let t=performance.now(); let r=computeReport(input); const t1=performance.now()-t
  t=performance.now(); r=computeReport(input); const t2=performance.now()-t
  plan.controls=[]; plan.day=null; for(let q=0;q<5;q++)computeReport(input); t=performance.now(); computeReport(input); const t3=performance.now()-t
  if(!r.ok){console.log(name,r.reason);continue}
  const d=r.report.day
  console.log(plan.job.id, plan.job.goal, t1.toFixed(0),t2.toFixed(0),t3.toFixed(0), d && stepOf(d.model), d?.model.parts.map(p=>[p.name,p.capacityJK,p.movedWK,p.stillWK,p.limitC,p.assumed.join('/')]), d?.hot.peakC, d?.usual.groups, d?.usual.leqDbA)
}
