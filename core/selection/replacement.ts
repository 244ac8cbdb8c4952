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

/** One fan in the place of another, as the candidate drives it. */
interface Swap {
  job: Job
  old: Fan
  oldV: number
  next: Fan
  candidate: Candidate
}
type Notes = (swap: Swap) => ReplacementNote[]
const note = (severity: ReplacementNote['severity'], ...text: Sentence): ReplacementNote => ({ severity, text })
const of = (value: number, quantity: 'length' | 'voltage' | 'current') => ({ value, quantity })

/** Footprint and depth. */
const bodyNotes: Notes = ({ old, next, candidate }) => {
  const notes: ReplacementNote[] = []
  const frames = ['Frame of ', of(next.frameM, 'length'), ' where ', of(old.frameM, 'length')] as const
  if (next.frameM > old.frameM + SAME)
    notes.push(note('fix', ...frames, ' was: a larger hole, or an adapter before it'))
  else if (next.frameM < old.frameM - SAME) notes.push(note('fix', ...frames, ' was: an adapter plate, sealed'))
  const { thicknessM } = candidate
  if (thicknessM > old.thicknessM + SAME) {
    const room = ' was: check the room and the screws'
    notes.push(note('fix', of(thicknessM, 'length'), ' deep where ', of(old.thicknessM, 'length'), room))
  }
  return notes
}

const countNotes: Notes = ({ job: { existingCount }, candidate: { count } }) =>
  count === existingCount
    ? []
    : [note('note', `${count} where ${existingCount} ${existingCount === 1 ? 'was' : 'were'}`)]

/** Voltages and label currents that differ by more than this are told, share. Common practice, no source. */
const VOLTS_APART = 0.05
const AMPS_APART = 0.1

const feedNotes: Notes = ({ old, oldV, next, candidate: { driveV } }) => {
  const notes: ReplacementNote[] = []
  if (Math.abs(driveV - oldV) > VOLTS_APART * oldV) {
    const mend = ': a converter, set before it is connected'
    notes.push(note('fix', 'It wants ', of(driveV, 'voltage'), ', the old one had ', of(oldV, 'voltage'), mend))
  }
  const [was, is] = [old.ratedA, next.ratedA]
  if (was !== null && is !== null && is > (1 + AMPS_APART) * was) {
    const mend = ': check what feeds it'
    notes.push(
      note('note', 'Its label takes ', of(is, 'current'), ', the old one’s ', of(was, 'current'), mend),
    )
  }
  return notes
}

const wireNotes: Notes = ({ old, next }) => {
  const [was, is] = [old.wires, next.wires]
  if (was === null || is === null || was === is) return []
  const lost = is < was && was >= 3 && is < 3
  const told = `It had ${wiresWords[was]}, now there are ${wiresWords[is]}`
  return lost
    ? [note('fix', told, ': equipment that watches the tach will report a dead fan')]
    : [note('note', told)]
}

const kindNotes: Notes = ({ old, next }) => {
  if (old.kind === next.kind) return []
  const blower = 'A blower turns the air by a right angle: its outlet must meet the old opening'
  const axial = 'An axial fan blows straight on: the blower’s outlet must be remade'
  return [note('fix', next.kind === 'blower' ? blower : axial)]
}

const directionNotes: Notes = () => [
  note(
    'note',
    'Mark the direction of the air before the old one comes out; polarity is checked with a meter, not by colour',
  ),
]

/**
 * Notes for putting a fan where another one was: footprint, depth, voltage, current, wires, direction, and the airflow it
 * keeps.
 * @param old the fan that is in it, driven at `oldV`
 * @param next the selected fan, as the candidate is driven
 * @returns nothing where the two are the same model
 */
export function replacementNotes(
  job: Job,
  old: Fan,
  oldV: number,
  next: Fan,
  candidate: Candidate,
): ReplacementNote[] {
  if (old.id === next.id) return []
  const swap = { job, old, oldV, next, candidate }
  return [bodyNotes, countNotes, feedNotes, wireNotes, kindNotes, directionNotes].flatMap((notes) =>
    notes(swap),
  )
}
