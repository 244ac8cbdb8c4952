/**
 * Quick sums: calculations that stand alone, each with its fields, its working and its source. One table, like that of the
 * instruments' conversions and run by the same `convert`: the screen asks and shows, nothing else.
 */
import { dewPoint } from '#core/air'
import { figure, input, type Figure } from '#core/figure'
import {
  awgAmpacity,
  awgArea,
  BANK_EFFICIENCY,
  bankRuntime,
  converterInputCurrent,
  converterLoss,
  copperResistance,
  ledResistor,
  ledResistorPower,
  longestWire,
  nextPreferred,
  resistorForVoltage,
  resistorRating,
  wireDrop,
} from '#core/power'
import { pullDownTime } from '#core/heat'
import { clearOutTime, evaporationRate, evaporativeCooling } from '#core/need'
import { atDistance, loudnessRatio, minusBackground, sumLevels } from '#core/noise'
import type { Quantity } from '#core/units'
import type { Conversion, Converted, Inputs } from '#core/verification'

/** A sum of its own; what it gives is no reading of a run. */
type Sum = Conversion & { group: 'Air' | 'Sound' | 'Power and wire' | 'Heat and water' }

const field = (
  key: string,
  label: string,
  quantity: Quantity,
  usual: number | null = null,
  rest: Partial<Conversion['fields'][number]> = {},
) => ({ key, label, quantity, usual, ...rest })
const no = (reason: string): Converted => ({ ok: false, reason })
const yes = (figures: Figure[], warning = ''): Converted => ({
  ok: true,
  figures,
  ...(warning ? { warning } : {}),
})
const given = (i: Inputs, ...list: [symbol: string, key: string, label: string, quantity: Quantity][]) =>
  list.map(([symbol, key, label, quantity]) => input(symbol, label, i.n[key] ?? null, quantity))

const DILUTION = 'well-mixed dilution with the mixing factor of industrial-ventilation practice'
const SOUND = 'energy addition of levels (physics notes, noise)'
const PREFERRED = 'Ohm’s law; IEC 60063 for the preferred value'
const BALANCE = 'power balance'
const COPPER = 'IEC 60028 (copper), ASTM B258 (AWG); there and back'
const POOL = 'ASHRAE pool formula (from memory), ±40 %'
/** Pressure of the standard atmosphere at sea level, Pa (ISO 2533). */
const SEA_LEVEL_PA = 101325
/** Air at 20 °C, J/(m3 K): 1.2 kg/m3 at 1006 J/(kg K). */
const AIR_JM3K = 1.2 * 1006

