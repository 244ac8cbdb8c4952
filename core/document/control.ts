import { z } from 'zod'
import { MOST_POINTS } from '#core/control'
import { defaultsOf, idSchema, line, maybe, share, shortText, whole, within, yesNo } from './fields'

/** What decides when fans run and how fast. Temperatures in degC, duties 0..1, times in s. */

export const schoolKinds = ['always', 'slow', 'timer', 'thermostat', 'curve', 'host', 'boost', 'tool'] as const
export type School = (typeof schoolKinds)[number]

export const actuatorKinds = [
  'contact',
  'relay',
  'thermal-switch',
  'converter',
  'pwm-wire',
  'chopped',
  'header',
  'board',
] as const
export type Actuator = (typeof actuatorKinds)[number]

const warmth = maybe(within(-40, 250))
const duty = maybe(within(0, 1))
const seconds = (most: number) => maybe(within(0, most))
const HOUR_S = 3600
const DAY_S = 86_400
/** A time of the day, s after midnight. */
const clock = within(0, DAY_S)

export const curvePointSchema = z.object({ temperatureC: within(-40, 250), duty: within(0, 1) })

export const controlSchema = z.object({
  id: idSchema,
  name: line,
  /** air streams whose fans it steers */
  streamIds: z.array(z.string().max(64)).max(8, 'At most 8.').default([]),
  school: z.enum(schoolKinds).default('always'),
  actuator: maybe(z.enum(actuatorKinds)),
  /** what it looks at */
  sense: z.enum(['temperature', 'humidity', 'light']).default('temperature'),
  /** part of the day's heat that is sensed; null: the first one */
  sensedId: maybe(idSchema),
  sensorKind: maybe(z.enum(['thermistor', 'digital', 'switch', 'capillary', 'infrared', 'in-air'])),
  sensorLagS: seconds(HOUR_S),
  sensorLowC: warmth,
  sensorHighC: warmth,
  onC: warmth,
  offC: warmth,
  /** relative humidity that switches it, 0..1 */
  onRh: share,
  offRh: share,
  /** runs while it is light, or while it is dark */
  runsIn: z.enum(['light', 'dark']).default('light'),
  points: z
    .array(curvePointSchema)
    .max(MOST_POINTS, `At most ${MOST_POINTS}.`)
    .meta({ oneColumn: true })
    .default([]),
  hysteresisK: maybe(within(0, 50)),
  filterTauS: seconds(HOUR_S),
  rampUpPerS: maybe(within(0.001, 100)),
  rampDownPerS: maybe(within(0.001, 100)),
  /** while it is on, and in between: null: as the plan drives them, and off */
  onDuty: share,
  quietDuty: duty,
  timerOnS: seconds(DAY_S),
  timerEveryS: seconds(7 * DAY_S),
  /** smallest step that the clock can set */
  timerStepS: seconds(DAY_S),
  /** load from which boost or tool asks for air, W; null: any load above idle */
  demandW: maybe(within(0, 20000)),
  /** boost ends by itself */
  boostS: seconds(DAY_S),
  runOnS: seconds(DAY_S),
  /** which side feeds it after the equipment is off */
  runOnFrom: maybe(z.enum(['always-on', 'switched'])),
  minDuty: duty,
  startDuty: duty,
  capDuty: share,
  kickDuty: duty,
  kickS: seconds(10),
  fanStop: yesNo,
  /** what it does when a part fails */
  onFault: maybe(z.enum(['full', 'cap', 'hold', 'off'])),
  whenDead: maybe(z.enum(['full', 'hold', 'off'])),
  hostSleeps: yesNo,
  /** a second thermostat beside it, and an interlock that takes the heat off with the supply */
  secondC: warmth,
  interlock: yesNo,
  tachAlarm: yesNo,
  alarmShare: share,
  alarmHoldS: seconds(600),
  alarmBlankS: seconds(600),
  /** counting pulses for so long; null: by period */
  gateS: maybe(within(0.01, 60)),
  pwmHz: maybe(within(0.1, 1e6)),
  clockHz: maybe(within(1000, 1e9)),
  prescaler: maybe(whole(1, 65536)),
  timerTop: maybe(whole(1, 4294967295)),
  counting: z.enum(['up', 'up-down']).default('up'),
  /** a transistor between that turns the duty round */
  inverted: yesNo,
  gateV: maybe(within(0, 30)),
  gateFullV: maybe(within(0, 30)),
  /** operations that its contact is rated for */
  operations: maybe(within(1, 1e9)),
  snubber: yesNo,
  /** what it costs, in the person's money */
  price: maybe(within(0, 10000)),
})
export interface Control extends z.infer<typeof controlSchema> {}

