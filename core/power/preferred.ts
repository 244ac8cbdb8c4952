/** Preferred values of one decade. Reference: IEC 60063; E3 to E24 do not follow the rounding formula exactly. */
const LISTED: Record<string, readonly number[]> = {
  E6: [1, 1.5, 2.2, 3.3, 4.7, 6.8],
  E12: [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2],
  E24: [
    1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2,
    9.1,
  ],
}
export type Series = 'E6' | 'E12' | 'E24' | 'E48' | 'E96' | 'E192'

/**
 * The values of a series in one decade, 1 to below 10. E48, E96 and E192 are rounded powers, but for 9.19, which is 9.20.
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export function preferredSeries(series: Series): readonly number[] {
  const listed = LISTED[series]
  if (listed) return listed
  const n = Number(series.slice(1))
  return Array.from({ length: n }, (_, i) => {
    const value = Math.round(100 * 10 ** (i / n)) / 100
    return value === 9.19 ? 9.2 : value
  })
}

/** Neighbours of a value in a series, below (or equal) and above. */
function neighbours(value: number, series: Series): { below: number; above: number } {
  const decade = 10 ** Math.floor(Math.log10(value) + 1e-12)
  const all = [...preferredSeries(series).map((v) => v * decade), preferredSeries(series)[0]! * decade * 10]
  const at = all.findIndex((v) => v >= value * (1 - 1e-9))
  return { below: all[Math.max(0, all[at]! <= value * (1 + 1e-9) ? at : at - 1)]!, above: all[at]! }
}
const tidy = (value: number) => Number(value.toPrecision(6))

/**
 * Nearest preferred value by ratio. @param value > 0
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export function nearestPreferred(value: number, series: Series): number {
  const { below, above } = neighbours(value, series)
  return tidy(value / below <= above / value ? below : above)
}
/**
 * Next preferred value not below: for a speed or current limit.
 * @param value in the unit of its kind
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export const nextPreferred = (value: number, series: Series) => tidy(neighbours(value, series).above)

/** Standard power ratings of resistors, W. */
const RATINGS = [0.125, 0.25, 0.5, 1, 2, 3, 5, 10] as const
/** Heat times this is the rating to take. Common practice, no source. */
export const RATING_MARGIN = 2
/**
 * Next standard rating for a heat, W; null above the largest: that is no job for a resistor.
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export const resistorRating = (heatW: number, margin = RATING_MARGIN): number | null =>
  RATINGS.find((r) => r >= margin * heatW - 1e-12) ?? null
/**
 * What a resistor may dissipate in warm air, W: full to `fullTo`, falling in a line to 0 at `zeroAt` (film parts 70
 * and 155 degC, from memory).
 * @param fullTo degC
 * @param zeroAt degC
 */
export const resistorDerated = (ratingW: number, ambientC: number, fullTo = 70, zeroAt = 155) =>
  ratingW * Math.min(1, Math.max(0, (zeroAt - ambientC) / (zeroAt - fullTo)))

/** Standard capacitor voltages, V. */
const CAPACITOR_V = [6.3, 10, 16, 25, 35, 50, 63, 100] as const
/** Next standard capacitor rating above a supply, V. @param factor 1.25 least, 1.5 better (common practice) */
export const capacitorRating = (highV: number, factor = 1.5): number | null =>
  CAPACITOR_V.find((v) => v >= factor * highV - 1e-9) ?? null

/** Share of the supply that stays across an LED's resistor. Common practice, no source. */
const LED_RESERVE = 0.2
/**
 * Resistor of an LED string, ohm.
 * @param leds in one string
 * @param current A, 0 or more
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export const ledResistor = (supplyV: number, leds: number, forwardV: number, current: number) =>
  (supplyV - leds * forwardV) / current
/**
 * Heat in it, W.
 * @param leds in one string
 * @param current A, 0 or more
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export const ledResistorPower = (supplyV: number, leds: number, forwardV: number, current: number) =>
  (supplyV - leds * forwardV) * current
/**
 * Most LEDs in one string.
 * Reference: IEC 60063 (preferred numbers); common practice for ratings
 */
export const ledMaxPerString = (supplyV: number, forwardV: number, reserve = LED_RESERVE) =>
  Math.floor(((1 - reserve) * supplyV) / forwardV + 1e-9)
