/** Sums of control: thermostats, run-on, quiet intervals, timers of a microcontroller. */
import {
  contactYears,
  cyclesPerHour,
  equalSlopeCycles,
  expectedSpeed,
  PWM_WINDOW,
  pwmWindowOk,
  quietInterval,
  runOnHeat,
  TACH_ALARM,
  timerFrequency,
  timerTopFor,
} from '#core/control'
import { figure } from '#core/figure'
import { thermostatCycle, thermostatState } from '#core/heat'
import { field, given, no, inputsOf, yes, type SumOfGroup } from './sum'

const BALANCE = 'first-order balance of one part'
/** Operations of a small relay at its rated load. Common practice, no source. */
const OPERATIONS = 100_000
/** More cycles an hour are heard, and wear contacts. Common practice, no source. */
const MANY_CYCLES = 6

const never = {
  'never-on': 'It never gets as warm as that: the fan stays off.',
  'always-on': 'With the fan on it never gets as cool as that: the fan stays on.',
} as const

const slopeFields = [
  field('warmer', 'Warmer by, a minute, fan off', 'temperatureDifference'),
  field('cooler', 'Cooler by, a minute, fan on', 'temperatureDifference'),
  field('width', 'From off to on', 'temperatureDifference', 5),
]
const tachFields = [
  field('full', 'Speed at full duty', 'rotation'),
  field('duty', 'Duty cycle', 'ratio'),
  field('pulses', 'Pulses a turn', 'number', 2),
]

