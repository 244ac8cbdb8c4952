import { hoursOnOf } from '#core/day'
import { type PathElement, type StreamPlan, placesInUse } from '#core/document'
import type { Report } from '#core/plan'
import { insideLimit } from '#core/requirement'

/**
 * Care: what keeps the result, each task with how long it may wait here. Usual intervals and how to do it: handbook build
 * 5; how dust, hours and warmth change them is common practice, no source.
 */

/** Dates in the year, as month and day. */
type Season = readonly [month: number, day: number]
export interface CareTask {
  key: string
  title: string
  how: string
  /** where its interval comes from; a working that adds up to it */
  why: string
  /** days between; null: it is done once, or by the season */
  everyDays: number | null
  /** by the season: in these months every year */
  seasons: readonly Season[]
  /** ISO date it is due next; null: it was done, and does not come again */
  due: string | null
  /** ISO date it was last done; null: never */
  last: string | null
}

const DAY_MS = 86400_000
/** Usual intervals, days. Handbook build 5. */
const USUAL = {
  grille: 30,
  fine: 365,
  blades: 180,
  checkAfter: 7,
  bearing: 30,
  seals: 365,
  wiring: 365,
  battery: 90,
  alarm: 180,
  duties: 365,
  month: 30,
} as const
/** Spring and autumn of a northern year; nests are also looked for in the other half's. A choice of ours. */
const SEASONS: readonly Season[] = [
  [4, 1],
  [10, 1],
]
/** The usual intervals are those of fans that run so long a day. A choice of ours: the handbook names none. */
const USUAL_HOURS = 12
/** Hours a day change an interval at most by this factor: dust settles on a fan at rest as well. A choice of ours. */
const HOURS_MOST = 2
/** Share of the usual interval. Handbook build 5: a month, or one to two weeks; blades half a year, or a year. */
export const DUST_SHARE = { clean: 2, usual: 1, dusty: 0.4 } as const
const FAR_DAYS = 3653
/** A bearing is looked at when this share of its life is used. A choice of ours: L10 is when one in ten has failed. */
const LIFE_SHARE = 0.8
/** Rubber ages twice as fast for each 10 K above this, degC. Common practice, no source. */
const SEAL = {
  cool: 40,
  doubling: 10,
  leastDays: 60,
  words: 'rubber ages twice as fast for each 10 K above 40 °C',
} as const

const dateOf = (from: string, days: number) =>
  new Date(Date.parse(from) + days * DAY_MS).toISOString().slice(0, 10)
const rounded = (days: number) => Math.max(1, days < 14 ? Math.round(days) : Number(days.toPrecision(2)))
/** A factor as it is said: two digits, so that the interval follows from what is read. */
const factorOf = (x: number) => Number(x.toPrecision(2))

type Task = Omit<CareTask, 'due' | 'last' | 'seasons'> & { seasons?: readonly Season[] }

/** How dusty the air is: as told, else from where it is drawn in, else as in a room that is lived in. */
export function dustOf({ job }: StreamPlan): { key: keyof typeof DUST_SHARE; words: string } {
  if (job.airDust !== null)
    return {
      key: job.airDust,
      words: { clean: 'in clean air', usual: 'in the air of a room', dusty: 'in dusty air' }[job.airDust],
    }
  if (job.intakeHeightM !== null && job.intakeHeightM < 0.3)
    return { key: 'dusty', words: 'with its intake near the floor' }
  return { key: 'usual', words: 'in the air of a room (assumed: nobody said)' }
}

/** An interval that dust and hours shorten or lengthen, with its working. */
function worn(plan: StreamPlan, report: Report, usual: number): Pick<Task, 'everyDays' | 'why'> {
  const { key, words } = dustOf(plan)
  const hours = hoursOnOf(report.day, plan)
  const dust = DUST_SHARE[key]
  const byHours = factorOf(Math.min(HOURS_MOST, Math.max(1 / HOURS_MOST, USUAL_HOURS / Math.max(hours, 0.01))))
  return {
    everyDays: dust * byHours === 1 ? usual : rounded(usual * dust * byHours),
    why: [
      `Usually ${usual} days`,
      dust === 1 ? words : `× ${dust} ${words}`,
      byHours === 1 ? '' : `× ${byHours} at ${Number(hours.toPrecision(2))} h a day`,
    ]
      .filter(Boolean)
      .join(', '),
  }
}
const own = (days: number): Pick<Task, 'everyDays' | 'why'> => ({
  everyDays: days,
  why: `Every ${days} days, as you chose`,
})

