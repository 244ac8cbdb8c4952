import { cleanLevel, loudnessRatio, maxDrop, nextToFix, reductionForTarget, sumLevels } from '#core/noise'
import {
  readingMean,
  samePlace,
  silentSource,
  stageOf,
  usualStages,
  type Reading,
  type Run,
} from '#core/document'

/** The noise ladder: sources alone and together, stage by stage, and which to fix next. docs/physics.md, noise budget (NO16 to NO20). */

export interface RankedSource {
  source: string
  /** without the background, dB(A); null where it cannot be told from it */
  level: number | null
  /** as read */
  read: number
  /** share of the stage's energy; null without a level */
  share: number | null
}
export interface RankedStage {
  stage: string
  cells: RankedSource[]
  /** sum of the sources alone, dB(A) */
  sum: number | null
  /** everything running, as read and without the background */
  whole: number | null
  wholeRead: number | null
  /** whole less sum, dB: what the sources alone do not explain, or more than they can make */
  gap: number | null
  /** source to fix next, and the most the total can fall by it, dB */
  next: string | null
  drop: number | null
  /** what the next source must lose to bring the stage to the limit, dB; null: not with this source alone (or no limit); 0 or below: met */
  wanted: number | null
  /** the room itself, everything off, dB(A); null where nobody read it */
  room: number | null
  /**
   * order in which sources are fixed, with what is left in the room if this one and all before it vanished, dB(A): down
   * to the target, or to where the room itself is what is heard
   */
  steps: { source: string; total: number | null }[]
  /** why there is no further step */
  ends: 'target' | 'room' | 'last'
}
export interface SourceRanking {
  stages: RankedStage[]
  sources: string[]
  /** stage that is loudest */ loudest: string | null
  /** readings left out because they stood at the meter's floor or background */ bounds: number
}

/**
 * Sum of sources and reading of the whole may differ by this before something is missing, dB. A phone's own doubt on
 * each; common practice, no source.
 */
export const RANKING_GAP_DB = 2

/** A level without its background: null where less than 3 dB stand above it. */
function clean(run: Run, reading: number): number | null {
  const { level, bound } = cleanLevel(reading, run.backgroundDbA, null)
  return bound ? null : level
}

function stageRanking(
  stage: string,
  readings: readonly { run: Run; r: Reading }[],
  limit: number | null,
): RankedStage {
  const alone = new Map<string, { level: number | null; read: number }>()
  for (const { run, r } of readings)
    if (r.source && silentSource(r) === null)
      alone.set(r.source, { level: clean(run, readingMean(r)), read: readingMean(r) })
  const whole = readings.find((x) => !x.r.source)
  // everything with and without one tells that one, as a background is taken off
  for (const { r } of readings) {
    const silent = silentSource(r)
    if (silent === null || !whole || [...alone.keys()].some((s) => samePlace(s, silent))) continue
    const { level, bound } = cleanLevel(readingMean(whole.r), readingMean(r), null)
    alone.set(silent, { level: bound ? null : level, read: readingMean(whole.r) })
  }
  const rooms = readings.flatMap(({ run }) => run.backgroundDbA ?? [])
  const room = rooms.length ? Math.min(...rooms) : null
  const wholeRead = whole ? readingMean(whole.r) : null
  const wholeLevel = whole ? clean(whole.run, wholeRead!) : null
  const known = [...alone].filter((e): e is [string, { level: number; read: number }] => e[1].level !== null)
  const levels = known.map(([, c]) => c.level)
  const sum = sumLevels(levels)
  const energy = sum === null ? null : 10 ** (sum / 10)
  const worst = nextToFix(levels)
  const order = known.toSorted((a, b) => b[1].level - a[1].level)
  return {
    stage,
    sum,
    whole: wholeLevel,
    wholeRead,
    gap: sum === null || wholeLevel === null ? null : wholeLevel - sum,
    cells: [...alone].map(([source, c]) => ({
      source,
      ...c,
      share: c.level === null || energy === null ? null : 10 ** (c.level / 10) / energy,
    })),
    next: known[worst]?.[0] ?? null,
    drop: worst < 0 ? null : maxDrop(levels),
    wanted: limit === null || worst < 0 ? null : reductionForTarget(levels, worst, limit),
    room,
    ...descent(
      order.map(([source, { level }]) => ({ source, level })),
      room,
      limit,
    ),
  }
}

