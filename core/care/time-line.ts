import { eventNames, readingNames, type StreamPlan } from '#core/document'
import type { Report } from '#core/plan'
import { printQuantity, type UnitPreferences } from '#core/units'

/** The log book: all that happened to a job on one line of time, the latest first. Handbook build 7. */

export interface TimeEntry {
  id: string
  at: string
  who: string
  /** what kind of thing it is, in a word or two */
  kind: string
  what: string
  detail: string
  /** where it can be changed */
  from: 'run' | 'build' | 'book'
  photoId: string | null
}

const runWords = { baseline: 'Baseline', after: 'Run after a change', bench: 'Bench test' } as const
const MOST_READINGS = 4

function runEntries({ runs }: StreamPlan, units: UnitPreferences): TimeEntry[] {
  return runs.map((r) => {
    const values = r.readings
      .slice(0, MOST_READINGS)
      .map(
        (x) =>
          `${[readingNames[x.quantity], x.place].filter(Boolean).join(' ')} ${printQuantity(x.value, x.quantity, units)}`,
      )
    const more = r.readings.length - values.length
    return {
      id: `run-${r.id}`,
      at: r.takenAt,
      who: r.who,
      kind: runWords[r.kind],
      what: r.name,
      detail: [...values, more > 0 ? `and ${more} more` : '', r.notes].filter(Boolean).join('; '),
      from: 'run',
      photoId: r.photoId,
    }
  })
}

function buildEntries({ build }: StreamPlan, report: Report, units: UnitPreferences): TimeEntry[] {
  const steps = report.build.sittings.flatMap((s) => s.steps)
  const ticks = (build?.ticks ?? []).map((t): TimeEntry => {
    const step = steps.find((s) => s.key === t.id)
    const value = step?.look
      ? step.look.right
      : t.value === null || !step?.measure
        ? ''
        : printQuantity(t.value, step.measure.quantity, units)
    return {
      id: `tick-${t.id}`,
      at: t.at,
      who: t.who,
      kind: 'Build',
      what: step?.title ?? t.seen.split(':')[0]!,
      detail: [value, t.note].filter(Boolean).join('; '),
      from: 'build',
      photoId: t.photoId,
    }
  })
  const releases = (build?.releases ?? []).map((r): TimeEntry => ({
    id: `release-${r.id}`,
    at: r.at,
    who: r.who,
    kind: 'Caution answered for',
    what: report.build.sittings.flatMap((s) => s.cautions).find((c) => c.id === r.id)?.say ?? r.id,
    detail: r.reason,
    from: 'build',
    photoId: null,
  }))
  return [...ticks, ...releases]
}

const bookEntries = ({ logbook }: StreamPlan): TimeEntry[] =>
  logbook.map((e) => ({
    id: e.id,
    at: e.at,
    who: e.who,
    kind: eventNames[e.kind],
    what: e.what,
    detail: [
      e.before && `before ${e.before}`,
      e.after && `after ${e.after}`,
      e.parts && `parts ${e.parts}`,
      e.notes,
      e.nextDue && `next ${e.nextDue}`,
    ]
      .filter(Boolean)
      .join('; '),
    from: 'book',
    photoId: null,
  }))

/** @param units the person's own */
export const timeLine = (plan: StreamPlan, report: Report, units: UnitPreferences): TimeEntry[] =>
  [...runEntries(plan, units), ...buildEntries(plan, report, units), ...bookEntries(plan)].toSorted((a, b) =>
    b.at.localeCompare(a.at),
  )

/** What a log book must have at least, and what is missing. Handbook build 7. */
export function missingEntries(plan: StreamPlan): string[] {
  const ticked = (key: RegExp) => plan.build?.ticks.some((t) => key.test(t.id)) ?? false
  const begun = (plan.build?.ticks.length ?? 0) > 0
  return [
    plan.runs.some((r) => r.kind === 'baseline') ? '' : 'a baseline',
    begun && !ticked(/^(warm|later-)/) ? 'the check after the first hour' : '',
    begun && !plan.runs.some((r) => r.kind === 'after') ? 'a run after the change' : '',
  ].filter(Boolean)
}
