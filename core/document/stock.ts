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
  'saw',
  'screw',
  'gasket',
  'grommet',
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

/** The hole saws of a drawer, by the size in their names, the smallest first. */
export const sawsOf = (
  stock: readonly StockPart[],
): { diameterM: number; owned: boolean; price: number | null }[] =>
  stock
    .filter((p) => p.kind === 'saw')
    .map((p) => ({ diameterM: sizeOf(p.name) / 1000, owned: p.owned, price: p.price }))
    .filter((s) => s.diameterM > 0)
    .toSorted((a, b) => a.diameterM - b.diameterM)

/** How far a voltage may be from the wanted one and still be it, share. Common practice, no source. */
const SAME_VOLTS = 0.05

/** What a need asks of a part; what is left out does not matter. What a part does not state is not taken as met. */
export interface StockWish {
  name?: string
  volts?: number | null
  /** running and at the start, whichever is more */
  amps?: number | null
  /** frame that a guard or filter is for, mm */
  sizeMm?: number
  /** what a converter does */
  does?: 'buck' | 'boost' | 'linear'
}

/** What a converter of the stock does, told by its name. */
const converterWords: Record<NonNullable<StockWish['does']>, RegExp> = {
  buck: /down|buck/i,
  boost: /up|boost/i,
  linear: /linear|ldo|regulator|78\d\d|317/i,
}
const sizeOf = (name: string) => Number(/(\d+(?:\.\d+)?)\s*mm/i.exec(name)?.[1] ?? NaN)

function suits({ name, volts, amps }: StockPart, want: StockWish): boolean {
  const wants = (x: number | null | undefined): x is number => typeof x === 'number' && x > 0
  if (wants(want.volts) && (volts === null || Math.abs(volts - want.volts) > SAME_VOLTS * want.volts))
    return false
  if (wants(want.amps) && (amps === null || amps < want.amps)) return false
  if (want.sizeMm !== undefined && sizeOf(name) !== want.sizeMm) return false
  return want.does === undefined || converterWords[want.does].test(name)
}

/**
 * The part of the stock to take for a need: named so, or of the kind with the voltage and enough current; owned ones
 * before cheap ones.
 * @param name what the plan calls it; a part of that name is taken whatever else it is
 */
export function fromStock(stock: readonly StockPart[], kind: StockKind, want: StockWish): StockPart | null {
  const named = want.name && stock.find((p) => p.name.toLowerCase() === want.name!.toLowerCase())
  if (named) return named
  const fits = stock.filter((p) => p.kind === kind && suits(p, want))
  return (
    fits.toSorted(
      (a, b) =>
        Number(b.owned) - Number(a.owned) ||
        (a.price ?? 1e6) - (b.price ?? 1e6) ||
        a.name.localeCompare(b.name),
    )[0] ?? null
  )
}
