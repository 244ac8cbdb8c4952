import type { Figure } from '#core/figure'
import {
  type Fan,
  type FanTest,
  type StreamPlan,
  type ReadingQuantity,
  type Run,
  dutyOf,
  plannedFans,
} from '#core/document'
import { newCalibration, newTest, readingMean } from '#core/document'
import type { Report } from '#core/plan'
import { readingHalfWidth } from '#core/verification'
import { loudnessRatio } from '#core/noise'
import { preferredUnit, type Quantity, type UnitPreferences } from '#core/units'

/** What a run teaches the plan: predictions against it, corrections to take over, and what the gain has cost. */

export interface Prediction {
  quantity: Quantity
  label: string
  predicted: number
  /** rests on an estimate: shown with a tilde */ estimated: boolean
  low: number | null
  high: number | null
  measured: number
  /** 95 % half-width of what was measured */ halfWidth: number
  /** the two ranges meet; null where nothing can be learnt */ agrees: boolean | null
  teaches: string
}

type Lesson = { lower: string; higher: string }
/** What it may mean that a reading lies under or over what was predicted. Common practice, no source. */
const lessons = {
  level: {
    lower:
      'Quieter than predicted: the claim or the way it is built in was taken too loud; the plan may be bolder.',
    higher:
      'Louder than predicted: look for a mount that rings, a grille close to the blades, or another source.',
  },
  flow: {
    lower:
      'Less air than predicted: look at the values of filter and openings, for a leak, or at how it was read.',
    higher:
      'More air than predicted: the path is easier than thought, or the reading took in more than the fan’s air.',
  },
  rise: {
    lower: 'Cooler than predicted: more air, or less heat than thought; there is something in hand.',
    higher:
      'Warmer than predicted: less air than planned, more heat than thought, or air that goes round in a circle.',
  },
  current: {
    lower: 'Less current than predicted: check that it runs at its voltage and speed.',
    higher: 'More current than predicted: a stiff bearing, a clogged path, or a higher voltage.',
  },
} satisfies Record<string, Lesson>
const AGREES = 'The ranges meet: plan and measurement agree.'

/** A label's current is the most a fan takes: 60 to 80 % of it is usual. Shares; common practice, no source. */
const CURRENT_RANGE = [0.55, 1.1] as const
/** Less than this still to come is steady, K. Common practice, no source. */
const STEADY_K = 0.5
type Predicted = Pick<Figure, 'value' | 'low' | 'high' | 'basis'>
interface Measured {
  value: number
  halfWidth: number
  /** why nothing can be learnt from it; '' where something can */
  mute: string
}

/** One prediction held against what was read; nothing where one of the two is missing. */
function held(
  key: keyof typeof lessons,
  label: string,
  shown: Quantity,
  predicted: Predicted | undefined,
  measured: Measured | null,
): Prediction[] {
  if (!predicted || predicted.value === null || !measured) return []
  const { value, low, high, basis } = predicted
  const { value: read, halfWidth, mute } = measured
  const agrees = mute ? null : read + halfWidth >= (low ?? value) && read - halfWidth <= (high ?? value)
  return [
    {
      quantity: shown,
      label,
      predicted: value,
      estimated: basis === 'estimated',
      low,
      high,
      measured: read,
      halfWidth,
      agrees,
      teaches: mute || (agrees ? AGREES : read < value ? lessons[key].lower : lessons[key].higher),
    },
  ]
}

/** Current of the fans as a prediction with what is usual of a label. */
const currentOf = (amps: number | null): Predicted | undefined =>
  amps === null
    ? undefined
    : {
        value: amps,
        low: CURRENT_RANGE[0] * amps,
        high: CURRENT_RANGE[1] * amps,
        basis: 'estimated',
      }

/** Places whose temperature is that of the air inside, and not of a part in it. */
const AIR = /^$|inside|air|box|cabinet|case|chamber|tent|exhaust|outlet/i
/** A temperature that still moved is not the end. */
const stillMoves = ({ slopeKS, tauS, steady }: Run) =>
  slopeKS !== null && tauS !== null ? Math.abs(slopeKS * tauS) > STEADY_K : steady === false

function riseOf(run: Run): Measured | null {
  const reading = run.readings.find((r) => r.quantity === 'temperature' && !r.source && AIR.test(r.place))
  if (!reading || run.ambientC === null) return null
  return {
    value: readingMean(reading) - run.ambientC,
    halfWidth: Math.SQRT2 * readingHalfWidth(run, reading),
    mute: stillMoves(run) ? 'It was not steady yet: nothing is learnt from it.' : '',
  }
}

