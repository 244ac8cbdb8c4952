import { printQuantity } from './print'
import { preferredUnit, quantityInfo, toSi, type Quantity, type UnitPreferences } from './quantities'

/** A sentence whose values are printed in the person's units: words and SI values in turn. */
export type Sentence = (string | { value: number | null; quantity: Quantity })[]

/** What a metric unit in our own sentences measures. */
const measures: Record<string, Quantity> = {
  'm³/h': 'flow',
  'm³': 'volume',
  'cm²': 'area',
  'mm²': 'area',
  mm: 'length',
  cm: 'length',
  m: 'distance',
  'm/s': 'speed',
  Pa: 'pressure',
  '°C': 'temperature',
  K: 'temperatureDifference',
  g: 'mass',
}
const NUMBER = String.raw`\d+(?:\.\d+)?`
const spoken = new RegExp(
  String.raw`(?<![\d.×/^-]|× )(${NUMBER})(?:( to )(${NUMBER}))?[ \u00a0](${Object.keys(measures).join('|')})(?![\w/²³·°])`,
  'gu',
)

/** A converted value as round as it was said: 2 digits for 1 or 2, so that "0.25 m/s" becomes "49 ft/min". */
function sayConverted(
  text: string,
  metricUnit: string,
  quantity: Quantity,
  preferences: UnitPreferences,
): string {
  const from = quantityInfo(quantity).units.find((u) => u.symbol === metricUnit)!
  const to = preferredUnit(quantity, preferences)
  const si = toSi(Number(text), from)
  const inUnit = (si - (to.offset ?? 0)) / to.factor
  const digits = Math.max(quantity === 'temperature' ? 3 : 2, text.replace(/^0\.0*|\./g, '').length)
  const round = Number(inUnit.toPrecision(digits))
  return printQuantity(toSi(round, to), quantity, preferences)
}

/**
 * Our own words with the metric values in them said in the person's units; nothing changes for who thinks in metric.
 * @param text one of Redpoll's sentences, never a person's own words
 * @example inOwnUnits('fuse within 0.2 m', preferenceSets.imperial) // "fuse within 0.7 ft"
 * Reference: a choice of ours
 */
export function inOwnUnits(text: string, preferences: UnitPreferences = {}): string {
  return text.replace(
    spoken,
    (whole, low: string, to: string | undefined, high: string | undefined, unit: string) => {
      const quantity = measures[unit]!
      // "m" and "cm" name lengths and distances alike: both follow the person's choice of either
      const metric = quantityInfo(quantity).units[0]!
      if (!preferences[quantity] || preferences[quantity] === metric.symbol) return whole
      const last = sayConverted(high ?? low, unit, quantity, preferences)
      // what reads best in the unit it came in stays as it was written
      if (last.endsWith(`\u00a0${unit}`)) return whole
      return to ? `${sayConverted(low, unit, quantity, preferences).replace(/\u00a0.*/, '')}${to}${last}` : last
    },
  )
}

/**
 * The sentence in the person's units. @example sayIn(['lacks ', { value: 0.001, quantity: 'flow' }]) // "lacks 3.6 m³/h"
 * Reference: a choice of ours
 */
export const sayIn = (sentence: Sentence, preferences: UnitPreferences = {}): string =>
  sentence
    .map((part) =>
      typeof part === 'string'
        ? inOwnUnits(part, preferences)
        : printQuantity(part.value, part.quantity, preferences),
    )
    .join('')
