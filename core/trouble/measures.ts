import type { Quantity, Sentence } from '#core/units'
import type { Known } from './known'

/** What is measured or looked at in a search, and into which bands an answer falls. */

export interface Choice {
  key: string
  label: string
}
export interface Measurement {
  key: string
  title: string
  /** how, with the plan's own numbers */
  how: Sentence
  /** null: it is looked at, not read from a meter */
  quantity: Quantity | null
  choices: readonly Choice[]
  /** the band of a value; '' where the plan cannot tell */
  band: (value: number) => string
}

/** Bands of a voltage or a speed over what is planned, and of a current. Handbook build 2: ± 30 % of the current. */
const SHARES = { voltage: [0.9, 1.05], current: [0.7, 1.3], speed: [0.9, 1.1] } as const
/** Less than this is nothing, V; as a share of the planned current or speed. A choice of ours. */
const NOTHING_V = 0.5
const NOTHING_SHARE = 0.1
/** Kelvin over the room from which air in front of an intake comes from the outlet. A choice of ours. */
const AGAIN_K = 3
/** Nothing that is touched may be warmer, degC. Handbook build 4. */
const TOUCH_C = 60

const of = (value: number | null, quantity: Quantity) => ({ value, quantity })
const unread = () => ''
/** Against what was planned; '' where the plan cannot tell. */
const against =
  (planned: number | null, [low, high]: readonly [number, number], nothing: number) =>
  (x: number) =>
    planned === null
      ? ''
      : x < nothing
        ? 'none'
        : x < low * planned
          ? 'low'
          : x > high * planned
            ? 'high'
            : 'ok'
const looked = (key: string, title: string, how: string, choices: [string, string][]): Measurement => ({
  key,
  title,
  how: [how],
  quantity: null,
  choices: choices.map(([k, label]) => ({ key: k, label })),
  band: unread,
})

