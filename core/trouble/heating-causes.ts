import { of, POWER, FIT, PATH, planned, type Cause } from './cause'
import type { Known } from './known'
import { shared } from './shared-causes'

/** The current is too high, the converter gets hot, or nothing gets cooler. */

export const current = (known: Known): Cause[] => [
  shared.rubs(known),
  {
    key: 'too-high',
    title: 'The voltage is too high',
    share: 2,
    shows: {
      fanV: { high: 0.95 },
      rpm: { high: 0.9 },
      fanA: { high: 0.95 },
      turns: { free: 0.95 },
      others: { same: 0.9 },
    },
    physics: 'Current grows faster than voltage: power of a fan goes with the third power of its speed.',
    fix: [
      'Set it back to ',
      ...planned(known),
      ...(known.maxV === null ? [] : [' It stands ', of(known.maxV, 'voltage'), ' at most.']),
    ],
    at: POWER,
  },
  {
    key: 'more-loads',
    title: 'More hangs on that wire than the plan counts',
    share: 1.5,
    shows: {
      others: { better: 0.95 },
      fanV: { ok: 0.7, low: 0.25 },
      rpm: { ok: 0.85 },
      turns: { free: 0.95 },
      fanA: { high: 0.9 },
    },
    physics: 'Currents of loads side by side add up.',
    fix: ['Put it into the plan as a load, and see what source and fuse say then.'],
    at: POWER,
  },
  {
    key: 'leak',
    title: 'A whisker between + and −',
    share: 1,
    shows: {
      others: { same: 0.8 },
      fanV: { ok: 0.5, low: 0.45 },
      rpm: { ok: 0.6, low: 0.35 },
      turns: { free: 0.95 },
      fanA: { high: 0.98 },
    },
    physics:
      'A strand across the wires is a small resistor beside the fan: it takes current and turns it to heat.',
    fix: [
      'Switch off. Unplug the fan: what still flows is the whisker. Look at every sleeve; it must read 10 Ω at least.',
    ],
    at: POWER,
  },
  shared.bearing(),
  {
    key: 'label',
    title: 'The sheet named less than this fan takes',
    share: 1,
    shows: {
      others: { same: 0.95 },
      fanV: { ok: 0.95 },
      rpm: { ok: 0.9 },
      turns: { free: 0.95 },
      fanA: { high: 0.7, ok: 0.25 },
    },
    physics: 'Fans of one kind differ by a fifth, and a sheet may name another working point.',
    fix: ['Type what you measured as the fan’s own test; source, converter and fuse are judged by that.'],
    at: { station: 'line-up' },
  },
]

/** What may be behind a fan that gets hot. */
export const hot = (known: Known): Cause[] => {
  const { converter } = known
  return [
    {
      key: 'burns',
      title: 'It turns voltage into heat by its nature',
      share: converter?.burns ? 5 : 0.2,
      shows: { fanA: { ok: 0.8 }, touchC: { hot: 0.9 }, fanV: { ok: 0.85 }, front: { same: 0.7 } },
      physics: 'A resistor or linear regulator burns (V in − V out) × I, whatever it is made of.',
      fix: converter
        ? [
            'By the plan it burns ',
            of(converter.heatW, 'power'),
            ': a heatsink in the air stream, or a switching converter.',
          ]
        : ['A heatsink in the air stream, or a switching converter.'],
      at: POWER,
    },
    {
      key: 'overload',
      title: 'It gives more current than it was made for',
      share: 2,
      shows: {
        fanA: { high: 0.9 },
        touchC: { hot: 0.95 },
        fanV: { ok: 0.6, low: 0.35 },
        front: { same: 0.8 },
        others: { better: 0.6 },
      },
      physics: 'Its losses grow with the square of the current.',
      fix: converter
        ? [
            'The plan counts ',
            of(converter.outA, 'current'),
            ' of ',
            of(converter.limitA, 'current'),
            ': search “The current is too high”, or take a larger one.',
          ]
        : ['Search “The current is too high”, or take a larger one.'],
      at: POWER,
    },
    {
      key: 'no-air',
      title: 'No air reaches it',
      share: 2,
      shows: { fanA: { ok: 0.9 }, touchC: { hot: 0.9 }, fanV: { ok: 0.95 }, front: { better: 0.85 } },
      physics: 'In still air a small module sheds about a tenth of a watt for each 3 K.',
      fix: ['Into the air stream, on stand-offs, out of its shrink tube.'],
      at: FIT,
    },
    {
      key: 'normal',
      title: 'It is as warm as it should be',
      share: 1,
      shows: { fanA: { ok: 0.9 }, touchC: { ok: 0.95 }, fanV: { ok: 0.95 }, front: { same: 0.7 } },
      physics: 'A tenth of its power stays in it even when all is well.',
      fix: ['Below 60 °C to touch it may stay. Look again after the first day.'],
      at: null,
    },
  ]
}

