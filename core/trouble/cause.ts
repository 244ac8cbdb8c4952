import type { Where } from '#core/rules'
import type { Quantity, Sentence } from '#core/units'
import type { Known } from './known'

/**
 * What may be wrong, by symptom: how common it is, what each measurement would show if it were so, the physics in a
 * sentence, and what to do. Shares are common practice, no source: they only order what is likely.
 */

export const symptoms = {
  still: 'It does not turn',
  backwards: 'Air goes the wrong way',
  slow: 'It turns slowly',
  whines: 'It whines or hums',
  current: 'The current is too high',
  hot: 'The converter gets hot',
  warm: 'Nothing gets cooler',
  louder: 'Louder than before',
  stops: 'It stops after a while',
} as const
export type Symptom = keyof typeof symptoms

/** How likely each band of a measurement is if this were the cause; bands that are not named share the rest. */
type Shows = Record<string, Record<string, number>>
export interface Cause {
  key: string
  title: string
  /** how common it is beside the others, any scale */
  share: number
  shows: Shows
  physics: string
  fix: Sentence
  at: Where | null
}

/** A value with its quantity, as a sentence takes it. @param value in the quantity’s unit; null where nobody knows */
export const of = (value: number | null, quantity: Quantity) => ({ value, quantity })
export const POWER: Where = { station: 'power' }
export const FIT: Where = { station: 'fit' }
export const PATH: Where = { station: 'air-path' }
export const CONTROL: Where = { station: 'control' }

/** What the plan wants at the fan's plug, as the end of a sentence. */
export const planned = ({ fanV }: Known): Sentence =>
  fanV === null ? ['what is planned.'] : [of(fanV, 'voltage'), '.']
