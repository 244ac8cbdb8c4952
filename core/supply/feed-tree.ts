import {
  awgArea,
  copperResistance,
  headroomVerdict,
  longestWire,
  SETTING_TOLERANCE,
  solveFeed,
  utilisation as utilisationOf,
  type FeedState,
} from '#core/power'
import type { Fan, PlanDocument } from '#core/document'
import type { FanArray } from '#core/system'
import { buildFeed } from './feed-build'
import type { BuiltNode, FeedNodeReport, LeadReport } from './feed-node'
import { DROP_LIMIT, problemsOf } from './feed-problems'

/** The whole feed, solved. */
export interface FeedReport {
  nodes: FeedNodeReport[]
  settled: boolean
}

/**
 * Highest voltage that can reach a node's terminals: the source's highest, nothing drawn, settings at their upper end,
 * chopped supplies at their peak.
 */
function highest(nodes: readonly BuiltNode[], sourceHighV: number): Float64Array {
  const high = new Float64Array(nodes.length)
  nodes.forEach(({ parent, convert }, i) => {
    const above = parent < 0 ? sourceHighV : high[parent]!
    if (!convert) high[i] = above
    else if (convert.kind === 'buck' || convert.kind === 'linear' || convert.kind === 'boost')
      high[i] = convert.outV * (1 + SETTING_TOLERANCE)
    else if (convert.kind === 'divider') high[i] = (above * convert.ohm2) / (convert.ohm + convert.ohm2)
    // a resistor drops nothing while nothing flows, a chopped supply keeps its peak
    else high[i] = above
  })
  return high
}

/** A lead as solved: what it loses, and how long it may be. */
function solvedLead(lead: LeadReport, state: FeedState, aboveV: number): LeadReport {
  const perM = lead.awg ? copperResistance(awgArea(lead.awg)) : null
  return {
    ...lead,
    dropV: state.wireDropV,
    lossW: state.wireDropV * state.inA,
    longestM: perM !== null && state.inA > 0 ? longestWire(DROP_LIMIT * aboveV, perM, state.inA) : null,
  }
}

/** A node as solved at nominal voltage, with its window and its current at the start. */
function solvedNode(
  node: BuiltNode,
  state: FeedState,
  window: { lowV: number; highV: number; aboveV: number },
  startA: number,
): FeedNodeReport {
  const { stated, known } = node
  const gives = stated.kind === 'source' || stated.kind === 'converter'
  const outA = gives || stated.kind === 'branch' ? state.outA : null
  const utilisation = gives && outA !== null ? utilisationOf([1], [outA], stated.limitA ?? 0) : null
  const solved = {
    ...stated,
    lead: stated.lead && solvedLead(stated.lead, state, window.aboveV),
    inV: state.inV,
    outV: state.outV,
    lowV: window.lowV,
    highV: window.highV,
    inA: known ? state.inA : null,
    outA,
    startA: known ? startA : null,
    powerW: known ? state.inV * state.inA : null,
    heatW: state.heatW,
    efficiency: node.convert && state.inA > 0 ? (state.outV * state.outA) / (state.inV * state.inA) : null,
    utilisation,
    headroom: utilisation === null ? null : headroomVerdict(utilisation),
    dropout: state.dropout,
  }
  return Object.assign(solved, { problems: problemsOf(node, state, solved, window.aboveV) })
}

/**
 * The whole feed: every node's voltage window, currents running and at the start, power, heat and head-room.
 * @returns no nodes where there is no source
 */
export function feedOf(plan: PlanDocument, fanArray: FanArray | null, fans: readonly Fan[]): FeedReport {
  const nodes = buildFeed(plan, fanArray, fans)
  const nominalV = plan.source?.nominalV ?? null
  if (!plan.source || nominalV === null || !nodes.length) return { nodes: [], settled: true }
  const { lowV, highV } = plan.source
  const normal = solveFeed(nodes, nominalV)
  const low = solveFeed(nodes, lowV ?? nominalV)
  // at the start everything draws its start current at the voltage it has running
  const starting = solveFeed(
    nodes.map((n, i) => (n.current ? { ...n, ohm: 0, current: () => n.start(normal.states[i]!.inV) } : n)),
    nominalV,
  )
  const high = highest(nodes, highV ?? nominalV)
  return {
    settled: normal.settled,
    nodes: nodes.map((node, i) => {
      const aboveV = node.parent < 0 ? nominalV : normal.states[node.parent]!.outV
      const window = { lowV: low.states[i]!.inV, highV: high[i]!, aboveV }
      return solvedNode(node, normal.states[i]!, window, starting.states[i]!.inA)
    }),
  }
}
