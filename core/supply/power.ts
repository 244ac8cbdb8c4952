import { headroomVerdict, utilisation as utilisationOf } from '#core/power'
import type { Fan, PlanDocument } from '#core/document'
import { feedOf, type FeedReport } from './feed-tree'
import type { FanArray } from '#core/system'

/** What the feed gives and draws, in numbers. */
export interface PowerState {
  /** lowest, planned and highest voltage at the fan's terminals, V; null without a source or pick */
  fanLowV: number | null
  fanV: number | null
  fanHighV: number | null
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

/**
 * From the source to the fan: voltages at the terminals, currents, wire drop, head-room, and the whole feed as a tree.
 * Without a source the fan is taken at its picked drive voltage.
 */
export function powerOf(plan: PlanDocument, fanArray: FanArray | null, fans: readonly Fan[] = []): PowerState {
  const { source, converter, selection } = plan
  const feed = feedOf(plan, fanArray, fans)
  const [root] = feed.nodes
  if (!root || !source) return { ...none, feed, fanV: selection && fanArray ? selection.driveV : null }
  const at = feed.nodes.find((n) => n.id === selection?.id && n.kind === 'selection') ?? null
  const conv = converter ? (feed.nodes.find((n) => n.id === converter.id) ?? null) : null
  const known = feed.nodes.every((n) => n.kind !== 'selection' || n.inA !== null)
  // what hangs behind a resistor of unknown ohms has no voltage that could be told
  const told = known && (conv === null || conv.inA !== null)
  const loadRunA = known ? root.outA : null
  const loadStartA = known ? root.startA : null
  const loadWorstA = known ? root.worstA : null
  const utilisation = loadWorstA === null ? null : utilisationOf([1], [loadWorstA], source.iMaxA ?? 0)
  if (!at)
    return {
      ...none,
      feed,
      loadRunA,
      loadWorstA,
      loadStartA,
      utilisation,
      headroom: utilisation === null ? null : headroomVerdict(utilisation),
    }
  const fanRunA = at.inA
  const out = conv?.outV ?? root.outV
  const ohm = at.lead?.ohm ?? 0
  const drop = fanRunA === null || !ohm ? null : at.lead!.dropV
  return {
    fanLowV: told ? at.lowV : null,
    // a feed that finds no voltage gives none
    fanV: !told ? (selection?.driveV ?? null) : feed.settled ? at.inV : 0,
    fanHighV: told ? at.highV : null,
    runs: told ? feed.settled && !at.problems.some((p) => p.code === 'does-not-run') : null,
    feedV: out,
    fanRunA,
    fanStartA: at.startA,
    wireDropV: drop,
    wireAmpacityA: at.lead?.ampacityA ?? null,
    loadRunA,
    loadWorstA,
    loadStartA,
    converterOutA: conv && fanRunA !== null ? conv.outA : null,
    utilisation,
    headroom: utilisation === null ? null : headroomVerdict(utilisation),
    feed,
  }
}
