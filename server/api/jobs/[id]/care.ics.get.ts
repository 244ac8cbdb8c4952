import ical, { ICalEventRepeatingFreq } from 'ical-generator'
import { setResponseHeader } from 'h3'
import { maintenanceTasks } from '#core/print'
import { computeReport } from '#core/plan'
import { Refused } from '../../../db/errors'
import { getPlan } from '../../../db/repositories/jobs'
import { planInput } from '../../../utils/plan-input'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

/** The care reminders as a calendar file, whole days, repeating. */
export default route(async (event) => {
  const db = await database()
  const { plan } = await getPlan(db, idOf(event))
  const result = computeReport(await planInput(db, plan))
  if (!result.ok) throw new Refused(result.reason)
  const calendar = ical({
    name: `${plan.job.name}, care`,
    prodId: { company: 'Redpoll', product: 'care', language: 'EN' },
  })
  for (const task of maintenanceTasks(
    plan,
    result.report,
    plan.job.maintenanceFrom ?? new Date().toISOString().slice(0, 10),
  )) {
    calendar.createEvent({
      id: `${plan.job.id}-${task.key}@redpoll`,
      start: new Date(task.due),
      allDay: true,
      summary: `${plan.job.name}: ${task.title}`,
      description: task.why,
      ...(task.key === 'tight'
        ? {}
        : { repeating: { freq: ICalEventRepeatingFreq.DAILY, interval: task.everyDays } }),
    })
  }
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="care-${plan.job.id}.ics"`)
  return calendar.toString()
})