const air: Sum[] = [
  {
    key: 'flow-speed-area',
    group: 'Air',
    title: 'Airflow from speed and area',
    gives: null,
    fields: [field('v', 'Air speed, mean', 'speed'), field('a', 'Opening', 'area')],
    convert: (i) =>
      yes([
        figure('flow', 'Airflow', 'flow', i.n.v! * i.n.a!, 'Q = v · A', 'continuity', {
          inputs: given(i, ['v', 'v', 'speed', 'speed'], ['A', 'a', 'area', 'area']),
        }),
      ]),
  },
  {
    key: 'speed-flow-area',
    group: 'Air',
    title: 'Air speed from airflow and area',
    gives: null,
    fields: [field('q', 'Airflow', 'flow'), field('a', 'Opening', 'area')],
    convert: (i) =>
      yes([
        figure('speed', 'Air speed', 'speed', i.n.q! / i.n.a!, 'v = Q / A', 'continuity', {
          inputs: given(i, ['Q', 'q', 'airflow', 'flow'], ['A', 'a', 'area', 'area']),
        }),
      ]),
  },
  {
    key: 'clear-out',
    group: 'Air',
    title: 'Time to clear the air',
    gives: null,
    fields: [
      field('volume', 'Volume', 'volume'),
      field('flow', 'Fresh air', 'flow'),
      field('mixing', 'Mixing factor', 'number', 3, { hint: '1 perfect, 3 to 5 usual, 10 dead corners' }),
      field('left', 'Left of the first level', 'ratio', 0.05),
    ],
    convert: (i) =>
      i.n.mixing! < 1 || i.n.left! > 1
        ? no('The mixing factor is 1 or more, what is left at most 100 %.')
        : yes([
            figure(
              'time',
              'Clears in',
              'duration',
              clearOutTime(i.n.volume!, i.n.flow!, i.n.mixing!, 1, i.n.left!),
              't = V·K/Q · ln(1/share)',
              DILUTION,
              {
                inputs: given(
                  i,
                  ['V', 'volume', 'volume', 'volume'],
                  ['Q', 'flow', 'fresh air', 'flow'],
                  ['K', 'mixing', 'mixing factor', 'number'],
                  ['share', 'left', 'left', 'ratio'],
                ),
              },
            ),
            figure(
              'changes',
              'Air changes',
              'perHour',
              (3600 * i.n.flow!) / i.n.volume!,
              'n = Q / V',
              'definition',
              {
                inputs: given(i, ['Q', 'flow', 'fresh air', 'flow'], ['V', 'volume', 'volume', 'volume']),
              },
            ),
          ]),
  },
  {
    key: 'holes',
    group: 'Air',
    title: 'Free area of round holes',
    gives: null,
    fields: [
      field('d', 'Diameter of a hole', 'length'),
      field('n', 'How many', 'number', 1),
      field('whole', 'Of a plate of', 'area', null, { optional: true }),
    ],
    convert: (i) => {
      const area = (i.n.n! * Math.PI * i.n.d! ** 2) / 4
      const { whole } = i.n
      if (whole && area > whole) return no('So many holes do not fit into the plate.')
      return yes([
        figure('area', 'Free area', 'area', area, 'A = n · π·d²/4', 'geometry', {
          inputs: given(i, ['n', 'n', 'holes', 'number'], ['d', 'd', 'diameter', 'length']),
        }),
        ...(whole
          ? [
              figure('ratio', 'Free-area ratio', 'ratio', area / whole, 'φ = A / A_plate', 'definition', {
                inputs: given(i, ['A_plate', 'whole', 'plate', 'area']),
              }),
            ]
          : []),
      ])
    },
  },
  {
    key: 'filter-area',
    group: 'Air',
    title: 'Filter area for a face velocity',
    gives: null,
    fields: [
      field('q', 'Airflow', 'flow'),
      field('v', 'Speed at its face', 'speed', 0.5, {
        hint: 'coarse up to about 1 m/s; fine and carbon 0.2 to 0.5 m/s',
      }),
    ],
    convert: (i) => {
      const area = i.n.q! / i.n.v!
      return yes([
        figure(
          'area',
          'Face area',
          'area',
          area,
          'A = Q / v',
          'continuity; face velocities are common practice',
          {
            inputs: given(i, ['Q', 'q', 'airflow', 'flow'], ['v', 'v', 'face velocity', 'speed']),
          },
        ),
        figure('side', 'Square of side', 'length', Math.sqrt(area), 's = √A', 'geometry'),
      ])
    },
  },
]

