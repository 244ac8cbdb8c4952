import { of, POWER, FIT, CONTROL, planned, type Cause } from './cause'
import type { Known } from './known'

/** Causes that several symptoms share. */

export const shared = {
  swapped: (known: Known): Cause => ({
    key: 'swapped',
    title: '+ and − are swapped',
    share: 3,
    shows: { fanV: { negative: 0.95 }, fanA: { none: 0.9 }, openV: { negative: 0.95 }, turns: { free: 0.9 } },
    physics: 'A brushless fan’s electronics conduct one way only: reversed, a diode blocks, or burns.',
    fix: [
      'Switch off. Exchange the two wires at the plug, then measure again: red on + must show +',
      ...planned(known),
      ' If it then stands still, the fan is dead: take another.',
    ],
    at: POWER,
  }),
  starved: (known: Known): Cause => ({
    key: 'starved',
    title: 'The converter or source cannot give the current',
    share: 2,
    shows: {
      fanV: { low: 0.6, 'below-start': 0.35 },
      openV: { ok: 0.95 },
      rpm: { low: 0.7, none: 0.25 },
      fanA: { low: 0.85 },
      sourceV: { ok: 0.6, low: 0.35 },
      turns: { free: 0.9 },
      full: { right: 0.8 },
    },
    physics:
      'At its current limit a supply lets its voltage fall until the load takes no more than it can give.',
    fix: [
      ...(known.converter
        ? [
            `${known.converter.name} gives `,
            of(known.converter.limitA, 'current'),
            ' by the plan, and the fans take ',
            of(known.converter.outA, 'current'),
            ': ',
          ]
        : []),
      'a stronger one, fewer fans on it, or one of that rating that is not worn out; its input must not sag either.',
    ],
    at: known.converter ? { station: 'power', part: known.converter.id } : POWER,
  }),
  setLow: (known: Known): Cause => ({
    key: 'set-low',
    title: 'The converter is set too low',
    share: known.converter ? 2 : 0,
    shows: {
      fanV: { low: 0.6, 'below-start': 0.35 },
      openV: { low: 0.6, 'below-start': 0.35 },
      sourceV: { ok: 0.95 },
      rpm: { low: 0.7, none: 0.25 },
      fanA: { low: 0.8 },
      turns: { free: 0.9 },
    },
    physics:
      'Speed follows the voltage about in proportion; below its start voltage a fan only hums or twitches.',
    fix: ['Unplug the fan, turn the screw until the meter reads ', ...planned(known)],
    at: known.converter ? { station: 'power', part: known.converter.id } : POWER,
  }),
  thinWire: (known: Known): Cause => ({
    key: 'wire',
    title: 'A bad joint or a thin wire between',
    share: 1.5,
    shows: {
      fanV: { low: 0.75, 'below-start': 0.2 },
      openV: { ok: 0.95 },
      sourceV: { ok: 0.95 },
      fanA: { low: 0.7, ok: 0.25 },
      others: { better: 0.5 },
      full: { right: 0.5 },
      rpm: { low: 0.8 },
      turns: { free: 0.9 },
    },
    physics: 'A resistance in the lead takes voltage only while current flows: V = I × R.',
    fix: [
      'Measure along the lead, from the source to the fan: where it falls is the joint. Pull each crimp; the plan: ',
      ...planned(known),
    ],
    at: POWER,
  }),
  rubs: (known: Known): Cause => ({
    key: 'rubs',
    title: 'Something rubs, or holds the blades',
    share: 2,
    shows: {
      fanV: { ok: 0.9 },
      turns: { rubs: 0.65, stuck: 0.3 },
      fanA: { high: 0.85 },
      rpm: { low: 0.6, none: 0.35 },
      front: { better: 0.4 },
      hand: { quiet: 0.5 },
      others: { same: 0.95 },
    },
    physics: 'A braked motor makes less counter-voltage, so more current flows and it warms up.',
    fix: known.guarded
      ? [
          'Power off: a cable, the guard or a warped frame. Screws snug, not tight; cables 10 mm from the blades.',
        ]
      : ['Power off: a cable, or a warped frame. Screws snug, not tight; cables 10 mm from the blades.'],
    at: FIT,
  }),
  bearing: (): Cause => ({
    key: 'bearing',
    title: 'The bearing is worn or dry',
    share: 1,
    shows: {
      fanV: { ok: 0.9 },
      turns: { rubs: 0.6, free: 0.35 },
      position: { changes: 0.8 },
      hand: { same: 0.8 },
      front: { same: 0.9 },
      fanA: { high: 0.5, ok: 0.45 },
      rpm: { low: 0.6, ok: 0.35 },
      tone: { follows: 0.9 },
      others: { same: 0.95 },
      cools: { again: 0.5 },
    },
    physics: 'Without its film of oil a bearing rattles, drags and warms until it sticks.',
    fix: ['Replace the fan; oil is a stop-gap. Note it in the log book.'],
    at: { station: 'log' },
  }),
  held: (known: Known): Cause => ({
    key: 'held',
    title: 'Its control holds it back',
    share: known.switched || known.duty !== null ? 2 : 0.1,
    shows: {
      fanV: { ok: 0.75, low: 0.2 },
      full: { right: 0.95 },
      turns: { free: 0.95 },
      rpm: { low: 0.55, none: 0.4 },
      fanA: { low: 0.6, none: 0.3 },
      openV: { ok: 0.8 },
      cools: { again: 0.8 },
    },
    physics: 'A PWM wire that is held low, or a sensor that reads cold, asks for little or no speed.',
    fix: [
      'See what it asks for: warm its sensor, unplug the PWM wire (open is full speed), compare both duties with the plan',
      ...(known.duty === null ? ['.'] : [': ', of(known.duty, 'ratio'), '.']),
    ],
    at: CONTROL,
  }),
}
