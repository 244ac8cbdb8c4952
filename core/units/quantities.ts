/**
 * The quantities that Redpoll knows and the units people write them in.
 * Inside the core every value is in the SI unit named in `si`; conversion happens only at the edge.
 *
 * Factors are exact unless noted. Sources: NIST SP 811 (appendix B) for foot, inch, conventional
 * water columns (mmH2O 9.80665 Pa, inH2O 249.08891 Pa), international table Btu; 1 CFM = (0.3048 m)^3 / 60 s.
 */
export interface Unit {
  /** how the unit is printed */
  symbol: string
  /** further spellings, compared without blanks and case */
  aliases: string[]
  /** SI value = typed value * factor + offset */
  factor: number
  offset?: number
  /** most decimals worth printing */
  decimals: number
}

export interface QuantityInfo {
  /** what it is called in a message: "an airflow" */
  article: string
  example: string
  si: string
  units: Unit[]
}

const CFM = 0.3048 ** 3 / 60
const unit = (symbol: string, factor: number, decimals: number, aliases: string[] = [], offset = 0): Unit => ({
  symbol,
  aliases,
  factor,
  decimals,
  offset,
})

/** Every quantity with its units; the first unit is the metric choice. */
export const quantities = {
  flow: {
    article: 'an airflow',
    example: '48 m³/h or 28 CFM',
    si: 'm3/s',
    units: [
      unit('m³/h', 1 / 3600, 1, ['m3/h', 'm^3/h', 'cbm/h', 'm3h', 'cmh']),
      unit('CFM', CFM, 1, ['ft3/min', 'ft^3/min', 'cuft/min']),
      unit('L/s', 1e-3, 2, ['lps', 'l/sec']),
      unit('L/min', 1e-3 / 60, 1, ['lpm']),
      unit('m³/s', 1, 4, ['m3/s', 'm^3/s']),
      unit('m³/min', 1 / 60, 3, ['m3/min', 'm^3/min', 'cmm']),
    ],
  },
  pressure: {
    article: 'a pressure',
    example: '24 Pa or 2.4 mmH2O',
    si: 'Pa',
    units: [
      unit('Pa', 1, 1, ['pascal', 'n/m2']),
      unit('mmH₂O', 9.80665, 2, ['mmh2o', 'mmwc', 'mmws', 'mmw.g.', 'mmwg', 'mmaq']),
      unit('inH₂O', 249.08891, 3, ['inh2o', 'inwc', 'inwg', 'inw.g.', '"h2o', 'in.h2o', 'inaq']),
      unit('hPa', 100, 2, ['mbar']),
      unit('kPa', 1000, 3),
      unit('psi', 6894.757293168, 4),
      unit('mmHg', 133.322387415, 2),
    ],
  },
  length: {
    article: 'a length',
    example: '92 mm or 3.6 in',
    si: 'm',
    units: [
      unit('mm', 1e-3, 1),
      unit('in', 0.0254, 2, ['"', 'inch', 'inches', '″']),
      unit('cm', 1e-2, 2),
      unit('m', 1, 3),
      unit('ft', 0.3048, 2, ["'", 'foot', 'feet']),
    ],
  },
  distance: {
    article: 'a distance',
    example: '1.5 m or 5 ft',
    si: 'm',
    units: [
      unit('m', 1, 2),
      unit('ft', 0.3048, 1, ["'", 'foot', 'feet']),
      unit('cm', 1e-2, 0),
      unit('mm', 1e-3, 0),
      unit('in', 0.0254, 1, ['"', 'inch', 'inches', '″']),
    ],
  },
  altitude: {
    article: 'a height',
    example: '450 m or 1500 ft',
    si: 'm',
    units: [unit('m', 1, 0), unit('ft', 0.3048, 0, ["'", 'foot', 'feet']), unit('km', 1000, 3)],
  },
  area: {
    article: 'an area',
    example: '60 cm² or 9.3 in²',
    si: 'm2',
    units: [
      unit('cm²', 1e-4, 1, ['cm2', 'cm^2', 'sqcm']),
      unit('in²', 0.0254 ** 2, 2, ['in2', 'in^2', 'sqin']),
      unit('mm²', 1e-6, 0, ['mm2', 'mm^2', 'sqmm']),
      unit('m²', 1, 4, ['m2', 'm^2', 'sqm']),
    ],
  },
  volume: {
    article: 'a volume',
    example: '0.4 m³ or 14 ft³',
    si: 'm3',
    units: [
      unit('m³', 1, 3, ['m3', 'm^3', 'cbm']),
      unit('ft³', 0.3048 ** 3, 2, ['ft3', 'ft^3', 'cuft']),
      unit('L', 1e-3, 2, ['litre', 'liter', 'litres', 'liters', 'dm3']),
    ],
  },
  temperature: {
    article: 'a temperature',
    example: '35 °C or 95 °F',
    si: 'degC',
    units: [
      unit('°C', 1, 1, ['degc', 'c', 'celsius', '℃']),
      unit('°F', 5 / 9, 1, ['degf', 'f', 'fahrenheit', '℉'], -160 / 9),
      unit('K', 1, 1, ['kelvin'], -273.15),
    ],
  },
  temperatureDifference: {
    article: 'a temperature difference',
    example: '10 K or 18 F°',
    si: 'K',
    units: [unit('K', 1, 1, ['°c', 'c', 'degc', 'c°', 'kelvin']), unit('F°', 5 / 9, 1, ['°f', 'f', 'degf'])],
  },
  speed: {
    article: 'an air speed',
    example: '2.1 m/s or 410 ft/min',
    si: 'm/s',
    units: [
      unit('m/s', 1, 2),
      unit('ft/min', 0.00508, 0, ['fpm']),
      unit('km/h', 1 / 3.6, 1, ['kph', 'kmh']),
      unit('mph', 0.44704, 1),
    ],
  },
  rotation: {
    article: 'a fan speed',
    example: '1480 rpm',
    si: 'rpm',
    units: [unit('rpm', 1, 0, ['r/min', 'min-1', '1/min', 'u/min'])],
  },
  frequency: {
    article: 'a frequency',
    example: '25 kHz',
    si: 'Hz',
    units: [unit('Hz', 1, 1), unit('kHz', 1000, 2), unit('MHz', 1e6, 2)],
  },
  voltage: {
    article: 'a voltage',
    example: '12 V',
    si: 'V',
    units: [unit('V', 1, 2, ['volt', 'volts', 'vdc']), unit('mV', 1e-3, 0)],
  },
  current: {
    article: 'a current',
    example: '0.18 A or 180 mA',
    si: 'A',
    units: [unit('A', 1, 3, ['amp', 'amps', 'ampere']), unit('mA', 1e-3, 0)],
  },
  power: {
    article: 'a power',
    example: '60 W',
    si: 'W',
    units: [
      unit('W', 1, 2, ['watt', 'watts']),
      unit('mW', 1e-3, 0),
      unit('kW', 1000, 3),
      unit('Btu/h', 0.29307107, 0, ['btu/hr', 'btuh']),
    ],
  },
  thermalConductance: {
    article: 'a heat loss per kelvin',
    example: '1.2 W/K',
    si: 'W/K',
    units: [unit('W/K', 1, 2, ['w/°c'])],
  },
  thermalResistance: {
    article: 'a thermal resistance',
    example: '1.4 K/W',
    si: 'K/W',
    units: [unit('K/W', 1, 2, ['°c/w', 'c/w'])],
  },
  heatCapacity: {
    article: 'a heat capacity',
    example: '12 kJ/K',
    si: 'J/K',
    units: [unit('kJ/K', 1000, 2, ['kj/°c']), unit('J/K', 1, 0, ['j/°c']), unit('Wh/K', 3600, 2)],
  },
  charge: {
    article: 'a capacity',
    example: '10000 mAh or 7 Ah',
    si: 'C',
    units: [unit('Ah', 3600, 2), unit('mAh', 3.6, 0)],
  },
  energy: {
    article: 'an energy',
    example: '40 Wh',
    si: 'J',
    units: [unit('Wh', 3600, 1), unit('kWh', 3.6e6, 3), unit('kJ', 1000, 1), unit('J', 1, 0)],
  },
  waterRate: {
    article: 'a flow of water',
    example: '40 g/h or 1 L/day',
    si: 'kg/s',
    units: [
      unit('g/h', 1e-3 / 3600, 1),
      unit('L/day', 1 / 86400, 2, ['l/d', 'litresaday', 'kg/day', 'kg/d']),
      unit('kg/h', 1 / 3600, 3),
      unit('g/day', 1e-3 / 86400, 0, ['g/d']),
    ],
  },
  waterPerDay: {
    article: 'water a day',
    example: '1.2 L/day',
    si: 'kg/s',
    units: [
      unit('L/day', 1 / 86400, 2, ['l/d', 'kg/day']),
      unit('g/day', 1e-3 / 86400, 0, ['g/d']),
      unit('g/h', 1e-3 / 3600, 1),
    ],
  },
  gasFlow: {
    article: 'a flow of gas',
    example: '0.3 L/min',
    si: 'm3/s',
    units: [
      unit('L/min', 1e-3 / 60, 3, ['lpm']),
      unit('L/h', 1e-3 / 3600, 1),
      unit('mL/min', 1e-6 / 60, 0),
      unit('m³/h', 1 / 3600, 4, ['m3/h']),
    ],
  },
  concentration: {
    article: 'a concentration',
    example: '1000 ppm',
    si: '1',
    units: [unit('ppm', 1e-6, 0, ['ppmv']), unit('%', 1e-2, 3, ['percent'])],
  },
  level: {
    article: 'a sound level',
    example: '31 dB(A)',
    si: 'dB(A)',
    units: [unit('dB(A)', 1, 1, ['db', 'dba'])],
  },
  levelDifference: {
    article: 'a level difference',
    example: '6 dB',
    si: 'dB',
    units: [unit('dB', 1, 1, ['db(a)', 'dba'])],
  },
  mass: {
    article: 'a mass',
    example: '95 g',
    si: 'kg',
    units: [unit('g', 1e-3, 0), unit('oz', 0.028349523125, 1), unit('kg', 1, 3), unit('lb', 0.45359237, 2)],
  },
  duration: {
    article: 'a time',
    example: '30 min',
    si: 's',
    units: [
      unit('min', 60, 1, ['minutes', 'minute']),
      unit('h', 3600, 2, ['hr', 'hours', 'hour']),
      unit('s', 1, 0, ['sec', 'seconds']),
      unit('days', 86400, 2, ['d', 'day']),
    ],
  },
  shortTime: {
    article: 'a time',
    example: '20 s',
    si: 's',
    units: [unit('s', 1, 1, ['sec', 'seconds']), unit('min', 60, 2, ['minutes', 'minute'])],
  },
  resistance: {
    article: 'a resistance',
    example: '91 Ω',
    si: 'ohm',
    units: [unit('Ω', 1, 3, ['ohm', 'ohms', 'r']), unit('kΩ', 1000, 3, ['kohm', 'k'])],
  },
  inductance: {
    article: 'an inductance',
    example: '100 µH',
    si: 'H',
    units: [unit('µH', 1e-6, 1, ['uh', 'μh']), unit('mH', 1e-3, 3), unit('H', 1, 4)],
  },
  capacitance: {
    article: 'a capacitance',
    example: '470 µF',
    si: 'F',
    units: [unit('µF', 1e-6, 2, ['uf', 'μf']), unit('nF', 1e-9, 1), unit('mF', 1e-3, 3), unit('F', 1, 4)],
  },
  density: { article: 'a density', example: '1.2 kg/m³', si: 'kg/m3', units: [unit('kg/m³', 1, 3, ['kg/m3'])] },
  ratio: {
    article: 'a share',
    example: '40 % or 0.4',
    si: '1',
    units: [unit('%', 1e-2, 0, ['percent']), unit('', 1, 3, ['1', 'x'])],
  },
  number: { article: 'a plain number', example: '6', si: '1', units: [unit('', 1, 3, ['1', 'x'])] },
  perHour: {
    article: 'a rate per hour',
    example: '6 per hour',
    si: '1/h',
    units: [unit('/h', 1, 1, ['perhour', '1/h', 'ach', 'anhour'])],
  },
  money: {
    article: 'a price',
    example: '12.50',
    si: 'money',
    units: [unit('€', 1, 2, ['eur', 'euro', '$', '£', 'usd', 'gbp', 'kr', 'chf'])],
  },
  linearDrag: {
    article: 'a linear path coefficient',
    example: '300 Pa·s/m³',
    si: 'Pa.s/m3',
    units: [unit('Pa·s/m³', 1, 1, ['pa.s/m3', 'pas/m3'])],
  },
  quadraticDrag: {
    article: 'a quadratic path coefficient',
    example: '90000 Pa·s²/m⁶',
    si: 'Pa.s2/m6',
    units: [unit('Pa·s²/m⁶', 1, 0, ['pa.s2/m6', 'pas2/m6'])],
  },
} satisfies Record<string, QuantityInfo>