/**
 * Which source is fixed first and what is left then, until the target is met or the room itself is louder than what is
 * left.
 * @param order the loudest first
 */
function descent(
  order: readonly { source: string; level: number }[],
  room: number | null,
  limit: number | null,
): Pick<RankedStage, 'steps' | 'ends'> {
  const steps: RankedStage['steps'] = []
  for (let i = 0; ; i++) {
    const rest = sumLevels(order.slice(i).map((s) => s.level))
    const heard = sumLevels([rest, room].filter((l) => l !== null))
    if (limit !== null && heard !== null && heard <= limit) return { steps, ends: 'target' }
    if (room !== null && (rest === null || rest <= room)) return { steps, ends: 'room' }
    const next = order[i]
    if (!next) return { steps, ends: 'last' }
    const left = [sumLevels(order.slice(i + 1).map((s) => s.level)), room].filter((l) => l !== null)
    steps.push({ source: next.source, total: sumLevels(left) })
  }
}

/**
 * The ladder of a state's runs at one place.
 * @param runs of one state @param place where the microphone stood; '' takes all places together
 * @param limit target, dB(A); null for none
 */
export function rankNoiseSources(runs: readonly Run[], place: string, limit: number | null): SourceRanking {
  const all = runs.flatMap((run) =>
    run.readings
      .filter((r) => r.quantity === 'level' && (!place || samePlace(r.place, place)))
      .map((r) => ({ run, r })),
  )
  const order = (stage: string) => (usualStages as readonly string[]).indexOf(stage)
  const stages = [...new Set(all.map((x) => stageOf(x.run, x.r)))]
    .toSorted((a, b) => order(a) - order(b))
    .map((stage) =>
      stageRanking(
        stage,
        all.filter((x) => stageOf(x.run, x.r) === stage),
        limit,
      ),
    )
  const totals = stages.map((s) => s.whole ?? s.sum ?? -Infinity)
  return {
    stages,
    sources: [...new Set(stages.flatMap((s) => s.cells.map((c) => c.source)))],
    bounds: stages.reduce((n, s) => n + s.cells.filter((c) => c.level === null).length, 0),
    loudest:
      totals.length && Math.max(...totals) > -Infinity
        ? stages[totals.indexOf(Math.max(...totals))]!.stage
        : null,
  }
}

/** One rung of the chart of upgrades: a state's loudest reading and how it sounds against the first one. */
export interface Rung {
  name: string
  level: number
  stage: string
  /** loudness against the first rung */ ratio: number
  upperBound: boolean
}
/** Level of the whole machine, state by state, at one place. */
export function upgradeRungs(states: readonly { name: string; runs: readonly Run[] }[], place: string): Rung[] {
  const rungs: Rung[] = []
  for (const state of states) {
    const levels = state.runs.flatMap((run) =>
      run.readings
        .filter((r) => r.quantity === 'level' && !r.source && (!place || samePlace(r.place, place)))
        .map((r) => {
          const read = readingMean(r)
          const level = clean(run, read)
          return { level: level ?? read, upperBound: level === null, stage: stageOf(run, r) }
        }),
    )
    const loudest = levels.toSorted((a, b) => b.level - a.level)[0]
    if (loudest)
      rungs.push({
        ...loudest,
        name: state.name,
        ratio: loudnessRatio(loudest.level - (rungs[0]?.level ?? loudest.level)),
      })
  }
  return rungs
}

/**
 * What levels are like, A-weighted. Common practice, no source (docs/physics.md, plain ladder; 30 dB(A) after WHO
 * guidance, from memory).
 */
export const everydayLevels: readonly { level: number; like: string }[] = [
  { level: 10, like: 'own breath at arm’s length' },
  { level: 20, like: 'very quiet night room' },
  { level: 30, like: 'whisper across a room' },
  { level: 35, like: 'refrigerator in the next room' },
  { level: 40, like: 'quiet office' },
  { level: 50, like: 'quiet talk, rain' },
  { level: 60, like: 'conversation at 1 m' },
  { level: 70, like: 'vacuum cleaner at 3 m' },
  { level: 80, like: 'kitchen mixer at 0.5 m' },
]
