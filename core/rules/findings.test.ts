import { describe, expect, test } from 'vitest'
import { findingMessage, judgeRules } from './evaluate'
import { factCatalogue, type FactName, type Facts } from './fact-catalogue'
import { parseExpression } from './expression'
import { ruleGroups } from './catalogue'
import { preferenceSets } from '#core/units'

/** The handbook's rules on facts alone, any of which could be told. */
const open = new Set(Object.keys(factCatalogue) as FactName[])
const evaluateFindings = (facts: Facts) => judgeRules({ facts, open, quantities: {} }, null)

const judge = (text: string, facts: Record<string, number | string | boolean> = {}) =>
  parseExpression(text).evaluate((name) => facts[name])

describe('three-valued expressions', () => {
  test.each([
    ['a.x > 1', { 'a.x': 2 }, true],
    ['a.x > 1', {}, undefined],
    ['a.x > 1 and false', {}, false],
    ['a.x > 1 or true', {}, true],
    ['not a.b', {}, undefined],
    ['not a.b', { 'a.b': false }, true],
    ['a.x / a.y > 1', { 'a.x': 1, 'a.y': 0 }, undefined],
    ['10*log10(10**(a.x/10) + 10**(a.x/10)) > 33', { 'a.x': 30 }, true],
    ['2**3**2 == 512', {}, true],
    ['(0 - 2)**2 == 4', {}, true],
    ['2**3**2 == 512', {}, true],
    ["a.k in ('usb', 'pack')", { 'a.k': 'pack' }, true],
    ["a.k in ('usb')", {}, undefined],
    ['abs(min(a.x, 3) - max(1, 2)) == 1', { 'a.x': 9 }, true],
    ["a.k == 'cool'", { 'a.k': 'cool' }, true],
    ['a.x - 1 - 1 == 1', { 'a.x': 3 }, true],
    ['a.x > 1', { 'a.x': 'text' }, undefined],
  ] as const)('%s with %o is %s', (text, facts, expected) => {
    expect(judge(text, facts)).toBe(expected)
  })
  test.each([
    'a.x >',
    'a.x > 1)',
    '(a.x',
    'foo > 1',
    'a.x ? 1',
    "a.x in 'usb'",
    '-2**2 == 4',
    'a.x | 1',
    'a[1] > 0',
    'sin(a.x) > 0',
  ])('%s is no expression', (text) => {
    expect(() => parseExpression(text)).toThrow()
  })
})

describe('the catalogue', () => {
  const rules = ruleGroups.flatMap((g) => g.rules)
  test('has the handbook’s 232 rules, each once', () => {
    expect(rules).toHaveLength(232)
    expect(new Set(rules.map((r) => r.id)).size).toBe(232)
  })
  test('every trigger and every placeholder speaks of known facts', () => {
    for (const rule of rules) {
      const names = [
        ...parseExpression(rule.trigger).facts,
        ...[...rule.message.matchAll(/\{([\w.]+)\}/g)].map((m) => m[1]!),
      ]
      for (const name of names) expect(factCatalogue, `${rule.id}: ${name}`).toHaveProperty([name])
    }
  })
  test('without facts nothing fires and nothing passes', () => {
    const result = evaluateFindings({})
    expect(result.findings).toEqual([])
    expect(result.passed).toEqual([])
    expect(result.notChecked).toHaveLength(232)
    expect(result.notChecked.find((r) => r.id === 'need-flow-short')!.missing).toEqual(['op.flow', 'need.flow'])
  })
  test('the message prints in the person’s units', () => {
    const [finding] = evaluateFindings({ 'op.flow': 46, 'need.flow': 50 }).findings
    expect(findingMessage(finding!).replaceAll('\u00a0', ' ')).toBe(
      '46 m³/h at the operating point, 50 m³/h needed',
    )
    expect(findingMessage(finding!, preferenceSets.imperial).replaceAll('\u00a0', ' ')).toBe(
      '27.1 CFM at the operating point, 29.4 CFM needed',
    )
  })
  test('what costs air only is a note where there is enough of it even so', () => {
    const small = { 'air.inletFreeArea': 6, 'fan.annulus': 9 }
    const [told] = evaluateFindings(small).findings
    expect(told).toMatchObject({ id: 'air-inlet-small', severity: 'fix' })
    expect(evaluateFindings({ ...small, 'op.ample': false }).findings[0]).toEqual(told)
    const [eased] = evaluateFindings({ ...small, 'op.ample': true }).findings
    expect(eased).toMatchObject({ id: 'air-inlet-small', severity: 'note' })
    expect(findingMessage(eased!)).toMatch(/; the air is enough even so$/)
    // on twice its voltage its air is not what was worked out
    const burning = { ...small, 'op.ample': true, 'fan.highV': 25, 'fan.vMax': 13.2 }
    expect(evaluateFindings(burning).findings).toContainEqual(told)
    // a surface before the blades makes them loud as well
    const near = { 'air.inletClear': 0.5, 'fan.size': 4, 'op.ample': true }
    expect(evaluateFindings(near).findings).toMatchObject([{ id: 'air-intake-starved', severity: 'fix' }])
  })
  test('stops come first', () => {
    const severities = evaluateFindings({
      'op.flow': 30,
      'need.flow': 50,
      'need.goalStated': false,
      'need.heatBasis': 'nameplate',
    }).findings.map((f) => f.severity)
    expect(severities).toEqual(['stop', 'fix', 'note'])
  })
})
