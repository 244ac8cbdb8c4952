/** Sums of power and wire: resistors, leads, converters, running time. */
import { DEFAULT_CURRENT_EXPONENT } from '#core/fan'
import { figure, input, type Figure } from '#core/figure'
import {
  BANK_EFFICIENCY,
  awgAmpacity,
  awgArea,
  behindResistor,
  bankRuntime,
  converterInputCurrent,
  converterLoss,
  copperResistance,
  ledMaxPerString,
  ledResistor,
  ledResistorPower,
  longestWire,
  nextPreferred,
  resistorDerated,
  resistorForVoltage,
  resistorRating,
  startsBehind,
  wireDrop,
} from '#core/power'
import { field, given, no, yes, type SumOfGroup } from './sum'

const PREFERRED = 'Ohm’s law; IEC 60063 for the preferred value'
const BALANCE = 'power balance'
const COPPER = 'IEC 60028 (copper), ASTM B258 (AWG); there and back'

/** What the fan gets behind the part that there is, V: it draws less the less it gets. */
function behindFigure(supplyV: number, fanV: number, fanA: number, ohm: number | null): Figure {
  const load = { kind: 'power-law' as const, ratedA: fanA, ratedV: fanV, exponent: DEFAULT_CURRENT_EXPONENT }
  const volts = ohm === null ? null : behindResistor(supplyV, ohm, load)
  const formula = 'V = U − R·I_fan·(V/U_fan)^1.3'
  return figure('behind', 'At the fan with it', 'voltage', volts, formula, PREFERRED, {
    inputs: [
      input('U', 'supply', supplyV, 'voltage'),
      input('R', 'next of E24', ohm, 'resistance'),
      input('I_fan', 'current at the wanted voltage', fanA, 'current'),
      input('U_fan', 'wanted', fanV, 'voltage'),
    ],
    note: 'The exponent is common practice: a fan draws less the less it gets.',
  })
}