/** A spare before the bearing's life is used; null where the sheet states none or it lies beyond ten years. */
function spareTask(plan: StreamPlan, report: Report): Task | null {
  const hours = hoursOnOf(report.day, plan)
  const seconds = report.selection?.life?.low
  const low = seconds ? seconds / 3600 : null
  if (!low || !(hours > 0)) return null
  const everyDays = Math.max(USUAL.month, Math.round((LIFE_SHARE * low) / hours))
  if (everyDays > FAR_DAYS) return null
  return {
    key: 'spare',
    title: 'Have a spare fan ready',
    how: 'One of the same kind in the drawer; change it when it chirps, rattles or starts late. Oil is a stop-gap.',
    why:
      `At ${Number(hours.toPrecision(2))} h a day its life of about ${Math.round(low / 100) * 100} h at this ` +
      `temperature is ${Math.round(100 * LIFE_SHARE)} % used`,
    everyDays,
  }
}

function carbonTask(plan: StreamPlan, report: Report): Task | null {
  const { goal, carbonLifeH, carbonHours } = plan.job
  const hours = hoursOnOf(report.day, plan)
  if (goal !== 'fume' || carbonLifeH === null || !(hours > 0)) return null
  const used = carbonHours ? ` less ${carbonHours} h used` : ''
  return {
    key: 'carbon',
    title: 'Change the carbon',
    how: 'Replace it; it cannot be washed. Used carbon lets the fume through without a sign.',
    why: `${carbonLifeH} h of life${used} at ${Number(hours.toPrecision(2))} h a day`,
    everyDays: Math.max(1, Math.round((carbonLifeH - (carbonHours ?? 0)) / hours)),
  }
}

const isFine = ({ medium }: PathElement) => medium === 'fine' || medium === 'hepa'

/** What every fan asks for. */
const always = (plan: StreamPlan, report: Report): Task[] => [
  {
    key: 'tight',
    title: 'Feel for loose screws, warm wires and new noises',
    how: 'Screws, ties, plugs, vibration, the colour of the filter; a line in the log book.',
    why: 'Mounts settle and screws work loose in the first days',
    everyDays: null,
  },
  {
    key: 'blades',
    title: 'Clean blades and guard',
    how:
      'Supply off, hold the rotor still, soft brush, air in short bursts from 20 cm: spun by compressed air it overspeeds ' +
      'its bearing and makes a voltage. Then feel whether it still runs smoothly.',
    ...(plan.job.bladesDays !== null ? own(plan.job.bladesDays) : worn(plan, report, USUAL.blades)),
  },
  {
    key: 'bearing',
    title: 'Listen to the bearing',
    how: 'A dry chirp at the start, a rattle that changes with the position, a short run-down: a spare is due.',
    why: 'Monthly',
    everyDays: USUAL.bearing,
  },
  {
    key: 'drift',
    title: 'Measure again, the same way',
    how: 'Same places, same load, same voltage as right after the build: speed, current, warmth, level. Log shows what drifted.',
    why: 'Once after a month, then yearly',
    everyDays: 365,
  },
  {
    key: 'wiring',
    title: 'Look at plugs, screws and wires',
    how: 'Discoloured plugs, loose screws, corroded terminals; power off first.',
    why: 'Yearly',
    everyDays: USUAL.wiring,
  },
]

function intakeTask(plan: StreamPlan, report: Report): Task | null {
  const filters = plan.path.filter((e) => e.kind === 'filter')
  if (filters.some(isFine))
    return {
      key: 'filter',
      title: 'Change the fine filter',
      how: 'Replace it when flow falls 15 % or its pressure doubles, at latest then; measure again after: it is the same test.',
      ...(plan.job.filterDays !== null ? own(plan.job.filterDays) : worn(plan, report, USUAL.fine)),
    }
  const filtered = filters.length > 0
  const grilled = plan.path.some((e) => e.kind === 'grille')
  if (!filtered && !grilled && placesInUse(plan).every((p) => p.fit?.filterMedium == null)) return null
  return {
    key: 'filter',
    title: filtered ? 'Clean the filter' : 'Clean the intake grille',
    how: 'Vacuum it; wash foam and let it dry fully. A loaded filter costs flow.',
    ...(plan.job.filterDays !== null ? own(plan.job.filterDays) : worn(plan, report, USUAL.grille)),
  }
}

