import type { Quantity } from '#core/units'
import type { FactName, Facts } from './fact-catalogue'
import type { SubjectKind } from './rule'
import type { Where } from './where'

/** One thing that rules are judged for by itself. */
export interface Subject {
  kind: SubjectKind
  id: string
  /** as the person calls it; '' where there is only one */
  name: string
  /** where it is entered; null: at the station of the rule */
  at: Where | null
  known: Known
}

/** What is known: values in the rules' units, and which facts exist but were not told. */
export interface Known {
  facts: Facts
  /** could be told, and is not: whatever needs it is "not judged", whatever is in neither does not exist here */
  open: ReadonlySet<FactName>
  /** quantity of facts whose unit is that of the reading, for printing */
  quantities: Partial<Record<FactName, Quantity>>
}

/** What is known of a plan: of the whole, and of each thing in it. */
export interface PlanFacts extends Known {
  subjects: Subject[]
}

/** What is known of a thing, over what is known of the whole. */
export function knownOf(whole: Known, { known }: Subject): Known {
  const own = (name: FactName) => known.facts[name] !== undefined || known.open.has(name)
  const facts = Object.fromEntries(Object.entries(whole.facts).filter(([name]) => !own(name as FactName)))
  return {
    facts: { ...facts, ...known.facts },
    open: new Set([...[...whole.open].filter((name) => !own(name)), ...known.open]),
    quantities: { ...whole.quantities, ...known.quantities },
  }
}
