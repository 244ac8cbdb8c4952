import { evaluateCandidate, type Candidate } from './candidate'
import type { SelectionContext } from './context'
import { defaultRank, type RankOptions } from './options'
import { scoreOf, type Order, type Scored } from './score'
import { searchSteps, type ModelShelf } from './search'
import { tabled } from '#core/system'

export interface Ranking {
  rows: Candidate[]
  /** groups looked at, of which `rows` are computed in full */
  arrays: number
  /** fans that could not be computed, with the reason */
  skipped: ModelShelf['skipped']
  /** how many combinations of group and drive stand behind it */
  looked: number
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
const scoredOf = (c: Candidate): Scored => ({ ...c, level: c.level?.exact ?? null })

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

/** Candidates computed in full between two moments at which other work may go on. */
const ROWS_A_STEP = 8

/**
 * Ranks a shelf on a job: every fan, count and arrangement at the drive that suits the objective. All groups are looked
 * at; the best `rows` of them are computed in full, with ranges and reasons. Yields now and then, so that other work may
 * go on in between.
 */
export function* rankSteps(
  given: SelectionContext,
  shelf: ModelShelf,
  options: RankOptions = defaultRank,
): Generator<void, Ranking> {
  const context = { ...given, solver: tabled(given.solver) }
  const { groups, arrays, looked } = yield* searchSteps(context, shelf, options)
  const rows: Candidate[] = []
  for (const { fanArray, drive } of groups) {
    rows.push(evaluateCandidate(context, fanArray, drive))
    if (rows.length % ROWS_A_STEP === 0) yield
  }
  rows.sort(compareCandidates(options))
  return { rows, arrays, skipped: shelf.skipped, looked }
}
