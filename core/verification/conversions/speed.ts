/** Speed of a fan from what counts its turns. */
import { figure, input } from '#core/figure'
import { TACH_PULSES, speedFromBladePass, tachSpeed } from '#core/measure'
import { type Conversion, field, no, yes } from './conversion'

export const speedConversions: readonly Conversion[] = [
  {
    key: 'tach',
    title: 'Tach frequency to fan speed',
    gives: 'rotation',
    fields: [
      field('hz', 'Tach frequency', 'frequency'),
      field('pulses', 'Pulses a turn', 'number', TACH_PULSES, { hint: 'two are usual' }),
    ],
    convert: ({ n }) =>
      n.pulses! > 0
        ? yes([
            figure('rpm', 'Speed', 'rotation', tachSpeed(n.hz!, n.pulses!), 'n = 60·f/p', 'physics notes ME1', {
              basis: 'measured',
              inputs: [
                input('f', 'frequency', n.hz!, 'frequency'),
                input('p', 'pulses a turn', n.pulses!, 'number'),
              ],
              note: 'Twice or half the label means a wrong pulse count.',
            }),
          ])
        : no('A turn has at least one pulse.'),
  },
  {
    key: 'blade-pass',
    title: 'Whine in a recording to fan speed',
    gives: 'rotation',
    fields: [field('hz', 'Frequency of the line', 'frequency'), field('blades', 'Blades', 'number', 7)],
    convert: ({ n }) =>
      n.blades! > 0
        ? yes([
            figure(
              'rpm',
              'Speed',
              'rotation',
              speedFromBladePass(n.hz!, n.blades!),
              'n = 60·f/B',
              'blade-pass frequency',
              {
                basis: 'measured',
                inputs: [input('f', 'line', n.hz!, 'frequency'), input('B', 'blades', n.blades!, 'number')],
              },
            ),
          ])
        : no('A fan has blades.'),
  },
]