/** The level of all fans of a machine with several air streams; of one stream its own figure. */
function predictedLevel({ sound }: Report, own: Figure | undefined): Predicted | undefined {
  const { sources, total, low, high } = sound
  return sources.length === 1 ? own : { value: total, low, high, basis: 'estimated' }
}

/** A level as its target judged it, corrected for background and distance; else as read. */
function levelOf({ verdict, selection, sound }: Report, run: Run): Measured | null {
  const clamped =
    sound.sources.length === 1 &&
    (selection?.candidate.level?.exact ?? Infinity) < (selection?.candidate.level?.value ?? 0)
  if (clamped) return null
  const judged = verdict.targets.find((t) => t.target.kind === 'level' && t.measured)?.measured
  if (judged)
    return {
      value: judged.value,
      halfWidth: judged.halfWidth,
      mute: judged.upperBoundOnly ? 'At most this: the meter or the room hides what lies below.' : '',
    }
  const reading = run.readings.find((r) => r.quantity === 'level' && !r.source)
  return reading ? { value: readingMean(reading), halfWidth: readingHalfWidth(run, reading), mute: '' } : null
}

/** Where fans run whose level nobody knows, a measured level of all teaches nothing. */
const withUnknown = ({ unknown }: Report['sound'], measured: Measured | null): Measured | null =>
  measured && unknown.length
    ? { ...measured, mute: `Not predicted: ${unknown.join(', ')}; nothing is learnt from it.` }
    : measured

/** The part that a job cools, as its target judged it. */
function partOf({ verdict }: Report, run: Run): Measured | null {
  const judged = verdict.targets.find((t) => t.target.kind === 'temperature' && t.measured)?.measured
  if (!judged) return null
  const { value, halfWidth } = judged
  return { value, halfWidth, mute: stillMoves(run) ? 'It was not steady yet: nothing is learnt from it.' : '' }
}

/** Every figure that was both predicted and measured in the latest state; like with like: air with air, the part with the part. */
export function predictionsOf(report: Report): Prediction[] {
  const { verdict, selection, power, need, sound } = report
  const { after } = verdict
  if (!after || !selection) return []
  const plain = (quantity: ReadingQuantity): Measured | null => {
    const reading = after.readings.find((r) => r.quantity === quantity && !r.source)
    return !reading || reading.method === 'jet'
      ? null
      : { value: readingMean(reading), halfWidth: readingHalfWidth(after, reading), mute: '' }
  }
  const figure = (key: string) => selection.figures.find((f) => f.key === key)
  const part = need.extras.find((f) => f.key === 'need.part')
  return [
    ...held('flow', 'Airflow', 'flow', selection.served, plain('flow')),
    ...held(
      'level',
      sound.sources.length === 1 ? 'Sound level' : 'Sound level, all fans',
      'level',
      predictedLevel(report, figure('selection.level')),
      withUnknown(sound, levelOf(report, after)),
    ),
    ...held('rise', 'Rise of the air', 'temperatureDifference', figure('selection.rise'), riseOf(after)),
    ...(part ? held('rise', 'Temperature of the part', 'temperature', part, partOf(report, after)) : []),
    ...held('current', 'Current of the fan', 'current', currentOf(power.fanRunA), plain('current')),
  ]
}

/** What the change made worse: a place that got warmer, a spot that got louder. */
export interface Worse {
  quantity: Quantity
  place: string
  by: number
}
/** Everything that was compared fairly and got worse. */
export const worseOf = ({ verdict }: Report): Worse[] =>
  verdict.comparisons
    .filter((c) => !c.refused && c.shown && !c.source && c.difference > 0)
    .flatMap((c): Worse[] => {
      if (c.quantity === 'temperature')
        return [{ quantity: 'temperatureDifference', place: c.place, by: c.difference }]
      return c.quantity === 'level' ? [{ quantity: 'levelDifference', place: c.place, by: c.difference }] : []
    })

