import fc from 'fast-check'
import { unit as mathUnit } from 'mathjs'
import { describe, expect, test } from 'vitest'
import { fromSi, preferenceSets, quantities, toSi, type Quantity } from './quantities'
import { parseNumber, parseQuantity, parseRange } from './parse'
import { inOwnUnits } from './text'
import { printEditable, printField, printNumber, printQuantity } from './print'

const value = (text: string, quantity: Quantity) => {
  const parsed = parseQuantity(text, quantity)
  return parsed.ok ? parsed.value : parsed.code
}

describe('reading what makers write', () => {
  // factors: NIST SP 811 (foot, conventional water columns)
  test.each([
    ['48.5 CFM', 'flow', 0.0228894],
    ['48,5 cfm', 'flow', 0.0228894],
    ['82 m3/h', 'flow', 82 / 3600],
    ['82 m³/h', 'flow', 82 / 3600],
    ['23 l/s', 'flow', 0.023],
    ['2,4 mmH2O', 'pressure', 23.53596],
    ['2.4 mm H₂O', 'pressure', 23.53596],
    ['0.19 inH2O', 'pressure', 47.32689],
    ['0.19"H2O', 'pressure', 47.32689],
    ['410 ft/min', 'speed', 2.0828],
    ['31 dB', 'level', 31],
    ['31 dB(A)', 'level', 31],
    ['92mm', 'length', 0.092],
    ['3 5/8', 'length', 'unknown-unit'],
    ['3.5 in', 'length', 0.0889],
    ['95 °F', 'temperature', 35],
    ['-4 degF', 'temperature', -20],
    ['10 K', 'temperatureDifference', 10],
    ['18 °F', 'temperatureDifference', 10],
    ['180 mA', 'current', 0.18],
    ['40 %', 'ratio', 0.4],
    ['30 min', 'duration', 1800],
    ['€ 12,50', 'money', 12.5],
    ['1 200 rpm', 'rotation', 1200],
    ['1.5e3 rpm', 'rotation', 1500],
  ] as const)('%s as %s', (text, quantity, expected) => {
    const got = value(text, quantity)
    if (typeof expected === 'number') expect(got).toBeCloseTo(expected, 5)
    else expect(got).toBe(expected)
  })

  test.each([
    ['12 x 12 cm', 0.0144],
    ['12cm × 80 mm', 0.0096],
    ['0.3 m x 20 cm', 0.06],
    ['4 x 2 in', 0.0254 ** 2 * 8],
    ['120 x 80', 0.0096],
  ])('an area as two sides: %s', (text, value) => {
    const read = parseQuantity(text, 'area')
    expect(read.ok && read.value).toBeCloseTo(value, 9)
  })
  test.each([
    ['Ø 60 mm', (Math.PI / 4) * 0.06 ** 2],
    ['dia. 6 cm', (Math.PI / 4) * 0.06 ** 2],
    ['80 round', (Math.PI / 4) * 0.08 ** 2],
    ['4 in round', (Math.PI / 4) * 0.1016 ** 2],
  ])('a round area as its diameter: %s', (text, value) => {
    const read = parseQuantity(text, 'area')
    expect(read.ok && read.value).toBeCloseTo(value, 9)
  })
  test('a diameter that cannot be read says which unit is wanted', () => {
    expect(parseQuantity('Ø 60 Pa', 'area')).toMatchObject({ ok: false, code: 'wrong-kind' })
    expect(parseQuantity('Ø', 'area').ok).toBe(false)
    expect(parseQuantity('Ø 60 mm', 'length').ok).toBe(false)
  })
  test('sides that cannot be read say which unit is wanted', () => {
    expect(parseQuantity('12 x 12 V', 'area')).toMatchObject({ ok: false, code: 'wrong-kind' })
    expect(parseQuantity('12 x', 'area').ok).toBe(false)
  })
  test('a bare number takes the person’s unit', () => {
    expect(parseQuantity('28', 'flow', preferenceSets.imperial)).toMatchObject({
      ok: true,
      value: expect.closeTo(0.0132145, 6),
    })
    expect(parseQuantity('28', 'flow', preferenceSets.metric)).toMatchObject({ ok: true, value: 28 / 3600 })
  })

  test('a unit of the wrong kind is refused and named', () => {
    const parsed = parseQuantity('31 dB', 'flow')
    expect(parsed).toMatchObject({ ok: false, code: 'wrong-kind' })
    expect(parsed.ok ? '' : parsed.message).toContain('airflow')
  })

  test.each([
    ['abc', 'no-number'],
    ['', 'empty'],
    ['12 furlongs', 'unknown-unit'],
    ['1,200 Pa', 'ambiguous'],
    ['1.2.3 Pa', 'no-number'],
    ['--3 Pa', 'no-number'],
    ['12 V x', 'unknown-unit'],
  ])('%s is refused as %s', (text, code) => {
    const parsed = parseQuantity(text, 'pressure')
    expect(parsed.ok ? 'ok' : parsed.code === 'wrong-kind' ? 'unknown-unit' : parsed.code).toBe(code)
  })

  test('thousands', () => {
    expect(parseNumber('1.234.567')).toMatchObject({ value: 1234567 })
    expect(parseNumber('1.234,5')).toMatchObject({ value: 1234.5 })
    expect(parseNumber('1,234.5')).toMatchObject({ value: 1234.5 })
    expect(parseNumber('0,125')).toMatchObject({ value: 0.125 })
  })
})

