/**
 * What one reading of a hobby instrument is worth, 95 % half-width in the reading's SI unit (relative for flow).
 * Common practice, no source.
 */
export const instrumentHalfWidth = {
  /** K, thermometer board or probe */ temperature: 1,
  /** dB, phone used at a marked spot for differences */ phone: 2,
  /** dB, class 2 meter */ class2: 1.4,
  /** dB, class 1 meter */ class1: 0.7,
  /** share, small vane times area */ flow: 0.15,
  /** share */ pressure: 0.1,
  /** share */ rotation: 0.01,
  /** share, a clock */ duration: 0.01,
  /** share */ voltage: 0.01,
  /** share */ current: 0.03,
  /** share, small vane held still */ speed: 0.1,
  /** share, a rule where smoke or a thread turns */ distance: 0.15,
  /** of relative humidity, 0..1 */ humidity: 0.04,
  /** share, a mark on the tank over some days */ waterPerDay: 0.1,
} as const

/** Pressure that low-cost sensors hardly resolve, Pa. Common practice, no source (usable floor 1 to 2 Pa). */
const PRESSURE_FLOOR_PA = 1.5
/** Flow by the way it was read, share: a traverse, through a hood, in the middle only, in the free jet. Common practice, no source. */
const flowByMethod = { traverse: 0.15, hood: 0.12, 'vane-centre': 0.3, jet: 0.5 } as const

type ReadQuantity =
  | 'temperature'
  | 'level'
  | 'flow'
  | 'pressure'
  | 'rotation'
  | 'duration'
  | 'voltage'
  | 'current'
  | 'power'
  | 'speed'
  | 'distance'
  | 'ratio'
  | 'waterPerDay'
  | 'number'

/**
 * What a reading is worth where nobody told, 95 % half-width in its SI unit.
 * @param quantity of the reading
 * @param value in SI (levels dB, temperatures degC)
 * @param method how a flow was read; null where that was not said
 * @param meter kind of sound meter
 * Reference: common practice, no source
 */
export function usualHalfWidth(
  quantity: ReadQuantity,
  value: number,
  method: keyof typeof flowByMethod | null = null,
  meter: 'phone' | 'class2' | 'class1' = 'phone',
): number {
  const size = Math.abs(value)
  if (quantity === 'temperature') return instrumentHalfWidth.temperature
  if (quantity === 'level') return instrumentHalfWidth[meter]
  if (quantity === 'flow') return size * (method ? flowByMethod[method] : instrumentHalfWidth.flow)
  if (quantity === 'pressure') return Math.max(PRESSURE_FLOOR_PA, size * instrumentHalfWidth.pressure)
  if (quantity === 'ratio') return instrumentHalfWidth.humidity
  // of a number of the person's own nobody knows what it is worth but by reading it again
  if (quantity === 'number') return 0
  return size * (quantity === 'power' ? instrumentHalfWidth.current : instrumentHalfWidth[quantity])
}

/**
 * Standard uncertainty of a limit ±a (rectangular), or of a display step.
 * @param value in the unit of its kind
 * Reference: JCGM 100
 */
export const rectangularUncertainty = (kind: 'limit' | 'resolution', value: number) =>
  value / Math.sqrt(kind === 'limit' ? 3 : 12)
/**
 * Limit of a meter: share of the reading and counts of its last digit.
 * @param reading as shown
 * @param share 0..1
 * @param digits last digits the maker allows
 * @param resolution value of the last digit
 * Reference: JCGM 100 (propagation of uncertainty)
 */
export const meterLimit = (reading: number, share: number, digits: number, resolution: number) =>
  share * Math.abs(reading) + digits * resolution
/**
 * Standard uncertainty of a flow from speed and the diameter of a disc, m3/s: products add relative ones.
 * @param speed m/s, above 0
 * @param uSpeed its standard uncertainty, m/s
 * @param diameter m, above 0
 * @param uDiameter its standard uncertainty, m
 * Reference: JCGM 100
 */
export const flowUncertainty = (speed: number, uSpeed: number, diameter: number, uDiameter: number) =>
  (Math.PI / 4) * diameter ** 2 * speed * Math.hypot(uSpeed / speed, (2 * uDiameter) / diameter)
/**
 * The same of a power from voltage and current, W.
 * @param voltage V, above 0
 * @param uVoltage its standard uncertainty, V
 * @param current A, above 0
 * @param uCurrent its standard uncertainty, A
 * Reference: JCGM 100 (propagation of uncertainty)
 */
export const powerUncertainty = (voltage: number, uVoltage: number, current: number, uCurrent: number) =>
  voltage * current * Math.hypot(uVoltage / voltage, uCurrent / current)
/**
 * The same of an air speed from velocity pressure, m/s: half the relative ones of a root.
 * @param pressure Pa, above 0
 * @param uPressure its standard uncertainty, Pa
 * @param density kg/m3, above 0
 * @param uDensity its standard uncertainty, kg/m3
 * Reference: JCGM 100 (propagation of uncertainty)
 */
export const pitotUncertainty = (pressure: number, uPressure: number, density: number, uDensity: number) =>
  Math.sqrt((2 * pressure) / density) * 0.5 * Math.hypot(uPressure / pressure, uDensity / density)
