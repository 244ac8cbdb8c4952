import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { allRuleGroups, findingMessage } from '#core/rules'
import cases from './rules.json'
import { caseReport, raised, type Changes } from './casebook'

/** For every rule one whole plan that raises it and its nearest neighbour that does not; rules.json is to be read. */

interface RuleCase {
  rule: string
  as?: string
  given?: Changes
  fires: Changes
  quiet: Changes
}
const book = cases as unknown as RuleCase[]
const rules = allRuleGroups.flatMap((g) => g.rules)
const live = rules.filter((r) => !r.retired)

test('the ordinary plan has nothing to stop or to mend', () => {
  expect(raised(caseReport()).filter((id) => rules.find((r) => r.id === id)!.severity !== 'note')).toEqual([])
})

describe.each(book.map((c) => [c.as ? `${c.rule}: ${c.as}` : c.rule, c] as const))(
  '%s',
  (_, { rule, given, fires, quiet }) => {
    test('fires', () => {
      expect(raised(caseReport(given, fires))).toContain(rule)
    })
    test('its neighbour is quiet', () => {
      expect(raised(caseReport(given, quiet))).not.toContain(rule)
    })
  },
)

test('every rule that can fire has its cases', () => {
  const known = new Set(book.map((c) => c.rule))
  expect(live.map((r) => r.id).filter((id) => !known.has(id))).toEqual([])
  expect([...known].filter((id) => !live.some((r) => r.id === id))).toEqual([])
})

test('a finding tells what, why, what to do and where, with every value', () => {
  for (const { given, fires } of book)
    for (const f of caseReport(given, fires).findings.findings) {
      expect(findingMessage(f), f.id).not.toContain('?')
      expect(findingMessage(f), f.id).not.toMatch(/NaN|Infinity|undefined|null/)
      expect(f.why, f.id).toMatch(/^[A-Z0-9“].*\.$/)
      expect(f.fix, f.id).toMatch(/^[A-Z0-9].*\.$/)
      expect(f.at.station, f.id).toBeTruthy()
    }
})

test('the README says how many rules can fire', () => {
  const readme = readFileSync(new URL('../../README.md', import.meta.url), 'utf8')
  expect(readme).toContain(`${live.length} design checks`)
  expect(readme).toContain(`${rules.filter((r) => r.retired).length} are retired`)
})
