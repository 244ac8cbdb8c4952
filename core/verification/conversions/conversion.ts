import type { FlowMethod, ReadingQuantity } from '#core/document'
import type { Figure } from '#core/figure'
import type { Quantity } from '#core/units'

/** From what an instrument shows to what a run wants to know, each with its working. One table: the screen asks and shows, nothing else. */

export interface ConversionField {
  key: string
  label: string
  quantity: Quantity
  /** what is usual; null where it must be read */
  usual: number | null
  /** may be left empty */
  optional?: boolean
  /** several values in one field, such as the speeds of a traverse */
  list?: boolean
  hint?: string
}
export interface ConversionChoice {
  key: string
  label: string
  options: { value: string; label: string }[]
}
export interface Inputs {
  n: Record<string, number | null>
  lists: Record<string, number[]>
  choice: Record<string, string>
  /** of the air, kg/m3 */ density: number
}
/** The first figure is the answer; the others help to judge it. */
export type Converted =
  | { ok: true; figures: Figure[]; method?: FlowMethod; points?: number; warning?: string }
  | { ok: false; reason: string }
export interface Conversion {
  key: string
  title: string
  /** reading that the answer becomes; null where it is only good to know */
  gives: ReadingQuantity | null
  fields: ConversionField[]
  choices?: ConversionChoice[]
  convert: (i: Inputs) => Converted
}

export const field = (
  key: string,
  label: string,
  quantity: Quantity,
  usual: number | null = null,
  rest: Partial<ConversionField> = {},
): ConversionField => ({ key, label, quantity, usual, ...rest })
export const no = (reason: string): Converted => ({ ok: false, reason })
export const yes = (
  figures: Figure[],
  rest: Omit<Extract<Converted, { ok: true }>, 'ok' | 'figures'> = {},
): Converted => ({ ok: true, figures, ...rest })
export const HUNDREDTH = 0.01
