/** Temperature from a probe’s resistance or voltage. */
import { figure, input } from '#core/figure'
import {
  type PtClass,
  dividerResistance,
  ntcTemperature,
  ptLeadError,
  ptTemperature,
  ptTolerance,
  typeKTemperature,
} from '#core/measure'
import { type Inputs, type Converted, type Conversion, field, no, yes } from './conversion'

const ptLabels = ['AA', 'A', 'B', 'C'].map((value) => ({ value, label: `class ${value}` }))
function platinum({ n, choice }: Inputs): Converted {
  const r0 = choice.r0 === '1000' ? 1000 : 100
  const lead = ptLeadError(n.lead ?? 0, r0)
  const read = ptTemperature(n.ohm!, r0)
  if (read === null) return no('No temperature between −200 and 850 °C has this resistance.')
  const value = read - lead
  const half = ptTolerance((choice.kind ?? 'B') as PtClass, value)
  return yes(
    [
      figure('t', 'Temperature', 'temperature', value, 'R = R₀(1 + A·t + B·t²), solved for t', 'IEC 60751', {
        basis: 'measured',
        low: value - half,
        high: value + half,
        inputs: [
          input('R', 'resistance', n.ohm!, 'resistance'),
          input('R₀', 'at 0 °C', r0, 'resistance'),
          input('R_lead', 'both leads', n.lead ?? 0, 'resistance'),
        ],
        note: `Range: class ${choice.kind ?? 'B'}.`,
      }),
      figure('lead', 'The leads add', 'temperatureDifference', lead, 'R_lead/(A·R₀)', 'IEC 60751'),
    ],
    { warning: lead > 1 ? 'The leads alone make more than a kelvin: three or four wires, or a Pt1000.' : '' },
  )
}

/** Beta of an NTC holds within this; beyond it the error reaches a kelvin and more. Common practice, no source. */
const BETA_RANGE_C = [0, 50] as const
function thermistor({ n }: Inputs): Converted {
  const ohm =
    n.ohm ??
    (n.fraction === null || n.fraction === undefined || !n.fixed
      ? null
      : dividerResistance(n.fraction, n.fixed))
  if (ohm === null || ohm <= 0)
    return no(
      'The resistance itself, or the share of the converter’s full scale with its fixed resistor, is wanted.',
    )
  const value = ntcTemperature(ohm, n.r25!, n.beta!)
  const outside = value < BETA_RANGE_C[0] || value > BETA_RANGE_C[1]
  const half = outside ? 2 : 0.7
  return yes(
    [
      figure('t', 'Temperature', 'temperature', value, '1/T = 1/298.15 K + ln(R/R₂₅)/β', 'physics notes ME11', {
        basis: 'measured',
        low: value - half,
        high: value + half,
        inputs: [
          input('R', 'resistance', ohm, 'resistance'),
          input('R₂₅', 'at 25 °C', n.r25!, 'resistance'),
          input('β', 'in K', n.beta!, 'number'),
        ],
        note: 'Range: common practice, no source.',
      }),
      figure('ohm', 'Resistance', 'resistance', ohm, 'R = R_fix·x/(1 − x)', 'divider, the supply cancels'),
    ],
    { warning: outside ? 'Outside 0 to 50 °C the β law is off by a kelvin and more: use three points.' : '' },
  )
}

export const temperatureConversions: readonly Conversion[] = [
  {
    key: 'platinum',
    title: 'Platinum sensor to temperature',
    gives: 'temperature',
    choices: [
      {
        key: 'r0',
        label: 'Sensor',
        options: [
          { value: '100', label: 'Pt100' },
          { value: '1000', label: 'Pt1000' },
        ],
      },
      { key: 'kind', label: 'Class', options: ptLabels },
    ],
    fields: [
      field('ohm', 'Resistance', 'resistance'),
      field('lead', 'Both leads', 'resistance', 0, { optional: true }),
    ],
    convert: platinum,
  },
  {
    key: 'ntc',
    title: 'NTC to temperature',
    gives: 'temperature',
    fields: [
      field('ohm', 'Resistance', 'resistance', null, { optional: true }),
      field('fraction', 'or share of full scale', 'ratio', null, { optional: true, hint: 'NTC to ground' }),
      field('fixed', 'under a fixed', 'resistance', 10000, { optional: true }),
      field('r25', 'At 25 °C', 'resistance', 10000),
      field('beta', 'β, K', 'number', 3950),
    ],
    convert: thermistor,
  },
  {
    key: 'type-k',
    title: 'Type K thermocouple to temperature',
    gives: 'temperature',
    fields: [field('v', 'Voltage', 'voltage'), field('cold', 'Cold junction', 'temperature', 22)],
    convert: ({ n }) => {
      const value = typeKTemperature(n.v!, n.cold!)
      return value === null
        ? no('The table reaches from 0 to 200 °C.')
        : yes([
            figure(
              't',
              'Temperature',
              'temperature',
              value,
              'E(t) = E_meas + E(t_cold)',
              'IEC 60584-1 (from memory): voltages add, degrees do not',
              {
                basis: 'measured',
                low: value - 2.5,
                high: value + 2.5,
                inputs: [
                  input('E_meas', 'voltage', n.v!, 'voltage'),
                  input('t_cold', 'cold junction', n.cold!, 'temperature'),
                ],
                note: 'Range: class 2.',
              },
            ),
          ])
    },
  },
]
