import { figure, input, type Figure } from '#core/figure'
import type { DayModel } from './model'
import type { DaySummary } from './run'

/** The day as figures with their workings. */

const DAY_S = 86_400
/** Below this nobody hears a fan, dB(A): told in words, not with digits. Common practice, no source. */
export const HEARD_DBA = 10
const silent = (level: number) => (level >= HEARD_DBA ? level : null)

/** What the parts of a model lack, in words. */
function assumedWords({ parts, groups, loadAssumed, weather }: DayModel): string {
  const words = [
    ...parts.flatMap((p) => p.assumed.map((a) => `${p.name}: ${a}`)),
    ...groups
      .filter((g) => g.lagAssumed && g.sensed >= 0 && g.settings?.law.kind === 'thermostat')
      .map(() => 'the sensor’s lag'),
    ...(loadAssumed ? ['the load over the day'] : []),
    ...(weather.usual.assumed ? ['the air of the usual day'] : []),
    ...(weather.hot.assumed ? ['the air of the hottest day'] : []),
  ]
  return words.length ? `Assumed, measure it: ${[...new Set(words)].join('; ')}.` : ''
}

/** The hottest that each part becomes, hours on, energy and sound of the usual day. */
export function dayFigures(model: DayModel, usual: DaySummary, hot: DaySummary): Figure[] {
  const note = assumedWords(model)
  const basis = note ? ('estimated' as const) : ('computed' as const)
  const { weather, groups } = model
  const on = Math.max(0, ...usual.groups.map((g) => g.onS))
  const first = usual.groups[0]
  return [
    ...model.parts.map((p, i) =>
      figure(
        `day.peak.${p.id}`,
        `${p.name}, hottest day`,
        'temperature',
        hot.peakC[i]!,
        'C·dT/dt = P − G(Q)·(T − T_a) − Σ G_ij·(T − T_j), stepped over the day',
        'first-order heat balance; control step by step (handbook control 2)',
        {
          basis,
          note,
          inputs: [
            input('C', 'heat that it stores, per kelvin', p.capacityJK, 'heatCapacity'),
            input('G', 'to moving air, as planned', p.movedWK, 'thermalConductance'),
            input('G₀', 'without moving air', p.stillWK, 'thermalConductance'),
            input('T_a', 'hottest air of that day', weather.hot.highC, 'temperature'),
            input('limit', 'its limit', p.limitC, 'temperature'),
          ],
        },
      ),
    ),
    figure('day.on', 'On, usual day', 'duration', on, 't = x · 24 h', 'simulated day', {
      basis,
      note,
      inputs: [
        input('starts', 'starts that day', first?.starts ?? null, 'number'),
        input('x', 'share of the day with a duty above 0', on / DAY_S, 'ratio'),
      ],
    }),
    figure(
      'day.energy',
      'Fans, a usual day',
      'energy',
      usual.energyJ,
      'E = P̄ · t',
      'simulated day; power at the operating point of every duty',
      {
        basis,
        note,
        inputs: [
          input('P̄', 'mean over the day', usual.energyJ / DAY_S, 'power'),
          input('t', 'a day', DAY_S, 'duration'),
        ],
      },
    ),
    figure(
      'day.level',
      'Sound over the usual day',
      'level',
      silent(usual.leqDbA),
      'L_eq = 10·lg(Σ Δt·10^(L/10)/Σ Δt)',
      'equivalent level (handbook CT16)',
      {
        basis,
        note: [
          groups.length > 1 ? 'All fans together.' : '',
          usual.leqDbA < HEARD_DBA ? 'Below what is heard (under 10 dB(A)).' : '',
          note,
        ]
          .filter(Boolean)
          .join(' '),
        inputs: [
          input('worst', 'loudest five minutes', silent(usual.loudestDbA), 'level'),
          input('night', 'at night', silent(usual.nightDbA), 'level'),
        ],
      },
    ),
  ]
}
