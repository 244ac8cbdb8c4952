import { levelMean, meanOf } from '#core/measure'
import type { Quantity } from '#core/units'

/** What was measured: readings, the runs they belong to, and the states that runs are replicates of. SI units. */

export type ReadingQuantity = Extract<
  Quantity,
  'temperature' | 'level' | 'flow' | 'pressure' | 'rotation' | 'voltage' | 'current' | 'power' | 'duration'
>
/** How a flow was read: over a traverse, through a hood, in the free jet, or in the middle of the opening only. */
export type FlowMethod = 'traverse' | 'hood' | 'jet' | 'vane-centre'

export interface Reading {
  id: string
  quantity: ReadingQuantity
  place: string
  value: number
  /** the same read again, set-up left as it was */
  repeats: number[]
  /** operating stage; '' is that of the run */
  stage: string
  /** the only source that ran, for the noise ladder; '' is everything together */
  source: string
  method: FlowMethod | null
  /** points of a traverse */
  points: number | null
}

export type RunKind = 'baseline' | 'after' | 'bench'
/** What a change touched: only where the fan or its voltage was changed may the voltage differ. */
export type ChangeKind = 'fan' | 'voltage' | 'path' | 'mount' | 'other'

export interface Run {
  id: string
  kind: RunKind
  name: string
  /** ISO date and time */
  takenAt: string
  /** which change it was taken after: 1, 2, …; null for a baseline or a bench test */
  changeNo: number | null
  changed: ChangeKind | null
  /** operating stage of the whole run */
  stage: string
  who: string
  /** where the instruments stood */
  stoodAt: string
  fanV: number | null
  voltageAt: 'fan' | 'supply' | null
  ambientC: number | null
  heatW: number | null
  distanceM: number | null
  soakS: number | null
  steady: boolean | null
  lid: 'open' | 'closed' | null
  /** other openings blocked or left as in the baseline */
  otherOpenings: boolean | null
  backgroundDbA: number | null
  instrument: 'phone' | 'class2' | 'class1' | null
  /** the sound meter was checked against a reference */
  calibrated: boolean | null
  floorDbA: number | null
  changes: number | null
  notes: string
  /** a picture of the set-up */
  photoId: string | null
  /** log that its values were taken from, with how fast it still changed (K/s) and its time constant (s) */
  logId: string | null
  slopeKS: number | null
  tauS: number | null
  readings: Reading[]
}

export const readingNames: Record<ReadingQuantity, string> = {
  temperature: 'Temperature',
  level: 'Sound level',
  flow: 'Airflow',
  pressure: 'Pressure',
  rotation: 'Speed',
  voltage: 'Voltage',
  current: 'Current',
  power: 'Power',
  duration: 'Running time',
}
/** Operating stages that machines usually have; any other word serves as well. */
export const usualStages = ['idle', 'warming', 'working', 'everything on'] as const

export const newReading = (id: string, quantity: ReadingQuantity, place: string, value: number): Reading => ({
  id,
  quantity,
  place,
  value,
  repeats: [],
  stage: '',
  source: '',
  method: null,
  points: null,
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

const plainText = (text: string) => text.trim().toLowerCase()
/** What two readings must share to be compared: quantity, place, stage and source. */
export const readingKey = (run: Run, r: Reading) =>
  [r.quantity, plainText(r.place), plainText(r.stage || run.stage), plainText(r.source)].join('|')
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

/** Baseline and the latest change: what a verdict compares unless it is told otherwise. */
export function usualPair(states: readonly RunState[]): { before: RunState | null; after: RunState | null } {
  return {
    before: states.find((s) => s.kind === 'baseline') ?? null,
    after: states.findLast((s) => s.kind === 'after') ?? null,
  }
}
