import type { z } from 'zod'
import type { Quantity } from '#core/units'

interface Common {
  label: string
  hint?: string
  placeholder?: string
  required?: boolean
}
export type Option = { value: string | number | boolean | null; label: string }

/** One field of a form: which key of the record it edits and how. */
export type Field<Key extends string> = Common & { key: Key } & (
    | { quantity: Quantity }
    | { text: true; lines?: number }
    | { yesNo: true }
    | { clock: true }
    | { options: Option[] }
  )

export type Shape = Record<string, z.ZodType>

/** Options from a table of words; null first where "not known" is an answer. */
export const optionsOf = (words: Record<string, string>, none?: string): Option[] => [
  ...(none === undefined ? [] : [{ value: null, label: none }]),
  ...Object.entries(words).map(([value, label]) => ({ value, label })),
]

/** Writes a form's value into a record; the field's own schema has checked it. */
export function assign<T extends object>(record: T | null | undefined, key: keyof T, value: unknown): void {
  if (record) record[key] = value as T[keyof T]
}
