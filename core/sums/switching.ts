/** Sums of switched and regulated supplies: smoothing, a capacitor that holds up, regulators, switches, what the wall gives. */
import { figure } from '#core/figure'
import { energyPerDay } from '#core/heat'
import {
  adapterMinimumEfficiency,
  adjustableRegulatorOutput,
  filterCorner,
  filterRipple,
  flybackEnergy,
  holdUpDip,
  nextPreferred,
  protectionSaving,
  snubber,
} from '#core/power'
import { field, no, inputsOf, yes, type SumOfGroup } from './sum'

const FILTER = 'buck converter theory: continuous current in the coil'
/** The rule is the mean of a quarter, half, three quarters and all of the load: below, it does not speak. */
const WELL_LOADED = 0.25
/** The corner lies this far below the switching frequency, or the ripple is not small. Common practice, no source. */
const CORNER_SHARE = 0.1

const smoothFields = [
  field('supply', 'Supply', 'voltage', 12),
  field('duty', 'Duty cycle', 'ratio', 0.5),
  field('hertz', 'Switched at', 'frequency', 25_000),
  field('henry', 'Coil', 'inductance'),
  field('farad', 'Capacitor', 'capacitance'),
]
const dipFields = [
  field('current', 'Current', 'current'),
  field('off', 'Supply away for', 'shortTime', null, { hint: '0.02 s is one period of the mains' }),
  field('farad', 'Capacitor', 'capacitance'),
]
const regulatorFields = [
  field('r1', 'Resistor to the output', 'resistance', 240),
  field('r2', 'Resistor to ground', 'resistance'),
  field('reference', 'Reference', 'voltage', 1.25),
]
const openFields = [
  field('volts', 'Voltage switched', 'voltage', 12),
  field('current', 'Current', 'current'),
  field('henry', 'Inductance', 'inductance', null, { hint: 'a small relay has 100 to 500 mH' }),
]
const reverseFields = [
  field('current', 'Current', 'current'),
  field('drop', 'Drop of the diode', 'voltage', 0.4, { hint: 'Schottky 0.4 V, silicon 0.8 V' }),
  field('on', 'On-resistance of the transistor', 'resistance', 0.02),
]
const wallFields = [
  field('load', 'Power taken from it', 'power'),
  field('rated', 'Power on its label', 'power'),
  field('hours', 'Hours a day', 'number', 24),
]

