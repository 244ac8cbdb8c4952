import {
  inOwnUnits,
  printNumber,
  printQuantity,
  quantityInfo,
  toSi,
  type Quantity,
  type UnitPreferences,
} from '#core/units'
import { ruleGroups, type RuleGroup } from './catalogue'
import { unbelievable } from './causes'
import { parseExpression, type Expression } from './expression'
import { factCatalogue, type FactInfo, type FactName, type Facts } from './fact-catalogue'
import type { Rule, Severity } from './rule'
import { knownOf, type Known, type Subject } from './subject'

/** A rule that fired, with what it speaks of. */
export interface Fired {
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
  /** quantity of those whose unit is that of the reading */
  quantities: Partial<Record<FactName, Quantity>>
  /** what it is judged for; null: the whole plan */
  subject: Pick<Subject, 'kind' | 'id' | 'name' | 'at'> | null
}

/** A rule that could not be judged. */
export interface Unjudged {
  id: string
  severity: Severity
  group: string
  missing: FactName[]
}

export interface Judged {
  findings: Fired[]
  /** ids of rules whose trigger is false wherever it was asked */
  passed: string[]
  /** rules that could not be judged, with the facts that are missing */
  notChecked: Unjudged[]
}

interface Prepared {
  rule: Rule
  group: string
  trigger: Expression
  unless: Expression | null
  /** facts that its message speaks of, besides those of the trigger */
  spoken: FactName[]
}

const severityOrder: Severity[] = ['stop', 'fix', 'note']

const factsIn = (message: string) => [...message.matchAll(/\{([\w.]+)\}/g)].map((m) => m[1] as FactName)

const prepare = (groups: readonly RuleGroup[]): Prepared[] =>
  groups.flatMap((g) =>
    g.rules.map((rule) => {
      const trigger = parseExpression(rule.trigger)
      return {
        rule,
        group: g.key,
        trigger,
        unless: rule.unless ? parseExpression(rule.unless) : null,
        spoken: [...new Set([...(trigger.facts as FactName[]), ...factsIn(rule.message)])],
      }
    }),
  )

const prepared = new WeakMap<readonly RuleGroup[], Prepared[]>()
/** Rules with their triggers read once. */
function rulesOf(groups: readonly RuleGroup[]): Prepared[] {
  const rules = prepared.get(groups) ?? prepare(groups)
  prepared.set(groups, rules)
  return rules
}

type Answer = { state: 'fires' | 'passes' | 'idle' } | { state: 'open'; missing: FactName[] }

/** One rule on what is known of one thing. */
function answer({ trigger, unless }: Prepared, { facts, open }: Known): Answer {
  const lookup = (name: string) => facts[name as FactName]
  const verdict = trigger.evaluate(lookup)
  if (verdict === true) return { state: unless?.evaluate(lookup) === true ? 'passes' : 'fires' }
  if (verdict === false) return { state: 'passes' }
  const missing = (trigger.facts as FactName[]).filter((f) => facts[f] === undefined)
  // what does not exist here cannot be told either
  return missing.every((f) => open.has(f)) ? { state: 'open', missing } : { state: 'idle' }
}

function firedOf(
  { rule, group, spoken }: Prepared,
  { facts, quantities }: Known,
  subject: Subject | null,
): Fired {
  const { id, severity, message, why, fix, source } = rule
  const known = Object.fromEntries(spoken.filter((f) => facts[f] !== undefined).map((f) => [f, facts[f]]))
  return {
    id,
    severity,
    group,
    message,
    why,
    fix,
    source,
    facts: known as Facts,
    quantities,
    subject: subject && { kind: subject.kind, id: subject.id, name: subject.name, at: subject.at },
  }
}

/**
 * Judges every rule of the catalogue, once for the plan or once for each thing it is about. A rule fires only when its
 * trigger is true; one that misses a fact is "not checked", never passed; one that speaks of what the plan does not have
 * is neither.
 * @param whole what is known of the plan, in the units of the fact catalogue
 * @param subjects the things in it; null: every rule is judged on the plan's facts
 * @param groups rules to judge; the handbook's catalogue unless given
 */
export function judgeRules(
  whole: Known,
  subjects: readonly Subject[] | null,
  groups: readonly RuleGroup[] = ruleGroups,
): Judged {
  const result: Judged = { findings: [], passed: [], notChecked: [] }
  const harmless: Fired[] = []
  const knownFor = new Map((subjects ?? []).map((s) => [s, knownOf(whole, s)]))
  for (const p of rulesOf(groups)) {
    const { rule, group } = p
    if (subjects && rule.retired) continue
    const about: (Subject | null)[] =
      rule.each && subjects ? subjects.filter((s) => s.kind === rule.each) : [null]
    const missing = new Set<FactName>()
    let fired = false
    let passed = false
    for (const subject of about) {
      const known = subject ? knownFor.get(subject)! : whole
      const said = answer(p, known)
      if (said.state === 'fires') {
        fired = true
        const found = firedOf(p, known, subject)
        result.findings.push(found)
        if (rule.costsAir && known.facts['op.ample'] === true) harmless.push(found)
      } else if (said.state === 'passes') passed = true
      else if (said.state === 'open') for (const name of said.missing) missing.add(name)
    }
    if (missing.size)
      result.notChecked.push({ id: rule.id, severity: rule.severity, group, missing: [...missing] })
    else if (passed && !fired) result.passed.push(rule.id)
  }
  // an airflow that cannot be believed is not enough for anything
  if (!result.findings.some((f) => unbelievable.has(f.id)))
    for (const found of harmless)
      Object.assign(found, { severity: 'note', message: `${found.message}; the air is enough even so` })
  result.findings.sort((a, b) => severityOrder.indexOf(a.severity) - severityOrder.indexOf(b.severity))
  return result
}

type Spoken = Pick<Fired, 'message' | 'facts'> & Partial<Pick<Fired, 'quantities'>>

/** A fact's value in the person's units. */
export function printFact(
  name: FactName,
  { facts, quantities }: Omit<Spoken, 'message'>,
  preferences: UnitPreferences = {},
): string {
  const value = facts[name]
  if (value === undefined) return '?'
  if (typeof value !== 'number') return String(value)
  // SI already: its unit is that of the reading
  const own = quantities?.[name]
  if (own) return printQuantity(value, own, preferences)
  const info: FactInfo = factCatalogue[name]
  if (info.quantity) {
    const unit = quantityInfo(info.quantity).units.find((u) => u.symbol === info.symbol)!
    return printQuantity(toSi(value, unit), info.quantity, preferences)
  }
  return info.unit === '1' ? String(Number(value.toPrecision(3))) : `${printNumber(value, 2)}\u00a0${info.unit}`
}

/** The finding's sentence with its values in the person's units. */
export function findingMessage(finding: Spoken, preferences: UnitPreferences = {}): string {
  return inOwnUnits(finding.message, preferences).replace(/\{([\w.]+)\}/g, (_, name: string) =>
    printFact(name as FactName, finding, preferences),
  )
}
