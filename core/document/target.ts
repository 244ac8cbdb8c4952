import { z } from 'zod'
import type { Quantity } from '#core/units'
import { defaultsOf, idSchema, limits, line, lines, maybe, within } from './fields'
import type { ReadingQuantity } from './run'

/** What the verdict is judged by: a number of some kind, which side of it is wanted, where, in which stage, by whom and why. */

const kinds = [
  'temperature',
  'rise',
  'level',
  'flow',
  'airchanges',
  'airspeed',
  'distance',
  'pressure',
  'runtime',
  'time',
  'humidity',
  'evaporation',
  'rotation',
  'current',
  'power',
  'money',
  'thickness',
  'weight',
  'other',
] as const
export type TargetKind = (typeof kinds)[number]

interface TargetKindInfo {
  name: string
  quantity: Quantity
  /** which side is usually wanted */
  usual: 'least' | 'most'
  /** what it is read as; null where it follows from what is bought */
  reading: ReadingQuantity | null
  /** where it is usually meant */
  place: string
  limit: z.ZodType
  /** each air stream has its own; else it is the whole machine's */
  ofStream?: true
}

const positive = within(0, 1e8)
/** What a target of each kind is: its name, its unit's quantity, and how it is judged. */
export const targetKinds: Record<TargetKind, TargetKindInfo> = {
  temperature: {
    name: 'Temperature',
    quantity: 'temperature',
    usual: 'most',
    reading: 'temperature',
    place: 'inside',
    limit: limits.temperature,
    ofStream: true,
  },
  rise: {
    name: 'Rise over the room',
    quantity: 'temperatureDifference',
    usual: 'most',
    reading: 'temperature',
    place: 'inside',
    limit: within(0, 150),
    ofStream: true,
  },
  level: {
    name: 'Sound level',
    quantity: 'level',
    usual: 'most',
    reading: 'level',
    place: 'listener',
    limit: limits.level,
  },
  flow: {
    name: 'Airflow',
    quantity: 'flow',
    usual: 'least',
    reading: 'flow',
    place: 'outlet',
    limit: limits.flow,
    ofStream: true,
  },
  airchanges: {
    name: 'Air changes',
    quantity: 'perHour',
    usual: 'least',
    reading: 'flow',
    place: '',
    limit: positive.min(0.01, 'Must be above zero.'),
    ofStream: true,
  },
  airspeed: {
    name: 'Air speed',
    quantity: 'speed',
    usual: 'least',
    reading: 'speed',
    place: 'at the source',
    limit: within(0, 60),
    ofStream: true,
  },
  distance: {
    name: 'Reach of the air',
    quantity: 'distance',
    usual: 'least',
    reading: 'distance',
    place: 'before the opening',
    limit: within(0, 100),
    ofStream: true,
  },
  pressure: {
    name: 'Pressure',
    quantity: 'pressure',
    usual: 'least',
    reading: 'pressure',
    place: 'inside',
    limit: within(-5000, 5000),
    ofStream: true,
  },
  runtime: {
    name: 'Running time',
    quantity: 'duration',
    usual: 'least',
    reading: 'duration',
    place: 'on one charge',
    limit: positive.min(60, 'At least a minute.'),
  },
  time: {
    name: 'Time it takes',
    quantity: 'duration',
    usual: 'most',
    reading: 'duration',
    place: 'clear-out',
    limit: positive.min(1, 'At least a second.'),
    ofStream: true,
  },
  humidity: {
    name: 'Humidity',
    quantity: 'ratio',
    usual: 'most',
    reading: 'ratio',
    place: 'inside',
    limit: within(0, 1),
    ofStream: true,
  },
  evaporation: {
    name: 'Evaporation',
    quantity: 'waterPerDay',
    usual: 'most',
    reading: 'waterPerDay',
    place: 'tank',
    limit: within(0, 1),
    ofStream: true,
  },
  rotation: {
    name: 'Speed',
    quantity: 'rotation',
    usual: 'most',
    reading: 'rotation',
    place: 'fan',
    limit: limits.rotation,
    ofStream: true,
  },
  current: {
    name: 'Current',
    quantity: 'current',
    usual: 'most',
    reading: 'current',
    place: 'fans',
    limit: limits.current,
  },
  power: {
    name: 'Power',
    quantity: 'power',
    usual: 'most',
    reading: 'power',
    place: 'fans',
    limit: positive,
  },
  money: { name: 'Money', quantity: 'money', usual: 'most', reading: null, place: '', limit: positive },
  thickness: {
    name: 'Thickness',
    quantity: 'length',
    usual: 'most',
    reading: null,
    place: 'fan',
    limit: within(0.003, 0.4),
  },
  weight: {
    name: 'Weight',
    quantity: 'mass',
    usual: 'most',
    reading: null,
    place: 'fans',
    limit: within(0, 100),
  },
  other: {
    name: 'Something else',
    quantity: 'number',
    usual: 'least',
    reading: 'number',
    place: '',
    limit: within(-60, 1e8),
  },
}