export const switching: SumOfGroup[] = [
  {
    key: 'smoothing',
    title: 'A chopped supply, smoothed',
    fields: smoothFields,
    convert: (i) => {
      const { supply, duty, hertz, henry, farad } = i.n
      if (duty! > 1) return no('A duty cycle is at most 100 %.')
      const ripple = filterRipple(supply!, duty!, henry!, farad!, hertz!)
      const corner = filterCorner(henry!, farad!)
      const inputs = inputsOf(i, smoothFields, { supply: 'U', duty: 'd', hertz: 'f', henry: 'L', farad: 'C' })
      return yes(
        [
          figure('ripple', 'Ripple, peak to peak', 'voltage', ripple, 'ΔU = U·d·(1 − d)/(8·L·C·f²)', FILTER, {
            inputs,
          }),
          figure('mean', 'Voltage at the fan', 'voltage', supply! * duty!, 'U·d', FILTER, { inputs }),
          figure(
            'corner',
            'Corner of the filter',
            'frequency',
            corner,
            'f_c = 1/(2π·√(L·C))',
            'circuit theory',
            { inputs },
          ),
        ],
        corner > CORNER_SHARE * hertz!
          ? 'The corner is too near: take a larger coil or capacitor, a tenth of the switching frequency or less.'
          : '',
      )
    },
  },
  {
    key: 'hold-up',
    title: 'A capacitor through a gap',
    fields: dipFields,
    convert: (i) =>
      yes([
        figure(
          'dip',
          'Voltage falls by',
          'voltage',
          holdUpDip(i.n.current!, i.n.off!, i.n.farad!),
          'ΔU = I·t/C',
          'circuit theory',
          {
            inputs: inputsOf(i, dipFields, { current: 'I', off: 't', farad: 'C' }),
          },
        ),
        figure(
          'for-one',
          'For a fall of 1 V',
          'capacitance',
          i.n.current! * i.n.off!,
          'C = I·t/1 V',
          'circuit theory',
        ),
      ]),
  },
  {
    key: 'regulator',
    title: 'Resistors of an adjustable regulator',
    fields: regulatorFields,
    convert: (i) => {
      const { r1, r2, reference } = i.n
      if (!(r1! > 0)) return no('Resistor to the output must be above zero.')
      const inputs = inputsOf(i, regulatorFields, { r1: 'R₁', r2: 'R₂', reference: 'U_ref' })
      const THREE = 'three-terminal regulator, 50 µA at the adjustment pin'
      const e24 = nextPreferred(r2!, 'E24')
      return yes(
        [
          figure(
            'out',
            'Output',
            'voltage',
            adjustableRegulatorOutput(r1!, r2!, reference!),
            'U = U_ref·(1 + R₂/R₁) + 50 µA·R₂',
            THREE,
            { inputs },
          ),
          figure(
            'e24',
            'With the next of E24',
            'voltage',
            adjustableRegulatorOutput(r1!, e24, reference!),
            'the same with R₂ of E24',
            'IEC 60063',
          ),
        ],
        'It wants 2 to 3 V more at its input, and turns the difference times the current into heat.',
      )
    },
  },
  {
    key: 'opening',
    title: 'Opening a coil: relay, solenoid, motor',
    fields: openFields,
    convert: (i) => {
      const { volts, current, henry } = i.n
      const net = snubber(volts!, current!)
      const inputs = inputsOf(i, openFields, { volts: 'U', current: 'I', henry: 'L' })
      const RULE = 'classic rule for contacts (from memory)'
      return yes(
        [
          figure(
            'energy',
            'Energy that must go somewhere',
            'energy',
            flybackEnergy(henry!, current!),
            'E = L·I²/2',
            'circuit theory',
            { inputs },
          ),
          figure(
            'farad',
            'Snubber over a contact, capacitor',
            'capacitance',
            net.farad,
            'C[µF] = I²/10',
            RULE,
            { inputs },
          ),
          figure('ohm', 'and resistor in series', 'resistance', net.ohm, 'R = U/(10·I^(1 + 50/U))', RULE, {
            inputs,
          }),
        ],
        'On direct current a diode across the coil is simpler: stripe to plus. A brushless fan needs none of its own.',
      )
    },
  },
  {
    key: 'reverse',
    title: 'Diode or transistor against swapped wires',
    fields: reverseFields,
    convert: (i) => {
      const { current, drop, on } = i.n
      const inputs = inputsOf(i, reverseFields, { current: 'I', drop: 'U_F', on: 'R_on' })
      const OHM = 'Ohm’s law'
      return yes([
        figure(
          'saved',
          'The transistor saves',
          'power',
          protectionSaving(on!, current!, drop!),
          'I·U_F − I²·R_on',
          OHM,
          { inputs },
        ),
        figure('diode', 'Heat in the diode', 'power', current! * drop!, 'I·U_F', OHM, { inputs }),
        figure('transistor', 'Heat in the transistor', 'power', current! ** 2 * on!, 'I²·R_on', OHM, {
          inputs,
        }),
        figure('lost', 'Voltage the fan loses to the diode', 'voltage', drop!, 'U_F', OHM),
      ])
    },
  },
  {
    key: 'wall',
    title: 'What an adapter takes from the wall',
    fields: wallFields,
    convert: (i) => {
      const { load, rated, hours } = i.n
      if (hours! > 24) return no('A day has 24 hours.')
      if (load! > rated!) return no('It gives no more than its label says.')
      const least = adapterMinimumEfficiency(rated!)
      if (least === null) return no('The rule speaks of adapters over 1 and up to 250 W.')
      const RULE =
        'lowest efficiency of new adapters, US DOE Level VI 2016 (from memory); older and lightly loaded ones are worse'
      const inputs = inputsOf(i, wallFields, { load: 'P', rated: 'P_N', hours: 't' })
      return yes(
        [
          figure('wall', 'From the wall, about', 'power', load! / least, 'P/η', RULE, { inputs }),
          figure(
            'efficiency',
            'Efficiency, at least',
            'ratio',
            least,
            'η = 0.071·ln(P_N) − 0.0014·P_N + 0.67; 88 % above 49 W',
            RULE,
            { inputs },
          ),
          figure('energy', 'In a day', 'energy', energyPerDay(load! / least, hours! / 24), 'P/η·t', RULE, {
            inputs,
          }),
        ],
        load! < WELL_LOADED * rated!
          ? 'Under a quarter of what its label says it does worse than that: a smaller one takes less.'
          : '',
      )
    },
  },
]
