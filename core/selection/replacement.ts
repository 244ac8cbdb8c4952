import type { Sentence } from '#core/units'
import type { Candidate } from './candidate'
import type { Fan, Job } from '#core/document'

/** What must be minded when one fan takes the place of another. */
export interface ReplacementNote {
  severity: 'fix' | 'note'
  text: Sentence
}

/** Frames and thicknesses closer than this are the same, m: moulding tolerance and pads. Common practice, no source. */
const SAME = 0.0015

const wiresWords: Record<number, string> = {
  2: 'two wires without a tach',
  3: 'three wires with a tach',
  4: 'four wires with tach and PWM',
}

/**
 * Notes for putting a fan where another one was: footprint, depth, voltage, current, wires, direction, and the airflow it keeps.
 * @param old the fan that is in it, driven at `oldV`
 * @param next the picked fan, as the candidate is driven
 * @returns nothing where the two are the same model
 */
export function replacementNotes(
  job: Job,
  old: Fan,
  oldV: number,
  next: Fan,
  candidate: Candidate,
): ReplacementNote[] {
  const notes: ReplacementNote[] = []
  const of = (value: number, quantity: 'length' | 'voltage' | 'current') => ({ value, quantity })
  const note = (severity: ReplacementNote['severity'], ...text: Sentence) => notes.push({ severity, text })
  if (old.id === next.id) return notes
  if (next.frameM > old.frameM + SAME)
    note(
      'fix',
      'Frame of ',
      of(next.frameM, 'length'),
      ' where ',
      of(old.frameM, 'length'),
      ' was: a larger hole, or an adapter before it',
    )
  else if (next.frameM < old.frameM - SAME)
    note(
      'fix',
      'Frame of ',
      of(next.frameM, 'length'),
      ' where ',
      of(old.frameM, 'length'),
      ' was: an adapter plate, sealed',
    )
  if (candidate.thicknessM > old.thicknessM + SAME)
    note(
      'fix',
      of(candidate.thicknessM, 'length'),
      ' deep where ',
      of(old.thicknessM, 'length'),
      ' was: check the room and the screws',
    )
  if (candidate.count !== job.existingCount)
    note('note', `${candidate.count} where ${job.existingCount} ${job.existingCount === 1 ? 'was' : 'were'}`)
  if (Math.abs(candidate.driveV - oldV) > 0.05 * oldV)
    note(
      'fix',
      'It wants ',
      of(candidate.driveV, 'voltage'),
      ', the old one had ',
      of(oldV, 'voltage'),
      ': a converter, set before it is connected',
    )
  if (old.ratedA !== null && next.ratedA !== null && next.ratedA > 1.1 * old.ratedA)
    note(
      'note',
      'Its label takes ',
      of(next.ratedA, 'current'),
      ', the old one’s ',
      of(old.ratedA, 'current'),
      ': check what feeds it',
    )
  if (old.wires !== null && next.wires !== null && old.wires !== next.wires) {
    const lost = next.wires < old.wires && old.wires >= 3 && next.wires < 3
    note(
      lost ? 'fix' : 'note',
      `It had ${wiresWords[old.wires]}, now there are ${wiresWords[next.wires]}`,
      ...(lost ? [': equipment that watches the tach will report a dead fan'] : []),
    )
  }
  if (old.kind !== next.kind)
    note(
      'fix',
      next.kind === 'blower'
        ? 'A blower turns the air by a right angle: its outlet must meet the old opening'
        : 'An axial fan blows straight on: the blower’s outlet must be remade',
    )
  note(
    'note',
    'Mark the direction of the air before the old one comes out; polarity is checked with a meter, not by colour',
  )
  return notes
}
