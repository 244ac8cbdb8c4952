import { z } from 'zod'
import { day, defaultsOf, idSchema, line, lines, maybe, moment, shortText } from './fields'

/** The log book of a job: one line for each thing that happened to it. Handbook build-and-care 7. */

export const eventKinds = ['check', 'setting', 'fault', 'care', 'repair', 'note'] as const
export type EventKind = (typeof eventKinds)[number]
export const eventNames: Record<EventKind, string> = {
  check: 'Check',
  setting: 'Setting changed',
  fault: 'Fault',
  care: 'Care',
  repair: 'Repair',
  note: 'Note',
}

export const eventSchema = z.object({
  id: idSchema,
  at: moment,
  kind: z.enum(eventKinds).default('note'),
  who: line,
  what: shortText.min(1, 'Say what happened.'),
  /** readings before and after, as they were written down */
  before: line,
  after: line,
  parts: line,
  notes: lines,
  /** the care task that was done; '' where it is none */
  careKey: z.string().max(40).default(''),
  nextDue: maybe(day),
  /** of a setting: all settings as they stood then, one a line */
  settings: z.string().max(4000).default(''),
})
export interface LogEvent extends z.infer<typeof eventSchema> {}
/** A line of which only what it tells is given. */
export const newEvent = (id: string, at: string, what: string): LogEvent => ({
  ...defaultsOf(eventSchema),
  id,
  at,
  what,
})
