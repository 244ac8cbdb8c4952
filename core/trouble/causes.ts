import type { Where } from '#core/rules'
import type { Quantity, Sentence } from '#core/units'
import type { Known } from './known'

/**
 * What may be wrong, by symptom: how common it is, what each measurement would show if it were so, the physics in a
 * sentence, and what to do. Shares are common practice, no source: they only order what is likely.
 */

export const symptoms = {
  still: 'It does not turn',
  backwards: 'Air goes the wrong way',
  slow: 'It turns slowly',
  whines: 'It whines or hums',
  current: 'The current is too high',
  hot: 'The converter gets hot',
  warm: 'Nothing gets cooler',
  louder: 'Louder than before',
  stops: 'It stops after a while',
} as const
export type Symptom = keyof typeof symptoms

/** How likely each band of a measurement is if this were the cause; bands that are not named share the rest. */
type Shows = Record<string, Record<string, number>>
export interface Cause {
  key: string
  title: string
  /** how common it is beside the others, any scale */
  share: number
  shows: Shows
  physics: string
  fix: Sentence
  at: Where | null
}

const of = (value: number | null, quantity: Quantity) => ({ value, quantity })
const POWER: Where = { station: 'power' }
const FIT: Where = { station: 'fit' }
const PATH: Where = { station: 'air-path' }
const CONTROL: Where = { station: 'control' }

/** What the plan wants at the fan's plug, as the end of a sentence. */
const planned = ({ fanV }: Known): Sentence =>
  fanV === null ? ['what is planned.'] : [of(fanV, 'voltage'), '.']

