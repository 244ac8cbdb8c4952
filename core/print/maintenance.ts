import type { PlanDocument } from '#core/document'
import type { Report } from '#core/plan'

/** Reminders: what keeps the result. Intervals are common practice (docs/physics.md, care), no source. */

export interface MaintenanceTask {
  key: string
  title: string
  why: string
  /** days between, from `careFrom` */ everyDays: number
  /** ISO date it is due first */ due: string
}

const DAY_MS = 86400_000
/** Usual intervals, days. */
const USUAL = { blades: 180, filter: 90, checkAfter: 7, nests: 365, bearing: 180 } as const
const FAR_DAYS = 3653
/** A bearing is looked at when this share of its life is used. A choice of ours: L10 is when one in ten has failed. */
const LIFE_SHARE = 0.8

const dateOf = (from: string, days: number) =>
  new Date(Date.parse(from) + days * DAY_MS).toISOString().slice(0, 10)

/**
 * What to do when, for the plan as it stands.
 * @param from ISO date that is counted from
 */
export function maintenanceTasks(plan: PlanDocument, report: Report, from: string): MaintenanceTask[] {
  const { job } = plan
  const task = (key: string, title: string, why: string, everyDays: number): MaintenanceTask => ({
    key,
    title,
    why,
    everyDays,
    due: dateOf(from, everyDays),
  })
  const tasks = [
    task(
      'tight',
      'Feel for loose screws, warm wires and new noises',
      'Mounts settle and screws work loose in the first days.',
      USUAL.checkAfter,
    ),
    task(
      'blades',
      'Clean blades and guard',
      'Dust on the blades costs flow and makes them hum. Hold the fan still and keep the supply off.',
      job.bladesDays ?? USUAL.blades,
    ),
  ]
  if (plan.path.some((e) => e.kind === 'filter'))
    tasks.push(
      task(
        'filter',
        'Change or wash the filter',
        'A loaded filter costs flow; measure again after the change: it is the same test.',
        job.filterDays ?? USUAL.filter,
      ),
    )
  if (job.airOutlet === 'outdoors')
    tasks.push(
      task(
        'nests',
        'Look for nests and leaves in the outlet',
        'Insects and birds like a warm, dry opening; a flap must still close.',
        USUAL.nests,
      ),
    )
  const life = report.selection?.life
  const days =
    life?.low && job.hoursPerDay > 0
      ? Math.max(30, Math.round((LIFE_SHARE * life.low) / job.hoursPerDay))
      : null
  // what lies beyond ten years is no reminder
  if (life?.low && days !== null && days <= FAR_DAYS) {
    tasks.push(
      task(
        'bearing',
        'Listen to the bearing, have a spare ready',
        `At ${Math.round(job.hoursPerDay)} h a day its life of about ${Math.round(life.low / 100) * 100} ` +
          `h at this temperature is ${Math.round(100 * LIFE_SHARE)} % used.`,
        days,
      ),
    )
  }
  if (job.goal === 'fume' && job.carbonLifeH !== null && job.hoursPerDay > 0)
    tasks.push(
      task(
        'carbon',
        'Change the carbon',
        'Used carbon lets the fume through without a sign.',
        Math.max(1, Math.round((job.carbonLifeH - (job.carbonHours ?? 0)) / job.hoursPerDay)),
      ),
    )
  if (job.mustNotFail)
    tasks.push(
      task(
        'alarm',
        'Pull the fan’s plug and see that the alarm comes',
        'An alarm that was never tried is a hope.',
        USUAL.bearing,
      ),
    )
  return tasks.toSorted((a, b) => a.due.localeCompare(b.due))
}
