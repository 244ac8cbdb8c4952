import { z } from 'zod'
import { levelMean, meanOf } from '#core/measure'
import {
  defaultsOf,
  idSchema,
  limits,
  line,
  lines,
  listOf,
  maybe,
  moment,
  whole,
  within,
  yesNo,
} from './fields'

/** What was measured: readings, the runs they belong to, and the states that runs are replicates of. SI units. */

export const readingQuantities = [
  'temperature',
  'level',
  'flow',
  'pressure',
  'rotation',
  'voltage',
  'current',
  'power',
  'duration',
  'speed',
  'distance',
  'ratio',
  'waterPerDay',
  'number',
] as const
export type ReadingQuantity = (typeof readingQuantities)[number]

/** What a reading of a kind may be; small pressures may come out below zero by the sensor's noise. */
const readingLimits: Record<ReadingQuantity, z.ZodType<number>> = {
  ...limits,
  power: within(0, 20000),
  duration: within(0, 1e8),
  speed: within(0, 60),
  distance: within(0, 100),
  ratio: within(0, 1),
  waterPerDay: within(0, 1),
  number: within(-60, 1e8),
  pressure: within(-5, 5000),
}
/** What a reading of a kind may be. */
export const readingLimit = (quantity: ReadingQuantity): z.ZodType<number> => readingLimits[quantity]

export const readingSchema = z
  .object({
    id: idSchema,
    quantity: z.enum(readingQuantities),
    place: line,
    value: within(-60, 1e8),
    /** the same read again, set-up left as it was */
    repeats: z.array(within(-60, 1e8)).max(60, 'At most 60 repeats.').default([]),
    /** operating stage; '' is that of the run */
    stage: line,
    /** the only source that ran, for the ranking of noise sources; '' is everything together */
    source: line,
    /** how a flow was read: over a traverse, through a hood, in the free jet, or in the middle of the opening only */
    method: maybe(z.enum(['traverse', 'hood', 'jet', 'vane-centre'])),
    /** points of a traverse */
    points: maybe(whole(1, 400)),
    /** 95 % half-width in the reading's unit, from the conversion or its instrument; null: usual for the kind */
    halfWidth: maybe(within(0, 1e6)),
  })
  .superRefine((r, context) => {
    const check = readingLimit(r.quantity)
    for (const [i, value] of [r.value, ...r.repeats].entries()) {
      const result = check.safeParse(value)
      if (!result.success)
        context.addIssue({
          code: 'custom',
          path: i ? ['repeats', i - 1] : ['value'],
          message: result.error.issues[0]!.message,
        })
    }
  })
export interface Reading extends z.infer<typeof readingSchema> {}
export type FlowMethod = NonNullable<Reading['method']>

/** How long an equipment may soak, s. */
const soak = maybe(within(0, 30 * 86400))
const load = maybe(within(0, 20000))

/** Load and soak of a stage beside the run's own one, whose load and soak stand in the run. */
export const stageStateSchema = z.object({
  id: idSchema,
  stage: line,
  heatW: load,
  soakS: soak,
})
export interface StageState extends z.infer<typeof stageStateSchema> {}

/** What the fans of one air stream did in a stage. */
export const fanStateSchema = z.object({
  id: idSchema,
  /** '' is that of the run */
  stage: line,
  streamId: idSchema,
  off: yesNo,
  volts: maybe(limits.voltage),
  duty: maybe(within(0, 1)),
})
export interface FanState extends z.infer<typeof fanStateSchema> {}

export const runSchema = z.object({
  id: idSchema,
  kind: z.enum(['baseline', 'after', 'bench']),
  name: line,
  /** ISO date and time */
  takenAt: moment,
  /** which change it was taken after: 1, 2, …; null for a baseline or a bench test */
  changeNo: maybe(whole(1, 99)),
  /** what a change touched: only where the fan or its voltage was changed may the voltage differ */
  changed: maybe(z.enum(['fan', 'voltage', 'path', 'mount', 'other'])),
  /** operating stage of the whole run */
  stage: line,
  who: line,
  /** where the instruments stood */
  stoodAt: line,
  fanV: maybe(limits.voltage),
  voltageAt: maybe(z.enum(['fan', 'supply'])),
  ambientC: maybe(within(-40, 80)),
  heatW: load,
  distanceM: maybe(within(0.01, 100)),
  soakS: soak,
  steady: yesNo,
  lid: maybe(z.enum(['open', 'closed'])),
  /** other openings blocked or left as in the baseline */
  otherOpenings: yesNo,
  backgroundDbA: maybe(limits.level),
  instrument: maybe(z.enum(['phone', 'class2', 'class1'])),
  /** the sound meter was checked against a reference */
  calibrated: yesNo,
  floorDbA: maybe(limits.level),
  changes: maybe(whole(0, 50)),
  notes: lines,
  /** a picture of the set-up */
  photoId: maybe(idSchema),
  /** log that its values were taken from, with how fast it still changed (K/s) and its time constant (s) */
  logId: maybe(idSchema),
  slopeKS: maybe(within(-100, 100)),
  tauS: maybe(within(0, 1e8)),
  stages: listOf(stageStateSchema, 20, 'Two stages share an id.').default([]),
  fans: listOf(fanStateSchema, 160, 'Two states of fans share an id.').default([]),
  readings: listOf(readingSchema, 400, 'Two readings share an id.').default([]),
})
export interface Run extends z.infer<typeof runSchema> {}
export type RunKind = Run['kind']

