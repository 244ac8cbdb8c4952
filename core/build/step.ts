import type { PlanDocument, Tick } from '#core/document'
import type { Quantity, Sentence } from '#core/units'
import type { Where } from '#core/rules'

/** What a step of the build is. */

export const sittingKeys = ['before', 'cutting', 'wiring', 'power', 'closing', 'hour'] as const
export type SittingKey = (typeof sittingKeys)[number]
export const sittingNames: Record<SittingKey, string> = {
  before: 'Before you cut',
  cutting: 'Cutting and mounting',
  wiring: 'Wiring on the bench',
  power: 'First power',
  closing: 'Closing',
  hour: 'First hour, first day',
}

/** What is measured in a step: accepted between two values, and what any other one means. */
export interface Measure {
  quantity: Quantity
  /** SI; null: open on that side */
  low: number | null
  high: number | null
  /** what a value below or above means, and what to do */
  below: string
  above: string
  /** what a negative one means, where that is told by itself */
  negative?: string
}

export interface BuildStep {
  /** stable as long as the thing is: letters, digits, dashes */
  key: string
  sitting: SittingKey
  title: string
  /** how, with the plan's own numbers */
  text: Sentence
  measure: Measure | null
  /** worth a picture */
  photo: boolean
  /** minutes that it takes, about */
  minutes: number
  at: Where | null
  /** the plan shows that it is done already */
  done: boolean
  /** what it found goes back into the plan */
  apply?: (plan: PlanDocument, tick: Tick) => void
}

/** Minutes of a step that says nothing else. A guess of ours. */
const USUAL_MINUTES = 3
/** A step of which only what it asks is told. */
export const step = (
  told: Partial<BuildStep> & Pick<BuildStep, 'key' | 'sitting' | 'title' | 'text'>,
): BuildStep => ({
  measure: null,
  photo: false,
  minutes: USUAL_MINUTES,
  at: null,
  done: false,
  ...told,
})

/** A measured value held against a step. */
export type Judged = { ok: true } | { ok: false; message: string }
/** @param value SI */
export function judge({ low, high, below, above, negative }: Measure, value: number): Judged {
  if (negative && value < 0) return { ok: false, message: negative }
  if (low !== null && value < low) return { ok: false, message: below }
  if (high !== null && value > high) return { ok: false, message: above }
  return { ok: true }
}