function sealTask(plan: StreamPlan): Task | null {
  const { path, job } = plan
  if (placesInUse(plan).every((p) => p.fit?.gasketM == null) && !path.some((e) => e.kind === 'duct'))
    return null
  const hot = insideLimit(plan) ?? job.ambientMaxC ?? job.ambientC
  const factor = factorOf(2 ** (-Math.max(0, hot - SEAL.cool) / SEAL.doubling))
  const warm = factor < 1
  return {
    key: 'seals',
    title: 'Look at seals and hoses',
    how: 'Cracks, kinks, the condensate drain.',
    why: warm ? `Usually ${USUAL.seals} days, × ${factor} at ${Math.round(hot)} °C: ${SEAL.words}` : 'Yearly',
    everyDays: warm ? Math.max(SEAL.leastDays, rounded(USUAL.seals * factor)) : USUAL.seals,
  }
}

/** What this plan's outlet, battery, control and alarm ask for. */
const ofThisPlan = (plan: StreamPlan): (Task | null)[] => {
  const { job, controls, battery } = plan
  return [
    controls.some((c) => c.minDuty !== null || c.startDuty !== null)
      ? {
          key: 'duties',
          title: 'Find the lowest and the start duty again',
          how: 'As on the page Control: down until it stops, up until it starts.',
          why: 'Dust and old grease ask for more than a new fan needed',
          everyDays: USUAL.duties,
        }
      : null,
    job.airOutlet === 'outdoors'
      ? {
          key: 'nests',
          title: 'Look for nests, leaves and stuck flaps in the opening outdoors',
          how: 'Spiders, wasps and birds like a warm, dry opening; mesh of 3 to 6 mm keeps wasps out, finer mesh clogs.',
          why: 'Every spring and autumn',
          everyDays: null,
          seasons: SEASONS,
        }
      : null,
    battery
      ? {
          key: 'battery',
          title: 'Charge and look at the battery',
          how:
            battery.chemistry === 'lead-acid'
              ? 'Full and topped up; clean terminals. Idle for longer: still full.'
              : 'Puffed or warm cells go out of use. Idle for longer: 40 to 60 % full.',
          why: 'Every three months of rest',
          everyDays: USUAL.battery,
        }
      : null,
    job.mustNotFail
      ? {
          key: 'alarm',
          title: 'Pull the fan’s plug and see that the alarm comes',
          how: 'And that the heat goes off, where it must.',
          why: 'An alarm that was never tried is a hope',
          everyDays: USUAL.alarm,
        }
      : null,
  ]
}

/** The next date of a season after a day. */
function nextSeason(after: string, seasons: readonly Season[]): string {
  const year = Number(after.slice(0, 4))
  const dates = [year, year + 1].flatMap((y) =>
    seasons.map(([m, d]) => `${y}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`),
  )
  return dates.toSorted().find((d) => d > after)!
}

/** When a task is due, counted from when it was last done, or from the start. */
function dueOf(task: Task, last: string | null, from: string, next: string | null): string | null {
  if (last !== null && next !== null) return next
  if (task.key === 'tight') return last === null ? dateOf(from, USUAL.checkAfter) : null
  if (task.key === 'drift' && last === null) return dateOf(from, USUAL.month)
  if (task.seasons?.length) return nextSeason(last ?? from, task.seasons)
  return dateOf(last ?? from, task.everyDays!)
}

/** From when care is counted: as it was told, else from the last step that was ticked, else from a day. */
export function careStart({ job, build }: StreamPlan, today: string): string {
  const ticked = build?.ticks.map((t) => t.at.slice(0, 10)).toSorted()
  return job.maintenanceFrom ?? ticked?.at(-1) ?? today
}

/**
 * What to do when, for the plan as it stands, the next one first; what was done stands in the log book.
 * @param from ISO date that is counted from
 */
export function careTasks(plan: StreamPlan, report: Report, from: string): CareTask[] {
  const tasks = [
    ...always(plan, report),
    intakeTask(plan, report),
    sealTask(plan),
    ...ofThisPlan(plan),
    spareTask(plan, report),
    carbonTask(plan, report),
  ]
  return tasks
    .filter((t) => t !== null)
    .map((t): CareTask => {
      const line = plan.logbook
        .filter((e) => e.careKey === t.key)
        .toSorted((a, b) => a.at.localeCompare(b.at))
        .at(-1)
      const last = line?.at.slice(0, 10) ?? null
      return { seasons: [], ...t, last, due: dueOf(t, last, from, line?.nextDue ?? null) }
    })
    .toSorted((a, b) => (a.due ?? '9').localeCompare(b.due ?? '9'))
}
