/** Sums of a fan: the fan laws, other air, another size, what its sheet can be. */
import { airState, isaDensity, REFERENCE_DENSITY } from '#core/air'
import {
  dataPlausibility,
  scaleDensity,
  scaleFlow,
  scalePower,
  scalePressure,
  scaleSizeFlow,
  staticEfficiency,
} from '#core/fan'
import { figure, type Figure } from '#core/figure'
import { bearingLife, HALVING_K, meanLife, setLife, WEAR_SHAPE } from '#core/heat'
import { atSpeed, speedExponentBand } from '#core/noise'
import { field, no, inputsOf, yes, type SumOfGroup } from './sum'

const LAWS = 'fan laws (affinity laws), ISO 5801; same fan, same air'
/** Farther than this the laws are stretched: small fans lose more than their share of efficiency. Common practice, no source. */
const FAR = 2

const lawFields = [
  field('from', 'Speed now', 'rotation'),
  field('to', 'Speed wanted', 'rotation'),
  field('flow', 'Airflow now', 'flow', null, { optional: true }),
  field('pressure', 'Static pressure now', 'pressure', null, { optional: true }),
  field('power', 'Power now', 'power', null, { optional: true }),
  field('level', 'Level now', 'level', null, { optional: true }),
]
const airFields = [
  field('altitude', 'Altitude', 'altitude', 0),
  field('temperature', 'Air temperature', 'temperature', 20),
  field('humidity', 'Humidity', 'ratio', 0.5),
  field('pressure', 'Pressure on the sheet', 'pressure', null, { optional: true }),
]
const sizeFields = [
  field('flow', 'Free delivery', 'flow'),
  field('from', 'Frame', 'length'),
  field('to', 'Other frame', 'length'),
]
const pointFields = [
  field('flow', 'Airflow', 'flow'),
  field('pressure', 'Static pressure', 'pressure'),
  field('power', 'Electric power', 'power'),
]
const sheetFields = [
  field('flow', 'Free delivery', 'flow'),
  field('pressure', 'Shut-off pressure', 'pressure'),
  field('power', 'Electric power', 'power'),
]
const lifeFields = [
  field('life', 'Life on the sheet (L10)', 'duration'),
  field('stated', 'Stated at', 'temperature', 40),
  field('air', 'Air at the fan', 'temperature'),
  field('count', 'Fans, all wanted', 'number', 1),
]
/** What the best air power of a straight curve, against the electric power, says of a sheet. */
const VERDICTS = {
  impossible: 'More air power than goes in: one of the three is wrong, or in another unit.',
  optimistic:
    'Over half of what goes in: no small fan does that. Look at the units, then at what the makers of others claim.',
  plausible: '',
} as const