/** What may be behind equipment that stays too warm. */
export const warm = (known: Known): Cause[] => [
  {
    key: 'again',
    title: 'It draws its own warm air in again',
    share: 2.5,
    shows: { intakeC: { warm: 0.95 }, paper: { away: 0.8 }, rpm: { ok: 0.9 }, front: { same: 0.8 } },
    physics: 'Every kelvin of the air going in comes out at the other end as well.',
    fix: ['Outlet and intake further apart, a sheet between them, air out upwards.'],
    at: PATH,
  },
  {
    key: 'wrong-way',
    title: 'The air goes the wrong way, or not at all',
    share: 1.5,
    shows: { paper: { towards: 0.6, still: 0.38 }, intakeC: { warm: 0.5, ok: 0.5 } },
    physics: 'Against the plan it pushes warm air back over what should be cooled.',
    fix: ['Search “Air goes the wrong way”.'],
    at: FIT,
  },
  {
    key: 'less-air',
    title: 'Less air than planned: dust, filter, something in front',
    share: known.hasFilter ? 2 : 1.2,
    shows: {
      front: { better: 0.85 },
      paper: { away: 0.75, still: 0.2 },
      rpm: { ok: 0.8 },
      intakeC: { ok: 0.9 },
    },
    physics: 'Flow falls with the root of the path’s resistance; the rise grows as it falls.',
    fix: ['Clean or change the filter, free the openings, then measure the rise again.'],
    at: PATH,
  },
  {
    key: 'slow-fan',
    title: 'The fan runs slower than planned',
    share: 1.2,
    shows: {
      rpm: { low: 0.85, none: 0.12 },
      paper: { away: 0.7, still: 0.25 },
      intakeC: { ok: 0.9 },
      front: { same: 0.85 },
    },
    physics: 'Airflow follows the speed in proportion: half the speed, half the air.',
    fix: ['Search “It turns slowly”.'],
    at: POWER,
  },
  {
    key: 'past-it',
    title: 'The air goes past the hot part',
    share: 1.5,
    shows: {
      paper: { away: 0.95 },
      rpm: { ok: 0.95 },
      intakeC: { ok: 0.95 },
      front: { same: 0.9 },
      hotC: { hot: 0.8 },
    },
    physics: 'Air takes the widest way, not the warmest: a part is cooled by the air that touches it.',
    fix: ['A sheet of card that leads the air over the hot part; close other ways.'],
    at: PATH,
  },
  {
    key: 'more-heat',
    title: 'It makes more heat than the plan counts',
    share: 1,
    shows: {
      paper: { away: 0.95 },
      rpm: { ok: 0.95 },
      intakeC: { ok: 0.95 },
      front: { same: 0.9 },
      hotC: { hot: 0.9 },
    },
    physics: 'The rise is heat over airflow: more watts, more kelvin.',
    fix: [
      'Measure its power with a plug-in meter and type it into Need; the plan then tells how much air it wants.',
    ],
    at: { station: 'need', field: 'heatW' },
  },
  {
    key: 'fine',
    title: 'It is within what was wanted',
    share: 0.8,
    shows: {
      hotC: { ok: 0.97 },
      paper: { away: 0.95 },
      rpm: { ok: 0.95 },
      intakeC: { ok: 0.95 },
      front: { same: 0.9 },
    },
    physics: 'A hand feels warm air as no change; a thermometer after the same soak tells it.',
    fix: ['Log a run like the baseline: the Verdict compares them.'],
    at: { station: 'log' },
  },
]
