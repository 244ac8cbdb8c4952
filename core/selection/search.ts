import {
  alike,
  arrayCost,
  arrayOf,
  arrayCurrent,
  arrayThickness,
  curveAt,
  driveOf,
  drivenSpeed,
  exactLevel,
  fanCurrent,
  freeDelivery,
  modelFan,
  pathDrop,
  quickFlow,
  quickPath,
  shutOffPressure,
  type ArrayDrive,
  type FanArray,
  type FanGroup,
  type FanModel,
  type FanModelResult,
  trueThickness,
  type QuickPath,
} from '#core/system'
import { atSpeed, identicalLevels } from '#core/noise'
import { MOST_FANS, type Arrangement, type Fan } from '#core/document'
import { keepBest, type Ranked } from './best'
import { installationsOf, quickArrayFlow, quickArrayLevel, tooLargeFor } from './candidate'
import type { SelectionContext } from './context'
import { driveChoices } from './drives'
import type { PlaceSought, RankOptions } from './options'
import { scoreOf, type Scored } from './score'
import { passesFilter } from './shelf-filter'

/** A shelf ready to be ranked again and again. */
export interface ModelShelf {
  models: FanModel[]
  skipped: { fanId: string; name: string; reason: string }[]
}
/**
 * A shelf made ready to be searched; fans without a curve are told apart.
 * @param make makes one fan ready, where that was done before
 */
export function modelShelf(fans: readonly Fan[], make: (fan: Fan) => FanModelResult = modelFan): ModelShelf {
  const shelf: ModelShelf = { models: [], skipped: [] }
  for (const fan of fans) {
    const made = make(fan)
    if (made.ok) shelf.models.push(made.model)
    else shelf.skipped.push({ fanId: fan.id, name: `${fan.maker} ${fan.model}`, reason: made.reason })
  }
  return shelf
}

/** A group at its chosen drive, known just well enough to be put in order. */
export interface Group extends Scored, Ranked {
  fanArray: FanArray
  drive: ArrayDrive
}
/** The best groups of a shelf, and how many were looked at. */
export interface Found {
  groups: Group[]
  arrays: number
  /** combinations of group and drive */
  looked: number
}

/**
 * Index of the first drive that passes a test which, once passed, stays passed (flow and level rise with speed); the
 * number of drives when none does.
 * @param low drives before this one are known not to pass
 */
function firstThat(count: number, test: (k: number) => boolean, low = 0): number {
  let high = count
  while (low < high) {
    const middle = (low + high) >> 1
    if (test(middle)) high = middle
    else low = middle + 1
  }
  return low
}

/**
 * Which of a group's drives to show: the lowest that gives the planned flow, or the strongest; for the most margin the
 * strongest that is not too loud.
 * @param low drives before this one are known not to give that flow
 */
function chooseDrive(
  { levelLimit, designFlow }: SelectionContext,
  { objective }: RankOptions,
  count: number,
  flowAt: (k: number) => number,
  levelAt: (k: number) => number | null,
  low = 0,
): number {
  const full = count - 1
  if (objective === 'margin') {
    if (levelLimit === null) return full
    const tooLoud = firstThat(count, (k) => (levelAt(k) ?? 0) > levelLimit)
    return tooLoud === 0 ? full : tooLoud - 1
  }
  if (designFlow === null) return full
  return Math.min(
    full,
    firstThat(count, (k) => flowAt(k) >= designFlow, low),
  )
}

/** What is asked of every group, beside the air. */
function failsAsked(
  { needFlow, levelLimit, costLimit, thicknessLimit }: SelectionContext,
  { flow, level, cost, thicknessM }: Scored,
): boolean {
  return (
    (needFlow !== null && (flow ?? 0) < needFlow) ||
    (levelLimit !== null && level !== null && level > levelLimit) ||
    (costLimit !== null && cost !== null && cost > costLimit) ||
    (thicknessLimit !== null && thicknessM > thicknessLimit)
  )
}
const marginOf = ({ needFlow }: SelectionContext, flow: number) => (needFlow ? flow / needFlow - 1 : null)

/** Whether a drive is outside what the sheets of a group's fans say they stand and need. */
const outside = (model: FanModel, { volts }: ArrayDrive) =>
  (model.startKnown && volts < model.startV) || (model.maxKnown && volts > model.maxV)

