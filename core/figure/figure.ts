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
  /** range of doubt; both null where there is none to tell */
  low: number | null
  high: number | null
  basis: FigureBasis
  formula: string
  inputs: FigureInput[]
  source: string
  /** why there is no value, or what the value rests on */
  note: string
}

type Optional = Partial<Pick<Figure, 'low' | 'high' | 'basis' | 'note' | 'inputs'>>

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
  return {
    key,
    label,
    quantity,
    value: finite(value),
    formula,
    source,
    basis: rest.basis ?? 'computed',
    note: rest.note ?? '',
    inputs: rest.inputs ?? [],
    low: finite(rest.low),
    high: finite(rest.high),
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
