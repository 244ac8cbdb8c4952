import { fromSi, quantityInfo, type Quantity } from '#core/units'
import { factCatalogue, type FactInfo, type FactName, type Facts, type FactValue } from '../fact-catalogue'
import type { Gathered, PlanFacts } from '../subject'
import { batteryFacts } from './battery'
import { controlSubjects } from './control'
import { breathingFacts } from './breathing'
import { fanFacts, fanSubjects } from './fan'
import { comparisonFacts, comparisonQuantities, runSubjects } from './measure'
import { needFacts } from './need'
import { pathFacts, pathSubjects } from './path'
import { placeFacts, placeSubjects } from './place'
import { feedSubjects } from './feed'
import { powerFacts } from './power'
import { safetyFacts } from './safety'
import type { FactSources, SiFacts } from './sources'
import { targetSubjects } from './target'

/** The unit that rules are written in, of every fact that has one. */
const ruleUnits = new Map(
  Object.entries(factCatalogue).flatMap(([name, info]: [string, FactInfo]) => {
    const unit = info.quantity && quantityInfo(info.quantity).units.find((u) => u.symbol === info.symbol)
    return unit ? [[name, unit] as const] : []
  }),
)
/** From SI to the unit that rules are written in. */
function inRuleUnit(name: FactName, value: FactValue): FactValue {
  const unit = typeof value === 'number' ? ruleUnits.get(name) : undefined
  return unit ? fromSi(value as number, unit) : value
}

/** Facts of the whole plan, each about one thing, in SI units. */
const gathered = (sources: FactSources): SiFacts[] => [
  needFacts(sources),
  breathingFacts(sources),
  pathFacts(sources),
  ...fanFacts(sources),
  placeFacts(sources),
  ...powerFacts(sources),
  batteryFacts(sources),
  safetyFacts(sources),
  comparisonFacts(sources),
]

function knownFrom(list: readonly SiFacts[], quantities: Partial<Record<FactName, Quantity>> = {}): Gathered {
  const facts: Facts = {}
  const open = new Set<FactName>()
  for (const si of list)
    for (const key in si) {
      const name = key as FactName
      const value = si[name]
      if (value === undefined) continue
      if (value === null) open.add(name)
      else if (typeof value !== 'number' || Number.isFinite(value)) facts[name] = inRuleUnit(name, value)
    }
  for (const name of open) if (facts[name] !== undefined) open.delete(name)
  return { facts, open, quantities }
}

/** What the findings are judged on, in the rules' units: of the plan, and of each fan, lead, run and so on in it. */
export function planFacts(sources: FactSources): PlanFacts {
  const subjects = [
    ...fanSubjects(sources),
    ...feedSubjects(sources),
    ...pathSubjects(sources),
    ...placeSubjects(sources),
    ...runSubjects(sources),
    ...targetSubjects(sources),
    ...controlSubjects(sources),
  ]
  return {
    ...knownFrom(gathered(sources), comparisonQuantities(sources)),
    subjects: subjects.map(({ facts, quantities, ...subject }) => ({
      ...subject,
      known: knownFrom([facts], quantities),
    })),
  }
}
