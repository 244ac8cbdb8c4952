/** Pressure of a column, of two heights, of a sensor and its offset. */
import { GRAVITY } from '#core/air'
import { figure, input } from '#core/figure'
import { columnPressure, heightPressure, swappedSensorPressure, usualHalfWidth } from '#core/measure'
import { type Conversion, field, no, yes } from './conversion'

export const pressureConversions: readonly Conversion[] = [
  {
    key: 'column',
    title: 'Liquid column to pressure',
    gives: 'pressure',
    fields: [
      field('l', 'Length along the tube', 'length'),
      field('angle', 'Angle of the tube, degrees', 'number', 90, { hint: '90 stands upright; 1:10 is 5.7' }),
      field('rho', 'Liquid', 'density', 998),
    ],
    convert: ({ n }) =>
      n.angle! > 0 && n.angle! <= 90
        ? yes([
            figure(
              'p',
              'Pressure',
              'pressure',
              columnPressure(n.l!, n.rho!, n.angle!),
              'p = ρ·g·L·sin θ',
              'hydrostatics',
              {
                basis: 'measured',
                inputs: [
                  input('L', 'along the tube', n.l!, 'length'),
                  input('θ', 'degrees', n.angle!, 'number'),
                  input('ρ', 'liquid', n.rho!, 'density'),
                  input('g', 'm/s²', GRAVITY, 'number'),
                ],
              },
            ),
          ])
        : no('The angle lies between 0 and 90 degrees.'),
  },
  {
    key: 'swap',
    title: 'Two barometric sensors, swapped',
    gives: 'pressure',
    fields: [field('d1', 'Sensor A inside: A − B', 'pressure'), field('d2', 'A outside: A − B', 'pressure')],
    convert: ({ n }) =>
      yes([
        figure(
          'p',
          'Pressure',
          'pressure',
          swappedSensorPressure(n.d1!, n.d2!),
          'Δp = (d₁ − d₂)/2',
          'physics notes ME5: the offset cancels',
          {
            basis: 'measured',
            low:
              swappedSensorPressure(n.d1!, n.d2!) -
              usualHalfWidth('pressure', swappedSensorPressure(n.d1!, n.d2!)),
            high:
              swappedSensorPressure(n.d1!, n.d2!) +
              usualHalfWidth('pressure', swappedSensorPressure(n.d1!, n.d2!)),
            inputs: [input('d₁', 'A inside', n.d1!, 'pressure'), input('d₂', 'A outside', n.d2!, 'pressure')],
            note: 'Usable floor 1 to 2 Pa after a minute of averaging (common practice).',
          },
        ),
      ]),
  },
  {
    key: 'offset',
    title: 'Two barometric sensors, offset known',
    gives: 'pressure',
    fields: [
      field('in', 'Inside less outside, running', 'pressure'),
      field('zero', 'The same, fan off', 'pressure', 0),
      field('dh', 'Inside sensor higher by', 'length', 0, { optional: true }),
    ],
    convert: ({ n, density }) => {
      const height = heightPressure(n.dh ?? 0, density)
      const value = n.in! - n.zero! + height
      return yes([
        figure(
          'p',
          'Pressure',
          'pressure',
          value,
          'Δp = (p_in − p_out) − offset + ρ·g·Δh',
          'physics notes ME5',
          {
            basis: 'measured',
            low: value - usualHalfWidth('pressure', value),
            high: value + usualHalfWidth('pressure', value),
            inputs: [
              input('p', 'running', n.in!, 'pressure'),
              input('offset', 'fan off', n.zero!, 'pressure'),
              input('Δh', 'height', n.dh ?? 0, 'length'),
            ],
            note: 'Only where the height was not there already when the offset was read.',
          },
        ),
      ])
    },
  },
]