describe('conversion', () => {
  // mathjs is the outside reference for the factors it knows
  test.each([
    ['flow', 'CFM', 'ft^3/min', 'm^3/s'],
    ['flow', 'm³/h', 'm^3/h', 'm^3/s'],
    ['flow', 'L/s', 'L/s', 'm^3/s'],
    ['length', 'in', 'in', 'm'],
    ['area', 'in²', 'in^2', 'm^2'],
    ['volume', 'ft³', 'ft^3', 'm^3'],
    ['pressure', 'psi', 'psi', 'Pa'],
    ['pressure', 'mmHg', 'mmHg', 'Pa'],
    ['speed', 'mph', 'mi/h', 'm/s'],
    ['mass', 'oz', 'oz', 'kg'],
    ['power', 'Btu/h', 'BTU/h', 'W'],
  ] as const)('%s %s agrees with mathjs', (quantity, symbol, theirs, si) => {
    const u = quantities[quantity].units.find((x) => x.symbol === symbol)!
    // its millimetre of mercury has six digits
    expect(toSi(3.7, u) / mathUnit(3.7, theirs).toNumber(si)).toBeCloseTo(1, 5)
  })

  test('what is printed for editing is read back as the same value', () => {
    const keys = Object.keys(quantities) as Quantity[]
    fc.assert(
      fc.property(
        fc.constantFrom(...keys),
        fc.double({ min: 1e-3, max: 1e4, noNaN: true }),
        fc.boolean(),
        (quantity, x, imperial) => {
          const preferences = preferenceSets[imperial ? 'imperial' : 'metric']
          const text = printEditable(x, quantity, preferences)
          const parsed = parseQuantity(text, quantity, preferences)
          // five significant digits in the shown unit; an offset unit (°F) spends them on the offset as well
          expect(
            parsed.ok &&
              Math.abs(parsed.value - x) <= 1e-4 * Math.abs(x) + (quantity === 'temperature' ? 5e-2 : 1e-9),
          ).toBe(true)
        },
      ),
    )
  })

  test('there and back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(quantities).flatMap((q) => q.units)),
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        (u, x) => {
          expect(fromSi(toSi(x, u), u)).toBeCloseTo(x, 6)
        },
      ),
    )
  })
})

describe('printing', () => {
  test.each([
    [0.0128, 'flow', '46.1 m³/h'],
    [12.44, 'pressure', '12.4 Pa'],
    [-2.06, 'pressure', '−2.1 Pa'],
    [0.092, 'length', '92 mm'],
    [12, 'voltage', '12 V'],
    [null, 'flow', '–'],
    [12.5, 'money', '€ 12.5'],
  ] as const)('%s %s', (x, quantity, text) => {
    expect(printQuantity(x, quantity).replaceAll('\u00a0', ' ')).toBe(text)
  })
  test('never NaN, no false precision', () => {
    expect(printNumber(Number.NaN)).toBe('–')
    expect(printNumber(1234.567, 3)).toBe('1235')
    expect(printNumber(23456.7, 3)).toBe('23\u2009457')
    expect(printNumber(-0.0004, 2)).toBe('0.00')
  })
})

