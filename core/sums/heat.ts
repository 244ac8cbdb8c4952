/** Sums of heat and water. */
import { dewPoint } from '#core/air'
import { figure, input } from '#core/figure'
import {
  chainTemperature,
  dayLag,
  dayMaximum,
  improvement,
  pullDownTime,
  resistanceOf,
  resistanceUncertainty,
  restated,
  twoPathTemperature,
} from '#core/heat'
import { evaporationRate, evaporativeCooling } from '#core/need'
import { hotSideHeat } from '#core/power'
import { field, given, no, inputsOf, yes, type SumOfGroup } from './sum'

const POOL = 'ASHRAE pool formula (from memory), ±40 %'
/** Pressure of the standard atmosphere at sea level, Pa (ISO 2533). */
const SEA_LEVEL_PA = 101325
/** Air at 20 °C, J/(m3 K): 1.2 kg/m3 at 1006 J/(kg K). */
const AIR_JM3K = 1.2 * 1006

const loadFields = [
  field('part', 'Part', 'temperature'),
  field('ambient', 'Surroundings then', 'temperature'),
  field('heat', 'Heat then', 'power'),
  field('otherAmbient', 'Other surroundings', 'temperature'),
  field('otherHeat', 'Other heat', 'power'),
]
const pairFields = [
  field('part', 'Part before', 'temperature'),
  field('ambient', 'Surroundings before', 'temperature'),
  field('heat', 'Heat before', 'power'),
  field('part2', 'Part after', 'temperature'),
  field('ambient2', 'Surroundings after', 'temperature'),
  field('heat2', 'Heat after', 'power'),
  field('uT', 'Temperatures sure to ±', 'temperatureDifference', 1),
  field('uP', 'Heat sure to ±', 'ratio', 0.05),
]
const chainFields = [
  field('heat', 'Heat', 'power'),
  field('chain', 'Resistances', 'thermalResistance', null, { list: true, hint: 'part to sink, sink to air' }),
  field('beside', 'A second way beside it', 'thermalResistance', null, { list: true, optional: true }),
  field('ambient', 'Surroundings', 'temperature', 25),
]
const dayFields = [
  field('heat', 'Heat inside', 'power', 0),
  field('ua', 'Gives off', 'thermalConductance'),
  field('capacity', 'Heat it holds', 'heatCapacity'),
  field('mean', 'Mean of the day outside', 'temperature'),
  field('swing', 'From coolest to warmest outside', 'temperatureDifference', 12),
]
const coolerFields = [
  field('pumped', 'Heat taken from the cold side', 'power'),
  field('volts', 'Voltage', 'voltage', 12),
  field('amps', 'Current', 'current'),
]
/** A meter's limits hold any value within them as likely: standard uncertainty (JCGM 100). */
const STANDARD = 1 / Math.sqrt(3)

