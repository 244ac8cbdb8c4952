/** Sums of levels. */
import { figure, input } from '#core/figure'
import { atDistance, loudnessRatio, minusBackground, sumLevels } from '#core/noise'
import { field, given, no, yes, type SumOfGroup } from './sum'

const SOUND = 'energy addition of levels (physics notes, noise)'

export const sound: SumOfGroup[] = [
  {
    key: 'levels-sum',
    title: 'Levels added up',
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
    title: 'Level without the background',
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
    title: 'How much louder it sounds',
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
    title: 'Level at another distance',
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
