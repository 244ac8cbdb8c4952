import { describe, expect, test } from 'vitest'
import { judge, tickStep, type BuiltStep } from '#core/build'
import { newBuild, type StreamPlan } from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { printQuantity } from '#core/units'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'

/** The build of every demo job: its steps' numbers are the plan's figures, and a build that goes well stays ticked. */

function reportOf(plan: StreamPlan): Report {
  const made = computeReport({ plan, fans: demoFans, shown: null })
  if (!made.ok) throw new Error(made.reason)
  return made.report
}
const stepsOf = (report: Report) => report.build.sittings.flatMap((s) => s.steps)
const inRange = ({ low, high }: NonNullable<BuiltStep['measure']>) =>
  low === null || high === null ? (high ?? low)! : (low + high) / 2
const jobs = demoPlans().map((plan) => [plan.job.id, plan] as const)

/** Every voltage, current, length and temperature that a report prints, as a person reads them. */
function figuresOf(plan: StreamPlan, report: Report): Set<string> {
  const numbers = new Set<string>()
  const add = (x: unknown): void => {
    if (typeof x === 'number' && Number.isFinite(x))
      for (const q of ['voltage', 'current', 'length', 'distance', 'temperature'] as const) {
        numbers.add(printQuantity(x, q))
        // limits that the handbook takes from a figure: 30 % of a current, 2 or 5 % of a voltage
        for (const share of [0.7, 1.3, 0.98, 1.02, 0.95, 1.05]) numbers.add(printQuantity(share * x, q))
      }
    else if (x && typeof x === 'object' && !ArrayBuffer.isView(x)) Object.values(x).forEach(add)
  }
  const { build: _, findings: __, ribbon: ___, ...rest } = report
  add(rest)
  add(plan)
  // of the handbook: dead below 1 V, nothing to touch above 60 degC
  return numbers.add(printQuantity(1, 'voltage')).add(printQuantity(60, 'temperature'))
}

describe.each(jobs)('%s', (_, plan) => {
  test('every number of a step is a figure of the plan', () => {
    const report = reportOf(plan)
    const figures = figuresOf(plan, report)
    const strange = stepsOf(report).flatMap((s) =>
      s.text.flatMap((part) => {
        if (typeof part === 'string' || part.value === null) return []
        const shown = printQuantity(part.value, part.quantity)
        // the first middle is counted from the edge, half a panel further
        return figures.has(shown) || /left edge/.test(s.text.join('')) ? [] : [`${s.key}: ${shown}`]
      }),
    )
    expect(strange).toEqual([])
  })
  test('what measures a value accepts what the plan expects, and its steps have keys of their own', () => {
    const steps = stepsOf(reportOf(plan))
    expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length)
    for (const s of steps) if (s.measure) expect(judge(s.measure, inRange(s.measure)).ok, s.key).toBe(true)
  })
  test('ticked in order with what was expected, nothing is asked for again', () => {
    const own = structuredClone(plan)
    own.build = newBuild('build')
    own.build.releases = reportOf(own).build.sittings.flatMap((s) =>
      s.cautions.map((c) => ({ id: c.id, at: '2026-01-01T10:00:00Z', who: 'Test', reason: 'Test' })),
    )
    const keys = stepsOf(reportOf(own)).map((s) => s.key)
    for (const key of keys) {
      const step = stepsOf(reportOf(own)).find((s) => s.key === key)
      if (!step || step.done) continue
      const value = step.measure ? inRange(step.measure) : null
      tickStep(own, step, { at: '2026-01-01T10:00:00Z', who: 'Test', value, note: '', photoId: null })
    }
    const after = stepsOf(reportOf(own))
    expect(after.filter((s) => s.state === 'again').map((s) => s.key)).toEqual([])
    expect(after.filter((s) => s.state === 'open').map((s) => s.key)).toEqual([])
    const found = reportOf(own).findings.findings.map((f) => f.id)
    const before = reportOf(plan).findings.findings.map((f) => f.id)
    // what a build that went well writes down gives no new reason to stop
    expect(
      reportOf(own)
        .findings.findings.filter((f) => f.severity === 'stop' && !before.includes(f.id))
        .map((f) => f.id),
    ).toEqual([])
    expect(found).not.toContain('wire-polarity-unchecked')
  })
})