export const fan: SumOfGroup[] = [
  {
    key: 'fan-laws',
    title: 'Fan laws: another speed',
    fields: lawFields,
    convert: (i) => {
      const { from, to, flow, pressure, power, level } = i.n
      const inputs = inputsOf(i, lawFields, {
        from: 'n₁',
        to: 'n₂',
        flow: 'Q₁',
        pressure: 'p₁',
        power: 'P₁',
        level: 'L₁',
      })
      const figures: Figure[] = []
      const has = (value: number | null | undefined): value is number => typeof value === 'number'
      if (has(flow))
        figures.push(
          figure('flow', 'Airflow', 'flow', scaleFlow(flow, from!, to!), 'Q₂ = Q₁·n₂/n₁', LAWS, { inputs }),
        )
      if (has(pressure))
        figures.push(
          figure(
            'pressure',
            'Static pressure',
            'pressure',
            scalePressure(pressure, from!, to!),
            'p₂ = p₁·(n₂/n₁)²',
            LAWS,
            {
              inputs,
            },
          ),
        )
      if (has(power))
        figures.push(
          figure('power', 'Power', 'power', scalePower(power, from!, to!), 'P₂ = P₁·(n₂/n₁)³', LAWS, {
            inputs,
            note: 'of the air; the motor’s own losses fall less',
          }),
        )
      const steps = Math.log10(to! / from!)
      if (has(level))
        figures.push(
          figure(
            'level',
            'Level',
            'level',
            atSpeed(level, from!, to!),
            'L₂ = L₁ + 50·lg(n₂/n₁)',
            'small fans, 45 to 60 a decade (physics notes, noise)',
            {
              inputs,
              low: level + speedExponentBand[0] * steps,
              high: level + speedExponentBand[1] * steps,
            },
          ),
        )
      if (!figures.length) return no('Wanted: at least one of airflow, pressure, power or level.')
      const times = Math.max(to! / from!, from! / to!)
      return yes(
        figures,
        times > FAR ? 'More than twice or under half the speed: take these as a rough guide.' : '',
      )
    },
  },
  {
    key: 'thin-air',
    title: 'A fan high up or in the heat',
    fields: airFields,
    convert: (i) => {
      const { altitude, temperature, humidity, pressure } = i.n
      if (humidity! > 1) return no('Humidity is at most 100 %.')
      const state = airState(temperature!, altitude!, humidity!)
      if (!state) return no('No air is known there: up to 11 000 m and from −60 to 200 °C.')
      const inputs = inputsOf(i, airFields, { altitude: 'h', temperature: 'T', humidity: 'φ', pressure: 'p' })
      const IDEAL = 'ideal mixture, standard atmosphere (ISO 2533)'
      return yes([
        figure('density', 'Density there', 'density', state.density, 'ρ = p_d/(R_d·T) + p_v/(R_v·T)', IDEAL, {
          inputs,
        }),
        figure('share', 'Pressure it keeps', 'ratio', state.densityRatio, 'p₂/p₁ = ρ/1.2 kg/m³', LAWS, {
          inputs,
          note: 'Airflow by volume stays as it is at the same speed; it carries that much less heat.',
        }),
        ...(typeof pressure === 'number'
          ? [
              figure(
                'pressure',
                'Pressure there',
                'pressure',
                scaleDensity(pressure, REFERENCE_DENSITY, state.density),
                'p₂ = p₁·ρ₂/ρ₁',
                LAWS,
                {
                  inputs,
                },
              ),
            ]
          : []),
        figure(
          'standard',
          'Standard atmosphere at that height',
          'density',
          isaDensity(altitude!),
          'dry, at its own temperature',
          'ISO 2533',
        ),
      ])
    },
  },
  {
    key: 'other-size',
    title: 'A like fan of another size',
    fields: sizeFields,
    convert: (i) =>
      yes(
        [
          figure(
            'flow',
            'Free delivery, about',
            'flow',
            scaleSizeFlow(i.n.flow!, i.n.from!, i.n.to!),
            'Q₂ = Q₁·(D₂/D₁)³',
            'fan laws, same speed and shape',
            {
              inputs: inputsOf(i, sizeFields, { flow: 'Q₁', from: 'D₁', to: 'D₂' }),
            },
          ),
          figure(
            'same-tip',
            'At the same speed of the blade tips',
            'flow',
            (i.n.flow! * i.n.to! ** 2) / i.n.from! ** 2,
            'Q₂ = Q₁·(D₂/D₁)²',
            'fan laws; about as loud, turning slower',
          ),
        ],
        'An order of magnitude: frames of two sizes are seldom alike. Take the sheet of the other one.',
      ),
  },
  {
    key: 'efficiency',
    title: 'Efficiency of a fan at work',
    fields: pointFields,
    convert: (i) => {
      const share = staticEfficiency(i.n.flow!, i.n.pressure!, i.n.power!)
      if (share !== null && share > 1) return no('More air power than goes in: look at the units of the three.')
      return yes([
        figure('share', 'Static efficiency', 'ratio', share, 'η = Q·p/P', 'definition, ISO 5801', {
          inputs: inputsOf(i, pointFields, { flow: 'Q', pressure: 'p', power: 'P' }),
          note: 'Small fans reach 3 to 30 % at their best (common practice).',
        }),
        figure('air', 'Air power', 'power', i.n.flow! * i.n.pressure!, 'Q·p', 'definition'),
      ])
    },
  },
  {
    key: 'sheet',
    title: 'Can this sheet be true',
    fields: sheetFields,
    convert: (i) => {
      const { flow, pressure, power } = i.n
      if (!(power! > 0)) return no('Electric power must be above zero.')
      return yes(
        [
          figure(
            'share',
            'Best air power of what goes in',
            'ratio',
            (flow! * pressure!) / 4 / power!,
            'Q_max·p_max/(4·P)',
            'a straight curve has its best point half way: half the flow at half the pressure',
            {
              inputs: inputsOf(i, sheetFields, { flow: 'Q_max', pressure: 'p_max', power: 'P' }),
              note: 'Up to half is plausible.',
            },
          ),
        ],
        VERDICTS[dataPlausibility(flow!, pressure!, power!)],
      )
    },
  },
  {
    key: 'bearing-life',
    title: 'Bearing life in warm air',
    fields: lifeFields,
    convert: (i) => {
      const { life, stated, air, count } = i.n
      if (!(count! >= 1)) return no('At least one fan.')
      const HALVED = 'halved for every 10 to 15 K more (common practice, no source)'
      const [short, long] = [HALVING_K.short, HALVING_K.long].map((k) =>
        bearingLife(life!, stated!, air!, k),
      ) as [number, number]
      const middle = Math.sqrt(short * long)
      const inputs = inputsOf(i, lifeFields, { life: 'L', stated: 'T_0', air: 'T', count: 'n' })
      const range = (of: (hours: number) => number) => ({
        basis: 'estimated' as const,
        inputs,
        low: of(short),
        high: of(long),
      })
      return yes([
        figure(
          'life',
          'One in ten has failed by',
          'duration',
          middle,
          'L·2^((T_0 − T)/k), k 10 to 15 K',
          HALVED,
          range((h) => h),
        ),
        figure(
          'set',
          'One in ten such sets has lost a fan by',
          'duration',
          setLife(middle, WEAR_SHAPE, count!),
          'L/n^(1/β), β = 2',
          'Weibull distribution',
          range((h) => setLife(h, WEAR_SHAPE, count!)),
        ),
        figure(
          'mean',
          'Mean life of one',
          'duration',
          meanLife(middle, WEAR_SHAPE),
          'L·Γ(1 + 1/β)/(−ln 0.9)^(1/β)',
          'Weibull distribution',
          range((h) => meanLife(h, WEAR_SHAPE)),
        ),
      ])
    },
  },
]
