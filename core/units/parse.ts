import {
  preferredUnit,
  quantities,
  quantityInfo,
  toSi,
  type Quantity,
  type Unit,
  type UnitPreferences,
} from './quantities'

export type Parsed =
  | { ok: true; value: number; unit: Unit }
  | { ok: false; code: 'empty' | 'no-number' | 'ambiguous' | 'unknown-unit' | 'wrong-kind'; message: string }

const normal = (text: string) =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[\s\u00a0·]/g, '')
    .replaceAll('−', '-')
    .replaceAll('ω', 'ohm')
    .replace(/^deg\.?/, 'deg')

function matches(u: Unit, written: string): boolean {
  return normal(u.symbol) === written || u.aliases.some((a) => normal(a) === written)
}

function findUnit(quantity: Quantity, text: string): Unit | undefined {
  const { units } = quantityInfo(quantity)
  const exact = text.trim()
  return (
    units.find((u) => u.symbol === exact || u.aliases.includes(exact)) ??
    units.find((u) => matches(u, normal(text)))
  )
}

/**
 * Reads the number at the start of a text: dot or comma as decimal sign, blanks or apostrophes between
 * thousands, an exponent. Returns null where none stands there, 'ambiguous' for 1,200 (1.2 or 1200?).
 * Reference: a choice of ours
 */