export const control: SumOfGroup[] = [
  {
    key: 'thermostat',
    title: 'Cycles of a thermostat',
    fields: [
      field('heat', 'Heat', 'power'),
      field('capacity', 'Heat it holds', 'heatCapacity'),
      field('off', 'Gives off, fan off', 'thermalConductance'),
      field('on', 'Gives off, fan on', 'thermalConductance'),
      field('ambient', 'Surroundings', 'temperature', 25),
      field('high', 'Fan on from', 'temperature'),
      field('low', 'Fan off below', 'temperature'),
      field('hours', 'Hours in use a day', 'number', 24),
    ],
    convert: (i) => {
      const { heat, capacity, off, on, ambient, high, low, hours } = i.n
      if (hours! > 24) return no('A day has 24 hours.')
      if (low! >= high!) return no('It goes off below what it goes on at.')
      if (!(on! > 0 && off! > 0 && capacity! > 0)) return no('What it holds and gives off is above 0.')
      const part = {
        heat: heat!,
        capacity: capacity!,
        gOff: off!,
        gOn: on!,
        ambientC: ambient!,
        onC: high!,
        offC: low!,
      }
      const state = thermostatState(part)
      if (state !== 'cycles') return no(never[state])
      const { onS, offS } = thermostatCycle(part)!
      const cycles = cyclesPerHour(part)!
      const years = contactYears(OPERATIONS, cycles, 3600 * hours!)
      const inputs = given(
        i,
        ['P', 'heat', 'heat', 'power'],
        ['C', 'capacity', 'heat it holds', 'heatCapacity'],
        ['G_off', 'off', 'gives off, fan off', 'thermalConductance'],
        ['G_on', 'on', 'gives off, fan on', 'thermalConductance'],
        ['T_a', 'ambient', 'surroundings', 'temperature'],
        ['T_on', 'high', 'fan on from', 'temperature'],
        ['T_off', 'low', 'fan off below', 'temperature'],
      )
      return yes(
        [
          figure('cycles', 'Cycles an hour', 'perHour', cycles, 'n = 3600/(t_on + t_off)', BALANCE, { inputs }),
          figure('on', 'On for', 'duration', onS, 't_on = C/G_on·ln((T_on − E_on)/(T_off − E_on))', BALANCE, {
            inputs,
          }),
          figure(
            'off',
            'Off for',
            'duration',
            offS,
            't_off = C/G_off·ln((E_off − T_off)/(E_off − T_on))',
            BALANCE,
            {
              inputs,
            },
          ),
          ...(years === null
            ? []
            : [
                figure(
                  'years',
                  'Years of a contact',
                  'number',
                  years,
                  'N/(n·h·365)',
                  'common practice, no source',
                  {
                    inputs: given(i, ['h', 'hours', 'hours in use a day', 'number']),
                    note: 'A small relay makes about 100 000 operations at its rated load.',
                  },
                ),
              ]),
        ],
        cycles > MANY_CYCLES
          ? 'More than six an hour are heard and wear the contact: set the two temperatures further apart.'
          : '',
      )
    },
  },
  {
    key: 'run-on',
    title: 'Run-on until it has cooled',
    fields: [
      field('tau', 'Time constant, fan on', 'duration'),
      field('from', 'From', 'temperature'),
      field('to', 'Down to', 'temperature'),
      field('end', 'It would settle at', 'temperature'),
    ],
    convert: (i) => {
      const time = runOnHeat(i.n.tau!, i.n.from!, i.n.to!, i.n.end!)
      return time === null
        ? no('It never gets there: what it settles at lies above.')
        : yes([
            figure('time', 'Runs on for', 'duration', time, 't = τ·ln((T₀ − T_∞)/(T₁ − T_∞))', BALANCE, {
              inputs: given(
                i,
                ['τ', 'tau', 'time constant', 'duration'],
                ['T₀', 'from', 'from', 'temperature'],
                ['T₁', 'to', 'down to', 'temperature'],
                ['T_∞', 'end', 'settles at', 'temperature'],
              ),
            }),
          ])
    },
  },
  {
    key: 'quiet',
    title: 'How long it may stay quiet',
    fields: [
      field('tau', 'Time constant, quiet', 'duration'),
      field('from', 'Now', 'temperature'),
      field('limit', 'At most', 'temperature'),
      field('end', 'Quiet, it would settle at', 'temperature'),
    ],
    convert: (i) => {
      const { tau, from, limit, end } = i.n
      if (from! >= limit!) return no('It is as warm as it may be already.')
      const time = quietInterval(tau!, from!, limit!, end!)
      return time === null
        ? no('The quiet level holds for ever: it settles below the limit.')
        : yes([
            figure('time', 'Quiet for', 'duration', time, 't = τ·ln((T_∞ − T₀)/(T_∞ − T_max))', BALANCE, {
              inputs: given(
                i,
                ['τ', 'tau', 'time constant', 'duration'],
                ['T₀', 'from', 'now', 'temperature'],
                ['T_max', 'limit', 'at most', 'temperature'],
                ['T_∞', 'end', 'settles at', 'temperature'],
              ),
            }),
          ])
    },
  },
  {
    key: 'pwm-timer',
    title: 'Timer for a PWM wire',
    fields: [
      field('clock', 'Clock', 'frequency'),
      field('prescaler', 'Prescaler', 'number', 1),
      field('wanted', 'Wanted', 'frequency', PWM_WINDOW.target),
    ],
    convert: (i) => {
      const { clock, prescaler, wanted } = i.n
      if (!(clock! > 0 && prescaler! >= 1 && wanted! > 0))
        return no('Clock, prescaler and frequency are above 0.')
      const top = timerTopFor(clock! / prescaler!, wanted!, 'up')
      if (top < 1) return no('The clock is too slow for that frequency.')
      const frequency = timerFrequency(clock!, prescaler!, top, 'up')
      const inputs = given(
        i,
        ['f_clk', 'clock', 'clock', 'frequency'],
        ['N', 'prescaler', 'prescaler', 'number'],
        ['f', 'wanted', 'wanted', 'frequency'],
      )
      const outside = !pwmWindowOk(clock!, prescaler!, top, 'up')
      const coarse = top + 1 < COARSE_STEPS
      return yes(
        [
          figure('top', 'Count to (TOP)', 'number', top, 'TOP = f_clk/(N·f) − 1', 'timer that counts up', {
            inputs,
          }),
          figure(
            'frequency',
            'Gives',
            'frequency',
            frequency,
            'f = f_clk/(N·(TOP + 1))',
            'timer that counts up',
            {
              inputs,
            },
          ),
          figure('steps', 'Steps', 'number', top + 1, 'TOP + 1', 'timer that counts up', { inputs }),
        ],
        outside
          ? 'Outside 21 to 28 kHz: 4-wire fans may not follow it, and it may be heard.'
          : coarse
            ? 'Under 50 steps a ramp is heard as steps.'
            : '',
      )
    },
  },
  {
    key: 'slopes',
    title: 'Cycles of a thermostat, from its slopes',
    fields: slopeFields,
    convert: (i) => {
      const { warmer, cooler, width } = i.n
      if (!(warmer! > 0 && cooler! > 0 && width! > 0)) return no('Slopes and difference are above 0.')
      const [up, down] = [warmer! / 60, cooler! / 60]
      const inputs = inputsOf(i, slopeFields, { warmer: 'a', cooler: 'b', width: 'ΔT' })
      const cycles = equalSlopeCycles(up, down, width!)
      return yes(
        [
          figure('cycles', 'Cycles an hour', 'perHour', cycles, 'n = 3600/(ΔT/a + ΔT/b)', 'straight slopes', {
            inputs,
          }),
          figure('on', 'Fan on for', 'duration', width! / down, 'ΔT/b', 'straight slopes', { inputs }),
          figure('off', 'Fan off for', 'duration', width! / up, 'ΔT/a', 'straight slopes', { inputs }),
        ],
        cycles > MANY_CYCLES
          ? 'More than 6 an hour are heard and wear a relay: set on and off farther apart.'
          : '',
      )
    },
  },
  {
    key: 'tach',
    title: 'Speed a 4-wire fan should show',
    fields: tachFields,
    convert: (i) => {
      const { full, duty, pulses } = i.n
      if (duty! > 1) return no('A duty cycle is at most 100 %.')
      if (!(duty! > 0 && pulses! >= 1)) return no('Duty cycle and pulses are above zero.')
      const speed = expectedSpeed(full!, duty!)
      const inputs = inputsOf(i, tachFields, { full: 'n_max', duty: 'd', pulses: 'z' })
      const SPECIFIED = '4-wire fan specification rev. 1.3 (from memory), ±10 %'
      return yes([
        figure('speed', 'Speed', 'rotation', speed, 'n = n_max·d', SPECIFIED, {
          inputs,
          low: 0.9 * speed,
          high: 1.1 * speed,
        }),
        figure('pulses', 'Pulses a second', 'frequency', (speed * pulses!) / 60, 'f = n·z/60', 'definition', {
          inputs,
        }),
        figure(
          'alarm',
          'Alarm below',
          'rotation',
          TACH_ALARM.fraction * speed,
          '0.7·n',
          'common practice, no source',
          {
            note: `held for ${TACH_ALARM.holdS} s`,
          },
        ),
      ])
    },
  },
]
/** Fewer steps are heard. Common practice, no source (handbook control 6). */
const COARSE_STEPS = 50