/** Causes that several symptoms share. */
const shared = {
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

const still = (known: Known): Cause[] => [
  {
    key: 'no-supply',
    title: 'No voltage arrives: fuse, switch or an open joint',
    share: 3,
    shows: {
      fanV: { none: 0.95 },
      openV: { none: 0.95 },
      fanA: { none: 0.95 },
      turns: { free: 0.9 },
      sourceV: { ok: 0.7, none: 0.25 },
    },
    physics: 'An open place stands in front of the whole voltage, and no current flows.',
    fix: [
      'From the source towards the fan, red probe along the +: the place where the voltage goes is open',
      ...(known.fuseA === null ? ['.'] : [': look at the fuse of ', of(known.fuseA, 'current'), ' first.']),
    ],
    at: POWER,
  },
  shared.swapped(known),
  shared.starved(known),
  shared.setLow(known),
  shared.rubs(known),
  shared.held(known),
  {
    key: 'dead',
    title: 'The fan’s electronics are dead',
    share: 1,
    shows: {
      fanV: { ok: 0.95 },
      openV: { ok: 0.95 },
      fanA: { none: 0.8, high: 0.15 },
      turns: { free: 0.95 },
      full: { same: 0.95 },
    },
    physics: 'Reversed once, or fed too much, its driver no longer switches the windings.',
    fix: ['Another fan; first find out what killed this one: polarity and voltage at the plug.'],
    at: { station: 'line-up' },
  },
]

const backwards = (known: Known): Cause[] => [
  {
    key: 'mounted-round',
    title: 'It is mounted the wrong way round',
    share: 4,
    shows: { arrow: { other: 0.97 }, spin: { same: 0.95 }, paper: { towards: 0.9 } },
    physics: 'An axial fan moves air one way along its shaft, whichever way the box wants it.',
    fix: ['Turn the frame round, struts to where the air shall go; never swap + and −.'],
    at: FIT,
  },
  {
    key: 'windmill',
    title: 'It does not run: another fan or the wind turns it',
    share: known.several ? 2 : 0.7,
    shows: {
      arrow: { same: 0.9 },
      spin: { other: 0.85, still: 0.1 },
      paper: { towards: 0.7, still: 0.25 },
      fanA: { none: 0.9 },
    },
    physics: 'Blades without power are a windmill, and an open hole for the air of the others.',
    fix: ['Search “It does not turn” for this fan.'],
    at: POWER,
  },
  {
    key: 'loop',
    title: 'Air goes round in a loop beside the fan',
    share: 1.5,
    shows: { arrow: { same: 0.95 }, spin: { same: 0.95 }, paper: { still: 0.6, towards: 0.3 } },
    physics: 'Air takes the shortest way back to the low pressure: through the gap beside the frame.',
    fix: ['Gasket round the frame, tape over open slots near it; then the paper again.'],
    at: PATH,
  },
  {
    key: 'tight',
    title: 'The path lets too little through',
    share: 1.2,
    shows: { arrow: { same: 0.95 }, spin: { same: 0.95 }, paper: { still: 0.85 }, front: { better: 0.8 } },
    physics: 'At shut-off an axial fan only stirs: part of its air comes back through the blades.',
    fix: ['Compare the openings with the plan: is one covered, a flap shut, the filter full?'],
    at: PATH,
  },
]

const slow = (known: Known): Cause[] => [
  shared.starved(known),
  shared.setLow(known),
  shared.thinWire(known),
  shared.held(known),
  shared.rubs(known),
  { ...shared.bearing(), share: 0.7 },
  {
    key: 'source-low',
    title: 'The source itself gives too little',
    share: known.battery ? 2 : 0.8,
    shows: {
      fanV: { low: 0.8, 'below-start': 0.15 },
      openV: { low: 0.55, ok: 0.4 },
      sourceV: { low: 0.95 },
      rpm: { low: 0.9 },
      fanA: { low: 0.85 },
      turns: { free: 0.95 },
      others: { better: 0.5, same: 0.45 },
    },
    physics: 'An empty battery, or an adapter at its limit, hands on less than its label.',
    fix: ['Charge it, or take a source that holds its voltage under this load; the plan tells how much.'],
    at: POWER,
  },
]

const whines = (known: Known): Cause[] => [
  {
    key: 'chopped',
    title: 'Its supply is chopped at a tone that can be heard',
    share: known.pwmHz !== null && known.pwmHz < 20_000 ? 4 : known.duty !== null || known.switched ? 1.5 : 0.3,
    shows: {
      tone: { stays: 0.55, gone: 0.4 },
      full: { right: 0.95 },
      hand: { same: 0.8 },
      front: { same: 0.95 },
    },
    physics: 'Current in steps pulls the windings in steps: the motor sings at the switching frequency.',
    fix: [
      'A PWM frequency above 20 kHz, on the PWM wire where there is one; or a smooth voltage from a converter',
      ...(known.pwmHz === null ? ['.'] : ['; it is planned at ', of(known.pwmHz, 'frequency'), '.']),
    ],
    at: CONTROL,
  },
  {
    key: 'blade-tone',
    title: 'Blades beat on what stands close before them',
    share: known.guarded ? 2.5 : 1,
    shows: { tone: { follows: 0.9 }, front: { better: 0.85 }, full: { same: 0.9 }, hand: { same: 0.8 } },
    physics: 'Each blade meets the wake of the grille’s bars: a tone at blades × speed.',
    fix: [
      'A tenth of the diameter between blades and guard or grille on the intake, thin round bars instead of slots.',
    ],
    at: FIT,
  },
  {
    key: 'structure',
    title: 'The panel sings with it',
    share: 2,
    shows: { tone: { follows: 0.85 }, hand: { quiet: 0.95 }, front: { same: 0.8 }, full: { same: 0.85 } },
    physics: 'A stiff mount hands every shake of the rotor to a panel that is a good loudspeaker.',
    fix: ['Soft mounts, a gasket, or a slower speed away from the panel’s own tone.'],
    at: FIT,
  },
  {
    key: 'converter-tone',
    title: 'The converter itself whistles',
    share: known.converter ? 1 : 0.1,
    shows: { tone: { stays: 0.8 }, hand: { same: 0.95 }, front: { same: 0.95 }, full: { right: 0.9 } },
    physics: 'At a light load it switches in bursts, and its coil follows at a tone within hearing.',
    fix: ['Put an ear to it. A smaller one, a little more load on it, or the fan straight from the source.'],
    at: POWER,
  },
  shared.bearing(),
]

const current = (known: Known): Cause[] => [
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

const hot = (known: Known): Cause[] => {
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

const warm = (known: Known): Cause[] => [
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

const louder = (known: Known): Cause[] => [
  {
    ...whines(known)[1]!,
    share: 1.5,
    shows: { front: { better: 0.85 }, hand: { same: 0.8 }, rpm: { ok: 0.85 }, position: { same: 0.9 } },
  },
  {
    ...whines(known)[2]!,
    shows: { hand: { quiet: 0.95 }, front: { same: 0.85 }, rpm: { ok: 0.9 }, position: { same: 0.6 } },
  },
  {
    key: 'faster',
    title: 'It turns faster than planned',
    share: 1.5,
    shows: { rpm: { high: 0.95 }, hand: { same: 0.8 }, front: { same: 0.85 }, position: { same: 0.95 } },
    physics: 'Sound grows with the fifth power of the speed: 10 % faster is 2 dB.',
    fix: ['Set it back to ', ...planned(known)],
    at: POWER,
  },
  {
    key: 'unbalance',
    title: 'Dust on the blades shakes it',
    share: 1.5,
    shows: { hand: { quiet: 0.6 }, rpm: { ok: 0.6, low: 0.35 }, front: { same: 0.9 }, position: { same: 0.8 } },
    physics: 'Unequal dust moves the centre of mass off the shaft: a shake once per turn.',
    fix: ['Supply off, hold the rotor, soft brush; then the same reading again.'],
    at: { station: 'log' },
  },
  { ...shared.bearing(), share: 1.2 },
  {
    key: 'choked',
    title: 'It works against a loaded filter or a shut opening',
    share: known.hasFilter ? 1.5 : 0.8,
    shows: {
      front: { better: 0.9 },
      rpm: { ok: 0.6, high: 0.35 },
      hand: { same: 0.9 },
      position: { same: 0.95 },
    },
    physics: 'Towards shut-off the flow on the blades separates: a rumble, for less air.',
    fix: ['Clean the filter, free the openings; then the same reading again.'],
    at: PATH,
  },
]

const stops = (known: Known): Cause[] => [
  {
    key: 'bank',
    title: 'The power bank switches off: too little current',
    share: known.autoOffA !== null ? 4 : known.battery ? 1 : 0.2,
    shows: { cools: { reset: 0.9 }, sourceV: { none: 0.95 }, turns: { free: 0.95 }, fanA: { none: 0.9 } },
    physics: 'A power bank takes a small load for none, and saves itself.',
    fix: [
      'A load that keeps it awake, or a bank without that switch',
      ...(known.autoOffA === null ? ['.'] : ['; this one wants ', of(known.autoOffA, 'current'), ' at least.']),
    ],
    at: POWER,
  },
  {
    key: 'too-warm',
    title: 'The converter or source switches off when warm',
    share: known.converter ? 2 : 1,
    shows: {
      cools: { again: 0.9 },
      sourceV: { ok: 0.7, none: 0.25 },
      fanV: { none: 0.7, low: 0.25 },
      turns: { free: 0.95 },
    },
    physics: 'Its own over-temperature switch opens, and closes when it has cooled.',
    fix: ['Search “The converter gets hot”.'],
    at: POWER,
  },
  {
    key: 'control',
    title: 'The control stops it, as it should',
    share: known.switched ? 2 : 0.1,
    shows: {
      cools: { again: 0.7, never: 0.25 },
      sourceV: { ok: 0.95 },
      fanV: { ok: 0.4, none: 0.55 },
      full: { right: 0.95 },
      turns: { free: 0.95 },
    },
    physics: 'Cool enough, or its time is over: it waits for warmth or for its clock.',
    fix: ['See on Control when it stops and starts on a usual day, and warm its sensor.'],
    at: CONTROL,
  },
  {
    key: 'empty',
    title: 'The battery is empty',
    share: known.battery ? 3 : 0.1,
    shows: {
      cools: { never: 0.6, reset: 0.35 },
      sourceV: { low: 0.6, none: 0.35 },
      fanV: { low: 0.5, none: 0.45 },
      turns: { free: 0.95 },
    },
    physics: 'Its board opens at the lowest voltage, to save the cells.',
    fix: ['Charge it; Power tells how long it should last with this load.'],
    at: POWER,
  },
  {
    key: 'fuse',
    title: 'A fuse opened',
    share: 1,
    shows: {
      cools: { never: 0.75, again: 0.2 },
      sourceV: { ok: 0.9 },
      fanV: { none: 0.95 },
      turns: { free: 0.8 },
    },
    physics:
      'More than its rating for long enough melts it; a self-resetting one comes back when it has cooled.',
    fix: ['Search “The current is too high” before the new one goes in, of the same value.'],
    at: POWER,
  },
  {
    ...shared.bearing(),
    title: 'The bearing sticks when warm',
    shows: {
      cools: { again: 0.7 },
      sourceV: { ok: 0.95 },
      fanV: { ok: 0.95 },
      turns: { rubs: 0.6, stuck: 0.35 },
    },
  },
]

const bySymptom: Record<Symptom, (known: Known) => Cause[]> = {
  still,
  backwards,
  slow,
  whines,
  current,
  hot,
  warm,
  louder,
  stops,
}
/** What may be behind a symptom in this plan. */
export const causesOf = (symptom: Symptom, known: Known): Cause[] =>
  bySymptom[symptom](known).filter((c) => c.share > 0)
