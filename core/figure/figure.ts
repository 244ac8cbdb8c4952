import type { Quantity } from '#core/units'

export type FigureBasis = 'claim' | 'curve' | 'measured' | 'estimated' | 'computed'

export interface FigureInput {
  symbol: string
  label: string
  value: number | null
  quantity: Quantity
}

/** A computed value with its working. Values are SI; the quantity tells how to show them. */
export interface Figure {
  key: string
  label: string
  value: number | null
  quantity: Quantity
  /** range of doubt, 95 times in 100 it holds the truth; both null where there is none to tell */
  low: number | null
  high: number | null
  /** nothing bounds it upwards: at one end of the doubt it does not exist */
  openHigh: boolean
  /** its low end is the least that is told: the truth may be less */
  openLow: boolean
  basis: FigureBasis
  formula: string
  inputs: FigureInput[]
  source: string
  /** why there is no value, or what the value rests on */
  note: string
}

type Optional = Partial<Pick<Figure, 'low' | 'high' | 'openHigh' | 'openLow' | 'basis' | 'note' | 'inputs'>>

/**
 * Builds a figure; a value that is not finite becomes "no value".
 * @param value in the unit of its kind
 * Reference: a choice of ours
 */
export function figure(
  key: string,
  label: string,
  quantity: Quantity,
  value: number | null,
  formula: string,
  source: string,
  rest: Optional = {},
): Figure {
  const finite = (x: number | null | undefined) => (typeof x === 'number' && Number.isFinite(x) ? x : null)
  const middle = finite(value)
  // a range holds its value: whichever end a doubt gave first
  const ends = [finite(rest.low), finite(rest.high)].filter((x) => x !== null)
  const held = middle === null ? ends : [...ends, middle]
  return {
    key,
    label,
    quantity,
    value: middle,
    formula,
    source,
    basis: rest.basis ?? 'computed',
    note: rest.note ?? '',
    inputs: rest.inputs ?? [],
    low: ends.length ? Math.min(...held) : null,
    high: ends.length && !rest.openHigh ? Math.max(...held) : null,
    openHigh: rest.openHigh ?? false,
    openLow: rest.openLow ?? false,
  }
}

/**
 * One value that was put into a figure.
 * @param value in the unit of its kind
 * Reference: a choice of ours
 */
export const input = (
  symbol: string,
  label: string,
  value: number | null,
  quantity: Quantity,
): FigureInput => ({ symbol, label, value, quantity })
