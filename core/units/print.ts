import { fromSi, preferredUnit, type Quantity, type UnitPreferences } from './quantities'

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
  const unit = preferredUnit(quantity, preferences)
  return printNumber(fromSi(value, unit), unit.decimals)
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
  const bare = withoutTrailingZeros(printBare(value, quantity, preferences))
  const symbol = unitSymbol(quantity, preferences)
  if (bare === '–' || !symbol) return bare
  return symbol === '€' ? `${symbol}\u00a0${bare}` : `${bare}\u00a0${symbol}`
}

/** In a sentence "12 V" reads better than "12.0 V"; columns keep their zeros. */
const withoutTrailingZeros = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text)

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
  const unit = preferredUnit(quantity, preferences)
  return String(Number(fromSi(value, unit).toPrecision(5)))
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
  const bare = printEditable(value, quantity, preferences)
  if (!bare || typeof value !== 'number') return ''
  if (quantity === 'duration' && !preferences.duration && value > 0) {
    const whole = TIMES.find(([factor]) => value % factor === 0)
    if (whole) return `${value / whole[0]} ${whole[1]}`
  }
  const unit = unitSymbol(quantity, preferences)
  return unit && unit !== '€' ? `${bare} ${unit}` : bare
}
const TIMES = [
  [86400, 'days'],
  [3600, 'h'],
  [60, 'min'],
  [1, 's'],
] as const

/** A time in the unit that reads best: seconds below 2 min, hours from 2 h, days from 3 days. */
function printDuration(seconds: number): string {
  const [factor, symbol] =
    Math.abs(seconds) < 120
      ? [1, 's']
      : Math.abs(seconds) < 7200
        ? [60, 'min']
        : Math.abs(seconds) < 259200
          ? [3600, 'h']
          : [86400, 'days']
  return `${withoutTrailingZeros(printNumber(seconds / factor, 1))}\u00a0${symbol}`
}
