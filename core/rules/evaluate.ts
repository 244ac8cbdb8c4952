import { printNumber, printQuantity, quantityInfo, toSi, type UnitPreferences } from '#core/units'
import { ruleGroups, type RuleGroup } from './catalogue'
import { parseExpression, type Expression } from './expression'
import { factCatalogue, type FactInfo, type FactName, type Facts } from './fact-catalogue'
import type { Rule, Severity } from './rule'

export interface Finding {
  id: string
  severity: Severity
  group: string
  /** message with its placeholders still in, see `findingMessage` */
  message: string
  why: string
  fix: string
  source: string
  /** the facts that the message and the trigger speak of */
  facts: Facts
}

export interface Evaluation {
  findings: Finding[]
  /** ids of rules whose trigger is false */
  passed: string[]
  /** rules that could not be judged, with the facts that are missing */
  notChecked: { id: string; missing: FactName[] }[]
}

interface Prepared {
  rule: Rule
  group: string
  trigger: Expression
}

const severityOrder: Severity[] = ['stop', 'fix', 'note']

const prepare = (groups: readonly RuleGroup[]): Prepared[] =>
  groups.flatMap((g) => g.rules.map((rule) => ({ rule, group: g.key, trigger: parseExpression(rule.trigger) })))

const prepared = new WeakMap<readonly RuleGroup[], Prepared[]>()
/** Rules with their triggers read once. */
function rulesOf(groups: readonly RuleGroup[]): Prepared[] {
  const rules = prepared.get(groups) ?? prepare(groups)
  prepared.set(groups, rules)
  return rules
}

/**
 * Judges every rule of the catalogue on the known facts. A rule fires only when its trigger is true; one that
 * misses a fact is "not checked", never passed.
 * @param facts values in the units of the fact catalogue
 * @param groups rules to judge; the handbook's catalogue unless given
 */
export function evaluateFindings(facts: Facts, groups: readonly RuleGroup[] = ruleGroups): Evaluation {
  const rules = rulesOf(groups)
  const result: Evaluation = { findings: [], passed: [], notChecked: [] }
  const lookup = (name: string) => facts[name as FactName]
  for (const { rule, group, trigger } of rules) {
    const verdict = trigger.evaluate(lookup)
    if (verdict === true) {
      const { id, severity, message, why, fix, source } = rule
      const spoken = new Set([...trigger.facts, ...[...message.matchAll(/\{([\w.]+)\}/g)].map((m) => m[1]!)])
      const known = Object.fromEntries(
        [...spoken].filter((f) => facts[f as FactName] !== undefined).map((f) => [f, facts[f as FactName]]),
      )
      result.findings.push({ id, severity, group, message, why, fix, source, facts: known as Facts })
    } else if (verdict === false) result.passed.push(rule.id)
    else
      result.notChecked.push({
        id: rule.id,
        missing: trigger.facts.filter((f) => facts[f as FactName] === undefined) as FactName[],
      })
  }
  result.findings.sort((a, b) => severityOrder.indexOf(a.severity) - severityOrder.indexOf(b.severity))
  return result
}

/** A fact's value in the person's units. */
export function printFact(name: FactName, facts: Facts, preferences: UnitPreferences = {}): string {
  const value = facts[name]
  if (value === undefined) return '?'
  if (typeof value !== 'number') return String(value)
  const info: FactInfo = factCatalogue[name]
  if (info.quantity) {
    const unit = quantityInfo(info.quantity).units.find((u) => u.symbol === info.symbol)!
    return printQuantity(toSi(value, unit), info.quantity, preferences)
  }
  return info.unit === '1' ? String(Number(value.toPrecision(3))) : `${printNumber(value, 2)}\u00a0${info.unit}`
}

/** The finding's sentence with its values in the person's units. */
export function findingMessage(
  finding: Pick<Finding, 'message' | 'facts'>,
  preferences: UnitPreferences = {},
): string {
  return finding.message.replace(/\{([\w.]+)\}/g, (_, name: string) =>
    printFact(name as FactName, finding.facts, preferences),
  )
}