export const power: SumOfGroup[] = [
  {
    key: 'resistor',
    title: 'Resistor for a slower fan',
    fields: [
      field('supply', 'Supply', 'voltage', 12),
      field('fan', 'Wanted at the fan', 'voltage', 7),
      field('current', 'Fan current at that voltage', 'current'),
      field('ambient', 'Air around the resistor', 'temperature', 25),
      field('startA', 'Current as it starts', 'current', null, { optional: true, hint: 'often twice' }),
      field('startV', 'Voltage it starts at', 'voltage', null, {
        optional: true,
        hint: 'on its sheet, or tried',
      }),
    ],
    convert: (i) => {
      const { supply, fan, current, ambient, startA, startV } = i.n
      if (fan! >= supply!) return no('A resistor only takes voltage away: the fan gets less than the supply.')
      const ohm = resistorForVoltage(supply!, fan!, current!)
      const part = nextPreferred(ohm, 'E24')
      const heat = (supply! - fan!) * current!
      const rating = resistorRating(heat)
      const mayBurn = rating === null ? null : resistorDerated(rating, ambient!)
      const known = typeof startA === 'number' && typeof startV === 'number'
      const started = known ? supply! - ohm * startA : null
      const starts = !known || startsBehind(supply!, ohm, startA, startV)
      return yes(
        [
          figure('ohm', 'Resistor', 'resistance', ohm, 'R = (U − U_fan) / I', PREFERRED, {
            inputs: given(
              i,
              ['U', 'supply', 'supply', 'voltage'],
              ['U_fan', 'fan', 'at the fan', 'voltage'],
              ['I', 'current', 'current', 'current'],
            ),
          }),
          figure('e24', 'Next of E24', 'resistance', part, 'E24, not below', PREFERRED),
          figure('heat', 'Heat in it', 'power', heat, 'P = (U − U_fan) · I', PREFERRED),
          figure('rating', 'Part for', 'power', rating, 'twice the heat, next rating', 'common practice', {
            note: rating === null ? 'More than a resistor should burn: take a step-down converter.' : '',
          }),
          figure(
            'may',
            'May burn in that air',
            'power',
            mayBurn,
            'full up to 70 °C, down to nothing at 155 °C',
            'film resistors (from memory)',
            {
              note:
                mayBurn !== null && mayBurn < heat
                  ? 'Less than it has to: a larger one, or a cooler place.'
                  : '',
            },
          ),
          ...(known
            ? [figure('start', 'Voltage as it starts', 'voltage', started, 'U − R·I_start', PREFERRED)]
            : []),
          behindFigure(supply!, fan!, current!, part),
        ],
        known
          ? starts
            ? ''
            : 'It does not start behind this resistor: what it draws at the start leaves it too little.'
          : 'Check that it still starts: the start wants more voltage, and a fan draws more when it starts.',
      )
    },
  },
  {
    key: 'led',
    title: 'Resistor for an LED',
    fields: [
      field('supply', 'Supply', 'voltage', 12),
      field('forward', 'Drop of one LED', 'voltage', 2, { hint: 'red about 2 V, white and blue about 3 V' }),
      field('leds', 'LEDs in a row', 'number', 1),
      field('current', 'Current', 'current', 0.01),
    ],
    convert: (i) => {
      const { supply, forward, leds, current } = i.n
      const ohm = ledResistor(supply!, leds!, forward!, current!)
      if (!(ohm > 0))
        return no(
          'So many LEDs in a row take more than the supply gives: ' +
            `${ledMaxPerString(supply!, forward!)} at most, with a fifth left for the resistor.`,
        )
      return yes([
        figure('ohm', 'Resistor', 'resistance', ohm, 'R = (U − n·U_LED) / I', PREFERRED, {
          inputs: given(
            i,
            ['U', 'supply', 'supply', 'voltage'],
            ['n', 'leds', 'LEDs', 'number'],
            ['U_LED', 'forward', 'drop', 'voltage'],
            ['I', 'current', 'current', 'current'],
          ),
        }),
        figure('e24', 'Next of E24', 'resistance', nextPreferred(ohm, 'E24'), 'E24, not below', PREFERRED),
        figure(
          'heat',
          'Heat in it',
          'power',
          ledResistorPower(supply!, leds!, forward!, current!),
          'P = (U − n·U_LED) · I',
          PREFERRED,
        ),
      ])
    },
  },
  {
    key: 'wire',
    title: 'Voltage lost in a wire',
    fields: [
      field('length', 'Length, one way', 'distance'),
      field('current', 'Current', 'current'),
      field('supply', 'Supply', 'voltage', 12),
    ],
    choices: [
      {
        key: 'awg',
        label: 'Wire',
        options: Object.keys(awgAmpacity)
          .map(Number)
          .sort((a, b) => b - a)
          .map((awg) => ({ value: String(awg), label: `${awg} AWG, ${(awgArea(awg) * 1e6).toFixed(2)} mm²` })),
      },
    ],
    convert: (i) => {
      const awg = Number(i.choice.awg)
      const ohm = copperResistance(awgArea(awg))
      const drop = wireDrop(i.n.length!, ohm, i.n.current!)
      const most = awgAmpacity[awg]!
      return yes(
        [
          figure('drop', 'Lost', 'voltage', drop, 'ΔU = 2 · l · r · I', COPPER, {
            inputs: given(i, ['l', 'length', 'one way', 'distance'], ['I', 'current', 'current', 'current']),
          }),
          figure('share', 'Of the supply', 'ratio', drop / i.n.supply!, 'ΔU / U', COPPER),
          figure(
            'longest',
            'Longest for 3 %',
            'distance',
            longestWire(0.03 * i.n.supply!, ohm, i.n.current!),
            'l = 0.03·U / (2·r·I)',
            `${COPPER}; 3 % is common practice`,
          ),
        ],
        i.n.current! > most ? `This wire is for ${most} A: take a thicker one.` : '',
      )
    },
  },
  {
    key: 'converter',
    title: 'Input current of a converter',
    fields: [
      field('in', 'Input voltage', 'voltage', 12),
      field('out', 'Output voltage', 'voltage', 5),
      field('current', 'Output current', 'current'),
      field('eff', 'Efficiency', 'ratio', 0.88),
    ],
    convert: (i) =>
      i.n.eff! > 1
        ? no('An efficiency is at most 100 %.')
        : yes([
            figure(
              'in',
              'Drawn at the input',
              'current',
              converterInputCurrent(i.n.in!, i.n.out!, i.n.current!, i.n.eff!),
              'I_in = U_out·I_out / (η·U_in)',
              BALANCE,
              {
                inputs: given(
                  i,
                  ['U_in', 'in', 'input', 'voltage'],
                  ['U_out', 'out', 'output', 'voltage'],
                  ['I_out', 'current', 'output current', 'current'],
                  ['η', 'eff', 'efficiency', 'ratio'],
                ),
              },
            ),
            figure(
              'heat',
              'Heat in it',
              'power',
              converterLoss(i.n.out!, i.n.current!, i.n.eff!),
              'P = U_out·I_out·(1/η − 1)',
              BALANCE,
            ),
          ]),
  },
  {
    key: 'running-time',
    title: 'Running time on a power bank',
    fields: [
      field('energy', 'Energy in the cells', 'energy', null, { hint: '10 Ah at 3.7 V are 37 Wh' }),
      field('load', 'Load', 'power'),
      field('eff', 'Efficiency', 'ratio', BANK_EFFICIENCY),
    ],
    convert: (i) =>
      i.n.eff! > 1
        ? no('An efficiency is at most 100 %.')
        : yes([
            figure(
              'time',
              'Runs for',
              'duration',
              bankRuntime(i.n.energy!, i.n.eff!, i.n.load!),
              't = E·η / P',
              BALANCE,
              {
                inputs: given(
                  i,
                  ['E', 'energy', 'energy', 'energy'],
                  ['η', 'eff', 'efficiency', 'ratio'],
                  ['P', 'load', 'load', 'power'],
                ),
              },
            ),
          ]),
  },
]
