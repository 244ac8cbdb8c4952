/** A level without its background, at another distance. */
import { figure, input } from '#core/figure'
import { NEAREST_M, backgroundClass, levelInRoom, minusBackground, readingClass } from '#core/noise'
import { type Inputs, type Converted, type Conversion, field, no, yes } from './conversion'

const backgroundWords = {
  'no-correction': 'More than 15 dB over the background: no correction needed.',
  corrected: 'Background removed.',
  survey: 'Only 3 to 6 dB over the background: survey grade, uncertain.',
  invalid: 'Less than 3 dB over the background: no more than an upper bound.',
} as const

function sound({ n }: Inputs): Converted {
  const [read, background, from, to, floor] = [
    n.read!,
    n.background ?? null,
    n.from ?? null,
    n.to ?? null,
    n.floor ?? null,
  ]
  const kind = background === null ? null : backgroundClass(read, background)
  const clean = background === null ? read : (minusBackground(read, background) ?? read)
  const moves = from !== null && to !== null && from !== to
  if (moves && Math.min(from, to) < NEAREST_M)
    return no(`Nearer than ${NEAREST_M} m is the near field: no law takes a level from there to elsewhere.`)
  const moved = moves ? levelInRoom(clean, from, to) : { level: clean, halfWidth: 0 }
  const { level } = moved
  const bound = kind === 'invalid' || (floor !== null && readingClass(read, floor) !== 'usable')
  const warning = [
    kind && kind !== 'no-correction' && kind !== 'corrected' ? backgroundWords[kind] : '',
    floor !== null && readingClass(read, floor) !== 'usable'
      ? 'At the floor of the meter: an upper bound, not a value.'
      : '',
  ]
    .filter(Boolean)
    .join(' ')
  return yes(
    [
      figure(
        'level',
        bound ? 'At most' : 'Level',
        'level',
        level,
        'L = 10·lg(10^(L_t/10) − 10^(L_b/10)) − 20·lg(r₂/r₁)',
        'ISO 3744/3746 classes (from memory); free field, no further than the room lets a level fall (0.5 to 1.5 m)',
        {
          basis: 'measured',
          ...(moved.halfWidth > 0 ? { low: level - moved.halfWidth, high: level + moved.halfWidth } : {}),
          inputs: [
            input('L_t', 'read', read, 'level'),
            input('L_b', 'background', background, 'level'),
            input('r₁', 'microphone', from, 'distance'),
            input('r₂', 'wanted at', to, 'distance'),
          ],
          note: kind ? backgroundWords[kind] : 'No background given: the room is still in it.',
        },
      ),
    ],
    { warning },
  )
}

export const soundConversions: readonly Conversion[] = [
  {
    key: 'sound',
    title: 'Meter reading to level at a spot',
    gives: 'level',
    fields: [
      field('read', 'Reading, fan on', 'level'),
      field('background', 'Background, fan off', 'level', null, { optional: true }),
      field('floor', 'Meter’s floor', 'level', null, { optional: true }),
      field('from', 'Microphone at', 'distance', null, { optional: true }),
      field('to', 'Wanted at', 'distance', null, { optional: true }),
    ],
    convert: sound,
  },
]
