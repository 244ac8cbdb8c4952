import { z } from 'zod'

/**
 * What the schemas of a plan are made of: ranges with messages, and defaults.
 *
 * A field is described once, in its schema: type, range, what it is before anybody said anything. From it follow the
 * TypeScript type (`z.infer`), a new plan, the completing of older files (a missing field takes its default) and the
 * columns of the database.
 */

/** A finite number in a range, with a message that names the limits. @param low in the field’s unit @param high in the field’s unit */
export const within = (low: number, high: number) =>
  z.number({ error: 'A number is wanted here.' }).min(low, `Not below ${low}.`).max(high, `Not above ${high}.`)
/** A number above zero, up to a limit in a unit. */
export const above = (limit: number, unit: string) =>
  z
    .number({ error: 'A number is wanted here.' })
    .gt(0, 'Must be above zero.')
    .max(limit, `Not above ${limit} ${unit}.`)
/** A whole number in a range. */
export const whole = (low: number, high: number) =>
  z
    .number({ error: 'A number is wanted here.' })
    .int('A whole number is wanted.')
    .min(low, `At least ${low}.`)
    .max(high, `Not above ${high}.`)

/** May be not known, and is not known at first. */
export const maybe = <T extends z.ZodType>(schema: T) => schema.nullable().default(null)

export const idSchema = z.string().regex(/^[a-z0-9][a-z0-9-]{0,63}$/i, 'An id has letters, digits and dashes.')
export const shortText = z.string().trim().max(120, 'At most 120 characters.')
export const longText = z.string().max(4000, 'At most 4000 characters.')
/** Texts that are empty at first. */
export const line = shortText.default('')
export const lines = longText.default('')

/** Refuse limits: docs/physics.md, plausibility limits of measuring (common practice, no source). SI. */
export const limits = {
  flow: within(0, 3000 / 3600),
  pressure: within(0, 5000),
  level: within(0, 130),
  voltage: within(0, 60),
  current: within(0, 20),
  rotation: within(0, 60000),
  temperature: within(-60, 200),
}

/** A short list of objects that is kept in one column of its owner, and in no table of its own. */
export const inOneColumn = <T extends z.ZodType>(schema: z.ZodArray<T>) =>
  schema.meta({ oneColumn: true }).default([])

/** A list in which nothing bears the id of another. */
export const listOf = <T extends z.ZodType<{ id: string }>>(item: T, most: number, twice: string) =>
  z
    .array(item)
    .max(most, `At most ${most}.`)
    .refine((list) => new Set(list.map((x) => x.id)).size === list.length, twice)

export const yesNo = maybe(z.boolean())
/** Areas and shares must be above zero: an opening of nothing lets nothing through. */
export const area = maybe(z.number().gt(0, 'An area must be above zero.').max(25, 'Not above 25 m².'))
export const share = maybe(
  z.number().gt(0, 'A share must be above zero.').max(1, 'A share cannot be above 100 %.'),
)
/** Years in which something here may happen: what every database holds and no typing error is. */
const inOurTime = (iso: string) => /^(19|20|21)\d\d-/.test(iso)
const OUR_TIME = 'A year between 1900 and 2199 is wanted.'
/** A moment as ISO 8601 with its offset. */
export const moment = z.iso.datetime({ offset: true }).refine(inOurTime, OUR_TIME)
/** A day as 2026-05-31. */
export const day = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'A date is written as 2026-05-31.')
  .refine((d) => !Number.isNaN(Date.parse(d)), 'There is no such day.')
  .refine(inOurTime, OUR_TIME)

type Shape = z.core.$ZodShape
/** The fields of a schema that have a default, with their type. */
export type DefaultsOf<S extends Shape> = {
  [K in keyof S as S[K] extends z.ZodDefault ? K : never]: z.output<S[K]>
}
const copy = (value: unknown): unknown =>
  Array.isArray(value) ? [...value] : typeof value === 'object' && value !== null ? { ...value } : value

/**
 * What every field with a default is before anybody said anything.
 * @param schema of an object
 * @returns a new object, its lists not shared with others
 */
export function defaultsOf<S extends Shape>(schema: z.ZodObject<S>): DefaultsOf<S> {
  const entries = Object.entries(schema.shape).flatMap(([key, field]) =>
    field instanceof z.ZodDefault ? [[key, copy(field.def.defaultValue)]] : [],
  )
  return Object.fromEntries(entries) as DefaultsOf<S>
}

/** The schema below "may be missing" and "may be not known". */
function bare(field: z.core.$ZodType): z.core.$ZodType {
  return field instanceof z.ZodDefault || field instanceof z.ZodNullable
    ? bare(field.def.innerType as z.core.$ZodType)
    : field
}
/** Whether a field was marked to stand in one column, whatever it holds. */
function isOneColumn(field: z.core.$ZodType): boolean {
  if ((field as z.ZodType).meta()?.oneColumn === true) return true
  const wrapped = field instanceof z.ZodDefault || field instanceof z.ZodNullable
  return wrapped && isOneColumn(field.def.innerType as z.core.$ZodType)
}
/**
 * Keys of a schema whose values fit into one column: all but lists of objects, which are tables of their own.
 * @param schema of an object
 */
export const columnKeys = (schema: z.ZodObject): string[] =>
  Object.keys(schema.shape).filter((key) => {
    const field = bare(schema.shape[key]!)
    if (isOneColumn(schema.shape[key]!)) return true
    if (field instanceof z.ZodObject) return false
    const rows = field instanceof z.ZodArray && bare(field.element) instanceof z.ZodObject
    return !rows
  })

/** Keys of a schema that hold a moment. */
export const momentKeys = (schema: z.ZodObject): string[] =>
  Object.keys(schema.shape).filter((key) => bare(schema.shape[key]!) instanceof z.ZodISODateTime)
