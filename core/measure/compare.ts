/** Change in per cent of "before": 50 to 70 is +40 %. Null for before = 0. */
export const percentChange = (before: number, after: number) => before !== 0 ? 100 * (after - before) / before : null
/** Symmetric difference in per cent of the mean of both: 50 and 70 differ by 33.3 %. Never a change. */
export const percentDifference = (a: number, b: number) => a + b !== 0 ? 100 * Math.abs(a - b) / ((a + b) / 2) : null

/** Two tach pulses a revolution, the usual count. Common practice, no source. */
export const TACH_PULSES = 2
/** Speed from tach frequency (Hz), rpm. */
export const tachSpeed = (frequency: number, pulses = TACH_PULSES) => 60 * frequency / pulses