const sound: Sum[] = [
  {
    key: 'levels-sum',
    group: 'Sound',
    title: 'Levels added up',
    gives: null,
    fields: [
      field('levels', 'Levels', 'level', null, { list: true, hint: 'each source alone, at the same spot' }),
    ],
    convert: (i) =>
      yes([
        figure(
          'sum',
          'All together',
          'level',
          sumLevels(i.lists.levels ?? []),
          'L = 10·lg(Σ 10^(L_i/10))',
          SOUND,
          { inputs: (i.lists.levels ?? []).map((l, k) => input(`L${k + 1}`, 'source', l, 'level')) },
        ),
      ]),
  },
  {
    key: 'levels-minus',
    group: 'Sound',
    title: 'Level without the background',
    gives: null,
    fields: [field('all', 'Measured, all on', 'level'), field('off', 'Background, fan off', 'level')],
    convert: (i) => {
      const alone = minusBackground(i.n.all!, i.n.off!)
      return alone === null
        ? no(
            'Less than 3 dB above the background: the fan alone cannot be told. Measure nearer, or when it is quieter.',
          )
        : yes([
            figure('alone', 'The fan alone', 'level', alone, 'L = 10·lg(10^(L/10) − 10^(L_b/10))', SOUND, {
              inputs: given(i, ['L', 'all', 'all on', 'level'], ['L_b', 'off', 'background', 'level']),
            }),
          ])
    },
  },
  {
    key: 'loudness',
    group: 'Sound',
    title: 'How much louder it sounds',
    gives: null,
    fields: [field('before', 'Before', 'level'), field('after', 'After', 'level')],
    convert: (i) => {
      const change = i.n.after! - i.n.before!
      return yes([
        figure(
          'ratio',
          change <= 0 ? 'Sounds as loud as, times' : 'Sounds louder, times',
          'number',
          loudnessRatio(change),
          'r = 2^(ΔL/10)',
          'ISO 532 sone scale: 10 dB is about twice as loud',
          { inputs: given(i, ['L1', 'before', 'before', 'level'], ['L2', 'after', 'after', 'level']) },
        ),
        figure('change', 'Change', 'levelDifference', change, 'ΔL = L2 − L1', 'definition'),
      ])
    },
  },
  {
    key: 'distance',
    group: 'Sound',
    title: 'Level at another distance',
    gives: null,
    fields: [
      field('level', 'Level', 'level'),
      field('from', 'Read at', 'distance', 1),
      field('to', 'Wanted at', 'distance'),
    ],
    convert: (i) =>
      yes(
        [
          figure(
            'level',
            'Level there',
            'level',
            atDistance(i.n.level!, i.n.from!, i.n.to!),
            'L2 = L1 − 20·lg(r2/r1)',
            'free field, 6 dB a doubling (physics notes, noise)',
            {
              inputs: given(
                i,
                ['L1', 'level', 'level', 'level'],
                ['r1', 'from', 'read at', 'distance'],
                ['r2', 'to', 'wanted at', 'distance'],
              ),
            },
          ),
        ],
        i.n.to! > 1.5 ? 'In a room it hardly falls beyond about 1.5 m: the walls give it back.' : '',
      ),
  },
]

const power: Sum[] = [
  {
    key: 'resistor',
    group: 'Power and wire',
    title: 'Resistor for a slower fan',
    gives: null,
    fields: [
      field('supply', 'Supply', 'voltage', 12),
      field('fan', 'Wanted at the fan', 'voltage', 7),
      field('current', 'Fan current at that voltage', 'current'),
    ],
    convert: (i) => {
      const { supply, fan, current } = i.n
      if (fan! >= supply!) return no('A resistor only takes voltage away: the fan gets less than the supply.')
      const ohm = resistorForVoltage(supply!, fan!, current!)
      const heat = (supply! - fan!) * current!
      const rating = resistorRating(heat)
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
          figure('e24', 'Next of E24', 'resistance', nextPreferred(ohm, 'E24'), 'E24, not below', PREFERRED),
          figure('heat', 'Heat in it', 'power', heat, 'P = (U − U_fan) · I', PREFERRED),
          figure('rating', 'Part for', 'power', rating, 'twice the heat, next rating', 'common practice', {
            note: rating === null ? 'More than a resistor should burn: take a step-down converter.' : '',
          }),
        ],
        'Check that it still starts: the start wants more voltage, and a fan draws more when it starts.',
      )
    },
  },
  {
    key: 'led',
    group: 'Power and wire',
    title: 'Resistor for an LED',
    gives: null,
    fields: [
      field('supply', 'Supply', 'voltage', 12),
      field('forward', 'Drop of one LED', 'voltage', 2, { hint: 'red about 2 V, white and blue about 3 V' }),
      field('leds', 'LEDs in a row', 'number', 1),
      field('current', 'Current', 'current', 0.01),
    ],
    convert: (i) => {
      const { supply, forward, leds, current } = i.n
      const ohm = ledResistor(supply!, leds!, forward!, current!)
      if (!(ohm > 0)) return no('So many LEDs in a row take more than the supply gives.')
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
    group: 'Power and wire',
    title: 'Voltage lost in a wire',
    gives: null,
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
    group: 'Power and wire',
    title: 'Input current of a converter',
    gives: null,
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
    group: 'Power and wire',
    title: 'Running time on a power bank',
    gives: null,
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

const heat: Sum[] = [
  {
    key: 'air-for-heat',
    group: 'Heat and water',
    title: 'Airflow for a heat and a rise',
    gives: null,
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
    group: 'Heat and water',
    title: 'Time to pull a warm box down',
    gives: null,
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
    group: 'Heat and water',
    title: 'Dew point',
    gives: null,
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
    group: 'Heat and water',
    title: 'Water that evaporates',
    gives: null,
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

/** All sums, in the order in which they stand. */
export const sums: Sum[] = [...air, ...sound, ...power, ...heat]
