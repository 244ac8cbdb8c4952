import { parseQuantity, quantities, type UnitPreferences } from '#core/units'
import { EXCEPT, readingLimit, readingNames, readingQuantities, usualStages, type ReadingQuantity } from './run'

/**
 * A line as a maker says it: "31.8 31.3 dB(A) chair, working", "fan off 24.1 C", "0.089 A; 1240 rpm". Values with their
 * unit, where, in which stage; several readings stand apart by semicolons.
 */

/** What a line was understood as: one reading with its repeats, or a condition of the run. */
export interface SpokenReading {
  kind: 'reading'
  quantity: ReadingQuantity
  /** SI */
  values: number[]
  place: string
  stage: string
  source: string
}
export interface SpokenCondition {
  kind: 'condition'
  key: 'ambientC' | 'backgroundDbA' | 'soakS'
  /** SI */
  value: number
}
export type Spoken = SpokenReading | SpokenCondition
export type SpokenLine = { ok: true; parts: Spoken[] } | { ok: false; message: string }

/** What is known where the line is spoken. */
export interface LineContext {
  units?: UnitPreferences
  /** stages that were named before, beside the usual ones */
  stages?: readonly string[]
  sources?: readonly string[]
  /** quantity of the reading before: what a number without a unit is */
  last?: ReadingQuantity | null
  /** where a quantity was read last */
  placeOf?: (quantity: ReadingQuantity) => string
}

const escaped = (text: string) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)
/** Symbols that are words in a line: here this is no inch: "31.8 in working". */
const WORDS = ['in']
const unitsOf = (quantity: ReadingQuantity) =>
  // a plain number is written without a unit
  quantities[quantity].units
    .filter((u) => u.symbol && !(quantity === 'distance' && WORDS.includes(u.symbol)))
    .flatMap((u) => [u.symbol, ...(u.aliases ?? [])])
/** Every way to write a unit that can be read, the longest first, so that "mmH2O" is no "m". */
const UNITS = [...new Set(readingQuantities.flatMap(unitsOf))].toSorted((a, b) => b.length - a.length)
const NUMBER = String.raw`[-+−]?\d[\d.,]*`
const NUMBERS = `${NUMBER}(?:[\\s,]+${NUMBER})*`
const BEFORE = String.raw`(?<![\p{L}\p{N}.])`
const WITH_UNIT = new RegExp(
  `${BEFORE}(${NUMBERS})\\s*(${UNITS.map(escaped).join('|')})(?![\\p{L}\\p{N}(])`,
  'iu',
)
const BARE = new RegExp(`${BEFORE}(${NUMBERS})(?![\\p{L}\\p{N}])`, 'u')

/** The quantity of a unit as it is written: exactly, else by its letters; a quantity that was read before goes first. */
function quantityOf(unit: string, last: ReadingQuantity | null | undefined): ReadingQuantity {
  const order = last ? [last, ...readingQuantities] : readingQuantities
  const lower = unit.toLowerCase()
  return (
    order.find((q) => unitsOf(q).includes(unit)) ??
    order.find((q) => unitsOf(q).some((u) => u.toLowerCase() === lower))!
  )
}

const FAN_OFF = /^(fans? off|background|without (the |its )?fans?)$/i
const AMBIENT = /^(ambient|room air|intake air)$/i
const SOAKED = /^(soak|soaked|soaked for|warmed up)$/i
const ALONE = /^(?:only (?:the )?(.+)|(.+?) alone)$/i
const ALL_BUT = /^(?:everything|all|the rest)\s+(?:except|but|without)\s+(?:the\s+)?(.+)$/i

function conditionOf(
  quantity: ReadingQuantity,
  value: number,
  words: readonly string[],
): SpokenCondition | null {
  const says = (pattern: RegExp) => words.length === 1 && pattern.test(words[0]!)
  if (quantity === 'temperature' && says(AMBIENT)) return { kind: 'condition', key: 'ambientC', value }
  if (quantity === 'level' && says(FAN_OFF)) return { kind: 'condition', key: 'backgroundDbA', value }
  return quantity === 'duration' && says(SOAKED) ? { kind: 'condition', key: 'soakS', value } : null
}

