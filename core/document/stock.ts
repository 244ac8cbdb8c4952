import { z } from 'zod'
import { idSchema, lines, maybe, shortText, within } from './fields'

/** Parts other than fans that one owns or could buy. */
export const stockKinds = [
  'supply',
  'converter',
  'battery',
  'fuse',
  'wire',
  'connector',
  'guard',
  'filter',
  'other',
] as const
export type StockKind = (typeof stockKinds)[number]
export const stockPartSchema = z.object({
  id: idSchema,
  kind: z.enum(stockKinds, { error: `A kind is one of ${stockKinds.join(', ')}.` }),
  name: shortText.min(1, 'Name it.'),
  /** what it gives, or is rated for */
  volts: maybe(within(0.1, 400)),
  amps: maybe(within(0.001, 500)),
  price: maybe(within(0, 100000)),
  owned: z.boolean().default(false),
  notes: lines,
})
export interface StockPart extends z.infer<typeof stockPartSchema> {}

/** How far a voltage may be from the wanted one and still be it, share. Common practice, no source. */
const SAME_VOLTS = 0.05

/**
 * The part of the stock to take for a need: named so, or of the kind with the voltage and enough current; owned ones
 * before cheap ones.
 * @param name what the plan calls it; a part of that name is taken whatever else it is
 */
export function fromStock(
  stock: readonly StockPart[],
  kind: StockKind,
  want: { name?: string; volts?: number | null; amps?: number | null },
): StockPart | null {
  const named = want.name && stock.find((p) => p.name.toLowerCase() === want.name!.toLowerCase())
  if (named) return named
  const fits = stock.filter(
    (p) =>
      p.kind === kind &&
      (want.volts === undefined ||
        want.volts === null ||
        p.volts === null ||
        Math.abs(p.volts - want.volts) <= SAME_VOLTS * want.volts) &&
      (want.amps === undefined || want.amps === null || p.amps === null || p.amps >= want.amps),
  )
  return (
    fits.toSorted(
      (a, b) =>
        Number(b.owned) - Number(a.owned) ||
        (a.price ?? 1e6) - (b.price ?? 1e6) ||
        a.name.localeCompare(b.name),
    )[0] ?? null
  )
}
