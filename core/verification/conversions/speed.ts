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
    key: 'slow-motion',
    title: 'Turns counted in a slow-motion film to fan speed',
    gives: 'rotation',
    fields: [
      field('turns', 'Turns of a mark on the hub', 'number'),
      field('frames', 'Frames that they took', 'number'),
      field('rate', 'Frames a second, as filmed', 'frequency', 240),
    ],
    convert: ({ n }) => {
      const { turns, frames, rate } = n
      if (!(frames! > 0) || !(rate! > 0)) return no('Frames and their rate must be above zero.')
      if (!(turns! > 0)) return no('Count at least one whole turn.')
      if (turns! / frames! >= 0.5)
        return no('More than half a turn from frame to frame: it may as well turn backwards. Film faster.')
      // a frame more or less at each end
      const rpm = (frame: number) => (60 * turns! * rate!) / frame
      return yes([
        figure('rpm', 'Speed', 'rotation', rpm(frames!), 'n = 60·turns·rate/frames', 'frames counted', {
          basis: 'measured',
          low: rpm(frames! + 1),
          high: rpm(Math.max(1, frames! - 1)),
          inputs: [
            input('N', 'turns', turns!, 'number'),
            input('k', 'frames', frames!, 'number'),
            input('r', 'frames a second', rate!, 'frequency'),
          ],
          note: 'Range: one frame more or less. Count many turns; a mark that seems to stand still tells nothing.',
        }),
      ])
    },
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
