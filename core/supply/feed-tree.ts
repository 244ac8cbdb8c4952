import {
  headroomVerdict,
  longestWire,
  METERED_TOLERANCE,
  SETTING_TOLERANCE,
  solveFeed,
  usbVoltages,
  utilisation as utilisationOf,
} from '#core/power'
import type { FeedConvert, FeedNode, FeedSolution, FeedState, SupplyKind } from '#core/power'
import { sourceFuse, type Fan, type StreamPlan, type Source } from '#core/document'
import { buildFeed, DIODE_LIGHT, nameApart } from './feed-build'
import type { BuiltNode, FeedNodeReport, LeadReport, StreamFans } from './feed-node'
import { DROP_LIMIT, problemsOf, type FeedProblem } from './feed-problems'
import { windowOf, type Emf, type SourceWindow } from './source-window'

/** The whole feed, solved. */
export interface FeedReport {
  nodes: FeedNodeReport[]
  settled: boolean
}
/** Where the fans of the stream in front hang; undefined where nothing feeds them. */
export const fansNodeOf = (plan: StreamPlan, { nodes }: FeedReport): FeedNodeReport | undefined =>
  nodes.find((n) => n.fans?.stream === plan.stream)

/**
 * Highest voltage that can reach a node's terminals: the source's highest, nothing drawn, settings at their upper end,
 * chopped supplies at their peak.
 */
function highest(nodes: readonly BuiltNode[], sourceHighV: number): Float64Array {
  const high = new Float64Array(nodes.length)
  nodes.forEach((node, i) => {
    const { parent, convert } = node
    const above = parent < 0 ? sourceHighV : high[parent]!
    if (!convert) high[i] = above
    else if (sets(node)) high[i] = convert.outV * (1 + settingOff(node))
    else if (convert.kind === 'divider') high[i] = (above * convert.ohm2) / (convert.ohm + convert.ohm2)
    // what a fan always draws is enough for most of a diode's drop
    else if (convert.kind === 'diode') high[i] = above - convert.diodes * DIODE_LIGHT * convert.diodeV
    // a resistor drops nothing while nothing flows, a chopped supply keeps its peak
    else high[i] = above
  })
  return high
}

/** Sources whose voltage climbs over its nominal one whatever the label says: charging, full cells, sun without a load. */
const climbing: SupplyKind[] = ['vehicle', 'house-battery', 'pack', 'solar']
/** Whether the highest voltage of each node is more than a usual tolerance: no converter sets it, and its source states it or climbs. */
function firmHighs(nodes: readonly BuiltNode[], { highV, openV, kind }: Source): boolean[] {
  const stated = highV !== null || openV !== null || climbing.includes(kind)
  const firm: boolean[] = []
  for (const { parent } of nodes) firm.push(stated && (parent < 0 || (firm[parent]! && !sets(nodes[parent]!))))
  return firm
}
/** Sources that empty: the lowest voltage is in their nature. */
const emptying: SupplyKind[] = ['house-battery', 'pack', 'power-bank']
const sets = ({ convert }: BuiltNode) =>
  convert !== null && (convert.kind === 'buck' || convert.kind === 'linear' || convert.kind === 'boost')

/** Share that a set output may be off: little where it was measured. */
const settingOff = ({ metered }: BuiltNode) => (metered ? METERED_TOLERANCE : SETTING_TOLERANCE)
/** The nodes with every setting off to one side. */
const withSettings = (nodes: readonly BuiltNode[], side: 1 | -1): BuiltNode[] =>
  nodes.map((n) =>
    sets(n) ? { ...n, convert: { ...n.convert!, outV: n.convert!.outV * (1 + side * settingOff(n)) } } : n,
  )

/** What a source loses on its own, as the solver knows it. */
const windings = (ohm: number): FeedConvert => ({
  kind: 'resistor',
  ohm,
  outV: 0,
  dropoutV: 0,
  efficiency: 1,
  ohm2: 1e9,
  diodes: 0,
  diodeV: 0,
  duty: 1,
})
/** The feed of a source that gives less the more is drawn; at its terminals it has what is left. */
export function solveFrom(nodes: readonly FeedNode[], { volts, ohm }: Emf): FeedSolution {
  if (ohm === 0) return solveFeed(nodes, volts)
  const [source, ...others] = nodes
  const solved = solveFeed([{ ...source!, convert: windings(ohm) }, ...others], volts)
  const [first] = solved.states
  Object.assign(first!, { inV: first!.outV, heatW: 0 })
  return solved
}

/** A lead as solved: what it loses, and how long it may be. */
function solvedLead(lead: LeadReport, state: FeedState, aboveV: number): LeadReport {
  return {
    ...lead,
    dropV: state.wireDropV,
    lossW: state.wireDropV * state.inA,
    longestM:
      lead.ohmPerM !== null && state.inA > 0 ? longestWire(DROP_LIMIT * aboveV, lead.ohmPerM, state.inA) : null,
  }
}

/** What a node sees over the whole window of its source. */
interface SolvedWindow {
  lowV: number
  highV: number
  highFirm: boolean
  lowFirm: boolean
  highRunV: number
  runs: { low: number; high: number }
  aboveV: number
  worstInA: number
  worstOutA: number
}

