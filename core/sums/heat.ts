/** Sums of heat and water. */
import { dewPoint } from '#core/air'
import { figure } from '#core/figure'
import { pullDownTime } from '#core/heat'
import { evaporationRate, evaporativeCooling } from '#core/need'
import { field, given, no, yes, type SumOfGroup } from './sum'

const POOL = 'ASHRAE pool formula (from memory), ±40 %'
/** Pressure of the standard atmosphere at sea level, Pa (ISO 2533). */
const SEA_LEVEL_PA = 101325
/** Air at 20 °C, J/(m3 K): 1.2 kg/m3 at 1006 J/(kg K). */
const AIR_JM3K = 1.2 * 1006

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
]
