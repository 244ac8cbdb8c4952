/** What was built so far: one job half done with evidence, one whose first sitting is held, one finished. All of it is invented. */
import { tickStep } from '#core/build'
import { newBuild, type PlanDocument } from '#core/document'
import { computeReport } from '#core/plan'
import { demoFans } from '../fans'

interface Found {
  who: string
  from: string
  /** what was measured, by the key of its step; SI */
  values: Record<string, number>
  /** steps that were ticked: all up to this one */
  upTo: string
}
const found: Record<string, Found> = {
  'job-recorder-shelf': {
    who: 'Oona',
    from: '2026-11-20T18:00:00.000Z',
    upTo: 'polarity-main',
    values: { 'source-source': 12.04, joined: 0.2, 'no-short': 48_000, 'polarity-main': 11.98 },
  },
  'job-film-cabinet': {
    who: 'Hale',
    from: '2026-05-30T09:00:00.000Z',
    upTo: '',
    values: { 'source-source': 12.1, joined: 0.2, 'no-short': 52_000, warm: 31 },
  },
}
const MINUTE_MS = 60_000

/** A plan with its build, where some of it is done. */
export function withBuild(plan: PlanDocument): PlanDocument {
  const own = found[plan.job.id]
  if (!own) return plan
  plan.build = newBuild('build')
  const made = computeReport({ plan, fans: demoFans, shown: null })
  if (!made.ok) return plan
  const steps = made.report.build.sittings.flatMap((s) => s.steps)
  let at = Date.parse(own.from)
  for (const step of steps) {
    at += step.minutes * MINUTE_MS
    const expected = step.measure ? (own.values[step.key] ?? middle(step.measure.low, step.measure.high)) : null
    const tick = { at: new Date(at).toISOString(), who: own.who, value: expected, note: '', photoId: null }
    const kept = { ...step, apply: undefined }
    if (!step.done) tickStep(plan, kept, tick)
    if (step.key === own.upTo) break
  }
  return plan
}
const middle = (low: number | null, high: number | null) =>
  low === null || high === null ? (high ?? low) : (low + high) / 2
