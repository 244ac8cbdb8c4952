import ical, { ICalEventRepeatingFreq } from 'ical-generator'
import { setResponseHeader } from 'h3'
import { careStart, careTasks, type CareTask } from '#core/care'
import { seenFrom } from '#core/document'
import { Refused } from '../../../db/errors'
import { getPlan } from '../../../db/repositories/jobs'
import { reportOf } from '../../../utils/plan-input'
import { database } from '../../../utils/store'
import { idOf, route } from '../../../utils/reply'

/** How often it comes again: every so many days, or with the seasons, which are evenly spread over the year. */
function repeating({ everyDays, seasons }: CareTask) {
  if (seasons.length)
    return { repeating: { freq: ICalEventRepeatingFreq.MONTHLY, interval: 12 / seasons.length } }
  return everyDays === null ? {} : { repeating: { freq: ICalEventRepeatingFreq.DAILY, interval: everyDays } }
}

/** The care reminders as a calendar file, whole days, repeating. */
export default route('inside', async (event) => {
  const db = await database()
  const { plan } = await getPlan(db, idOf(event))
  const result = await reportOf(db, plan)
  if (!result.ok) throw new Refused(result.reason)
  const calendar = ical({
    name: `${plan.job.name}, care`,
    prodId: { company: 'Redpoll', product: 'care', language: 'EN' },
  })
  const seen = seenFrom(plan)
  const start = careStart(seen, new Date().toISOString().slice(0, 10))
  for (const task of careTasks(seen, result.report, start)) {
    if (task.due === null) continue
    calendar.createEvent({
      id: `${plan.job.id}-${task.key}@redpoll`,
      start: new Date(task.due),
      allDay: true,
      summary: `${plan.job.name}: ${task.title}`,
      description: `${task.how} ${task.why}.`,
      ...repeating(task),
    })
  }
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setResponseHeader(event, 'content-disposition', `attachment; filename="care-${plan.job.id}.ics"`)
  return calendar.toString()
})
