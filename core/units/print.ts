import {
  fromSi,
  preferredUnit,
  quantityInfo,
  type Quantity,
  type Unit,
  type UnitPreferences,
} from './quantities'

/**
 * Prints a number with about three significant digits and at most `decimals` decimals: no false precision,
 * a true minus sign, thin spaces in thousands. No number gives an en dash.
 * @param value in the unit of its kind
 * @param decimals how many
 * @example printNumber(1234.5, 1) // "1 235" (with a thin space)
 * Reference: a choice of ours
 */
export function printNumber(value: number | null | undefined, decimals = 3): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–'
  const magnitude = Math.abs(value)
  const wanted = magnitude >= 100 ? 0 : magnitude >= 10 ? 1 : magnitude >= 1 ? 2 : 3
  const text = Math.abs(value).toFixed(Math.min(wanted, decimals))
  const [whole, part] = text.split('.') as [string, string | undefined]
  const grouped = whole.length > 4 ? whole.replace(/\B(?=(\d{3})+$)/g, '\u2009') : whole
  const zero = Number(text) === 0
  return (value < 0 && !zero ? '−' : '') + grouped + (part ? `.${part}` : '')
}

/**
 * Unit symbol a value of this quantity is shown with.
 * Reference: a choice of ours
 */
export function unitSymbol(quantity: Quantity, preferences: UnitPreferences = {}): string {
  return preferredUnit(quantity, preferences).symbol
}

/** Below (or from) so much of a unit the value reads better in another: 0.5 L, not 0.0005 m³; 3 mm, not 0.118 in. */
const betterIn: Partial<
  Record<Quantity, Record<string, { below?: [number, string]; from?: [number, string] }>>
> = {
  volume: { 'm³': { below: [0.1, 'L'] }, 'ft³': { below: [0.2, 'L'] } },
  area: { 'cm²': { below: [1, 'mm²'], from: [1e5, 'm²'] }, 'in²': { below: [0.1, 'mm²'] } },
  length: { mm: { from: [1e4, 'm'] }, in: { below: [0.2, 'mm'], from: [240, 'ft'] } },
  distance: { m: { below: [0.1, 'mm'] }, ft: { below: [0.2, 'mm'] } },
  flow: { 'm³/h': { below: [0.5, 'L/min'] }, 'm³/s': { below: [1e-3, 'L/s'] } },
  power: { W: { from: [1e4, 'kW'] } },
  energy: { Wh: { from: [1e4, 'kWh'] } },
  mass: { g: { from: [1e4, 'kg'] }, oz: { from: [160, 'lb'] } },
}
/** Of these a little is not nothing: they keep one digit that counts ("0.04 Pa", not "0 Pa"). */
const LITTLE_COUNTS = new Set<Quantity>(['flow', 'pressure', 'volume', 'area', 'speed', 'gasFlow'])
/** What is smaller than this share of the last digit is nothing after all. */
const NOTHING = 1e-3

/** The unit in which a value reads well: the person's, or a smaller or larger one where that would be all zeros. */
function readingUnit(value: number, quantity: Quantity, preferences: UnitPreferences): Unit {
  const own = preferredUnit(quantity, preferences)
  const { below, from } = betterIn[quantity]?.[own.symbol] ?? {}
  const size = Math.abs(fromSi(value, own))
  const symbol =
    below && size > 0 && size < below[0] ? below[1] : from && size >= from[0] ? from[1] : own.symbol
  return quantityInfo(quantity).units.find((u) => u.symbol === symbol) ?? own
}

function printIn(value: number, quantity: Quantity, unit: Unit): string {
  const inUnit = fromSi(value, unit)
  const size = Math.abs(inUnit)
  const little = size > 0 && size < 0.5 * 10 ** -unit.decimals && size > NOTHING * 10 ** -unit.decimals
  return little && LITTLE_COUNTS.has(quantity)
    ? `${inUnit < 0 ? '−' : ''}${Number(size.toPrecision(1))}`
    : printNumber(inUnit, unit.decimals)
}

/**
 * SI value as a number in the person's unit, without the unit.
 * @param value in the unit of its kind
 * Reference: a choice of ours
 */
export function printBare(
  value: number | null | undefined,
  quantity: Quantity,
  preferences: UnitPreferences = {},
): string {
  if (value === null || value === undefined) return '–'
  return printIn(value, quantity, preferredUnit(quantity, preferences))
}

