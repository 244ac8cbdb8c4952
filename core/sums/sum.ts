import { input, type Figure } from '#core/figure'
import type { Quantity } from '#core/units'
import type { Conversion, Converted, Inputs } from '#core/verification'

/** A sum of its own; what it gives is no reading of a run. */
export type Sum = Conversion & { group: string }
/** A sum where its group stands. */
export type SumOfGroup = Omit<Sum, 'group' | 'gives'>

export const field = (
  key: string,
  label: string,
  quantity: Quantity,
  usual: number | null = null,
  rest: Partial<Conversion['fields'][number]> = {},
) => ({ key, label, quantity, usual, ...rest })
export const no = (reason: string): Converted => ({ ok: false, reason })
export const yes = (figures: Figure[], warning = ''): Converted => ({
  ok: true,
  figures,
  ...(warning ? { warning } : {}),
})
export const given = (i: Inputs, ...list: [symbol: string, key: string, label: string, quantity: Quantity][]) =>
  list.map(([symbol, key, label, quantity]) => input(symbol, label, i.n[key] ?? null, quantity))
/** What was put in, by the fields of a sum; each by its symbol. One that was left out is not among them. */
export const inputsOf = (i: Inputs, fields: SumOfGroup['fields'], symbols: Record<string, string>) =>
  fields
    .filter((f) => symbols[f.key] && !f.list && typeof i.n[f.key] === 'number')
    .map((f) => input(symbols[f.key]!, f.label, i.n[f.key]!, f.quantity))