/** Every measurement of the searches, with the plan's numbers. */
export function measurementsOf(known: Known): Measurement[] {
  const { fanV, fanHighV, startV, runA, rpm, source, roomC, hot } = known
  const volts = (x: number) => {
    if (x < -NOTHING_V) return 'negative'
    if (fanV === null) return x < NOTHING_V ? 'none' : ''
    if (x < NOTHING_V) return 'none'
    const low = SHARES.voltage[0] * fanV
    if (x < low) return startV !== null && x < startV ? 'below-start' : 'low'
    return x > SHARES.voltage[1] * Math.max(fanV, fanHighV ?? fanV) ? 'high' : 'ok'
  }
  const planned: Sentence =
    fanV === null ? ['The plan names no voltage here.'] : ['The plan: ', of(fanV, 'voltage'), '.']
  return [
    {
      key: 'fanV',
      title: 'Voltage at the fan’s plug, plugged in and switched on',
      how: ['Red probe on +, black on −; a minus sign matters. ', ...planned],
      quantity: 'voltage',
      choices: [],
      band: volts,
    },
    {
      key: 'openV',
      title: 'The same with the fan unplugged',
      how: ['At the same two contacts, nothing hanging on them. ', ...planned],
      quantity: 'voltage',
      choices: [],
      band: volts,
    },
    {
      key: 'sourceV',
      title: source ? `Voltage at ${source.name}, while it runs` : 'Voltage at the source, while it runs',
      how: source?.lowV
        ? [
            'At its own terminals. The plan: ',
            of(source.lowV, 'voltage'),
            ' to ',
            of(source.highV, 'voltage'),
            '.',
          ]
        : ['At its own terminals.'],
      quantity: 'voltage',
      choices: [],
      band: (x) =>
        x < -NOTHING_V
          ? 'negative'
          : x < NOTHING_V
            ? 'none'
            : !source?.lowV || !source.highV
              ? ''
              : x < 0.97 * source.lowV
                ? 'low'
                : x > 1.03 * source.highV
                  ? 'high'
                  : 'ok',
    },
    {
      key: 'fanA',
      title: 'Current in the fan’s + wire',
      how:
        runA === null
          ? ['Meter in the + wire.']
          : ['Meter in the + wire. The plan: ', of(runA, 'current'), '.'],
      quantity: 'current',
      choices: [],
      band: (x) =>
        x < -NOTHING_SHARE * (runA ?? 1)
          ? 'negative'
          : against(runA, SHARES.current, NOTHING_SHARE * (runA ?? 1))(x),
    },
    {
      key: 'rpm',
      title: 'Speed, by tach or by its sound',
      how: rpm === null ? ['The plan names no speed.'] : ['The plan: ', of(rpm, 'rotation'), '.'],
      quantity: 'rotation',
      choices: [],
      band: against(rpm, SHARES.speed, NOTHING_SHARE * (rpm ?? 1)),
    },
    {
      key: 'intakeC',
      title: 'Air right in front of the intake',
      how: ['While it runs and is warm; the room has ', of(roomC, 'temperature'), ' at most, by the plan.'],
      quantity: 'temperature',
      choices: [],
      band: (x) => (x > roomC + AGAIN_K ? 'warm' : 'ok'),
    },
    {
      key: 'hotC',
      title: hot
        ? `Temperature at “${hot.place}”, after an hour of load`
        : 'The hottest place, after an hour of load',
      how: hot ? ['Wanted: ', of(hot.limitC, 'temperature'), ' at most.'] : ['The plan names no limit.'],
      quantity: 'temperature',
      choices: [],
      band: (x) => (hot === null ? '' : x > hot.limitC ? 'hot' : 'ok'),
    },
    {
      key: 'touchC',
      title: 'How warm the converter gets',
      how: [
        'Power off first, then by infrared or by touch; above ',
        of(TOUCH_C, 'temperature'),
        ' nobody keeps a finger on it.',
      ],
      quantity: 'temperature',
      choices: [],
      band: (x) => (x > TOUCH_C ? 'hot' : 'ok'),
    },
    looked('turns', 'Turn the blades by hand', 'Power off and unplugged. Push a blade, let it run down.', [
      ['free', 'free, runs on'],
      ['rubs', 'rubs, or stops at once'],
      ['stuck', 'does not move'],
    ]),
    looked('paper', 'A strip of paper at the outlet', 'Thin paper, a hand’s width away.', [
      ['away', 'leans away'],
      ['towards', 'is drawn to it'],
      ['still', 'hangs still'],
    ]),
    looked(
      'arrow',
      'The arrow on the frame',
      'Against the way that the plan wants. Without arrows: air leaves on the side with the struts.',
      [
        ['same', 'points that way'],
        ['other', 'points the other way'],
      ],
    ),
    looked('spin', 'Which way the blades turn', 'Against the turning arrow; watch while they run down.', [
      ['same', 'with the arrow'],
      ['other', 'against it'],
      ['still', 'they do not turn'],
    ]),
    looked('tone', 'Listen while the speed changes', 'Change voltage or duty cycle a little.', [
      ['follows', 'the tone goes with the speed'],
      ['stays', 'the tone stays where it is'],
      ['gone', 'only at low duty cycle'],
    ]),
    looked(
      'hand',
      'Hold it in your hand',
      'Fingers off the blades: loosen its screws and lift it off its mount while it runs.',
      [
        ['quiet', 'clearly quieter'],
        ['same', 'the same'],
      ],
    ),
    looked(
      'front',
      'Take away what stands before it',
      'Guard, grille or filter off for a moment, fingers away.',
      [
        ['better', 'clearly better'],
        ['same', 'the same'],
      ],
    ),
    looked('position', 'Turn it into another position', 'Lying, standing.', [
      ['changes', 'the sound changes'],
      ['same', 'the same'],
    ]),
    looked('others', 'Unplug the other loads', 'All that hangs on the same source but the fan.', [
      ['better', 'it is right then'],
      ['same', 'the same'],
    ]),
    looked('cools', 'Wait ten minutes, try again', 'Switched off meanwhile, nothing else changed.', [
      ['again', 'it starts again by itself'],
      ['reset', 'only after a press, a plug or a charge'],
      ['never', 'it stays off'],
    ]),
    looked('full', 'Feed it without its control', 'Straight from the source, within what the fan stands.', [
      ['right', 'it is right then'],
      ['same', 'the same'],
    ]),
  ]
}
