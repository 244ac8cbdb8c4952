/** Sums of measuring: how sure a reading is, thermistors, where three readings lead. */
import { figure } from '#core/figure'
import {
  endValue,
  flowUncertainty,
  meterLimit,
  ntcBeta,
  ntcTemperature,
  pairNoise,
  pitotUncertainty,
  powerUncertainty,
  rectangularUncertainty,
  soakFraction,
  steinhartHart,
  timeConstantOf,
} from '#core/measure'
import { field, no, inputsOf, yes, type SumOfGroup } from './sum'

const GUM = 'JCGM 100: relative uncertainties of a product add as squares'
/** Standard uncertainties that hold the truth 95 times in 100. */
const COVER = 2
const SURE = '95 times in 100 (twice the standard uncertainty)'

const meterFields = [
  field('reading', 'Reading', 'number'),
  field('share', 'Of the reading', 'ratio', 0.01, { hint: 'as the meter’s leaflet says: ±(1 % + 3)' }),
  field('digits', 'Counts of the last digit', 'number', 3),
  field('step', 'Last digit is worth', 'number', 0.01),
]
const powerFields = [
  field('volts', 'Voltage', 'voltage'),
  field('uVolts', 'Sure to ±', 'voltage', null, { hint: 'limit of the meter' }),
  field('amps', 'Current', 'current'),
  field('uAmps', 'Current sure to ±', 'current'),
]
const flowFields = [
  field('speed', 'Air speed, mean', 'speed'),
  field('uSpeed', 'Sure to ±', 'speed'),
  field('diameter', 'Bore', 'length'),
  field('uDiameter', 'Bore sure to ±', 'length', 0.001),
]
const pitotFields = [
  field('pressure', 'Velocity pressure', 'pressure'),
  field('uPressure', 'Sure to ±', 'pressure'),
  field('density', 'Air density', 'density', 1.2),
  field('uDensity', 'Density sure to ±', 'density', 0.02),
]
const thermistorFields = [
  field('r', 'Resistance read', 'resistance'),
  field('t1', 'First point', 'temperature', 25),
  field('r1', 'Resistance there', 'resistance'),
  field('t2', 'Second point', 'temperature'),
  field('r2', 'Resistance at the second', 'resistance'),
  field('t3', 'Third point', 'temperature', null, {
    optional: true,
    hint: 'with a third one the curve is bent right',
  }),
  field('r3', 'Resistance at the third', 'resistance', null, { optional: true }),
]
const threeFields = [
  field('t1', 'First reading', 'temperature'),
  field('t2', 'Second reading', 'temperature'),
  field('t3', 'Third reading', 'temperature'),
  field('spacing', 'Time from one to the next', 'duration'),
]
const pairFields = [
  field('scatter', 'One reading scatters by', 'pressure', null, { hint: 'standard deviation, fan off' }),
  field('samples', 'Readings, with and without', 'number', 10),
  field('wanted', 'Difference to be seen', 'pressure'),
]
/** Spacing under which noise decides where three readings lead, time constants (physics notes, ME22). */
const CLOSE = 0.5
const standard = (limit: number) => rectangularUncertainty('limit', limit)

