import { loudnessRatio } from '#core/noise'
import {
  evaluateCandidate,
  quickArrayFlow,
  quickArrayLevel,
  START_MARGIN,
  tooLargeFor,
  type Candidate,
} from './candidate'
import type { SelectionContext } from './context'
import { MOST_FANS, type Arrangement, type Fan, type PlanDocument } from '#core/document'
import {
  alike,
  lowestDuty,
  modelFan,
  type FanModel,
  arrayCost,
  arrayCurrent,
  arrayLimits,
  arrayThickness,
  type FanArray,
  type FanGroup,
  type ArrayDrive,
  quickPath,
  tabled,
  type QuickPath,
} from '#core/system'
import { noFilter, passesFilter, type ShelfFilter } from './shelf-filter'

export type Objective =
  'quietest' | 'margin' | 'cheapest' | 'power' | 'thinnest' | 'loudness' | 'value' | 'weights'
/**
 * How the fans may be driven: any voltage a converter can be set to, only the voltages that are there, the label's, or
 * the duty on the PWM wire.
 */
export type DriveMode = 'any' | 'rails' | 'rated' | 'pwm'
/** How much each wish counts, 0..1. */
export interface Weights {
  quiet: number
  margin: number
  power: number
  cheap: number
  thin: number
}

/** The place that fans are sought for, and who stays at the other one. */
export interface PlaceSought {
  index: 0 | 1
  otherFanId: string
  otherCount: number
}

export interface RankOptions {
  objective: Objective
  weights: Weights
  /**
   * fans side by side to try (in each of openings alike, and at each of two places), whether to try two in series, fans
   * at two places, and unlike pairs
   */
  counts: readonly number[]
  series: boolean
  places: boolean
  pairs: boolean
  /** only the fans of one of two places are sought, those at the other one stay; null: for all places */
  place: PlaceSought | null
  drive: DriveMode
  /** voltages that are there, V, for the drive 'rails' and as what PWM fans are fed */
  rails: readonly number[]
  /** how many levels to try between the safe start and rated, or of duty */
  levels: number
  /** only this voltage, where the drive cannot be chosen */
  fixedV: number | null
  filter: ShelfFilter
  /** groups computed in full: all of a usual shelf, the best of a huge one */
  rows: number
}

export const evenWeights: Weights = { quiet: 1, margin: 0.5, power: 0.25, cheap: 0.25, thin: 0 }
/** Taps that equipment and peripheral plugs commonly have, V. */
export const COMMON_TAPS = [5, 12, 24] as const

export const defaultRank: RankOptions = {
  objective: 'quietest',
  weights: evenWeights,
  counts: [1, 2, 3, 4],
  series: true,
  places: false,
  pairs: false,
  place: null,
  drive: 'any',
  rails: COMMON_TAPS,
  levels: 10,
  fixedV: null,
  filter: noFilter,
  rows: 600,
}

/** The voltages a plan has: its source and what its converter is set to, beside the common taps. */
export const railsOf = ({ source, converter }: PlanDocument): number[] =>
  [
    ...new Set([
      ...COMMON_TAPS,
      ...([source?.nominalV, converter?.outV].filter((v) => typeof v === 'number' && v > 0) as number[]),
    ]),
  ].sort((a, b) => a - b)

export interface Ranking {
  rows: Candidate[]
  /** groups looked at, of which `rows` are computed in full */
  arrays: number
  /** fans that could not be computed, with the reason */
  skipped: { fanId: string; name: string; reason: string }[]
  /** how many combinations of group and drive stand behind it */
  looked: number
}

/** A shelf ready to be ranked again and again. */
export interface ModelShelf {
  models: FanModel[]
  skipped: Ranking['skipped']
}
/** A shelf made ready to be searched; fans without a curve are told apart. */
export function modelShelf(fans: readonly Fan[]): ModelShelf {
  const shelf: ModelShelf = { models: [], skipped: [] }
  for (const fan of fans) {
    const made = modelFan(fan)
    if (made.ok) shelf.models.push(made.model)
    else shelf.skipped.push({ fanId: fan.id, name: `${fan.maker} ${fan.model}`, reason: made.reason })
  }
  return shelf
}