describe('ranges', () => {
  test.each([
    ['50 to 70 W', 'power', 50, 70],
    ['50..70', 'power', 50, 70],
    ['12 – 18 cm', 'distance', 0.12, 0.18],
    ['0.1 kW to 200 W', 'power', 100, 200],
    ['20 - 25 °C', 'temperature', 20, 25],
    ['1,5 to 2,5 m/s', 'speed', 1.5, 2.5],
  ] as const)('%s', (text, quantity, low, high) => {
    const range = parseRange(text, quantity)
    expect(range).toMatchObject({ ok: true })
    if (!range?.ok) return
    expect(range.low).toBeCloseTo(low, 9)
    expect(range.high).toBeCloseTo(high, 9)
  })
  test.each(['50 W', '-5 °C', '', 'wide', '1 200 W'])('%s is no range', (text) => {
    expect(parseRange(text, 'power')).toBeNull()
  })
  test('wrong order and wrong units are said', () => {
    expect(parseRange('70 to 50 W', 'power')).toEqual({ ok: false, message: 'The lower end comes first.' })
    expect(parseRange('50 to 70 dB', 'power')).toMatchObject({
      ok: false,
      message: expect.stringContaining('sound level'),
    })
  })
  test.each([
    ['400 h', '400 h'],
    ['2 d', '2 days'],
    ['90 min', '90 min'],
    ['1.5 min', '90 s'],
    ['0.5 s', '0.5 s'],
  ])('a time typed as %s stands in its field as %s', (typed, shown) => {
    const parsed = parseQuantity(typed, 'duration')
    expect(parsed.ok && printField(parsed.value, 'duration')).toBe(shown)
  })
  test('a field of money has no unit behind, an empty one nothing', () => {
    expect(printField(4, 'money')).toBe('4')
    expect(printField(null, 'duration')).toBe('')
  })
  test.each([
    [45, '45 s'],
    [600, '10 min'],
    [21540, '6 h'],
    [4 * 86400, '4 days'],
  ])('%s s prints as %s', (seconds, text) => {
    expect(printQuantity(seconds, 'duration').replaceAll('\u00a0', ' ')).toBe(text)
  })
})

describe('magnitudes that read well', () => {
  const imperial = preferenceSets.imperial
  // worked by hand: 1 CFM = 0.3048^3/60 m3/s, 1 in = 25.4 mm exactly (NIST SP 811)
  test.each([
    [0.0005, 'volume', {}, '0.5 L'],
    [0.0005, 'volume', imperial, '0.5 L'],
    [0.46, 'volume', {}, '0.46 m³'],
    [0.003, 'length', imperial, '3 mm'],
    [0.092, 'length', imperial, '3.62 in'],
    [2e-5, 'area', {}, '20 mm²'],
    [2e-5, 'area', imperial, '20 mm²'],
    [0.7 * 4.719474432e-4, 'flow', imperial, '0.7 CFM'],
    [0.03 * 4.719474432e-4, 'flow', imperial, '0.03 CFM'],
    [0.2 / 3600, 'flow', {}, '3.3 L/min'],
    [0.04, 'pressure', {}, '0.04 Pa'],
    [-0.04, 'pressure', {}, '−0.04 Pa'],
    [1e-9, 'pressure', {}, '0 Pa'],
    [0.04, 'temperatureDifference', {}, '0 K'],
    [0, 'flow', {}, '0 m³/h'],
  ] as const)('%d of a %s', (value, quantity, units, text) => {
    expect(printQuantity(value, quantity, units).replace('\u00a0', ' ')).toBe(text)
  })
  test.each([
    [100, 'altitude', imperial, '330 ft'],
    [328 * 0.3048, 'altitude', imperial, '328 ft'],
    [180, 'altitude', {}, '180 m'],
    [1.5, 'distance', imperial, '4.92 ft'],
    [0.06, 'length', imperial, '2.36 in'],
    [0.003, 'length', imperial, '3 mm'],
    [0.0005, 'volume', {}, '0.5 L'],
    [294.35 - 273.15, 'temperature', imperial, '70.16 °F'],
  ] as const)('a field with %d of a %s', (value, quantity, units, text) => {
    expect(printField(value, quantity, units)).toBe(text)
  })
})

describe('our own sentences in the person’s units', () => {
  test.each([
    ['empty: 0.25 m/s', 'empty: 49 ft/min'],
    ['usual: 2.5 to 5 Pa', 'usual: 0.01 to 0.02 inH₂O'],
    ['not below 0 °C, at most 45 °C.', 'not below 32 °F, at most 113 °F.'],
    ['insulated tools, fuse within 0.2 m.', 'insulated tools, fuse within 0.7 ft.'],
    ['1.4 K/W and 12 V, 5 mm2', '1.4 K/W and 12 V, 5 mm2'],
    ['a box of 30 × 30 × 10 cm', 'a box of 30 × 30 × 10 cm'],
    ['Foam 45 ppi, 10 mm', 'Foam 45 ppi, 0.39 in'],
    ['26 AWG, 0.13 mm²', '26 AWG, 0.13 mm²'],
  ])('%s', (text, own) => {
    expect(inOwnUnits(text, preferenceSets.imperial).replaceAll('\u00a0', ' ')).toBe(own)
    expect(inOwnUnits(text, {})).toBe(text)
    expect(inOwnUnits(text, preferenceSets.metric)).toBe(text)
  })
})
