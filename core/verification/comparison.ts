import {
  intervalHalfWidth,
  meanOf,
  paired,
  relativeChange,
  symmetricDifference,
  usualHalfWidth,
  welch,
} from '#core/measure'
import { scaleFlow, scalePower, scalePressure } from '#core/fan'
import {
  atSpeed,
  cleanLevel,
  distanceLawHolds,
  levelInRoom,
  loudnessRatio,
  NEAREST_M,
  ROOM_LIMIT_M,
} from '#core/noise'
import type { Quantity, Sentence } from '#core/units'
import { meterFloor } from './meter'
import { unlikeFans, type FanStates } from './fan-states'
import { figure, input, type Figure } from '#core/figure'
import {
  heatAt,
  readingKey,
  readingMean,
  readingValues,
  samePlace,
  soakAt,
  stageOf,
  type Reading,
  type ReadingQuantity,
  type Run,
} from '#core/document'

/** Two states of the equipment held against each other: fairly, or not at all. Limits: docs/physics.md, fair comparison. */

/** How the interval of a difference was found: replicates (unlike spreads), replicates in pairs, or what the instruments are worth. */
export type IntervalBasis = 'welch' | 'paired' | 'instruments'

export interface Comparison {
  key: string
  quantity: ReadingQuantity
  place: string
  stage: string
  source: string
  before: number
  after: number
  /** temperatures are compared as rise over the ambient of their own run */
  asRise: boolean
  difference: number
  /** share of before; null for levels and for degrees without an ambient */
  change: number | null
  /** symmetric difference, a share without base or sign: never the change */
  symmetric: number | null
  /** loudness ratio for levels */
  loudness: number | null
  halfWidth: number
  basis: IntervalBasis
  /** replicates of each state */
  n: readonly [number, number]
  shown: boolean
  /** what was corrected for */
  steps: string[]
  /** why this pair may not be compared; '' where it may */
  refused: string
  /** only the ratio means something, such as of two readings in a free jet */
  ratioOnly: boolean
  figure: Figure
}

export interface Unfair {
  what: string
  text: Sentence
  effect: string
}

export interface FairComparison {
  comparisons: Comparison[]
  unfair: Unfair[]
  notStated: string[]
  /** readings that only one of the states has */ unmatched: string[]
}

/** 95 % half-width of one reading: what it was told to be worth, else by its instrument and the way it was read. */
export const readingHalfWidth = (run: Run, reading: Reading): number =>
  reading.halfWidth ??
  usualHalfWidth(reading.quantity, readingMean(reading), reading.method, run.instrument ?? 'phone')

/** Conditions may differ by this much. docs/physics.md, fair comparison (common practice). */
export const FAIR = { volts: 0.02, ambientK: 2, load: 0.05, distance: 0.05, soak: 0.1, pairS: 3600 } as const
/** Limits of restating a rise to another load under forced air, as a factor. docs/physics.md, normalising. */
export const LOAD_FACTOR = [0.5, 1.5] as const

const within = (a: number, b: number, share: number) => Math.abs(a - b) <= share * Math.abs(b)
/** The one value that all runs share, near enough; null where one does not say. */
function common(
  runs: readonly Run[],
  key: 'ambientC' | 'heatW' | 'distanceM' | 'soakS' | 'fanV',
): number | null {
  return meanKnown(runs.map((r) => r[key]))
}
const shareOne = <K extends 'lid' | 'instrument'>(runs: readonly Run[], key: K): Run[K] | 'mixed' =>
  runs.every((r) => r[key] === runs[0]![key]) ? runs[0]![key] : 'mixed'

/** The plan's own fan voltage as the thing changed: no correction, no blame. */
interface ComparisonContext extends FanStates {
  /** distance that all are taken to: that of "before" */
  distanceM: number | null
  fanV: number | null
  /** speed of the fan in "before", where every run read it */
  rpm: number | null
}

interface Value {
  run: Run
  reading: Reading
  value: number
  refused: string
  bound: boolean
  steps: string[]
}

/** A rise at the load of "before". @param heatW of "before" in this stage, W; null where not noted */
const heatOf = (
  heatW: number | null,
  ownW: number | null,
  asRise: boolean,
  value: number,
): { value: number; refused: string; step: string } => {
  if (!asRise || heatW === null || ownW === null || within(ownW, heatW, 0.001) || heatW === 0 || ownW === 0)
    return { value, refused: '', step: '' }
  const factor = heatW / ownW
  if (factor < LOAD_FACTOR[0] || factor > LOAD_FACTOR[1])
    return {
      value,
      refused: 'the loads differ by more than a rise may be scaled over (factor 0.5 to 1.5)',
      step: '',
    }
  return { value: value * factor, refused: '', step: 'rise scaled to the same load' }
}