/**
 * Voltages to try: from 1.2 times the start voltage to rated, rounded to what a meter can be set to.
 * @param levels dB
 */
export function driveLevels(model: FanModel, levels: number): number[] {
  const { ratedV } = model.fan
  const low = Math.min(ratedV, Math.max(model.minV, START_MARGIN * model.startV))
  const volts = Array.from(
    { length: levels },
    (_, i) => Math.ceil((low + ((ratedV - low) * i) / Math.max(1, levels - 1)) * 10 - 1e-6) / 10,
  )
  return [...new Set(volts.map((v) => Math.min(v, ratedV)))]
}

/** The drives that a group may be tried at, rising in speed; empty where the mode is not for these fans. */
export function driveChoices(fanArray: FanArray, options: RankOptions): ArrayDrive[] {
  const { model, second } = fanArray
  if (options.fixedV !== null) return [{ volts: options.fixedV, duty: null }]
  const { ratedV } = model.fan
  const { maxV, startV } = arrayLimits(fanArray)
  if (options.drive === 'rated') return [{ volts: Math.min(ratedV, second?.fan.ratedV ?? ratedV), duty: null }]
  if (options.drive === 'rails')
    return options.rails.filter((v) => v <= maxV && v >= startV).map((volts) => ({ volts, duty: null }))
  if (options.drive === 'pwm') {
    if (model.fan.wires !== 4 || (second && second.fan.wires !== 4)) return []
    const low = Math.max(
      ...[model, second].map((m) => (m ? Math.max(lowestDuty(m).duty, m.fan.pwmStartDuty ?? 0) : 0)),
    )
    return Array.from({ length: options.levels }, (_, i) => ({
      volts: ratedV,
      duty: Math.round(100 * (low + ((1 - low) * i) / Math.max(1, options.levels - 1))) / 100,
    }))
  }
  const levels = driveLevels(model, options.levels)
  return (second ? levels.filter((v) => v >= START_MARGIN * second.startV && v <= maxV) : levels).map(
    (volts) => ({ volts, duty: null }),
  )
}

/** Smaller is better. */
const score: Record<Exclude<Objective, 'weights'>, (c: Scored) => number> = {
  quietest: (c) => c.level ?? 1e3,
  margin: (c) => -(c.margin ?? -1),
  cheapest: (c) => c.cost ?? 1e6,
  power: (c) => c.powerW ?? 1e3,
  thinnest: (c) => c.thicknessM,
  loudness: (c) => (!c.flow || c.level === null ? 1e3 : loudnessRatio(c.level - 40) / c.flow),
  value: (c) => (!c.flow || c.cost === null ? 1e6 : c.cost / c.flow),
}
/** What a group is scored by. */
interface Scored {
  flow: number | null
  level: number | null
  margin: number | null
  cost: number | null
  powerW: number | null
  thicknessM: number
}
const scoredOf = (c: Candidate): Scored => ({ ...c, level: c.level?.exact ?? null })

/**
 * What one unit of each wish is worth in the weighted score: 10 dB, the whole need, 5 W, 20 of money, 25 mm. A choice
 * of ours, so that one step of each is felt about alike.
 */
const UNIT = { level: 10, margin: 1, power: 5, cost: 20, thickness: 0.025 }
/** More margin than this is no further gain in the weighted score. */
const ENOUGH_MARGIN = 1

/** Weighted sum of the wishes, smaller is better: level per 10 dB, power per 5 W, money per 20, thickness per 25 mm, less the margin. */
export function weightedScore(c: Scored, w: Weights): number {
  const missing = 3
  return (
    w.quiet * (c.level === null ? missing : c.level / UNIT.level) +
    w.power * (c.powerW === null ? missing : c.powerW / UNIT.power) +
    w.cheap * (c.cost === null ? missing : c.cost / UNIT.cost) +
    (w.thin * c.thicknessM) / UNIT.thickness -
    (w.margin * Math.min(ENOUGH_MARGIN, c.margin ?? -1)) / UNIT.margin
  )
}

