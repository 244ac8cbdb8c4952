import { fromSi, quantityInfo } from '#core/units'
import { factCatalogue, type FactInfo, type FactName, type Facts, type FactValue } from '../fact-catalogue'
import { batteryFacts } from './battery'
import { breathingFacts } from './breathing'
import { fanFacts } from './fan'
import { measureFacts } from './measure'
import { needFacts } from './need'
import { pathFacts } from './path'
import { placeFacts } from './place'
import { powerFacts } from './power'
import { safetyFacts } from './safety'
import type { FactSources, SiFacts } from './sources'

/** From SI to the unit that rules are written in. */
function inRuleUnit(name: FactName, value: FactValue): FactValue {
  const info: FactInfo = factCatalogue[name]
  if (typeof value !== 'number' || !info.quantity) return value
  return fromSi(
    value,
    quantityInfo(info.quantity).units.find((u) => u.symbol === info.symbol)!,
  )
}

/** Each about one thing, in SI units. */
const gathered = (sources: FactSources): SiFacts[] => [
  needFacts(sources),
  breathingFacts(sources),
  pathFacts(sources),
  ...fanFacts(sources),
  placeFacts(sources),
  ...powerFacts(sources),
  batteryFacts(sources),
  safetyFacts(sources),
  measureFacts(sources),
]

/** The plan's facts for the findings engine, in the rules' units: what is not known is left out. */
export function planFacts(sources: FactSources): Facts {
  const facts: Facts = {}
  for (const si of gathered(sources)) {
    for (const name in si) {
      const value = si[name as FactName]
      if (value === null || value === undefined || (typeof value === 'number' && !Number.isFinite(value)))
        continue
      facts[name as FactName] = inRuleUnit(name as FactName, value)
    }
  }
  return facts
}
