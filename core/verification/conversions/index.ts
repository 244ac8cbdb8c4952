import type { Quantity } from '#core/units'
import { no, type Conversion, type Converted, type Inputs } from './conversion'
import { airConversions } from './air'
import { powerConversions } from './power'
import { pressureConversions } from './pressure'
import { soundConversions } from './sound'
import { speedConversions } from './speed'
import { temperatureConversions } from './temperature'
import { withoutConversions } from './without'

export type { Conversion, ConversionField, Converted, Inputs } from './conversion'

/** From what an instrument shows to what a run wants to know: by what is read. */
export const conversions: readonly Conversion[] = [
  ...speedConversions,
  ...airConversions,
  ...withoutConversions,
  ...pressureConversions,
  ...soundConversions,
  ...temperatureConversions,
  ...powerConversions,
]

const empty = (x: number | null | undefined): x is null | undefined =>
  x === null || x === undefined || !Number.isFinite(x)
/** Signed fields; all others must be above zero, or at zero where zero is usual. */
const signed = new Set<Quantity>(['temperature', 'pressure', 'level', 'voltage'])

/** Runs one conversion on what was typed: says what is still wanted instead of computing on nothing. */
export function convert(conversion: Conversion, inputs: Inputs): Converted {
  for (const f of conversion.fields) {
    const given = f.list ? (inputs.lists[f.key] ?? []) : inputs.n[f.key]
    if (f.list ? !(given as number[]).length : empty(given as number)) {
      if (f.optional) continue
      return no(`Wanted: ${f.label}.`)
    }
    for (const value of f.list ? (given as number[]) : [given as number])
      if (
        !signed.has(f.quantity) &&
        (value < 0 ||
          (value === 0 && f.usual !== 0 && !f.list && f.quantity !== 'power' && f.quantity !== 'number'))
      )
        return no(`${f.label} must be above zero.`)
  }
  const result = conversion.convert(inputs)
  return result.ok && result.figures[0]!.value === null ? no('These values give no result.') : result
}