export const targetSchema = z.object({
  id: idSchema,
  kind: z.enum(kinds),
  /** what it is called, and in which unit it counts, where it is none of the usual kinds */
  name: line,
  unit: line,
  /** the number; of a pair of limits the lower one */
  limit: within(-5000, 1e8),
  /** the upper limit where it has to lie between two */
  upper: maybe(within(-5000, 1e8)),
  /** at least, at most or between two; null: as is usual of its kind */
  sense: maybe(z.enum(['least', 'most', 'between'])),
  /** operating stage that it is judged in; '': whichever is worst */
  stage: line,
  place: line,
  /** air stream that it is about; null: the whole machine */
  streamId: maybe(idSchema),
  setBy: line,
  why: lines,
})
export interface Target extends z.infer<typeof targetSchema> {}

/**
 * A target of which only the limit is known.
 * @param stream that it is about, where each air stream has its own of this kind
 */
export const newTarget = (
  target: Pick<Target, 'id' | 'kind' | 'limit'> & Partial<Target>,
  stream: string,
): Target => ({
  ...defaultsOf(targetSchema),
  streamId: targetKinds[target.kind].ofStream ? stream : null,
  ...target,
})

/** Which side of its number a target wants. */
export const senseOf = ({ kind, sense }: Pick<Target, 'kind' | 'sense'>): 'least' | 'most' | 'between' =>
  sense ?? targetKinds[kind].usual
/** Between what the value has to lie; null on the side that is open. */
export function wantedRange(target: Target): { low: number | null; high: number | null } {
  const { limit, upper } = target
  const sense = senseOf(target)
  return {
    low: sense === 'most' ? null : limit,
    high: sense === 'most' ? limit : sense === 'between' ? upper : null,
  }
}
/** Stages in which less runs than the plan is worked out for. */
const LESS = /idle|warming|standby|\boff\b|night/i
/** Whether a target is about the night. */
export const ofNight = ({ stage }: Pick<Target, 'stage'>): boolean => /night/i.test(stage)
/** Whether a target is judged in a stage that the plan, which stands for everything running, says nothing of. */
export const ofLesserStage = ({ stage }: Pick<Target, 'stage'>): boolean => LESS.test(stage)

/** The strictest upper limit among the targets of a kind that speak of everything running; null without one. */
export function upperLimit(targets: readonly Target[], kind: TargetKind): number | null {
  const limits = targets
    .filter((t) => t.kind === kind && !ofLesserStage(t))
    .flatMap((t) => wantedRange(t).high ?? [])
  return limits.length ? Math.min(...limits) : null
}

/** What is wrong with a target's two limits; null where nothing is. */
export function targetProblem(target: Target): { key: 'upper' | 'name'; message: string } | null {
  if (target.sense === 'between' && target.upper === null)
    return { key: 'upper', message: 'Between two limits: the upper one is missing.' }
  if (target.sense === 'between' && target.upper! <= target.limit)
    return { key: 'upper', message: 'The upper limit does not lie above the lower one: swap them.' }
  return null
}

/** What a target is called. */
export const targetName = ({ kind, name }: Pick<Target, 'kind' | 'name'>): string =>
  kind === 'other' && name ? name : targetKinds[kind].name

type Show = (value: number, quantity: Quantity) => string
/** A number of a target in the person's units. @param value in SI units of its kind */
export const targetNumber = (
  { kind, unit }: Pick<Target, 'kind' | 'unit'>,
  value: number,
  show: Show,
): string =>
  kind === 'other' && unit ? `${show(value, 'number')} ${unit}` : show(value, targetKinds[kind].quantity)
/** "at least 5 Pa", "between 3 Pa and 5 Pa". */
export function wantedWords(target: Target, show: Show): string {
  const { low, high } = wantedRange(target)
  const of = (value: number) => targetNumber(target, value, show)
  if (low !== null && high !== null) return `between ${of(low)} and ${of(high)}`
  return low !== null ? `at least ${of(low)}` : `at most ${of(high!)}`
}