function temperatureOf(heatW: number | null, run: Run, r: Reading, asRise: boolean): Value {
  const reading = readingMean(r)
  const rise = asRise ? reading - run.ambientC! : reading
  const { value, refused, step } = heatOf(heatW, heatAt(run, r), asRise, rise)
  return { run, reading: r, value, refused, bound: false, steps: step ? [step] : [] }
}

function levelOf(c: ComparisonContext, run: Run, reading: Reading): Value {
  const clean = cleanLevel(readingMean(reading), run.backgroundDbA, meterFloor(run))
  const steps = clean.corrected ? ['background removed'] : []
  const bound = clean.bound !== null
  let value = clean.level
  if (c.distanceM !== null && run.distanceM !== null && !within(run.distanceM, c.distanceM, 0.001)) {
    if (!distanceLawHolds(run.distanceM, c.distanceM))
      return {
        run,
        reading,
        value,
        refused: `the microphone stood at other distances, and the distance law holds from ${NEAREST_M} to ${ROOM_LIMIT_M} m only`,
        bound,
        steps,
      }
    value = levelInRoom(value, run.distanceM, c.distanceM).level
    steps.push('moved to the same distance')
  }
  if (correctsVoltage(c, run)) {
    const ratio = speedRatio(c, run)
    if (ratio === null) return { run, reading, value, refused: TOO_FAR, bound, steps }
    value = atSpeed(value, 1, ratio)!
    steps.push('taken to the same voltage by the fan sound law')
  }
  return { run, reading, value, refused: '', bound, steps }
}

/** The same fan at another voltage, where that was not the change. */
const correctsVoltage = (c: ComparisonContext, run: Run) =>
  !c.voltageIsTheChange &&
  c.fanV !== null &&
  run.fanV !== null &&
  run.fanV > 0 &&
  c.fanV > 0 &&
  !within(run.fanV, c.fanV, FAIR.volts)
const speedOf = (run: Run): number | null => {
  const r = run.readings.find((x) => x.quantity === 'rotation' && !x.source)
  return r ? readingMean(r) : null
}
/** Speed follows voltage nearly: only so far may it stand for it where no speed was read, as a factor. Common practice, no source. */
const VOLTAGE_FACTOR = [0.8, 1.25] as const
/** From the run's speed to that of "before": by the tach where it was read, by the voltage near it; null where neither may be used. */
function speedRatio(c: ComparisonContext, run: Run, byTach = true): number | null {
  const rpm = byTach ? speedOf(run) : null
  if (c.rpm && rpm) return c.rpm / rpm
  const factor = c.fanV! / run.fanV!
  return factor >= VOLTAGE_FACTOR[0] && factor <= VOLTAGE_FACTOR[1] ? factor : null
}
const TOO_FAR =
  'the voltages differ by more than a fifth, and the fan’s speed was not read: the fan laws cannot be used'
/** How the fan laws scale a quantity from one speed to another. */
const fanLaws: Partial<Record<ReadingQuantity, (value: number, from: number, to: number) => number>> = {
  flow: scaleFlow,
  rotation: scaleFlow,
  pressure: scalePressure,
  power: scalePower,
}

function otherOf(c: ComparisonContext, run: Run, reading: Reading): Value {
  const { quantity } = reading
  const value = readingMean(reading)
  const law = fanLaws[quantity]
  const asRead = { run, reading, value, refused: '', bound: false, steps: [] }
  if (!law || !correctsVoltage(c, run)) return asRead
  const ratio = speedRatio(c, run, quantity !== 'rotation')
  if (ratio === null) return { ...asRead, refused: TOO_FAR }
  return { ...asRead, value: law(value, 1, ratio), steps: ['taken to the same voltage by the fan laws'] }
}

/** Where the runs of one pair were taken within the hour of each other. */
const pairedInTime = (before: readonly Value[], after: readonly Value[]) =>
  before.length === after.length &&
  before.length > 1 &&
  before.every(
    (b, i) => Math.abs(Date.parse(after[i]!.run.takenAt) - Date.parse(b.run.takenAt)) <= FAIR.pairS * 1000,
  )