export const heat: SumOfGroup[] = [
  {
    key: 'air-for-heat',
    title: 'Airflow for a heat and a rise',
    fields: [field('heat', 'Heat', 'power'), field('rise', 'Rise allowed', 'temperatureDifference', 10)],
    convert: (i) =>
      yes([
        figure(
          'flow',
          'Airflow',
          'flow',
          i.n.heat! / (AIR_JM3K * i.n.rise!),
          'Q = P / (ρ·c_p·ΔT)',
          'heat balance of the air, 1.2 kg/m³ (20 °C, sea level)',
          {
            inputs: given(i, ['P', 'heat', 'heat', 'power'], ['ΔT', 'rise', 'rise', 'temperatureDifference']),
          },
        ),
      ]),
  },
  {
    key: 'pull-down',
    title: 'Time to pull a warm box down',
    fields: [
      field('capacity', 'Heat it holds', 'heatCapacity', null, { hint: '1 L of water is 4.2 kJ/K' }),
      field('ua', 'Wall loss', 'thermalConductance', 0),
      field('spare', 'Cooling left over', 'power', null, { hint: 'at the wanted temperature' }),
      field('warm', 'Too warm by', 'temperatureDifference'),
      field('near', 'Near enough within', 'temperatureDifference', 1),
    ],
    convert: (i) => {
      const { capacity, ua, spare, warm, near } = i.n
      const time = pullDownTime(capacity!, ua!, spare!, warm!, near!)
      return time === null
        ? no('The cooling does not suffice to get there.')
        : yes([
            figure(
              'time',
              'Takes',
              'duration',
              time,
              ua! > 0 ? 't = C/UA · ln((P + UA·θ0)/(P + UA·θ1))' : 't = C·(θ0 − θ1)/P',
              'heat balance of a well-stirred box',
              {
                inputs: given(
                  i,
                  ['C', 'capacity', 'heat it holds', 'heatCapacity'],
                  ['UA', 'ua', 'wall loss', 'thermalConductance'],
                  ['P', 'spare', 'cooling left over', 'power'],
                  ['θ0', 'warm', 'too warm by', 'temperatureDifference'],
                  ['θ1', 'near', 'near enough', 'temperatureDifference'],
                ),
              },
            ),
          ])
    },
  },
  {
    key: 'dew-point',
    title: 'Dew point',
    fields: [field('t', 'Air', 'temperature'), field('rh', 'Relative humidity', 'ratio')],
    convert: (i) => {
      if (i.n.rh! > 1) return no('A relative humidity is at most 100 %.')
      const dew = dewPoint(i.n.t!, i.n.rh!)
      return dew === null
        ? no('Outside the range of the formula.')
        : yes([
            figure(
              'dew',
              'Dew forms below',
              'temperature',
              dew,
              'Magnus',
              'Magnus formula (physics notes, air)',
              {
                inputs: given(i, ['T', 't', 'air', 'temperature'], ['φ', 'rh', 'relative humidity', 'ratio']),
              },
            ),
          ])
    },
  },
  {
    key: 'evaporation',
    title: 'Water that evaporates',
    fields: [
      field('area', 'Water surface', 'area'),
      field('water', 'Water', 'temperature'),
      field('air', 'Air', 'temperature'),
      field('rh', 'Relative humidity', 'ratio', 0.5),
      field('speed', 'Air speed over it', 'speed', 0.3),
    ],
    convert: (i) => {
      const { area, water, air: airC, rh, speed } = i.n
      if (rh! > 1) return no('A relative humidity is at most 100 %.')
      const surface = {
        areaM2: area!,
        waterC: water!,
        airC: airC!,
        relativeHumidity: rh!,
        airSpeed: speed!,
        activity: 1,
        pressurePa: SEA_LEVEL_PA,
      }
      const rate = evaporationRate(surface)
      const cooling = evaporativeCooling(surface)
      if (rate === null || cooling === null) return no('Outside the range of the formula.')
      const inputs = given(
        i,
        ['A', 'area', 'surface', 'area'],
        ['T_w', 'water', 'water', 'temperature'],
        ['T_a', 'air', 'air', 'temperature'],
        ['φ', 'rh', 'relative humidity', 'ratio'],
        ['v', 'speed', 'air speed', 'speed'],
      )
      const doubt = (x: number) => ({ basis: 'estimated' as const, low: 0.6 * x, high: 1.4 * x, inputs })
      const formula = 'm = A·(p_w − p_a)·(0.089 + 0.0782·v)/h_fg'
      return yes(
        [
          figure('water', 'Evaporates', 'waterPerDay', rate, formula, POOL, doubt(rate)),
          figure('cooling', 'Takes with it', 'power', cooling, 'P = m · h_fg', POOL, doubt(cooling)),
        ],
        speed! > 0.7 ? 'Above 0.7 m/s the formula is stretched.' : '',
      )
    },
  },
  {
    key: 'other-load',
    title: 'A temperature at another load and room',
    fields: loadFields,
    convert: (i) => {
      const { part, ambient, heat: watts, otherAmbient, otherHeat } = i.n
      if (!(watts! > 0)) return no('Heat then must be above zero.')
      if (part! <= ambient!) return no('The part was no warmer than its surroundings: nothing can be told.')
      const inputs = inputsOf(i, loadFields, {
        part: 'T₁',
        ambient: 'T_a1',
        heat: 'P₁',
        otherAmbient: 'T_a2',
        otherHeat: 'P₂',
      })
      const STRAIGHT = 'the rise follows the heat, at the same airflow (physics notes, HT14)'
      return yes([
        figure(
          't',
          'The part then',
          'temperature',
          restated(part!, ambient!, watts!, otherAmbient!, otherHeat!),
          'T₂ = T_a2 + (T₁ − T_a1)/P₁·P₂',
          STRAIGHT,
          { inputs },
        ),
        figure(
          'r',
          'Its thermal resistance',
          'thermalResistance',
          resistanceOf(part!, ambient!, watts!),
          'R = (T₁ − T_a1)/P₁',
          STRAIGHT,
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'before-after',
    title: 'Before and after, at equal load',
    fields: pairFields,
    convert: (i) => {
      const { part, ambient, heat: watts, part2, ambient2, heat2, uT, uP } = i.n
      const [before, after] = [resistanceOf(part!, ambient!, watts!), resistanceOf(part2!, ambient2!, heat2!)]
      if (before === null || after === null) return no('Heat must be above zero, before and after.')
      if (before <= 0 || after <= 0) return no('The part is warmer than its surroundings, before and after.')
      const u = (t: number, a: number, p: number) =>
        2 * resistanceUncertainty(t, a, p, uT! * STANDARD, uP! * p * STANDARD)
      const [u1, u2] = [u(part!, ambient!, watts!), u(part2!, ambient2!, heat2!)]
      const share = improvement(before, after)!
      // of a quotient, relative uncertainties add as squares
      const uShare = (after / before) * Math.hypot(u1 / before, u2 / after)
      const inputs = inputsOf(i, pairFields, {
        part: 'T₁',
        ambient: 'T_a1',
        heat: 'P₁',
        part2: 'T₂',
        ambient2: 'T_a2',
        heat2: 'P₂',
        uT: 'a_T',
        uP: 'a_P',
      })
      const FAIR = 'thermal resistance of both, JCGM 100 for the range (95 of 100)'
      return yes(
        [
          figure('share', 'Better by', 'ratio', share, '1 − R₂/R₁', FAIR, {
            inputs,
            low: share - uShare,
            high: share + uShare,
          }),
          figure('before', 'Before', 'thermalResistance', before, 'R₁ = (T₁ − T_a1)/P₁', FAIR, {
            inputs,
            low: before - u1,
            high: before + u1,
          }),
          figure('after', 'After', 'thermalResistance', after, 'R₂ = (T₂ − T_a2)/P₂', FAIR, {
            inputs,
            low: after - u2,
            high: after + u2,
          }),
        ],
        Math.abs(share) < uShare
          ? 'Not told apart: the difference lies within what the instruments are worth.'
          : '',
      )
    },
  },
  {
    key: 'chain',
    title: 'Hot end of a chain of resistances',
    fields: chainFields,
    convert: (i) => {
      const { chain = [], beside = [] } = i.lists
      const { heat: watts, ambient } = i.n
      const sum = (list: readonly number[]) => list.reduce((a, r) => a + r, 0)
      const inputs = [
        ...inputsOf(i, chainFields, { heat: 'P', ambient: 'T_a' }),
        ...chain.map((r, k) => input(`R${k + 1}`, 'resistance', r, 'thermalResistance')),
        ...beside.map((r, k) => input(`S${k + 1}`, 'resistance beside', r, 'thermalResistance')),
      ]
      const whole = beside.length ? 1 / (1 / sum(chain) + 1 / sum(beside)) : sum(chain)
      return yes([
        beside.length
          ? figure(
              't',
              'Hot end',
              'temperature',
              twoPathTemperature(watts!, chain, beside, ambient!),
              'T = T_a + P/(1/ΣR + 1/ΣS)',
              'two chains of thermal resistances side by side',
              { inputs },
            )
          : figure(
              't',
              'Hot end',
              'temperature',
              chainTemperature(watts!, chain, ambient!),
              'T = T_a + P·ΣR',
              'thermal resistances one behind the other',
              { inputs },
            ),
        figure(
          'sum',
          'All of them',
          'thermalResistance',
          whole,
          beside.length ? '1/(1/ΣR + 1/ΣS)' : 'ΣR',
          'definition',
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'day-swing',
    title: 'A box through the warmth of a day',
    fields: dayFields,
    convert: (i) => {
      const { heat: watts, ua, capacity, mean, swing } = i.n
      if (!(ua! > 0 && capacity! > 0)) return no('What it holds and gives off is above 0.')
      const inputs = inputsOf(i, dayFields, { heat: 'P', ua: 'UA', capacity: 'C', mean: 'T_m', swing: 'ΔT' })
      const DAY = 'one heat capacity under a sine of 24 h (physics notes, HT21)'
      return yes([
        figure(
          'max',
          'Warmest inside',
          'temperature',
          dayMaximum(watts!, ua!, capacity!, mean!, swing! / 2),
          'T = T_m + P/UA + ΔT/2/√(1 + (ω·C/UA)²)',
          DAY,
          {
            inputs,
            note: 'Without sun on it: that comes on top.',
          },
        ),
        figure(
          'lag',
          'That long after the warmest outside',
          'duration',
          dayLag(ua!, capacity!),
          'arctan(ω·C/UA)/ω',
          DAY,
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'cooler',
    title: 'Heat a thermoelectric cooler gives off',
    fields: coolerFields,
    convert: (i) =>
      yes(
        [
          figure(
            'hot',
            'To be carried off',
            'power',
            hotSideHeat(i.n.pumped!, i.n.volts!, i.n.amps!),
            'P = P_c + U·I',
            'sum of what it pumps and what it takes',
            {
              inputs: inputsOf(i, coolerFields, { pumped: 'P_c', volts: 'U', amps: 'I' }),
            },
          ),
        ],
        'Without its fan the hot side warms the cold one within a minute: the fan and the cooler go on one switch.',
      ),
  },
]
