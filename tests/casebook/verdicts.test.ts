import { describe, expect, test } from 'vitest'
import { predictionsOf, worseOf } from '#core/advice'
import book from './verdicts.json'
import { caseReport, type Changes } from './casebook'

/** Pairs of runs with the verdict, comparison and lesson that a careful practitioner would give; verdicts.json is to be read. */

interface VerdictCase {
  as: string
  given?: Changes
  target?: Record<string, unknown>
  before?: unknown
  after: unknown
  verdict?: string
  /** a "met" that only looks so, because its conditions were not noted */
  looks?: boolean
  compares?: Record<string, { shown?: boolean; refused?: string; change?: number | null }>
  /** places that got worse */
  worse?: string[]
  /** by the prediction's name: words of its lesson; null: nothing is held against it */
  lessons?: Record<string, string | null>
}
const cases = book as unknown as VerdictCase[]

describe.each(cases.map((c) => [c.as, c] as const))('%s', (_, c) => {
  const report = caseReport(
    c.given,
    c.target ? { targets: [c.target] } : {},
    c.before ? { before: c.before } : {},
    { after: c.after },
  )
  const { verdict } = report
  if (c.verdict)
    test('verdict', () => {
      expect(verdict.targets[0]!.verdict).toBe(c.verdict)
      if (c.looks !== undefined) expect(verdict.targets[0]!.looks.length > 0).toBe(c.looks)
    })
  test.each(Object.entries(c.compares ?? {}))('comparison of the %s', (quantity, wanted) => {
    const found = verdict.comparisons.find((x) => x.quantity === quantity)!
    expect(found.refused).toContain(wanted.refused ?? '')
    if (!wanted.refused) expect(found.refused).toBe('')
    if (wanted.shown !== undefined) expect(found.shown).toBe(wanted.shown)
    if (wanted.change === null) expect(found.change).toBeNull()
    if (typeof wanted.change === 'number') expect(found.change).toBeCloseTo(wanted.change, 2)
  })
  test('what got worse', () => {
    expect(worseOf(report).map((w) => w.place)).toEqual(c.worse ?? [])
  })
  test.each(Object.entries(c.lessons ?? {}))('lesson: %s', (label, words) => {
    const row = predictionsOf(report).find((p) => p.label === label)
    if (words === null) expect(row).toBeUndefined()
    else expect(row!.teaches).toContain(words)
  })
})

test('there are at least thirty', () => {
  expect(cases.length).toBeGreaterThanOrEqual(30)
})