function intervalOf(
  asRise: boolean,
  b: readonly Value[],
  a: readonly Value[],
  readings: readonly [Reading[], Reading[]],
): { halfWidth: number; basis: IntervalBasis } {
  const [x, y] = [b.map((v) => v.value), a.map((v) => v.value)]
  const found = pairedInTime(b, a)
    ? { basis: 'paired' as const, difference: paired(x, y) }
    : { basis: 'welch' as const, difference: welch(x, y) }
  if (found.difference) return { halfWidth: found.difference.halfWidth, basis: found.basis }
  // one run of a state: what its instruments are worth, and how its repeats scatter
  const scatter = (list: readonly Reading[]) =>
    list.length === 1 ? (intervalHalfWidth(readingValues(list[0]!)) ?? 0) : 0
  const of = (runs: readonly Value[], list: readonly Reading[]) =>
    Math.hypot(readingHalfWidth(runs[0]!.run, list[0]!) * (asRise ? Math.SQRT2 : 1), scatter(list))
  return { halfWidth: Math.hypot(of(b, readings[0]), of(a, readings[1])), basis: 'instruments' }
}

/** Why two lists of readings of one kind at one place cannot be compared. */
function refusalOf(
  c: ComparisonContext,
  quantity: ReadingQuantity,
  readings: readonly [Reading[], Reading[]],
  values: readonly Value[],
): string {
  const own = values.find((v) => v.refused)?.refused
  if (own) return own
  const { run, reading } = values[0]!
  const fans = reading.source ? '' : unlikeFans(c, stageOf(run, reading))
  if (fans) return fans
  const airBound = quantity === 'temperature' || quantity === 'flow' || quantity === 'pressure'
  const [lidB, lidA] = [shareOne(c.before, 'lid'), shareOne(c.after, 'lid')]
  if ((airBound || quantity === 'level') && lidB && lidA && lidB !== lidA)
    return `the lid was ${lidB} before and ${lidA} after: another air path`
  if (airBound && c.after.some((r) => r.otherOpenings === false))
    return 'the other openings were not alike: the air took another way'
  if (quantity === 'temperature' && [...c.before, ...c.after].some((r) => correctsVoltage(c, r)))
    return 'the fan ran at another voltage, and how a temperature follows its air is not known'
  if (quantity === 'temperature' && unlikeSoak(c, values))
    return 'the soaks differ and neither state is known to be steady'
  if (quantity === 'flow') {
    const methods = new Set(
      readings
        .flat()
        .map((r) => r.method)
        .filter((m) => m !== null),
    )
    if (methods.size > 1 && methods.has('jet')) return 'one was read in the free jet and the other was not'
  }
  if (values.every((v) => v.bound))
    return 'both are no more than upper bounds, at the meter’s floor or at the background'
  return ''
}

/** The mean of what all say; null where one does not. */
const meanKnown = (values: readonly (number | null)[]): number | null =>
  values.length && values.every((v) => v !== null) ? meanOf(values) : null

/** Whether the stage was soaked unlike in the two states, and neither is known to be steady. */
function unlikeSoak({ before, after }: ComparisonContext, values: readonly Value[]): boolean {
  const steady = [...before, ...after].every((r) => r.steady)
  const soakOf = (runs: readonly Run[]) =>
    meanKnown(values.filter((v) => runs.includes(v.run)).map((v) => soakAt(v.run, v.reading)))
  const [b, a] = [soakOf(before), soakOf(after)]
  return !steady && b !== null && a !== null && Math.abs(a - b) > FAIR.soak * b
}

const formulaOf = (quantity: ReadingQuantity, asRise: boolean) =>
  asRise
    ? 'Δ = (t − tₐ)after · P_before/P_after − (t − tₐ)before'
    : quantity === 'level'
      ? 'Δ = L_after − L_before, each without its background'
      : 'Δ = mean after − mean before'
const basisWords: Record<IntervalBasis, string> = {
  welch: '95 % interval over the replicates, unlike spreads (Welch).',
  paired: '95 % interval over pairs taken within the hour.',
  instruments: 'The range is what the instruments are worth: three runs of each state would give a real one.',
}

const runsOf = ({ length }: readonly unknown[]) => (length === 1 ? 'one run' : `${length} runs`)

