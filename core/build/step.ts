import { newReading, newRun, type StreamPlan, type ReadingQuantity, type Tick } from '#core/document'
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

/** Tools of the bench. Handbook build 1. */
export const toolNames = {
  camera: 'camera or phone',
  bag: 'labelled bag for screws and parts',
  meter: 'multimeter with a fused current input',
  supply: 'current-limited supply, or the smallest fuse that carries the start',
  tape: 'tape',
  marker: 'marker',
  template: 'printed template',
  punch: 'centre punch',
  saw: 'hole saw or step drill, clamps',
  file: 'deburring tool or file',
  eyes: 'eye protection, dust mask (P2)',
  vacuum: 'vacuum, sticky tape, lamp',
  driver: 'screwdriver',
  crimp: 'crimp tool made for the contacts, or iron, stand and solder',
  strip: 'wire stripper',
  shrink: 'heat shrink and something hot',
  paper: 'strip of thin paper',
  ties: 'cable ties, labels',
  probe: 'thermometer or infrared thermometer',
  instruments: 'the instruments of the baseline',
  warm: 'bag of warm water',
} as const
export type Tool = keyof typeof toolNames

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

/** What is looked at in a step: one thing is right, any other one means something. */
export interface Look {
  right: string
  wrong: readonly { label: string; means: string }[]
}

export interface BuildStep {
  /** stable as long as the thing is: letters, digits, dashes */
  key: string
  sitting: SittingKey
  title: string
  /** how, with the plan's own numbers */
  text: Sentence
  measure: Measure | null
  /** what is seen instead of measured; a tick keeps 0 for what is right */
  look: Look | null
  /** worth a picture */
  photo: boolean
  /** what lies on the table for it */
  tools: readonly Tool[]
  /** minutes that it takes, about */
  minutes: number
  at: Where | null
  /** the plan shows that it is done already */
  done: boolean
  /** what it found goes back into the plan */
  apply?: (plan: StreamPlan, tick: Tick) => void
}

/** The run in which the values of the build stand, so that Log and Verdict can be held against them. */
export const BUILD_RUN = 'build-checks'
/**
 * Writes what a step measured into the log, in the run of the build.
 * @param id of the reading, that of its step @param place where it was read
 */
export function logReading(plan: StreamPlan, tick: Tick, quantity: ReadingQuantity, place: string): void {
  let run = plan.runs.find((r) => r.id === BUILD_RUN)
  if (!run) {
    run = { ...newRun(BUILD_RUN, 'bench', tick.at), name: 'Checks of the build', who: tick.who }
    plan.runs.push(run)
  }
  run.readings = run.readings.filter((r) => r.id !== tick.id)
  if (tick.value !== null) run.readings.push(newReading(tick.id, quantity, place, tick.value))
}
/** Takes the values of a step out of the log again. */
export function unlogReading(plan: StreamPlan, id: string): void {
  const run = plan.runs.find((r) => r.id === BUILD_RUN)
  if (!run) return
  run.readings = run.readings.filter((r) => r.id !== id)
  if (!run.readings.length) plan.runs = plan.runs.filter((r) => r !== run)
}

/** Minutes of a step that says nothing else. A guess of ours. */
const USUAL_MINUTES = 3
/** A step of which only what it asks is told. */
export const step = (
  told: Partial<BuildStep> & Pick<BuildStep, 'key' | 'sitting' | 'title' | 'text'>,
): BuildStep => ({
  measure: null,
  look: null,
  photo: false,
  tools: [],
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