/** Groups that no other beats in both airflow and quiet. */
export function paretoFront(rows: readonly Candidate[]): Candidate[] {
  const sorted = rows
    .filter((c) => c.flow !== null && c.level !== null)
    .toSorted((a, b) => b.flow! - a.flow! || a.level!.exact - b.level!.exact)
  const front: Candidate[] = []
  let quietest = Infinity
  for (const c of sorted) {
    if (c.level!.exact >= quietest) continue
    quietest = c.level!.exact
    front.push(c)
  }
  return front
}

const verdictOrder = { good: 0, warn: 1, fail: 2 }

type Order = Pick<RankOptions, 'objective' | 'weights'>
const scoreOf = ({ objective, weights }: Order) =>
  objective === 'weights' ? (c: Scored) => weightedScore(c, weights) : score[objective]

/** Rows that meet the need come first; among failing ones the nearest miss. */
export function compareCandidates(order: Order): (a: Candidate, b: Candidate) => number {
  const of = scoreOf(order)
  return (a, b) => {
    const usable = (c: Candidate) => (c.verdict === 'fail' ? 1 : 0)
    if (usable(a) !== usable(b)) return usable(a) - usable(b)
    if (a.verdict === 'fail') return (b.margin ?? -1) - (a.margin ?? -1)
    return (
      of(scoredOf(a)) - of(scoredOf(b)) ||
      verdictOrder[a.verdict] - verdictOrder[b.verdict] ||
      a.count - b.count ||
      (a.cost ?? 1e6) - (b.cost ?? 1e6)
    )
  }
}

/** Which of a group's drives to show: the lowest that gives the planned flow, or the strongest. */
function chooseDrive(
  context: SelectionContext,
  path: QuickPath,
  fanArray: FanArray,
  drives: readonly ArrayDrive[],
  { objective }: RankOptions,
): ArrayDrive {
  const full = drives.at(-1)!
  if (objective === 'margin') {
    const limit = context.levelLimit
    if (limit === null) return full
    const tooLoud = firstThat(drives, (d) => (quickArrayLevel(context, fanArray, d) ?? 0) > limit)
    return tooLoud === 0 ? full : drives[tooLoud - 1]!
  }
  const wanted = context.designFlow
  return wanted === null
    ? full
    : (drives[firstThat(drives, (d) => quickArrayFlow(path, context.air, fanArray, d) >= wanted)] ?? full)
}

/**
 * Index of the first drive that passes a test which, once passed, stays passed (flow and level rise with speed); the
 * length when none does.
 */
function firstThat(drives: readonly ArrayDrive[], test: (drive: ArrayDrive) => boolean): number {
  let low = 0
  let high = drives.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (test(drives[middle]!)) high = middle
    else low = middle + 1
  }
  return low
}

/** A group at its chosen drive, known just well enough to be put in order. */
interface Light extends Scored {
  fanArray: FanArray
  drive: ArrayDrive
  fails: boolean
}

function lightOf(context: SelectionContext, path: QuickPath, fanArray: FanArray, drive: ArrayDrive): Light {
  const flow = quickArrayFlow(path, context.air, fanArray, drive)
  const level = quickArrayLevel(context, fanArray, drive)
  const current = arrayCurrent(fanArray, drive)
  const { startV, maxV } = arrayLimits(fanArray)
  const cost = arrayCost(fanArray)
  const thicknessM = arrayThickness(fanArray)
  const { needFlow, levelLimit, costLimit, thicknessLimit } = context
  return {
    fanArray,
    drive,
    flow,
    level,
    cost,
    thicknessM,
    powerW: current === null ? null : current * drive.volts,
    margin: needFlow ? flow / needFlow - 1 : null,
    fails:
      (needFlow !== null && flow < needFlow) ||
      (levelLimit !== null && level !== null && level > levelLimit) ||
      drive.volts < startV ||
      drive.volts > maxV ||
      tooLargeFor(context, fanArray).length > 0 ||
      (costLimit !== null && cost !== null && cost > costLimit) ||
      (thicknessLimit !== null && thicknessM > thicknessLimit),
  }
}

/** What fans alike can be: so many in each opening, two behind one another, so many at each of two places. */
function alikeArrays(model: FanModel, { counts, series, places }: RankOptions, openings: number): FanArray[] {
  // who drew two places wants fans at both: one that stays empty is no choice
  if (places)
    return counts
      .filter((n) => 2 * n <= MOST_FANS)
      .map((n) => ({ ...alike(model, 2 * n, 'places'), secondCount: n }))
  return [
    ...counts.filter((n) => n * openings <= MOST_FANS).map((n) => alike(model, n * openings, 'parallel')),
    ...(series && openings === 1 ? [alike(model, 2, 'series')] : []),
  ]
}

