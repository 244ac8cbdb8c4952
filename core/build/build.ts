import type { StreamPlan, Release, Tick } from '#core/document'
import { sayIn } from '#core/units'
import { cautionsOf, type Caution } from './cautions'
import type { Env } from './env'
import { lateSteps, placeSteps } from './place-steps'
import { sittingKeys, sittingNames, unlogReading, type BuildStep, type SittingKey, type Tool } from './step'
import { wiringSteps } from './wiring-steps'

/** The build of a plan: its steps in sittings, what is ticked, what another plan asks for again, what holds. */

export type StepState = 'open' | 'done' | 'again'
export interface BuiltStep extends BuildStep {
  state: StepState
  tick: Tick | null
}
export interface Sitting {
  key: SittingKey
  name: string
  cautions: (Caution & { release: Release | null })[]
  steps: BuiltStep[]
  /** what lies on the table for it, each thing once */
  tools: readonly Tool[]
  /** a caution that nobody released, or one of a sitting before */
  held: boolean
  minutesLeft: number
}
export interface BuildReport {
  sittings: Sitting[]
  done: number
  count: number
  /** cautions that nobody said anything of: they were not checked */
  unasked: Caution[]
}

/** What a step says, as it is kept with its tick: metric, so that units change nothing. */
export const seenOf = ({ title, text }: Pick<BuildStep, 'title' | 'text'>): string =>
  `${title}: ${sayIn(text, {})}`.slice(0, 600)

const built = (step: BuildStep, ticks: readonly Tick[]): BuiltStep => {
  const tick = ticks.find((t) => t.id === step.key) ?? null
  const state = tick ? (tick.seen === seenOf(step) ? 'done' : 'again') : step.done ? 'done' : 'open'
  return { ...step, state, tick }
}

/** The build of a plan. */
export function buildReport(env: Env): BuildReport {
  const { plan } = env
  const ticks = plan.build?.ticks ?? []
  const releases = plan.build?.releases ?? []
  const { called, open } = cautionsOf(plan)
  const steps = [...placeSteps(env), ...wiringSteps(env), ...lateSteps(env)]
  let held = false
  const sittings = sittingKeys.flatMap((key): Sitting[] => {
    const own = steps.filter((s) => s.sitting === key).map((s) => built(s, ticks))
    const cautions = called
      .filter((c) => c.sitting === key)
      .map((c) => ({ ...c, release: releases.find((r) => r.id === c.id) ?? null }))
    held ||= cautions.some((c) => c.stop !== null && c.release === null)
    if (!own.length && !cautions.length) return []
    return [
      {
        key,
        name: sittingNames[key],
        cautions,
        steps: own,
        held,
        tools: [...new Set(own.flatMap((s) => s.tools))],
        minutesLeft: own.reduce((sum, s) => sum + (s.state === 'done' ? 0 : s.minutes), 0),
      },
    ]
  })
  const all = sittings.flatMap((s) => s.steps)
  return {
    sittings,
    done: all.filter((s) => s.state === 'done').length,
    count: all.length,
    unasked: open,
  }
}

/**
 * Ticks a step, with what it found; what it found goes back into the plan.
 * @param plan changed in place, with its first stream in front
 */
export function tickStep(plan: StreamPlan, step: BuildStep, tick: Omit<Tick, 'id' | 'seen'>): void {
  const made: Tick = { ...tick, id: step.key, seen: seenOf(step) }
  const { build } = plan
  if (!build) return
  build.ticks = [...build.ticks.filter((t) => t.id !== step.key), made]
  step.apply?.(plan, made)
}
/** Takes a tick back, with what it wrote into the log. */
export function untickStep(plan: StreamPlan, key: string): void {
  const { build } = plan
  if (!build) return
  build.ticks = build.ticks.filter((t) => t.id !== key)
  unlogReading(plan, key)
}