/** Sorts the words around the values: a stage, the one source that ran, and the place. */
function sorted(words: readonly string[], { stages = [], sources = [] }: LineContext) {
  const known = (list: readonly string[], word: string) =>
    list.find((x) => x.toLowerCase() === word.toLowerCase())
  const told = { place: '', stage: '', source: '' }
  for (const word of words) {
    const alone = ALONE.exec(word)
    const but = ALL_BUT.exec(word)
    const stage =
      known([...usualStages, ...stages], word) ?? (FAN_OFF.test(word) ? word.toLowerCase() : undefined)
    if (but) told.source = `${EXCEPT}${known(sources, but[1]!) ?? but[1]!}`
    else if (alone) told.source = known(sources, alone[1] ?? alone[2]!) ?? (alone[1] ?? alone[2])!
    else if (stage !== undefined && !told.stage) told.stage = stage
    else if (!told.place) told.place = word
    else if (!told.stage) told.stage = word
    else told.place = `${told.place}, ${word}`
  }
  return told
}

/** Repeats lie close together: what is further apart is no repeat. */
const REPEAT = 2
/** Whether the first of several numbers belongs to the words before it: "probe 2 40.5 °C". */
function numberOfPlace(before: string, numbers: readonly string[]): boolean {
  const [first, second] = numbers.map((n) => Number(n.replace(',', '.')))
  if (!/[\p{L}]\s*$/u.test(before) || second === undefined || !/^\d{1,2}$/.test(numbers[0]!)) return false
  return second > REPEAT * first! || second < first! / REPEAT
}

function spokenPart(text: string, context: LineContext): Spoken | string {
  const match = WITH_UNIT.exec(text) ?? BARE.exec(text)
  if (!match) return `“${text.trim()}” has no value. Write it as 31.8 dB(A) chair.`
  const unit = match[2] ?? ''
  const quantity = unit ? quantityOf(unit, context.last) : context.last
  if (!quantity) return `“${text.trim()}” has no unit: write 24 °C, 31 dB(A), 0.09 A, 1200 rpm.`
  const values: number[] = []
  const before = text.slice(0, match.index)
  const numbers = match[1]!.split(/\s+|,\s+/).filter(Boolean)
  const named = numberOfPlace(before, numbers) ? ` ${numbers.shift()}` : ''
  for (const number of numbers) {
    const read = parseQuantity(`${number.replace(/,$/, '')} ${unit}`, quantity, context.units)
    if (!read.ok) return read.message
    const held = readingLimit(quantity).safeParse(read.value)
    if (!held.success) return `${readingNames[quantity]}: ${held.error.issues[0]!.message}`
    values.push(read.value)
  }
  const words = [before.trimEnd() + named, text.slice(match.index + match[0].length)]
    .flatMap((side) => side.split(','))
    .map((word) => word.trim().replace(/^(?:at|@|in)\s+/i, ''))
    .filter(Boolean)
  const condition = conditionOf(quantity, values[0]!, words)
  if (condition) return condition
  const told = sorted(words, context)
  return {
    kind: 'reading',
    quantity,
    values,
    ...told,
    place: told.place || (context.placeOf?.(quantity) ?? ''),
  }
}

/**
 * Reads a line of readings.
 * @param text what was typed; a reading without a unit is of the kind of the one before
 * @param context what is known of the job's readings
 * @returns what was understood, or what could not be, in words
 * @example parseReadingLine('31.8 31.3 dB(A) chair, working')
 */
export function parseReadingLine(text: string, context: LineContext = {}): SpokenLine {
  const parts: Spoken[] = []
  let { last } = context
  for (const piece of text.split(';').filter((p) => p.trim())) {
    const part = spokenPart(piece, { ...context, last: last ?? null })
    if (typeof part === 'string') return { ok: false, message: part }
    if (part.kind === 'reading') last = part.quantity
    parts.push(part)
  }
  return parts.length ? { ok: true, parts } : { ok: false, message: 'Write a value: 31.8 dB(A) chair.' }
}