function compareKey(c: ComparisonContext, key: string, readings: readonly [Reading[], Reading[]]): Comparison {
  const { quantity, place, stage, source } = readings[0][0]!
  const asRise = quantity === 'temperature' && [...c.before, ...c.after].every((r) => r.ambientC !== null)
  const heatW = meanKnown(
    c.before.flatMap((run) =>
      run.readings.filter((r) => readingKey(run, r) === key).map((r) => heatAt(run, r)),
    ),
  )
  const valuesOf = (runs: readonly Run[]) =>
    runs.flatMap((run) => {
      const r = run.readings.find((x) => readingKey(run, x) === key)
      if (!r) return []
      return [
        quantity === 'temperature'
          ? temperatureOf(heatW, run, r, asRise)
          : quantity === 'level'
            ? levelOf(c, run, r)
            : otherOf(c, run, r),
      ]
    })
  const [b, a] = [valuesOf(c.before), valuesOf(c.after)]
  const [x, y] = [meanOf(b.map((v) => v.value)), meanOf(a.map((v) => v.value))]
  const { halfWidth, basis } = intervalOf(asRise, b, a, readings)
  const level = quantity === 'level'
  const absolute = quantity === 'temperature' && !asRise
  // a share of next to nothing, or from one side of zero to the other, says nothing
  const nearZero = x * y <= 0 || Math.abs(x) <= halfWidth
  const ratioOnly = quantity === 'flow' && readings.flat().some((r) => r.method === 'jet')
  const shownAs: Quantity = asRise ? 'temperatureDifference' : quantity
  const steps = [...new Set([...b, ...a].flatMap((v) => v.steps))]
  const bound = [...b, ...a].some((v) => v.bound)
  const refused = refusalOf(c, quantity, readings, [...b, ...a])
  return {
    key,
    quantity,
    place,
    stage,
    source,
    before: x,
    after: y,
    asRise,
    difference: y - x,
    change: level || absolute || nearZero ? null : relativeChange(x, y),
    symmetric: level || absolute || nearZero ? null : symmetricDifference(x, y),
    loudness: level ? loudnessRatio(y - x) : null,
    halfWidth,
    basis,
    n: [b.length, a.length],
    shown: Math.abs(y - x) > halfWidth,
    steps: bound ? [...steps, 'one is an upper bound only'] : steps,
    refused,
    ratioOnly,
    figure: figure(
      `compare.${key}`,
      `Difference, ${place}`,
      quantity === 'temperature' ? 'temperatureDifference' : level ? 'levelDifference' : quantity,
      y - x,
      formulaOf(quantity, asRise),
      'fair comparison: rises over the ambient of each run, levels without their background',
      {
        basis: 'measured',
        low: y - x - halfWidth,
        high: y - x + halfWidth,
        inputs: [
          input('before', `${asRise ? 'rise ' : ''}before, ${runsOf(b)}`, x, shownAs),
          input('after', `${asRise ? 'rise ' : ''}after, ${runsOf(a)}`, y, shownAs),
        ],
        note: [...steps.map((s) => `${s}.`), basisWords[basis]].join(' '),
      },
    ),
  }
}

/** A condition that both states state as a number, and how far it may differ. */
interface NumericCondition {
  what: string
  words: string
  quantity: Quantity
  key: Parameters<typeof common>[1]
  differs: (before: number, after: number) => boolean
  effect: string
  /** whether it counts for this comparison; always where not given */
  counts?: (c: ComparisonContext) => boolean
}
const allSteady = ({ before, after }: ComparisonContext) => [...before, ...after].every((r) => r.steady)
const numericConditions: NumericCondition[] = [
  {
    what: 'ambient',
    words: 'Ambient',
    quantity: 'temperature',
    key: 'ambientC',
    differs: (b, a) => Math.abs(a - b) > FAIR.ambientK,
    effect: 'Temperatures are compared as rise over ambient, which takes most of it out.',
  },
  {
    what: 'equipment load',
    words: 'Load',
    quantity: 'power',
    key: 'heatW',
    differs: (b, a) => !within(a, b, FAIR.load),
    effect: 'Rises are scaled to the load of before, within a factor 0.5 to 1.5.',
  },
  {
    what: 'listening distance',
    words: 'Microphone at',
    quantity: 'distance',
    key: 'distanceM',
    differs: (b, a) => !within(a, b, FAIR.distance),
    effect: '6 dB for each doubling: taken to the first distance where the law holds.',
  },
  {
    what: 'fan voltage',
    words: 'Fan at',
    quantity: 'voltage',
    key: 'fanV',
    differs: (b, a) => !within(a, b, FAIR.volts),
    effect:
      'Speed follows voltage: flows, pressures and levels are taken to the first voltage by the fan laws.',
    counts: (c) => !c.voltageIsTheChange,
  },
  {
    what: 'soak time',
    words: 'Soaked',
    quantity: 'duration',
    key: 'soakS',
    differs: (b, a) => Math.abs(a - b) > FAIR.soak * b,
    effect: 'The shorter soak looks cooler than it is.',
    counts: (c) => !allSteady(c),
  },
]