/** Any group whatever, looked at as a whole. */
function wholeGroup(
  context: SelectionContext,
  path: QuickPath,
  fanArray: FanArray,
  drives: readonly ArrayDrive[],
  options: RankOptions,
): Omit<Group, 'key' | 'at'> {
  const flowAt = (k: number) => quickArrayFlow(path, context.air, fanArray, drives[k]!)
  const levelAt = (k: number) => quickArrayLevel(context, fanArray, drives[k]!)
  const chosen = chooseDrive(context, options, drives.length, flowAt, levelAt)
  const drive = drives[chosen]!
  const flow = flowAt(chosen)
  const current = arrayCurrent(fanArray, drive)
  const scored: Scored = {
    flow,
    level: levelAt(chosen),
    cost: arrayCost(fanArray),
    thicknessM: arrayThickness(fanArray),
    powerW: current === null ? null : current * drive.volts,
    margin: marginOf(context, flow),
  }
  const fails =
    failsAsked(context, scored) ||
    fanArray.groups.some((g) => outside(g.model, drive)) ||
    tooLargeFor(context, fanArray).length > 0
  return { fanArray, drive, ...scored, fails }
}

/** A bound on the speed that a flow takes is drawn so much lower: local fits of a bent path are not quite exact. */
const BELOW = 0.99
/** A bound on what a group can reach is drawn so much higher: it must not fall short of it by rounding. */
const ABOVE = 1 + 1e-9

/** A flow and what the path drops at it. */
interface Asked {
  flow: number
  drop: number
}
function asked({ solver: { path } }: SelectionContext, flow: number | null): Asked | null {
  return flow === null ? null : { flow, drop: pathDrop(path, flow) }
}

/** What all groups of one fan have in common: how it is driven, how loud one of it is, what it takes. */
interface Member {
  model: FanModel
  drives: readonly ArrayDrive[]
  /** speed ratio at each drive, rising */
  speeds: readonly number[]
  free: number
  /** highest pressure at rated speed, Pa; null where its curve changes with the voltage */
  shutOff: number | null
  /** level of one at rated speed where it stands, dB(A); null where nobody knows */
  level: number | null
  /** does not fit: beside one another, one behind the other */
  tooLarge: { beside: boolean; behind: boolean }
}

/** So many alike, side by side or one behind the other. */
interface Spread {
  arrangement: 'parallel' | 'series'
  wide: number
  deep: number
}
/** What fans alike can be at one place: so many in each opening, two behind one another. */
function spreadsOf({ counts, series }: RankOptions, openings: number): Spread[] {
  return [
    ...counts
      .filter((n) => n * openings <= MOST_FANS)
      .map((n): Spread => ({ arrangement: 'parallel', wide: n * openings, deep: 1 })),
    ...(series && openings === 1 ? [{ arrangement: 'series' as const, wide: 1, deep: 2 }] : []),
  ]
}

/** Lowest speed at which a group could give a flow: its free delivery must exceed it, and its pressure the path's drop. */
function leastSpeed({ free, shutOff }: Member, { wide, deep }: Spread, density: number, { flow, drop }: Asked) {
  const forFlow = flow / (wide * free)
  const forPressure = shutOff !== null && drop > 0 ? Math.sqrt(drop / (density * deep * shutOff)) : 0
  return BELOW * Math.max(forFlow, forPressure)
}

/**
 * Groups of fans alike at one place: held against the best there are by what they could reach, before they are computed.
 * Nothing is allocated for those that cannot be among them.
 */