/**
 * SI value with its unit in the person's choice.
 * @param value SI value, or null for "not known"
 * @example printQuantity(0.0128, 'flow') // "46.1 m³/h"
 * Reference: a choice of ours
 */
export function printQuantity(
  value: number | null | undefined,
  quantity: Quantity,
  preferences: UnitPreferences = {},
): string {
  if (quantity === 'duration' && typeof value === 'number' && !preferences.duration) return printDuration(value)
  if (value === null || value === undefined || !Number.isFinite(value)) return '–'
  const unit = readingUnit(value, quantity, preferences)
  const bare = withoutTrailingZeros(printIn(value, quantity, unit))
  const { symbol } = unit
  if (!symbol) return bare
  return symbol === '€' ? `${symbol}\u00a0${bare}` : `${bare}\u00a0${symbol}`
}

/** In a sentence "12 V" reads better than "12.0 V"; columns keep their zeros. */
const withoutTrailingZeros = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text)

/** So many digits tell a value apart; a computer's last bits are not among them. */
const DIGITS = 5
/**
 * The text an input field shows: plain digits that can be parsed again, with up to five significant digits.
 * @param value in the unit of its kind
 * Reference: a choice of ours
 */
export function printEditable(
  value: number | null | undefined,
  quantity: Quantity,
  preferences: UnitPreferences = {},
): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return ''
  return String(Number(fromSi(value, preferredUnit(quantity, preferences)).toPrecision(DIGITS)))
}

/** Digits of a value that was given in another unit: a converted height is round ("330 ft"), a size is not. */
const convertedDigits = (quantity: Quantity) => (quantity === 'altitude' ? 2 : 3)

const digitsOf = (value: number) =>
  String(Number(value.toPrecision(DIGITS)))
    .replace(/e.*/, '')
    .replace(/^-?0*\.?0*|\./g, '')
    .replace(/0+$/, '').length

/** A value in a unit with up to five digits; fewer if it is plainly a round value of another unit. */
function editableIn(value: number, quantity: Quantity, unit: Unit): string {
  const inUnit = fromSi(value, unit)
  const roundElsewhere = quantityInfo(quantity).units.some(
    (u) => u.symbol !== unit.symbol && digitsOf(fromSi(value, u)) <= 2,
  )
  const converted = roundElsewhere && digitsOf(inUnit) > 3
  return String(Number(inUnit.toPrecision(converted ? convertedDigits(quantity) : DIGITS)))
}

/**
 * What a field shows: the editable text with its unit. A time stands in the largest unit it is whole in, as it was
 * most likely typed ("400 h", not "24000 min").
 * @param value SI value, or null for an empty field
 * @example printField(1440000, 'duration') // "400 h"
 * Reference: a choice of ours
 */
export function printField(
  value: number | null | undefined,
  quantity: Quantity,
  preferences: UnitPreferences = {},
): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return ''
  if (quantity === 'duration' && !preferences.duration && value > 0) {
    const whole = TIMES.find(([factor]) => value % factor === 0)
    if (whole) return `${value / whole[0]} ${whole[1]}`
    if (value < 60) return `${Number(value.toPrecision(DIGITS))} s`
  }
  const unit = readingUnit(value, quantity, preferences)
  const bare = editableIn(value, quantity, unit)
  return unit.symbol && unit.symbol !== '€' ? `${bare} ${unit.symbol}` : bare
}
const TIMES = [
  [86400, 'days'],
  [3600, 'h'],
  [60, 'min'],
  [1, 's'],
] as const

const YEAR = 365.25 * 86400
/** A time in the unit that reads best: seconds below 2 min, hours from 2 h, days from 3 days, years from 2. */
function printDuration(seconds: number): string {
  const [factor, symbol] =
    Math.abs(seconds) < 120
      ? [1, 's']
      : Math.abs(seconds) < 7200
        ? [60, 'min']
        : Math.abs(seconds) < 259200
          ? [3600, 'h']
          : Math.abs(seconds) < 2 * YEAR
            ? [86400, 'days']
            : [YEAR, 'years']
  return `${withoutTrailingZeros(printNumber(seconds / factor, 1))}\u00a0${symbol}`
}