/** A control of which only the school is chosen. */
export const newControlOf = (id: string, school: School, streamIds: string[]): Control => ({
  ...defaultsOf(controlSchema),
  id,
  school,
  streamIds,
})

export const dayKinds = ['cold', 'usual', 'hot'] as const
export type DayKind = (typeof dayKinds)[number]

export const loadStepSchema = z.object({
  id: idSchema,
  /** stage of the equipment */
  name: shortText.min(1, 'Name it.'),
  fromS: clock,
  toS: clock,
  watts: within(0, 20000),
})
export interface LoadStep extends z.infer<typeof loadStepSchema> {}

export const thermalPartSchema = z.object({
  id: idSchema,
  name: shortText.min(1, 'Name it.'),
  /** air stream that cools it */
  streamId: idSchema,
  limitC: warmth,
  massKg: maybe(within(0.0001, 5000)),
  material: maybe(z.enum(['aluminium', 'copper', 'steel', 'plastic', 'wood', 'water', 'glass', 'electronics'])),
  capacityJK: maybe(within(0.01, 1e8)),
  /** to the air without and with moving air, W/K */
  stillWK: maybe(within(0.0001, 1e5)),
  movedWK: maybe(within(0.0001, 1e5)),
  /** flow that the second belongs to, m3/s; null: that of the plan */
  atM3s: maybe(within(1e-6, 10)),
  /** of the load, 0..1 */
  loadShare: maybe(within(0, 1)),
  /** where the numbers come from */
  basis: z.enum(['typed', 'measured']).default('typed'),
})
export interface ThermalPartDoc extends z.infer<typeof thermalPartSchema> {}

export const thermalLinkSchema = z.object({
  id: idSchema,
  fromId: idSchema,
  toId: idSchema,
  conductanceWK: within(0.0001, 1e5),
})

const ambientPointSchema = z.object({ atS: clock, temperatureC: within(-60, 80) })
const oneColumn = <T extends z.ZodType>(item: T, most: number) =>
  z.array(item).max(most, `At most ${most}.`).meta({ oneColumn: true }).default([])
const outside = maybe(within(-60, 80))

/** The days that a control has to serve: their air, their load, what gets warm. */
export const daySchema = z.object({
  id: idSchema,
  coldLowC: outside,
  coldHighC: outside,
  usualLowC: outside,
  usualHighC: outside,
  hotLowC: outside,
  hotHighC: outside,
  hottestAtS: maybe(clock),
  /** the usual day point by point, as typed or taken from a log */
  ambient: oneColumn(ambientPointSchema, 96),
  ambientFrom: line,
  loads: oneColumn(loadStepSchema, 24),
  /** outside of them, W */
  idleW: maybe(within(0, 20000)),
  nightFromS: maybe(clock),
  nightToS: maybe(clock),
  lightFromS: maybe(clock),
  lightToS: maybe(clock),
  /** share of the usual sun on a grey day */
  greyShare: maybe(within(0, 1)),
  /** month whose sun is taken, 1 January to 12 */
  month: maybe(whole(1, 12)),
  /** charge at midnight, 0..1 of what is usable */
  startCharge: share,
  /** the days of a week in order, and on which of them it works */
  week: z
    .array(z.enum(dayKinds))
    .max(7)
    .default(['usual', 'usual', 'usual', 'usual', 'usual', 'usual', 'usual']),
  restDays: z.array(whole(0, 6)).max(7).default([]),
  parts: oneColumn(thermalPartSchema, 8),
  links: oneColumn(thermalLinkSchema, 12),
  /** conductance over flow: exponent */
  exponent: maybe(within(0.3, 1)),
})
export interface Day extends z.infer<typeof daySchema> {}
export const newDay = (id: string): Day => ({ ...defaultsOf(daySchema), id })

/** What is wrong with a day: lowest above highest, a link to a part that is not there; null where nothing is. */
export function dayProblem(day: Day): { key: string; message: string } | null {
  for (const kind of dayKinds) {
    const [low, high] = [day[`${kind}LowC`], day[`${kind}HighC`]]
    if (low !== null && high !== null && low > high)
      return { key: `${kind}LowC`, message: 'The lowest of a day lies above its highest.' }
  }
  const ids = new Set(day.parts.map((p) => p.id))
  if (day.links.some((l) => !ids.has(l.fromId) || !ids.has(l.toId) || l.fromId === l.toId))
    return { key: 'links', message: 'Heat passes between two parts that are there.' }
  if (day.ambient.some((p, i) => i > 0 && p.atS <= day.ambient[i - 1]!.atS))
    return { key: 'ambient', message: 'The points of a day come in the order of their time.' }
  return null
}