export const measuring: SumOfGroup[] = [
  {
    key: 'meter',
    title: 'How sure a meter is',
    fields: meterFields,
    convert: (i) => {
      const { reading, share, digits, step } = i.n
      const limit = meterLimit(reading!, share!, digits!, step!)
      return yes([
        figure(
          'limit',
          'Within ±',
          'number',
          limit,
          'a = s·|x| + n·d',
          'limits of a meter as its maker states them',
          {
            inputs: inputsOf(i, meterFields, { reading: 'x', share: 's', digits: 'n', step: 'd' }),
          },
        ),
        figure(
          'standard',
          'Standard uncertainty',
          'number',
          standard(limit),
          'u = a/√3',
          'JCGM 100, any value within the limits as likely',
        ),
        figure(
          'last',
          'Of it from the last digit alone',
          'number',
          rectangularUncertainty('resolution', step!),
          'd/√12',
          'JCGM 100',
        ),
        figure(
          'share',
          'Of the reading',
          'ratio',
          reading === 0 ? null : limit / Math.abs(reading!),
          'a/|x|',
          'definition',
        ),
      ])
    },
  },
  {
    key: 'power-sure',
    title: 'How sure a power is',
    fields: powerFields,
    convert: (i) => {
      const { volts, uVolts, amps, uAmps } = i.n
      const watts = volts! * amps!
      const u = COVER * powerUncertainty(volts!, standard(uVolts!), amps!, standard(uAmps!))
      return yes([
        figure('power', 'Power', 'power', watts, 'P = U·I', GUM, {
          inputs: inputsOf(i, powerFields, { volts: 'U', uVolts: 'a_U', amps: 'I', uAmps: 'a_I' }),
          low: watts - u,
          high: watts + u,
          note: SURE,
        }),
        figure('sure', 'Sure to ±', 'power', u, '2·P·√((a_U/√3/U)² + (a_I/√3/I)²)', GUM),
      ])
    },
  },
  {
    key: 'flow-sure',
    title: 'How sure an airflow is',
    fields: flowFields,
    convert: (i) => {
      const { speed, uSpeed, diameter, uDiameter } = i.n
      const flow = (Math.PI / 4) * diameter! ** 2 * speed!
      const u = COVER * flowUncertainty(speed!, standard(uSpeed!), diameter!, standard(uDiameter!))
      return yes([
        figure('flow', 'Airflow', 'flow', flow, 'Q = π/4·D²·v', GUM, {
          inputs: inputsOf(i, flowFields, { speed: 'v', uSpeed: 'a_v', diameter: 'D', uDiameter: 'a_D' }),
          low: flow - u,
          high: flow + u,
          note: SURE,
        }),
        figure('sure', 'Sure to ±', 'flow', u, '2·Q·√((a_v/√3/v)² + (2·a_D/√3/D)²)', GUM),
      ])
    },
  },
  {
    key: 'speed-sure',
    title: 'How sure an air speed from pressure is',
    fields: pitotFields,
    convert: (i) => {
      const { pressure, uPressure, density, uDensity } = i.n
      if (!(pressure! > 0)) return no('Velocity pressure must be above zero.')
      const speed = Math.sqrt((2 * pressure!) / density!)
      const u = COVER * pitotUncertainty(pressure!, standard(uPressure!), density!, standard(uDensity!))
      return yes(
        [
          figure('speed', 'Air speed', 'speed', speed, 'v = √(2·p/ρ)', GUM, {
            inputs: inputsOf(i, pitotFields, {
              pressure: 'p',
              uPressure: 'a_p',
              density: 'ρ',
              uDensity: 'a_ρ',
            }),
            low: Math.max(0, speed - u),
            high: speed + u,
            note: SURE,
          }),
        ],
        COVER * standard(uPressure!) > pressure!
          ? 'The manometer’s own limit is as large as the reading: this says little.'
          : '',
      )
    },
  },
  {
    key: 'pairs',
    title: 'Readings for a small pressure',
    fields: pairFields,
    convert: (i) => {
      const { scatter, samples, wanted } = i.n
      if (!(samples! >= 1 && wanted! > 0)) return no('At least one reading, and a difference above zero.')
      const noise = COVER * pairNoise(scatter!, samples!)
      const inputs = inputsOf(i, pairFields, { scatter: 's', samples: 'n', wanted: 'Δ' })
      const MEANS = 'difference of two means (physics notes, ME2 to ME5)'
      return yes(
        [
          figure('noise', 'The difference is sure to ±', 'pressure', noise, '2·s·√(2/n)', MEANS, {
            inputs,
            note: SURE,
          }),
          figure(
            'needed',
            'Readings for the one wanted',
            'number',
            Math.ceil(2 * ((COVER * scatter!) / wanted!) ** 2),
            'n = 2·(2·s/Δ)²',
            MEANS,
            { inputs, note: 'each, with the fan on and off, zero taken in between' },
          ),
        ],
        noise > wanted! ? 'It is not seen yet: more readings, or a steadier instrument.' : '',
      )
    },
  },
  {
    key: 'thermistor',
    title: 'Temperature from a thermistor',
    fields: thermistorFields,
    convert: (i) => {
      const { r, t1, r1, t2, r2, t3, r3 } = i.n
      if (t1 === t2 || r1 === r2) return no('Two points are at two temperatures, with two resistances.')
      const beta = ntcBeta(t1!, r1!, t2!, r2!)
      if (!(beta > 0)) return no('Its resistance falls as it warms up: look at the two points.')
      const third = typeof t3 === 'number' && typeof r3 === 'number'
      const inputs = inputsOf(i, thermistorFields, {
        r: 'R',
        t1: 'T₁',
        r1: 'R₁',
        t2: 'T₂',
        r2: 'R₂',
        t3: 'T₃',
        r3: 'R₃',
      })
      const r25 = r1! / Math.exp(beta * (1 / (t1! + KELVIN) - 1 / (25 + KELVIN)))
      const bent = third
        ? steinhartHart(
            [
              { t: t1!, r: r1! },
              { t: t2!, r: r2! },
              { t: t3, r: r3 },
            ],
            r!,
          )
        : null
      if (third && (bent === null || !Number.isFinite(bent)))
        return no('The three points lie on no thermistor’s curve: look at them.')
      return yes([
        bent === null
          ? figure(
              't',
              'Temperature',
              'temperature',
              ntcTemperature(r!, r25, beta),
              '1/T = 1/T₁ + ln(R/R₁)/B',
              'Beta equation of a thermistor',
              {
                inputs,
                note: 'A degree and more off outside of the two points.',
              },
            )
          : figure(
              't',
              'Temperature',
              'temperature',
              bent,
              '1/T = a + b·ln R + c·(ln R)³',
              'Steinhart and Hart, 1968',
              { inputs },
            ),
        figure(
          'beta',
          'B between the first two, K',
          'number',
          beta,
          'B = ln(R₁/R₂)/(1/T₁ − 1/T₂)',
          'Beta equation of a thermistor',
          { inputs },
        ),
        figure(
          'r25',
          'At 25 °C',
          'resistance',
          r25,
          'R₂₅ = R₁·e^(B·(1/298.15 − 1/T₁))',
          'Beta equation of a thermistor',
        ),
      ])
    },
  },
  {
    key: 'three-readings',
    title: 'Where three readings lead',
    fields: threeFields,
    convert: (i) => {
      const { t1, t2, t3, spacing } = i.n
      const end = endValue(t1!, t2!, t3!)
      const tau = timeConstantOf(t1!, t2!, t3!, spacing!)
      if (end === null || tau === null)
        return no(
          'The second step must be smaller than the first, and go the same way: wait longer between the readings.',
        )
      const inputs = inputsOf(i, threeFields, { t1: 'T₁', t2: 'T₂', t3: 'T₃', spacing: 'Δt' })
      const FIRST = 'one heat capacity and one loss (physics notes, ME22)'
      return yes(
        [
          figure('end', 'It ends at', 'temperature', end, 'T_∞ = (T₁·T₃ − T₂²)/(T₁ + T₃ − 2·T₂)', FIRST, {
            inputs,
          }),
          figure('tau', 'Time constant', 'duration', tau, 'τ = Δt/ln((T₂ − T₁)/(T₃ − T₂))', FIRST, { inputs }),
          figure(
            'share',
            'Of the way since the first reading',
            'ratio',
            soakFraction((2 * spacing!) / tau),
            '1 − e^(−2·Δt/τ)',
            FIRST,
          ),
          figure(
            'left',
            'Until 95 % of it',
            'duration',
            Math.max(0, 3 * tau - 2 * spacing!),
            '3·τ − 2·Δt',
            FIRST,
          ),
        ],
        spacing! < CLOSE * tau
          ? 'The readings lie close together: half a degree in one of them moves the end by several. Take them farther apart.'
          : '',
      )
    },
  },
]
const KELVIN = 273.15