function lidCondition({ before, after }: ComparisonContext): Unfair | 'not-stated' | null {
  const [b, a] = [shareOne(before, 'lid'), shareOne(after, 'lid')]
  if (b === null || a === null) return 'not-stated'
  if (b === a && b !== 'mixed') return null
  const mixed = b === 'mixed' || a === 'mixed'
  return {
    what: 'lid',
    text: [mixed ? 'The lid was not the same in all runs' : `Lid ${b} before, ${a} after`],
    effect: 'Another air path: repeat with the lid alike.',
  }
}

function meterCondition({ before, after }: ComparisonContext): Unfair | null {
  const [b, a] = [shareOne(before, 'instrument'), shareOne(after, 'instrument')]
  if (!b || !a || b === a) return null
  return {
    what: 'sound meter',
    text: ['Another sound meter after than before'],
    effect: 'Two meters may differ by 3 dB and more on the same sound.',
  }
}

function openingsCondition({ after }: ComparisonContext): Unfair | null {
  if (!after.some((r) => r.otherOpenings === false)) return null
  return {
    what: 'other openings',
    text: ['The other openings were not alike'],
    effect: 'The air took another way: block them or leave them alike.',
  }
}

function changesCondition({ after }: ComparisonContext): Unfair | null {
  const changes = Math.max(...after.map((r) => r.changes ?? 1))
  if (changes <= 1) return null
  return {
    what: 'changes',
    text: [`${changes} things changed at once`],
    effect: 'Nobody knows which one worked.',
  }
}

/** Which conditions of two states differ enough to spoil the comparison, and what each does. */
function conditionsOf(c: ComparisonContext): { unfair: Unfair[]; notStated: string[] } {
  const unfair: (Unfair | null)[] = []
  const notStated: string[] = []
  for (const { what, words, quantity, key, differs, effect, counts } of numericConditions) {
    if (counts && !counts(c)) continue
    const [b, a] = [common(c.before, key), common(c.after, key)]
    if (b === null || a === null) notStated.push(what)
    else if (differs(b, a)) {
      const [before, after] = [b, a].map((value) => ({ value, quantity }))
      unfair.push({ what, text: [`${words} `, before!, ' before, ', after!, ' after'], effect })
    }
  }
  const lid = lidCondition(c)
  if (lid === 'not-stated') notStated.push('lid')
  else unfair.push(lid)
  unfair.push(meterCondition(c), openingsCondition(c), changesCondition(c))
  return { unfair: unfair.filter((u) => u !== null), notStated }
}

/**
 * Two states held against each other.
 * @param before runs of one state, at least one @param after of the other
 * @param quietens the voltage is what the plan changes, even where the runs do not say so
 * @param streamNames what the air streams are called, by id
 */
export function compareRuns(
  before: readonly Run[],
  after: readonly Run[],
  quietens: boolean,
  streamNames: FanStates['streamNames'] = new Map(),
): FairComparison {
  const said = after.map((r) => r.changed).find((x) => x !== null) ?? null
  const c: ComparisonContext = {
    before,
    after,
    voltageIsTheChange: said === null ? quietens : said === 'voltage' || said === 'fan',
    streamNames,
    distanceM: common(before, 'distanceM'),
    fanV: common(before, 'fanV'),
    rpm: before.every((r) => speedOf(r)) ? meanOf(before.map((r) => speedOf(r)!)) : null,
  }
  const keysOf = (runs: readonly Run[]) => {
    const map = new Map<string, Reading[]>()
    for (const run of runs)
      for (const r of run.readings) map.set(readingKey(run, r), [...(map.get(readingKey(run, r)) ?? []), r])
    return map
  }
  const [b, a] = [keysOf(before), keysOf(after)]
  const nameOf = (r: Reading) => [r.quantity, r.place, r.stage, r.source].filter(Boolean).join(', ')
  return {
    comparisons: [...b.keys()].filter((k) => a.has(k)).map((k) => compareKey(c, k, [b.get(k)!, a.get(k)!])),
    ...conditionsOf(c),
    unmatched: [...[...b].filter(([k]) => !a.has(k)), ...[...a].filter(([k]) => !b.has(k))].map(([, list]) =>
      nameOf(list[0]!),
    ),
  }
}

/** The comparison that a verdict is about: of the quantity asked for, at its place if there is one. */
export function mainComparison(
  comparisons: readonly Comparison[],
  quantity: ReadingQuantity | null,
  place = '',
): Comparison | null {
  const ofKind = comparisons.filter((x) => x.quantity === quantity && !x.source)
  return ofKind.find((x) => samePlace(x.place, place)) ?? ofKind[0] ?? null
}
