import { convert, type ConversionField, type Inputs } from '#core/verification'
import type { Sum } from './sum'

/** The answer of a sum as one of its fields changes, all others as they are. */
export interface Swept {
  /** the field's own unit, SI */ at: number
  /** null where there is no answer */ value: number | null
}

/** How far levels and temperatures are followed to either side, dB and K; a plain multiple of them says nothing. */
const ASIDE: Partial<Record<ConversionField['quantity'], number>> = {
  level: 10,
  levelDifference: 10,
  temperature: 10,
}
/** Everything else from half of it to twice as much. */
const TIMES = 2
/** Steps of a curve; even, so that the value itself is one of its points. */
const STEPS = 40

/**
 * How far a field is followed to either side of what was typed.
 * @param value SI, as typed
 * @returns from and to, SI; a share ends at 100 %
 */
export function reachOf(field: Pick<ConversionField, 'quantity'>, value: number): [from: number, to: number] {
  const aside = ASIDE[field.quantity]
  if (aside !== undefined) return [value - aside, value + aside]
  const whole = field.quantity === 'ratio' && value <= 1
  return [value / TIMES, whole ? Math.min(1, value * TIMES) : value * TIMES]
}

/**
 * The first figure of a sum over the reach of one field.
 * @param key of the field that changes; it has a value
 * @returns points with rising values of the field; none where it has no value or cannot change
 */
export function sweep(sum: Sum, inputs: Inputs, key: string): Swept[] {
  const value = inputs.n[key]
  const field = sum.fields.find((f) => f.key === key)
  if (typeof value !== 'number' || !field) return []
  const [from, to] = reachOf(field, value)
  if (!(to > from)) return []
  const half = STEPS / 2
  // even steps on either side, so that the value itself is one of them
  const places = Array.from({ length: STEPS + 1 }, (_, i) =>
    i <= half ? from + ((value - from) * i) / half : value + ((to - value) * (i - half)) / half,
  )
  return [...new Set(places)].map((at) => {
    const result = convert(sum, { ...inputs, n: { ...inputs.n, [key]: at } })
    return { at, value: result.ok ? result.figures[0]!.value : null }
  })
}
