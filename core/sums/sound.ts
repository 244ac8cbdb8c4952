/** Sums of levels. */
import { figure, input } from '#core/figure'
import {
  atDistance,
  criticalDistance,
  dose,
  leq,
  loudnessRatio,
  minusBackground,
  phonToSone,
  roomLevel,
  soneToDbA,
  spectrumToDbA,
  sumLevels,
} from '#core/noise'
import { field, given, no, inputsOf, yes, type SumOfGroup } from './sum'

const SOUND = 'energy addition of levels (physics notes, noise)'

const OCTAVES = [63, 125, 250, 500, 1000, 2000, 4000, 8000] as const
const bandName = (hz: number) => (hz < 1000 ? `${hz} Hz` : `${hz / 1000} kHz`)
const bandFields = OCTAVES.map((hz) => field(`f${hz}`, bandName(hz), 'level', null, { optional: true }))
const soneFields = [field('sone', 'Loudness on the sheet, sone', 'number')]
const roomFields = [
  field('power', 'Sound power level', 'level', null, { hint: 'on some sheets as L_wA' }),
  field('distance', 'Distance', 'distance', 1),
  field('length', 'Room, length', 'distance'),
  field('width', 'Room, width', 'distance'),
  field('height', 'Room, height', 'distance', 2.5),
  field('absorption', 'Absorbed by its surfaces', 'ratio', 0.15, {
    hint: '5 % bare, 15 % furnished, 35 % soft',
  }),
]
/** Where a source stands: the share of a sphere that it shines into is one in so many. */
const STANDS = [
  { value: '2', label: 'on a surface' },
  { value: '1', label: 'free in the room' },
  { value: '4', label: 'along an edge' },
  { value: '8', label: 'in a corner' },
]

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
  {
    key: 'mean-level',
    title: 'Mean level over stages',
    fields: [
      field('levels', 'Levels', 'level', null, { list: true, hint: 'one a stage' }),
      field('times', 'Each for', 'duration', null, { list: true, hint: 'in the same order' }),
    ],
    convert: (i) => {
      const { levels = [], times = [] } = i.lists
      if (levels.length !== times.length)
        return no(`As many times as levels: there are ${levels.length} levels and ${times.length} times.`)
      const inputs = levels.map((l, k) => input(`L${k + 1}`, `stage ${k + 1}`, l, 'level'))
      return yes([
        figure(
          'mean',
          'Mean level',
          'level',
          leq(levels, times),
          'L_eq = 10·lg(Σ t_i·10^(L_i/10)/Σ t_i)',
          SOUND,
          { inputs },
        ),
        figure(
          'whole',
          'Over',
          'duration',
          times.reduce((s, t) => s + t, 0),
          'Σ t_i',
          'definition',
        ),
        figure(
          'dose',
          'Of what ears may take in a day',
          'ratio',
          dose(levels, times),
          'Σ t_i/t(L_i), t = 8 h/2^((L − 85)/3)',
          'NIOSH: 85 dB(A) over 8 h, half the time for 3 dB more',
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'sone',
    title: 'Sone of a sheet as a level',
    fields: soneFields,
    convert: (i) => {
      const { sone } = i.n
      if (!(sone! > 0)) return no('Loudness on the sheet must be above zero.')
      const level = soneToDbA(sone!)
      return yes(
        [
          figure(
            'level',
            'Level, about',
            'level',
            level,
            'L ≈ 28 + 33.2·lg(N)',
            'rule for ventilators (from memory), ±5 dB',
            {
              basis: 'estimated',
              low: level - SONE_DOUBT,
              high: level + SONE_DOUBT,
              inputs: inputsOf(i, soneFields, { sone: 'N' }),
            },
          ),
          figure(
            'tone',
            'A tone of 1 kHz at that level, sone',
            'number',
            phonToSone(level),
            'N = 2^((L − 40)/10) from 40 phon',
            'definition of the sone',
          ),
        ],
        'Sone is measured at a distance of its own: ask for it before two sheets are compared.',
      )
    },
  },
  {
    key: 'room',
    title: 'Level in a room from sound power',
    fields: roomFields,
    choices: [{ key: 'stands', label: 'It stands', options: STANDS }],
    convert: (i) => {
      const { power, distance, length, width, height, absorption } = i.n
      if (!(absorption! > 0 && absorption! < 1))
        return no('What the surfaces absorb is above 0 and below 100 %.')
      const surface = 2 * (length! * width! + length! * height! + width! * height!)
      const q = Number(i.choice.stands || STANDS[0]!.value)
      const inputs = inputsOf(i, roomFields, { power: 'L_w', distance: 'r', absorption: 'α' })
      const DIFFUSE = 'diffuse-field theory: direct sound and what the room gives back'
      const level = roomLevel(power!, distance!, q, surface, absorption!)
      return yes([
        figure(
          'level',
          'Level there',
          'level',
          level,
          'L = L_w + 10·lg(q/(4π·r²) + 4/R), R = S·α/(1 − α)',
          DIFFUSE,
          {
            inputs: [...inputs, input('S', 'surfaces of the room', surface, 'area')],
          },
        ),
        figure(
          'critical',
          'The room decides beyond',
          'distance',
          criticalDistance(q, surface, absorption!),
          'r_c = √(q·R/(16π))',
          DIFFUSE,
          { inputs },
        ),
        figure(
          'far',
          'Farther away it stays at',
          'level',
          roomLevel(power!, FAR_M, q, surface, absorption!),
          'L_w + 10·lg(4/R)',
          DIFFUSE,
        ),
      ])
    },
  },
  {
    key: 'bands',
    title: 'A-weighted level of octave bands',
    fields: bandFields,
    convert: (i) => {
      const read = OCTAVES.filter((hz) => typeof i.n[`f${hz}`] === 'number')
      if (!read.length) return no('Wanted: the level of at least one band.')
      const levels = read.map((hz) => i.n[`f${hz}`]!)
      return yes([
        figure(
          'dba',
          'A-weighted',
          'level',
          spectrumToDbA(read, levels),
          '10·lg(Σ 10^((L_i + A_i)/10))',
          'IEC 61672-1 weighting at the exact band frequencies',
          {
            inputs: inputsOf(
              i,
              bandFields,
              Object.fromEntries(read.map((hz) => [`f${hz}`, `L_${bandName(hz)}`])),
            ),
            note:
              read.length < OCTAVES.length
                ? `${OCTAVES.length - read.length} bands are not typed and count as silent.`
                : '',
          },
        ),
        figure('plain', 'Unweighted', 'levelDifference', sumLevels(levels), '10·lg(Σ 10^(L_i/10))', SOUND),
      ])
    },
  },
]
/** How far the rule from sone is off, dB (from memory). */
const SONE_DOUBT = 5
/** As far as no direct sound is left, m. */
const FAR_M = 1e6