const runNames: Record<RunKind, string> = {
  baseline: 'Baseline',
  after: 'After the change',
  bench: 'Bench test',
}
/** A run without readings yet. */
export const newRun = (id: string, kind: RunKind, takenAt: string): Run => ({
  ...defaultsOf(runSchema),
  id,
  kind,
  takenAt,
  name: runNames[kind],
  changeNo: kind === 'after' ? 1 : null,
  changes: kind === 'after' ? 1 : null,
})

export const readingNames: Record<ReadingQuantity, string> = {
  temperature: 'Temperature',
  level: 'Sound level',
  flow: 'Airflow',
  pressure: 'Pressure',
  rotation: 'Speed',
  voltage: 'Voltage',
  current: 'Current',
  power: 'Power',
  duration: 'Time',
  speed: 'Air speed',
  distance: 'Reach of the air',
  ratio: 'Humidity',
  waterPerDay: 'Evaporation',
  number: 'Another number',
}
/** Operating stages that machines usually have; any other word serves as well. */
export const usualStages = ['idle', 'warming', 'working', 'everything on'] as const

/** A reading taken once. @param value in the quantity’s unit */
export const newReading = (id: string, quantity: ReadingQuantity, place: string, value: number): Reading => ({
  ...defaultsOf(readingSchema),
  id,
  quantity,
  place,
  value,
})

/** All values of a reading. */
export const readingValues = (r: Reading): number[] => [r.value, ...r.repeats]
/** Its mean: of levels the energetic one. */
export const readingMean = (r: Reading): number =>
  r.repeats.length === 0
    ? r.value
    : r.quantity === 'level'
      ? levelMean(readingValues(r))!
      : meanOf(readingValues(r))

/** What a source begins with that is everything but one: "all except the supply". */
export const EXCEPT = 'all except '
/** The one source that was still while everything else ran; null where that is not what was read. */
export const silentSource = ({ source }: Reading): string | null =>
  source.toLowerCase().startsWith(EXCEPT) ? source.slice(EXCEPT.length).trim() : null

const plainText = (text: string) => text.trim().toLowerCase()
/** What two readings must share to be compared: quantity, place, stage and source. */
export const readingKey = (run: Run, r: Reading) =>
  [r.quantity, plainText(r.place), plainText(r.stage || run.stage), plainText(r.source)].join('|')
/** The stage of a run that names none. */
const USUAL_STAGE: (typeof usualStages)[number] = 'working'
/** The stage a reading was taken in. */
export const stageOf = (run: Run, r: Reading): string => r.stage || run.stage || USUAL_STAGE
/** Load and soak when a reading was taken: the run's belong to the run's own stage. */
const stateAt = (run: Run, r: Reading): Pick<StageState, 'heatW' | 'soakS'> | undefined =>
  ofOwnStage(run, r) ? run : run.stages.find((s) => samePlace(s.stage, r.stage))
/** Load of the equipment when a reading was taken, W; null where not noted. */
export const heatAt = (run: Run, r: Reading): number | null => stateAt(run, r)?.heatW ?? null
/** How long it had soaked when a reading was taken, s; null where not noted. */
export const soakAt = (run: Run, r: Reading): number | null => stateAt(run, r)?.soakS ?? null
/** What the fans did in a stage of a run, one entry an air stream, where it was noted. */
export const fansIn = (run: Run, stage: string): FanState[] => {
  const own = !stage || samePlace(stage, run.stage || USUAL_STAGE)
  return run.fans.filter((f) => (own ? !f.stage || samePlace(f.stage, run.stage) : samePlace(f.stage, stage)))
}
/** Whether a reading was taken in the stage that the run's load and soak were noted for. */
export const ofOwnStage = (run: Run, r: Reading): boolean =>
  !r.stage || plainText(r.stage) === plainText(run.stage)
/** Whether two places are the same in any writing. */
export const samePlace = (a: string, b: string) => plainText(a) === plainText(b)

/** Runs of one state of the equipment: replicates of each other, oldest first. */
export interface RunState {
  key: string
  name: string
  kind: RunKind
  changeNo: number | null
  runs: Run[]
}

const stateKey = (run: Run) => (run.kind === 'after' ? `after-${run.changeNo ?? 1}` : run.kind)
/** The states a plan's runs were taken in: as found, after each change in order, bench tests. */
export function runStates(runs: readonly Run[]): RunState[] {
  const states = new Map<string, RunState>()
  for (const run of runs.toSorted((a, b) => a.takenAt.localeCompare(b.takenAt))) {
    const key = stateKey(run)
    const changeNo = run.kind === 'after' ? (run.changeNo ?? 1) : null
    const state = states.get(key) ?? {
      key,
      kind: run.kind,
      changeNo,
      runs: [],
      name:
        run.kind === 'after' ? `after change ${changeNo}` : run.kind === 'bench' ? 'bench tests' : 'baseline',
    }
    state.runs.push(run)
    states.set(key, state)
  }
  const order = (s: RunState) => (s.kind === 'baseline' ? 0 : s.kind === 'after' ? s.changeNo! : 1000)
  return [...states.values()].toSorted((a, b) => order(a) - order(b))
}

/** A state by the name that its runs were given, where they share one; else by what it is. */
export function stateTitle({ name, runs }: RunState): string {
  const given = new Set(runs.map((r) => r.name.trim()).filter((n) => n && n !== runNames[runs[0]!.kind]))
  return given.size === 1 ? [...given][0]! : name
}

/** Baseline and the latest change: what a verdict compares unless it is told otherwise. */
export function usualPair(states: readonly RunState[]): { before: RunState | null; after: RunState | null } {
  return {
    before: states.find((s) => s.kind === 'baseline') ?? null,
    after: states.findLast((s) => s.kind === 'after') ?? null,
  }
}
