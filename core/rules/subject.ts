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
  known: Gathered
}

/** What is known: values in the rules' units, and which facts exist but were not told. */
export interface Known {
  facts: Facts
  /** could be told, and is not: whatever needs it is "not judged", whatever is in neither does not exist here */
  open: Pick<ReadonlySet<FactName>, 'has'>
  /** quantity of facts whose unit is that of the reading, for printing */
  quantities: Partial<Record<FactName, Quantity>>
}

/** What was gathered of a thing: what is open can be gone through. */
export interface Gathered extends Known {
  open: ReadonlySet<FactName>
}

/** What is known of a plan: of the whole, and of each thing in it. */
export interface PlanFacts extends Known {
  subjects: Subject[]
}

/**
 * What is known of a thing, over what is known of the whole, which it looks through to: nothing is copied, as a plan has
 * many things and many facts.
 */
export function knownOf(whole: Known, { known }: Subject): Known {
  const facts = Object.create(whole.facts) as Facts
  // what could be told of the thing itself hides what is known of the whole
  for (const name of known.open) facts[name] = undefined
  Object.assign(facts, known.facts)
  const own = (name: FactName) => Object.hasOwn(facts, name)
  return {
    facts,
    open: { has: (name) => known.open.has(name) || (!own(name) && whole.open.has(name)) },
    quantities: { ...whole.quantities, ...known.quantities },
  }
}