/** A node as solved at nominal voltage, with its window and its current at the start. */
function solvedNode(node: BuiltNode, state: FeedState, window: SolvedWindow, startA: number): FeedNodeReport {
  const { stated, known } = node
  const gives = stated.kind === 'source' || stated.kind === 'converter'
  const outA = gives || stated.kind === 'branch' || stated.kind === 'switch' ? state.outA : null
  const utilisation = gives && outA !== null ? utilisationOf([1], [window.worstOutA], stated.limitA ?? 0) : null
  const solved = {
    ...stated,
    fans: stated.fans ?? null,
    lead: stated.lead && solvedLead(stated.lead, state, window.aboveV),
    limits: { maxV: node.maxV, startV: node.startV, minV: node.minV, assumed: node.assumed },
    aboveV: window.aboveV,
    inV: state.inV,
    outV: state.outV,
    lowV: window.lowV,
    highV: window.highV,
    highFirm: window.highFirm,
    lowFirm: window.lowFirm,
    highRunV: window.highRunV,
    runs: window.runs,
    worstA: known ? window.worstInA : null,
    worstOutA: outA === null ? null : window.worstOutA,
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

/** What is wrong at the source itself: nothing to run at, a voltage that its port does not offer, a fuse for all it feeds. */
function sourceProblems(source: Source, { worstA }: FeedNodeReport, settled: boolean): FeedProblem[] {
  const problems: FeedProblem[] = []
  if (!settled) problems.push({ severity: 'stop', code: 'not-settled' })
  if (source.kind === 'usb' && source.nominalV !== null) {
    const offered = usbVoltages(source.usbKind ?? 'usb2-configured')
    if (!offered.some((v) => Math.abs(v - source.nominalV!) < 0.1 * v))
      problems.push({ severity: 'stop', code: 'contract-lacks' })
  }
  const fuseA = sourceFuse(source)
  if (fuseA !== null && worstA !== null && worstA > fuseA)
    problems.push({ severity: 'fix', code: 'fuse-small' })
  return problems
}

/** One source with all that hangs on it. */
function treeOf(source: Source, nodes: readonly BuiltNode[], window: SourceWindow): FeedReport {
  const { emf, highV } = window
  const normal = solveFrom(nodes, emf.nominal)
  const low = solveFrom(nodes, emf.low)
  const top = solveFrom(nodes, emf.high)
  // most feeds have nothing that is set
  const set = nodes.some(sets)
  const least = set ? solveFrom(withSettings(nodes, -1), emf.low) : low
  const most = set ? solveFrom(withSettings(nodes, 1), emf.high) : top
  // at the start everything draws its start current at the voltage it has running
  const starting = solveFrom(
    nodes.map((n, i) => (n.current ? { ...n, ohm: 0, current: () => n.start(normal.states[i]!.inV) } : n)),
    emf.nominal,
  )
  const high = highest(nodes, highV)
  const firm = firmHighs(nodes, source)
  const solutions = [normal, low, top].filter((s) => s.settled)
  const worst = (i: number, key: 'inA' | 'outA') =>
    Math.max(normal.states[i]![key], ...solutions.map((s) => s.states[i]![key]))
  return {
    settled: normal.settled,
    nodes: nodes.map((node, i) => {
      const aboveV = node.parent < 0 ? normal.states[0]!.inV : normal.states[node.parent]!.outV
      const seen = {
        lowV: low.states[i]!.inV,
        highV: high[i]!,
        highFirm: firm[i]!,
        lowFirm: source.lowV !== null || emptying.includes(source.kind),
        highRunV: top.states[i]!.inV,
        runs: { low: least.states[i]!.inV, high: most.states[i]!.inV },
        aboveV,
        worstInA: worst(i, 'inA'),
        worstOutA: worst(i, 'outA'),
      }
      const report = solvedNode(node, normal.states[i]!, seen, starting.states[i]!.inA)
      if (i === 0) report.problems.push(...sourceProblems(source, report, normal.settled))
      return report
    }),
  }
}

/**
 * The whole feed: every node's voltage window, currents running and at the start, power, heat and head-room; the first
 * source with what hangs on it, then each further one.
 * @param streams the fans of every air stream that has some
 * @returns no nodes where there is no source
 */
export function feedOf(plan: StreamPlan, streams: readonly StreamFans[], fans: readonly Fan[]): FeedReport {
  const built = plan.sources.flatMap((source) => {
    const nodes = buildFeed(plan, source, streams, fans)
    const window = windowOf(plan, source)
    return window && nodes.length ? [{ source, nodes, window }] : []
  })
  nameApart(built.flatMap((b) => b.nodes))
  const trees = built.map((b) => treeOf(b.source, b.nodes, b.window))
  return { nodes: trees.flatMap((t) => t.nodes), settled: trees.every((t) => t.settled) }
}

/** The source that a node hangs on. */
export function rootOf({ nodes }: FeedReport, node: FeedNodeReport): FeedNodeReport {
  const parent = nodes.find((n) => n.id === node.parentId)
  return parent ? rootOf({ nodes, settled: true }, parent) : node
}