export function parseNumber(text: string): { value: number; rest: string } | null | 'ambiguous' {
  const match =
    /^\s*([+\-−]?)\s*((?:\d{1,3}(?:[ \u00a0\u202f'’]\d{3})+|\d+)?(?:[.,]\d+)*[.,]?)(e[+-]?\d+)?/i.exec(text)
  const digits = match?.[2]?.replace(/[ \u00a0\u202f'’]/g, '')
  if (!match || !digits || !/\d/.test(digits)) return null
  const commas = digits.split(',').length - 1
  const dots = digits.split('.').length - 1
  let plain = digits
  if (commas > 0 && dots > 0) {
    const decimal = digits.lastIndexOf(',') > digits.lastIndexOf('.') ? ',' : '.'
    if (digits.split(decimal).length > 2) return null
    plain = digits
      .split(decimal === ',' ? '.' : ',')
      .join('')
      .replace(',', '.')
  } else if (commas + dots > 1) {
    const separator = commas ? ',' : '.'
    if (
      !digits
        .split(separator)
        .slice(1)
        .every((group) => group.length === 3)
    )
      return null
    plain = digits.split(separator).join('')
  } else if (commas === 1) {
    if (/^[1-9]\d{0,2},\d{3}$/.test(digits)) return 'ambiguous'
    plain = digits.replace(',', '.')
  }
  const sign = match[1] === '-' || match[1] === '−' ? -1 : 1
  return { value: sign * Number(plain + (match[3] ?? '')), rest: text.slice(match[0].length) }
}

/** An area as its two sides, "12 x 8 cm" or "12 cm × 80 mm": a side without a unit has that of the other. */
function parseSides(first: string, second: string, preferences: UnitPreferences): Parsed {
  const bare = (text: string) => parseNumber(text)
  const [a, b] = [bare(first), bare(second)]
  const unitOf = (read: ReturnType<typeof bare>) => (read && read !== 'ambiguous' ? read.rest.trim() : '')
  const with_ = (text: string, own: string, other: string) => (own ? text : `${text} ${other}`)
  const left = parseQuantity(with_(first, unitOf(a), unitOf(b)), 'length', preferences)
  if (!left.ok) return left
  const right = parseQuantity(with_(second, unitOf(b), unitOf(a)), 'length', preferences)
  if (!right.ok) return right
  return { ok: true, value: left.value * right.value, unit: preferredUnit('area', preferences) }
}

/** An area as the diameter of a round one: "Ø 60 mm", "dia 6 cm", "60 mm round". */
const ROUND = [
  /^\s*(?:[ø⌀]|dia(?:meter)?\.?)\s*(.*\d.*)$/i,
  /^(.*\d.*?)\s*(?:[ø⌀]|round|dia(?:meter)?\.?)\s*$/i,
]
function parseRound(text: string, preferences: UnitPreferences): Parsed | null {
  const diameter = ROUND.map((r) => r.exec(text)?.[1]).find((d) => d !== undefined)
  if (diameter === undefined) return null
  const read = parseQuantity(diameter, 'length', preferences)
  return read.ok
    ? { ok: true, value: (Math.PI / 4) * read.value ** 2, unit: preferredUnit('area', preferences) }
    : read
}

/**
 * Reads what a maker writes ("48.5 CFM", "2,4 mmH2O", "0.19 inH2O") and gives the SI value.
 *
 * @param text what was typed
 * @param quantity the kind of value that is wanted
 * @param preferences the person's units: used when no unit is written
 * @returns the value in SI with the unit that was read, or a code and a message that can be shown beside the field
 * An area may be typed as its two sides or, round, as its diameter.
 * @example parseQuantity('48.5 CFM', 'flow') // { ok: true, value: 0.022889..., unit: CFM }
 */
export function parseQuantity(text: string, quantity: Quantity, preferences: UnitPreferences = {}): Parsed {
  const round = quantity === 'area' ? parseRound(text, preferences) : null
  if (round) return round
  const sides = quantity === 'area' ? /^(.*\d.*?)\s*[x×*]\s*(.*\d.*)$/i.exec(text) : null
  if (sides) return parseSides(sides[1]!, sides[2]!, preferences)
  const info = quantityInfo(quantity)
  if (!text.trim())
    return { ok: false, code: 'empty', message: `Type ${info.article}, such as ${info.example}.` }
  const leading = /^\s*([€$£])\s*(.*)$/.exec(text)
  const read = parseNumber(leading ? leading[2]! + leading[1]! : text)
  if (read === 'ambiguous') {
    const [whole, part] = text.trim().split(',') as [string, string]
    const digits = part.slice(0, 3)
    return {
      ok: false,
      code: 'ambiguous',
      message: `“${whole},${digits}” may mean ${whole}.${digits} or ${whole}${digits}: write it one of these two ways.`,
    }
  }
  if (!read || !Number.isFinite(read.value)) {
    return {
      ok: false,
      code: 'no-number',
      message: `“${text.trim()}” does not begin with a number. Type ${info.article}, such as ${info.example}.`,
    }
  }
  const written = read.rest.trim()
  if (!written) {
    const unit = preferredUnit(quantity, preferences)
    return { ok: true, value: toSi(read.value, unit), unit }
  }
  const unit = findUnit(quantity, written)
  if (unit) return { ok: true, value: toSi(read.value, unit), unit }
  const other = (Object.keys(quantities) as Quantity[]).find((q) => q !== quantity && findUnit(q, written))
  if (other) {
    return {
      ok: false,
      code: 'wrong-kind',
      message: `${written} is the unit of ${quantityInfo(other).article}; this field wants ${info.article}, such as ${info.example}.`,
    }
  }
  const known = info.units
    .map((u) => u.symbol)
    .filter(Boolean)
    .join(', ')
  return {
    ok: false,
    code: 'unknown-unit',
    message: `Redpoll does not know the unit “${written}” here. It reads ${known || 'a plain number'}.`,
  }
}

export type ParsedRange = { ok: true; low: number; high: number } | { ok: false; message: string }

/**
 * Reads a range such as "50 to 70 W", "50..70 W" or "50 W – 70 W".
 * @returns null where the text is no range; low and high in SI otherwise, or what is wrong with it
 * @example parseRange('50 to 70 W', 'power') // { ok: true, low: 50, high: 70 }
 * Reference: a choice of ours
 */
export function parseRange(
  text: string,
  quantity: Quantity,
  preferences: UnitPreferences = {},
): ParsedRange | null {
  const parts = /^(.*\d.*?)\s*(?:\.\.\.?|…|–|—|\bto\b|\s-\s)\s*(.*\d.*)$/.exec(text.trim())
  if (!parts) return null
  const last = parseQuantity(parts[2]!, quantity, preferences)
  if (!last.ok) return { ok: false, message: last.message }
  // the first number takes the unit of the second when it has none of its own
  const first = parseQuantity(
    /[^\d.,\s+\-−]/.test(parts[1]!) ? parts[1]! : `${parts[1]} ${last.unit.symbol}`,
    quantity,
    preferences,
  )
  if (!first.ok) return { ok: false, message: first.message }
  return first.value <= last.value
    ? { ok: true, low: first.value, high: last.value }
    : { ok: false, message: 'The lower end comes first.' }
}