function alikeSearch(context: SelectionContext, path: QuickPath, options: RankOptions) {
  const { air, job, designPressure } = context
  const { objective } = options
  const needed = asked(context, context.needFlow)
  const wanted = objective === 'margin' ? null : asked(context, context.designFlow)
  const hungry = objective === 'power' || objective === 'weights'
  const of = scoreOf(options)
  const ofCount = Array.from({ length: MOST_FANS + 1 }, (_, n) => identicalLevels(0, n))
  /** what surrounds a fan hangs on its size, not on the fan */
  const surroundings = new Map<number, number>()
  function surrounding(model: FanModel): number {
    const { frameM } = model.fan
    let value = surroundings.get(frameM)
    if (value === undefined) {
      value = installationsOf(context, alike(model, 1, 'single'), designPressure, false)[0]!.value
      surroundings.set(frameM, value)
    }
    return value
  }
  const tooLarge = (model: FanModel, count: number, arrangement: Arrangement) =>
    tooLargeFor(context, alike(model, count, arrangement)).length > 0

  function memberOf(model: FanModel): Member | null {
    // fans alike are driven alike, however many
    const drives = driveChoices(alike(model, 1, 'single'), options)
    if (!drives.length) return null
    return {
      model,
      drives,
      speeds: drives.map((d) => drivenSpeed(model, d.volts, d.duty)),
      free: freeDelivery(model),
      shutOff: model.others.length ? null : shutOffPressure(model),
      level: exactLevel(model, 1, 1, job.listenerM, surrounding(model)),
      tooLarge: {
        beside: tooLarge(model, 1, 'single'),
        behind: options.series && tooLarge(model, 2, 'series'),
      },
    }
  }

  const facts: Scored = { flow: 0, level: 0, margin: 0, cost: 0, powerW: 0, thicknessM: 0 }
  /** Fills in what a group is scored by, as it is at a drive with a flow. */
  function factsAt({ model, drives, speeds, level }: Member, { wide, deep }: Spread, k: number, flow: number) {
    const { fan } = model
    const count = wide * deep
    const { volts, duty } = drives[k]!
    const change = level === null ? null : atSpeed(0, 1, speeds[k]!)
    facts.flow = flow
    facts.level = change === null ? null : level! + change + ofCount[count]!
    facts.margin = marginOf(context, flow)
    facts.cost = fan.owned ? 0 : fan.price === null ? null : count * fan.price
    facts.thicknessM = deep * trueThickness(fan)
    // the power is worked out only where it counts
    const current = !hungry
      ? null
      : speeds[k]! > 0
        ? fanCurrent(model, volts, duty)
        : fan.ratedA === null
          ? null
          : 0
    facts.powerW = current === null ? null : count * current * volts
  }
  const rank: Ranked = { fails: false, key: 0, at: 0 }
  function rankFacts(fails: boolean, at: number) {
    rank.fails = fails
    rank.key = fails ? -(facts.margin ?? -1) : of(facts)
    rank.at = at
  }
  const misfit = ({ tooLarge: { beside, behind } }: Member, { deep }: Spread) => (deep > 1 ? behind : beside)

  /** First drive that could give the planned flow. */
  function firstDrive(member: Member, spread: Spread): number {
    const full = member.drives.length - 1
    if (!wanted) return objective === 'margin' ? 0 : full
    const least = leastSpeed(member, spread, air.densityRatio, wanted)
    let low = 0
    while (low < full && member.speeds[low]! < least) low++
    return low
  }
  /**
   * The best rank that a group could have: no louder and no hungrier than at the first drive that could give the planned
   * flow, no more air than its free delivery at the last.
   */
  function bestRank(member: Member, spread: Spread, low: number, at: number): Ranked {
    const fastest = member.speeds.at(-1)!
    const most = ABOVE * spread.wide * member.free
    factsAt(member, spread, low, most * fastest)
    const tooWeak = needed !== null && fastest < leastSpeed(member, spread, air.densityRatio, needed)
    const fails = tooWeak || misfit(member, spread) || failsAsked(context, facts)
    // loudness rises faster than the air: the slowest drive is the best in loudness over air
    if (objective === 'loudness') facts.flow = most * member.speeds[low]!
    rankFacts(fails, at)
    return rank
  }

  /** The group itself, where it is among the best or anyhow. */
  function groupOf(
    member: Member,
    spread: Spread,
    low: number,
    at: number,
    isWanted: (rank: Ranked) => boolean,
  ): Group | null {
    const { model, drives, speeds } = member
    const { wide, deep, arrangement } = spread
    const flowAt = (k: number) =>
      speeds[k]! > 0
        ? Math.max(
            0,
            quickFlow(path, curveAt(model, drives[k]!.volts, 'middle'), driveOf(air, speeds[k]!, wide, deep)),
          )
        : 0
    const levelAt = (k: number) => {
      factsAt(member, spread, k, 0)
      return facts.level
    }
    const k = chooseDrive(context, options, drives.length, flowAt, levelAt, low)
    const drive = drives[k]!
    factsAt(member, spread, k, flowAt(k))
    rankFacts(misfit(member, spread) || failsAsked(context, facts) || outside(model, drive), at)
    return isWanted(rank)
      ? { fanArray: alike(model, wide * deep, arrangement), drive, ...facts, ...rank }
      : null
  }
  return { memberOf, firstDrive, bestRank, groupOf }
}

/** So many of a fan at each of two places. Who drew two places wants fans at both: one that stays empty is no choice. */
const atBoth = (models: readonly FanModel[], n: number, { places }: SelectionContext): FanArray =>
  arrayOf(
    places.map(({ place }, i) => ({ model: models[i]!, count: n, placeId: place?.id ?? null })),
    'places',
  )

/** A place that fans are sought for, with the fans that stay at the other one. */
interface Held {
  placeId: string
  others: FanGroup[]
}
function heldAt(shelf: ModelShelf, { placeId, others }: PlaceSought): Held {
  const groups = others.flatMap(({ fanId, ...other }): FanGroup[] => {
    const model = shelf.models.find((m) => m.fan.id === fanId)
    return model ? [{ model, ...other }] : []
  })
  return { placeId, others: groups }
}
/** n fans at the place that is sought for, beside those that stay at others: in the order of the path. */
function withHeld(
  { placeId, others }: Held,
  model: FanModel,
  n: number,
  { places }: SelectionContext,
): FanArray {
  const at = (g: FanGroup) => places.findIndex((p) => p.place?.id === g.placeId)
  const groups = [...others, { model, count: n, placeId }].toSorted((a, b) => at(a) - at(b))
  return arrayOf(groups, others.length ? 'places' : 'parallel')
}

