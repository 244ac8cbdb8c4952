import { describe, expect, test } from 'vitest'
import { hasRemedies, remediesOf } from '#core/advice'
import { computeReport } from '#core/plan'
import { findingMessage, withAlso } from '#core/rules'
import cases from './rules.json'
import { casePlan, raised, type Changes } from './casebook'

/** What is offered against a finding takes it away, on the casebook's own plans. */

const book = cases as unknown as { rule: string; as?: string; given?: Changes; fires: Changes }[]
const offered = book.filter((c) => hasRemedies(c.rule) && !c.as)

const reportOf = (input: ReturnType<typeof casePlan>) => {
  const result = computeReport(input)
  if (!result.ok) throw new Error(result.reason)
  return result.report
}

test.each(offered.map((c) => [c.rule, c] as const))('%s', (rule, { given, fires }) => {
  const input = casePlan(given, fires)
  const report = reportOf(input)
  const finding = withAlso(report.findings.findings).find((f) => f.id === rule)!
  for (const remedy of remediesOf(input, report, finding)) {
    const after = reportOf({ ...input, plan: remedy.plan })
    const left = withAlso(after.findings.findings).filter((f) => f.subject?.id === finding.subject?.id)
    expect(
      left.map((f) => f.id),
      remedy.label,
    ).not.toContain(rule)
  }
})

describe('the usual ones are found', () => {
  const labels = (rule: string) => {
    const { given, fires } = offered.find((c) => c.rule === rule)!
    const input = casePlan(given, fires)
    const report = reportOf(input)
    const finding = withAlso(report.findings.findings).find((f) => f.id === rule)!
    return remediesOf(input, report, finding).map((r) => r.label)
  }
  test.each([
    ['power-direct-too-high', 'a step-down converter set to 12 V'],
    ['power-usb-12v-fan', 'a step-up converter set to 12 V'],
    ['wire-drop', /^a wire of AWG/],
    ['wire-fuse-too-big', /^a fuse of/],
    ['power-resistor-burns', /^one rated for/],
    ['own-hub-unfed', /for the hub; the header only steers$/],
    ['air-duct-slack', /stretched$/],
    ['need-flow-short', /./],
    ['air-outlet-small', /./],
  ])('%s', (rule, label) => {
    const found = labels(rule)
    expect(found.length).toBeGreaterThan(0)
    expect(
      found.some((l) => (typeof label === 'string' ? l === label : label.test(l))),
      found.join(),
    ).toBe(true)
  })
})

test('what is not told leads to its field', () => {
  const { findings } = reportOf(casePlan({ 'job.mains': null, 'place.inletClearM': null }))
  const of = (name: string) => findings.open.find((o) => o.name === name)!
  expect(of('safety.mainsExposed')).toMatchObject({
    severity: 'stop',
    at: { station: 'brief', field: 'mains' },
  })
  expect(of('air.inletClear')).toMatchObject({ at: { station: 'brief', field: 'inletClearM' } })
  // stops first
  expect(findings.open[0]!.severity).toBe('stop')
})

test('numbers are told in the person’s units', () => {
  const report = reportOf(
    casePlan({
      before: { readings: { flow: 0.01 } },
      after: { readings: { flow: 0.0102 } },
    }),
  )
  expect(raised(report)).toContain('meas-not-shown')
  const finding = withAlso(report.findings.findings).find((f) => f.id === 'meas-not-shown')!
  expect(findingMessage(finding)).toMatch(/^Difference within ±[\d.]+\sm³\/h/)
  expect(findingMessage(finding, { flow: 'CFM' })).toMatch(/CFM/)
})
