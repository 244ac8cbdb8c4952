import { printQuantity } from './print'
import type { Quantity, UnitPreferences } from './quantities'

/** A sentence whose values are printed in the person's units: words and SI values in turn. */
export type Sentence = (string | { value: number | null; quantity: Quantity })[]

/**
 * The sentence in the person's units. @example sayIn(['lacks ', { value: 0.001, quantity: 'flow' }]) // "lacks 3.6 m³/h"
 * Reference: a choice of ours
 */
export const sayIn = (sentence: Sentence, preferences: UnitPreferences = {}): string =>
  sentence
    .map((part) => (typeof part === 'string' ? part : printQuantity(part.value, part.quantity, preferences)))
    .join('')