/** The path scaled by a run's flow with the picked fan: the plan of a new variant; null where the run does not say enough. */
export function calibratedBy(plan: StreamPlan, run: Run, id: string): StreamPlan | null {
  const flow = run.readings.find((r) => r.quantity === 'flow' && !r.source && r.method !== 'jet')
  const selection = plannedFans(plan)
  // a baseline was taken with the old fan
  if (
    run.kind !== 'after' ||
    !flow ||
    !selection ||
    run.fanV === null ||
    selection.groups.length > 1 ||
    selection.arrangement === 'series' ||
    dutyOf(plan) !== null
  )
    return null
  return {
    ...plan,
    calibration: {
      ...newCalibration(id),
      kind: 'flow',
      fanId: selection.groups[0]!.fanId,
      count: selection.count,
      volts: run.fanV,
      flowM3s: readingMean(flow),
      flowDoubt: readingMean(flow) > 0 ? readingHalfWidth(run, flow) / readingMean(flow) : null,
    },
  }
}

/**
 * A bench run as a test of the fan's own record. Only a single fan's figures are taken: flow in free delivery, pressure
 * with the outlet shut, speed, current and level.
 * @returns null without a voltage or a figure
 */
export function testOf(run: Run, id: string): FanTest | null {
  if (run.kind !== 'bench' || run.fanV === null) return null
  const of = (quantity: ReadingQuantity) => {
    const r = run.readings.find((x) => x.quantity === quantity && !x.source)
    return r ? readingMean(r) : null
  }
  const test: FanTest = {
    ...newTest(id, run.fanV, run.takenAt),
    ambientC: run.ambientC,
    currentA: of('current'),
    rpm: of('rotation'),
    flowM3s: of('flow'),
    pressurePa: of('pressure'),
    levelDbA: of('level'),
    levelDistanceM: run.distanceM,
    backgroundDbA: run.backgroundDbA,
    notes: run.name,
  }
  return [test.currentA, test.rpm, test.flowM3s, test.pressurePa, test.levelDbA].some((x) => x !== null)
    ? test
    : null
}
/** A fan with a test added, or put in the place of the one with its id. */
export const withTest = (fan: Fan, test: FanTest): Fan => ({
  ...fan,
  tests: [...fan.tests.filter((t) => t.id !== test.id), test],
})

/** What a gain has cost; null where no price is known. */
export interface GainCost {
  what: string
  gain: number
  quantity: Quantity
  /** money per SI unit */ perUnit: number | null
  /** given away for the gains: part of what they cost */ given: boolean
}
/** The same in the person's unit: money, and per what. */
export function costPerUnit(
  { quantity, perUnit }: GainCost,
  units: UnitPreferences,
): { money: number; per: string } | null {
  const unit = preferredUnit(quantity, units)
  return perUnit === null
    ? null
    : { money: perUnit * unit.factor, per: quantity === 'number' ? 'per halving' : `per ${unit.symbol}` }
}
/**
 * Gains that the verdict shows, with their price.
 * @param price money
 */
export function gainCosts(report: Report, price: number | null): GainCost[] {
  // what was owned already has no price to share out
  const cost = price || null
  const { comparisons } = report.verdict
  const rows: GainCost[] = []
  for (const c of comparisons) {
    if (c.refused || !c.shown || c.source) continue
    if (c.quantity === 'temperature' && c.difference < 0)
      rows.push({
        what: `cooler at ${c.place || 'the probe'}`,
        gain: -c.difference,
        quantity: 'temperatureDifference',
        perUnit: cost === null ? null : cost / -c.difference,
        given: false,
      })
    if (c.quantity === 'level' && c.difference < 0) {
      rows.push({
        what: `quieter at ${c.place || 'the spot'}`,
        gain: -c.difference,
        quantity: 'levelDifference',
        perUnit: cost === null ? null : cost / -c.difference,
        given: false,
      })
      const halvings = -Math.log2(loudnessRatio(c.difference))
      if (halvings > 0)
        rows.push({
          what: 'halvings of loudness',
          gain: halvings,
          quantity: 'number',
          perUnit: cost === null ? null : cost / halvings,
          given: false,
        })
    }
    if (c.quantity === 'flow' && c.difference > 0 && !c.ratioOnly)
      rows.push({
        what: 'more air',
        gain: c.difference,
        quantity: 'flow',
        perUnit: cost === null ? null : cost / c.difference,
        given: false,
      })
  }
  const given = worseOf(report).map(({ quantity, place, by }): GainCost => ({
    what: `${quantity === 'levelDifference' ? 'louder' : 'warmer'} at ${place || 'the probe'}: given away`,
    gain: by,
    quantity,
    perUnit: null,
    given: true,
  }))
  return [...rows, ...given]
}
