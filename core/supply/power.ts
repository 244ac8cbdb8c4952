import { headroomVerdict, utilisation as utilisationOf } from '#core/power'
import { converterOf, sourceOf, type Source, type StreamPlan } from '#core/document'
import type { FeedNodeReport } from './feed-node'
import { fansNodeOf, rootOf, type FeedReport } from './feed-tree'

/** What the feed gives and draws, in numbers. */
export interface PowerState {
  /** lowest running, planned and highest voltage at the fan's terminals, loaded or not, V; null without a source or pick */
  fanLowV: number | null
  fanV: number | null
  fanHighV: number | null
  /** between what the running voltage there lies, V */
  fanRuns: { low: number; high: number } | null
  /** what leaves the converter, or the source when there is none */
  feedV: number | null
  fanRunA: number | null
  fanStartA: number | null
  wireDropV: number | null
  wireAmpacityA: number | null
  loadRunA: number | null
  /** largest over the source's window, A */
  loadWorstA: number | null
  /** the selected fans turn with what reaches them; null without a source, or where that is not known */
  runs: boolean | null
  loadStartA: number | null
  /** current out of the converter, A */
  converterOutA: number | null
  utilisation: number | null
  headroom: 'ok' | 'fix' | 'stop' | null
  /** the whole tree */
  feed: FeedReport
}

const none: PowerState = {
  fanLowV: null,
  fanV: null,
  fanHighV: null,
  fanRuns: null,
  feedV: null,
  fanRunA: null,
  fanStartA: null,
  wireDropV: null,
  wireAmpacityA: null,
  loadRunA: null,
  loadWorstA: null,
  runs: null,
  loadStartA: null,
  converterOutA: null,
  utilisation: null,
  headroom: null,
  feed: { nodes: [], settled: true },
}

/** The converter that is nearest above the stream's fans, as computed; null without one. */
export const converterAbove = (plan: StreamPlan, { nodes }: FeedReport): FeedNodeReport | null => {
  const id = converterOf(plan)?.id
  return nodes.find((n) => n.id === id) ?? null
}

/**
 * From the source to the fans of the stream in front: voltages at the terminals, currents, wire drop, head-room, and the
 * whole feed as a tree. Without a source the fans are taken at their picked drive voltage.
 * @param driveV what the fans of the stream in front are planned to be driven at, V; null for none that can be computed
 * @param feed the whole feed with the fans of every stream
 */
export function powerOf(plan: StreamPlan, driveV: number | null, feed: FeedReport): PowerState {
  const source = sourceOf(plan)
  const at = fansNodeOf(plan, feed) ?? null
  const root = feed.nodes.find((n) => n.id === source?.id) ?? null
  const loads = loadsOf(feed, source)
  if (!at) return { ...none, ...loads, feed, fanV: root ? null : driveV }
  const conv = converterAbove(plan, feed)
  // what hangs behind a resistor of unknown ohms has no voltage that could be told
  const told = at.inA !== null && (conv === null || conv.inA !== null)
  const fanRunA = at.inA
  const ohm = at.lead?.ohm ?? 0
  const settled = !rootOf(feed, at).problems.some((p) => p.code === 'not-settled')
  return {
    fanLowV: told ? at.lowV : null,
    // a feed that finds no voltage gives none
    fanV: !told ? driveV : settled ? at.inV : 0,
    fanHighV: told ? at.highV : null,
    fanRuns: told ? at.runs : null,
    runs: told ? settled && !at.problems.some((p) => p.code === 'does-not-run') : null,
    feedV: at.aboveV,
    fanRunA,
    fanStartA: at.startA,
    wireDropV: fanRunA === null || !ohm ? null : at.lead!.dropV,
    wireAmpacityA: at.lead?.ampacityA ?? null,
    ...loads,
    converterOutA: conv && fanRunA !== null ? conv.outA : null,
    feed,
  }
}

/** What hangs on a source takes from it. */
export function loadsOf(feed: FeedReport, source: Source | null) {
  const root = feed.nodes.find((n) => n.id === source?.id) ?? null
  const mine = root ? feed.nodes.filter((n) => rootOf(feed, n) === root) : []
  const known = root !== null && mine.every((n) => n.kind !== 'selection' || n.inA !== null)
  const loadWorstA = known ? root.worstA : null
  const utilisation = loadWorstA === null ? null : utilisationOf([1], [loadWorstA], source?.iMaxA ?? 0)
  return {
    loadRunA: known ? root.outA : null,
    loadWorstA,
    loadStartA: known ? root.startA : null,
    utilisation,
    headroom: utilisation === null ? null : headroomVerdict(utilisation),
  }
}