/** Fans that unlike pairs are made of: the ones that alone come nearest to the need. */
const PAIR_POOL = 8

function pairsOf(
  context: SelectionContext,
  singles: readonly Group[],
  arrangements: readonly Arrangement[],
): FanArray[] {
  const near = singles
    .toSorted((a, b) => Math.abs(a.margin ?? 1e3) - Math.abs(b.margin ?? 1e3))
    .slice(0, PAIR_POOL)
    .map((l) => l.fanArray.model)
  return near.flatMap((model, i) =>
    near.slice(i + 1).flatMap((other) =>
      arrangements.map((arrangement) =>
        arrangement === 'places'
          ? atBoth([model, other], 1, context)
          : arrayOf(
              [model, other].map((m) => ({ model: m, count: 1, placeId: null })),
              arrangement,
            ),
      ),
    ),
  )
}

/** Fans looked at between two moments at which other work may go on. */
const FANS_A_STEP = 200

/**
 * Looks at every fan, count and arrangement of a shelf at the drive that suits the objective, and keeps the best
 * `options.rows`. Flow rises with speed, so the first level that suffices is the quietest and the least power; it is found
 * by halving. A group whose bound is worse than all that are kept is not computed: the answer is that of computing all.
 */
export function* searchSteps(
  context: SelectionContext,
  shelf: ModelShelf,
  options: RankOptions,
): Generator<void, Found> {
  const path = quickPath(context.solver)
  const of = scoreOf(options)
  const best = keepBest<Group>(options.rows)
  const singles: Group[] = []
  const found = { arrays: 0, looked: 0 }
  const ranked = (group: Omit<Group, 'key' | 'at'>, at: number): Group => ({
    ...group,
    key: group.fails ? -(group.margin ?? -1) : of(group),
    at,
  })
  const count = (drives: readonly ArrayDrive[]) => {
    found.looked += drives.length
    return found.arrays++
  }
  /** A group of any kind. */
  function look(fanArray: FanArray, drives = driveChoices(fanArray, options)): Group | null {
    if (!drives.length) return null
    const group = ranked(wholeGroup(context, path, fanArray, drives, options), count(drives))
    best.add(group)
    return group
  }
  const openings = context.places[0]?.times ?? 1
  const spreads = spreadsOf(options, openings)
  const { memberOf, firstDrive, bestRank, groupOf } = alikeSearch(context, path, options)
  /** Fans alike at one place. */
  function lookAlike(model: FanModel) {
    const member = memberOf(model)
    if (!member) return
    for (const spread of spreads) {
      const at = count(member.drives)
      const low = firstDrive(member, spread)
      const forPairs = options.pairs && spread.wide * spread.deep === openings
      const isWanted = forPairs ? () => true : best.wants
      if (!isWanted(bestRank(member, spread, low, at))) continue
      const group = groupOf(member, spread, low, at, isWanted)
      if (!group) continue
      best.add(group)
      if (forPairs) singles.push(group)
    }
  }
  const sought = options.place && heldAt(shelf, options.place)
  const own = context.places.find((p) => p.place?.id === sought?.placeId)?.place ?? context.home
  const fits = shelf.models.filter((m) => passesFilter(m.fan, options.filter, own))
  for (const [i, model] of fits.entries()) {
    if (i % FANS_A_STEP === FANS_A_STEP - 1) yield
    if (sought) {
      const stay = sought.others.reduce((sum, g) => sum + g.count, 0)
      for (const n of options.counts) if (n + stay <= MOST_FANS) look(withHeld(sought, model, n, context))
    } else if (options.places) {
      // fans alike are driven alike, however many
      const drives = driveChoices(alike(model, 1, 'single'), options)
      for (const n of options.counts.filter((n) => 2 * n <= MOST_FANS)) {
        const fanArray = atBoth([model, model], n, context)
        const group = look(fanArray, drives)
        if (group && fanArray.count === 2) singles.push(group)
      }
    } else lookAlike(model)
  }
  if (options.pairs && openings === 1 && !sought) {
    const arrangements: Arrangement[] = options.places ? ['places'] : ['parallel', 'series']
    for (const fanArray of pairsOf(context, singles, arrangements)) look(fanArray)
  }
  return { groups: best.sorted(), ...found }
}