/** A place that fans are sought for, with the fans that stay at the other one. */
interface Held {
  index: 0 | 1
  other: FanGroup
}
function heldAt(shelf: ModelShelf, { index, otherFanId, otherCount }: PlaceSought): Held | null {
  const model = shelf.models.find((m) => m.fan.id === otherFanId)
  return model ? { index, other: { model, count: otherCount } } : null
}
/** Both places with n fans at the one that is sought for. */
function withHeld({ index, other }: Held, model: FanModel, n: number): FanArray {
  const [first, second] = index === 0 ? [{ model, count: n }, other] : [other, { model, count: n }]
  return {
    model: first.model,
    second: second.model === first.model ? null : second.model,
    count: first.count + second.count,
    secondCount: second.count,
    arrangement: 'places',
  }
}

/** Fans that unlike pairs are made of: the ones that alone come nearest to the need. */
const PAIR_POOL = 8

function pairsOf(singles: readonly Light[], arrangements: readonly Arrangement[]): FanArray[] {
  const near = singles
    .toSorted((a, b) => Math.abs(a.margin ?? 1e3) - Math.abs(b.margin ?? 1e3))
    .slice(0, PAIR_POOL)
    .map((l) => l.fanArray.model)
  return near.flatMap((model, i) =>
    near
      .slice(i + 1)
      .flatMap((second) =>
        arrangements.map((arrangement) => ({ model, second, count: 2, secondCount: 1, arrangement })),
      ),
  )
}

/**
 * Ranks a shelf on a job: every fan, count and arrangement at the drive that suits the objective. Flow rises with speed,
 * so the first level that suffices is the quietest and the least power; it is found by halving. All groups are looked at;
 * the best `rows` of them are computed in full, with ranges and reasons.
 */
export function rankShelf(
  given: SelectionContext,
  shelf: ModelShelf,
  options: RankOptions = defaultRank,
): Ranking {
  const context = { ...given, solver: tabled(given.solver) }
  let looked = 0
  const lights: Light[] = []
  const singles: Light[] = []
  const path = quickPath(context.solver)
  const look = (fanArray: FanArray, drives: readonly ArrayDrive[] = driveChoices(fanArray, options)) => {
    if (!drives.length) return null
    looked += drives.length
    const light = lightOf(context, path, fanArray, chooseDrive(context, path, fanArray, drives, options))
    lights.push(light)
    return light
  }
  const sought = options.place && heldAt(shelf, options.place)
  const openings = context.places[0]?.times ?? 1
  const fewest = options.places ? 2 : openings
  for (const model of shelf.models) {
    if (!passesFilter(model.fan, options.filter, context.job)) continue
    if (sought) {
      for (const n of options.counts) if (n + sought.other.count <= MOST_FANS) look(withHeld(sought, model, n))
      continue
    }
    // fans alike are driven alike, however many
    const drives = driveChoices(alike(model, 1, 'single'), options)
    for (const fanArray of alikeArrays(model, options, openings)) {
      const light = look(fanArray, drives)
      if (light && fanArray.count === fewest) singles.push(light)
    }
  }
  if (options.pairs && openings === 1 && !sought) {
    const arrangements: Arrangement[] = options.places ? ['places'] : ['parallel', 'series']
    for (const fanArray of pairsOf(singles, arrangements)) look(fanArray)
  }
  const of = scoreOf(options)
  const arrays = lights.length
  const chosen =
    arrays <= options.rows
      ? lights
      : lights
          .toSorted(
            (a, b) =>
              Number(a.fails) - Number(b.fails) ||
              (a.fails ? (b.margin ?? -1) - (a.margin ?? -1) : of(a) - of(b)),
          )
          .slice(0, options.rows)
  const rows = chosen.map((l) => evaluateCandidate(context, l.fanArray, l.drive))
  rows.sort(compareCandidates(options))
  return { rows, arrays, skipped: shelf.skipped, looked }
}