export type Quantity = keyof typeof quantities

/**
 * Description of a quantity, widened from its literal type.
 * Reference: definition of the units
 */
export function quantityInfo(quantity: Quantity): QuantityInfo {
  return quantities[quantity]
}

/** The quantities whose unit a person may choose, with the two ready-made sets. */
export const preferenceSets: Record<'metric' | 'imperial', Partial<Record<Quantity, string>>> = {
  metric: {
    flow: 'm³/h',
    pressure: 'Pa',
    length: 'mm',
    distance: 'm',
    altitude: 'm',
    area: 'cm²',
    volume: 'm³',
    temperature: '°C',
    temperatureDifference: 'K',
    speed: 'm/s',
    mass: 'g',
    power: 'W',
  },
  imperial: {
    flow: 'CFM',
    pressure: 'inH₂O',
    length: 'in',
    distance: 'ft',
    altitude: 'ft',
    area: 'in²',
    volume: 'ft³',
    temperature: '°F',
    temperatureDifference: 'F°',
    speed: 'ft/min',
    mass: 'oz',
    power: 'W',
  },
}

export type UnitPreferences = Partial<Record<Quantity, string>>

/**
 * The unit a quantity is shown in: the person's choice, or the first (metric) one.
 * Reference: definition of the units
 */
export function preferredUnit(quantity: Quantity, preferences: UnitPreferences = {}): Unit {
  const { units } = quantityInfo(quantity)
  return units.find((u) => u.symbol === preferences[quantity]) ?? units[0]!
}

/**
 * Value in a unit to SI.
 * @param value in the unit of its kind
 * Reference: definition of the units
 */
export function toSi(value: number, u: Unit): number {
  return value * u.factor + (u.offset ?? 0)
}

/**
 * SI value to a unit.
 * @param value in the unit of its kind
 * Reference: definition of the units
 */
export function fromSi(value: number, u: Unit): number {
  return (value - (u.offset ?? 0)) / u.factor
}
