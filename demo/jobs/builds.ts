/** What was built so far: one job half done with evidence, one whose first sitting is held, one finished. All of it is invented. */
import { tickStep } from '#core/build'
import { settingsOf } from '#core/care'
import { newBuild, newEvent, type LogEvent, type StreamPlan } from '#core/document'
import { computeReport } from '#core/plan'
import { demoFans } from '../fans'

interface Found {
  who: string
  from: string
  /** what was measured, by the key of its step; SI */
  values: Record<string, number>
  /** what was noted, by the key of its step */
  notes?: Record<string, string>
  /** what happened afterwards */
  book?: (Partial<LogEvent> & Pick<LogEvent, 'at' | 'what'>)[]
  /** steps that were ticked: all up to this one */
  upTo: string
}
const found: Record<string, Found> = {
  'job-recorder-shelf': {
    who: 'Oona',
    from: '2026-11-20T18:00:00.000Z',
    upTo: 'polarity-main',
    values: { 'source-source': 12.04, joined: 0.2, 'no-short': 48_000, 'polarity-main': 11.98 },
    notes: {
      'as-found': 'Four screws of the plinth in the bag “shelf”.',
      'mount-main': 'Left upper screw took a longer washer.',
    },
  },
  'job-film-cabinet': {
    who: 'Hale',
    from: '2026-09-19T09:00:00.000Z',
    upTo: '',
    values: { 'source-source': 12.1, joined: 0.2, 'no-short': 52_000, warm: 31 },
    book: [
      { at: '2026-09-20T17:30:00.000Z', kind: 'setting', what: 'Settings as built' },
      {
        at: '2026-09-27T08:10:00.000Z',
        kind: 'care',
        careKey: 'tight',
        what: 'Screws, ties and plugs felt: all firm',
      },
      {
        at: '2026-10-11T19:40:00.000Z',
        kind: 'fault',
        what: 'Whistled at the door',
        before: 'tone goes with the speed',
        after: 'gone',
        notes: 'The gasket had slipped before the lower fan.',
      },
      {
        at: '2026-10-20T09:00:00.000Z',
        kind: 'care',
        careKey: 'filter',
        what: 'Filter vacuumed',
        before: '31 m³/h at the grille',
        after: '34 m³/h',
      },
      { at: '2026-10-20T09:20:00.000Z', kind: 'care', careKey: 'bearing', what: 'Listened to both: no chirp' },
      {
        at: '2026-11-19T09:00:00.000Z',
        kind: 'care',
        careKey: 'filter',
        what: 'Filter vacuumed, washed and dried',
      },
      { at: '2026-11-19T09:30:00.000Z', kind: 'care', careKey: 'bearing', what: 'Listened to both: no chirp' },
    ],
  },
}
const MINUTE_MS = 60_000

/** A plan with its build, where some of it is done. */
export function withBuild(plan: StreamPlan): StreamPlan {
  const own = found[plan.job.id]
  if (!own) return plan
  plan.build = newBuild('build')
  const made = computeReport({ plan, fans: demoFans, shown: null })
  if (!made.ok) return plan
  const steps = made.report.build.sittings.flatMap((s) => s.steps)
  let at = Date.parse(own.from)
  for (const step of steps) {
    at += step.minutes * MINUTE_MS
    const expected = step.look
      ? 0
      : step.measure
        ? (own.values[step.key] ?? middle(step.measure.low, step.measure.high))
        : null
    const tick = {
      at: new Date(at).toISOString(),
      who: own.who,
      value: expected,
      note: own.notes?.[step.key] ?? '',
      photoId: null,
    }
    const kept = { ...step, apply: undefined }
    if (!step.done) tickStep(plan, kept, tick)
    if (step.key === own.upTo) break
  }
  const settings = settingsOf(plan, made.report).join('\n')
  plan.logbook = (own.book ?? []).map((e, i) => ({
    ...newEvent(`line-${i + 1}`, e.at, e.what),
    who: own.who,
    ...(e.kind === 'setting' ? { settings } : {}),
    ...e,
  }))
  return plan
}
const middle = (low: number | null, high: number | null) =>
  low === null || high === null ? (high ?? low) : (low + high) / 2
