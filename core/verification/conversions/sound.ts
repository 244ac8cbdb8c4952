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

/** What a phone is worth that was held against a real meter once, dB: another spectrum, another hand. Common practice, no source. */
const PHONE_DB = 2.5
/** A phone and a meter differ by no more than this, dB; else one of them was misread. Common practice, no source. */
const MOST_OFFSET_DB = 25

/** A phone’s reading as a level: by one comparison with a real meter, above its own floor; the phone alone tells none. */
function phone({ n }: Inputs): Converted {
  const read = n.read!
  const { phone: then, meter, quiet } = n
  if (quiet !== null && quiet !== undefined) {
    const kind = readingClass(read, quiet)
    if (kind !== 'usable')
      return no(
        'The phone hears no more than its own floor: go nearer to the fan, to a distance that both readings share, or take a meter.',
      )
  }
  if (then === null || then === undefined || meter === null || meter === undefined)
    return no(
      'A phone alone tells no level, only differences at one spot: hold it beside a real meter once and type both readings.',
    )
  const offset = meter - then
  if (Math.abs(offset) > MOST_OFFSET_DB)
    return no('Phone and meter differ by more than 25 dB: one was misread, or one was not A-weighted.')
  const level = read + offset
  return yes(
    [
      figure(
        'level',
        'Level',
        'level',
        level,
        'L = L_phone + (L_meter − L_phone then)',
        'one comparison with a real meter',
        {
          basis: 'measured',
          low: level - PHONE_DB,
          high: level + PHONE_DB,
          inputs: [
            input('L_phone', 'phone now', read, 'level'),
            input('L_m', 'meter at the comparison', meter, 'level'),
            input('L_p', 'phone at the comparison', then, 'level'),
          ],
          note: 'The same phone, the same app, held the same way. Its automatic gain must be off.',
        },
      ),
      figure('offset', 'This phone’s offset', 'levelDifference', offset, 'L_meter − L_phone', 'one comparison'),
    ],
    {
      warning:
        quiet === null || quiet === undefined
          ? 'Its floor is not known: read it once in the quietest room you have.'
          : '',
    },
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
  {
    key: 'phone',
    title: 'Phone reading to level, by one comparison',
    gives: 'level',
    fields: [
      field('read', 'Phone, now', 'level'),
      field('phone', 'Phone, beside a meter once', 'level', null, { optional: true }),
      field('meter', 'The meter then', 'level', null, { optional: true }),
      field('quiet', 'Phone in a quiet room', 'level', null, { optional: true }),
    ],
    convert: phone,
  },
]
