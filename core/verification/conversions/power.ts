/** Power and current from meters. */
import { figure, input } from '#core/figure'
import { type Inputs, type Converted, type Conversion, field, no, yes, HUNDREDTH } from './conversion'

/** Wall meters are poor below this, W. Common practice, no source. */
const WALL_METER_W = 5
function wall({ n }: Inputs): Converted {
  const watts = n.with! - (n.without ?? 0)
  if (watts < 0) return no('The reading without is above the reading with.')
  const perDay = ((watts * (n.hours ?? 24)) / 24) * 86400
  return yes(
    [
      figure('p', 'Power', 'power', watts, 'P = P_with − P_without', 'physics notes ME9', {
        basis: 'measured',
        low: Math.max(0, watts - Math.max(0.5, 0.05 * watts)),
        high: watts + Math.max(0.5, 0.05 * watts),
        inputs: [
          input('P_with', 'with the fan', n.with!, 'power'),
          input('P_without', 'without', n.without ?? 0, 'power'),
        ],
      }),
      figure('e', 'Energy a day', 'energy', perDay, 'E = P · t', 'definition'),
      figure(
        'c',
        'Money a year',
        'money',
        n.tariff ? (perDay / 3.6e6) * n.tariff * 365 : null,
        'E · 365 · tariff',
        'definition',
        { note: n.tariff ? '' : 'No tariff given.' },
      ),
    ],
    { warning: watts < WALL_METER_W ? 'Most wall meters are poor below 5 W.' : '' },
  )
}

function power({ n }: Inputs): Converted {
  const watts = n.v! * n.i!
  const half = watts * Math.hypot(0.01, 0.03)
  return yes([
    figure('p', 'Power', 'power', watts, 'P = V · I', 'mean current on a steady supply', {
      basis: 'measured',
      low: watts - half,
      high: watts + half,
      inputs: [input('V', 'at the fan', n.v!, 'voltage'), input('I', 'mean current', n.i!, 'current')],
      note: 'Range: 1 % of a meter’s volts, 3 % of its amps (common practice).',
    }),
  ])
}

export const powerConversions: readonly Conversion[] = [
  {
    key: 'power',
    title: 'Volts and amps to watts',
    gives: 'power',
    fields: [field('v', 'At the fan’s terminals', 'voltage'), field('i', 'Mean current', 'current')],
    convert: power,
  },
  {
    key: 'shunt',
    title: 'Shunt to current',
    gives: 'current',
    fields: [field('v', 'Across the shunt', 'voltage'), field('r', 'Shunt', 'resistance', 0.1)],
    convert: ({ n }) =>
      n.r! > 0
        ? yes([
            figure('i', 'Current', 'current', n.v! / n.r!, 'I = V/R', 'Ohm', {
              basis: 'measured',
              low: (n.v! / n.r!) * (1 - HUNDREDTH),
              high: (n.v! / n.r!) * (1 + HUNDREDTH),
              inputs: [input('V', 'across it', n.v!, 'voltage'), input('R', 'shunt', n.r!, 'resistance')],
            }),
          ])
        : no('A shunt has a resistance.'),
  },
  {
    key: 'wall',
    title: 'Wall meter, with and without',
    gives: 'power',
    fields: [
      field('with', 'With the fan', 'power'),
      field('without', 'Without', 'power', 0, { optional: true }),
      field('hours', 'Hours a day', 'number', 24, { optional: true }),
      field('tariff', 'Price of a kWh', 'money', null, { optional: true }),
    ],
    convert: wall,
  },
]
