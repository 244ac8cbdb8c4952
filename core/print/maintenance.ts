import { hoursOnOf } from '#core/day'
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

type Task = Omit<MaintenanceTask, 'due'>

/** A spare before the bearing's life is used; null where the sheet states none or it lies beyond ten years. */
function bearingTask(plan: PlanDocument, report: Report): Task | null {
  const hours = hoursOnOf(report.day, plan)
  const seconds = report.selection?.life?.low
  const low = seconds ? seconds / 3600 : null
  if (!low || !(hours > 0)) return null
  const everyDays = Math.max(30, Math.round((LIFE_SHARE * low) / hours))
  if (everyDays > FAR_DAYS) return null
  return {
    key: 'bearing',
    title: 'Listen to the bearing, have a spare ready',
    why:
      `At ${Math.round(hours)} h a day its life of about ${Math.round(low / 100) * 100} h at this ` +
      `temperature is ${Math.round(100 * LIFE_SHARE)} % used.`,
    everyDays,
  }
}

function carbonTask(plan: PlanDocument, report: Report): Task | null {
  const { job } = plan
  const hours = hoursOnOf(report.day, plan)
  if (job.goal !== 'fume' || job.carbonLifeH === null || !(hours > 0)) return null
  return {
    key: 'carbon',
    title: 'Change the carbon',
    why: 'Used carbon lets the fume through without a sign.',
    everyDays: Math.max(1, Math.round((job.carbonLifeH - (job.carbonHours ?? 0)) / hours)),
  }
}

/** What every fan asks for. */
const always = (plan: PlanDocument): Task[] => [
  {
    key: 'tight',
    title: 'Feel for loose screws, warm wires and new noises',
    why: 'Mounts settle and screws work loose in the first days.',
    everyDays: USUAL.checkAfter,
  },
  {
    key: 'blades',
    title: 'Clean blades and guard',
    why: 'Dust on the blades costs flow and makes them hum. Hold the fan still and keep the supply off.',
    everyDays: plan.job.bladesDays ?? USUAL.blades,
  },
]

/** What this plan's filter, outlet and alarm ask for. */
const ofThisPlan = ({ job, path, controls }: PlanDocument): (Task | null)[] => [
  controls.some((c) => c.minDuty !== null || c.startDuty !== null)
    ? {
        key: 'duties',
        title: 'Find the lowest and the start duty again',
        why: 'Dust and old grease ask for more than a new fan needed.',
        everyDays: USUAL.nests,
      }
    : null,
  path.some((e) => e.kind === 'filter')
    ? {
        key: 'filter',
        title: 'Change or wash the filter',
        why: 'A loaded filter costs flow; measure again after the change: it is the same test.',
        everyDays: job.filterDays ?? USUAL.filter,
      }
    : null,
  job.airOutlet === 'outdoors'
    ? {
        key: 'nests',
        title: 'Look for nests and leaves in the outlet',
        why: 'Insects and birds like a warm, dry opening; a flap must still close.',
        everyDays: USUAL.nests,
      }
    : null,
  job.mustNotFail
    ? {
        key: 'alarm',
        title: 'Pull the fan’s plug and see that the alarm comes',
        why: 'An alarm that was never tried is a hope.',
        everyDays: USUAL.bearing,
      }
    : null,
]

/**
 * What to do when, for the plan as it stands.
 * @param from ISO date that is counted from
 */
export function maintenanceTasks(plan: PlanDocument, report: Report, from: string): MaintenanceTask[] {
  return [...always(plan), ...ofThisPlan(plan), bearingTask(plan, report), carbonTask(plan, report)]
    .filter((t) => t !== null)
    .map((t) => ({ ...t, due: dateOf(from, t.everyDays) }))
    .toSorted((a, b) => a.due.localeCompare(b.due))
}
