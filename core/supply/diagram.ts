import { PICK } from './feed-build'
import type { Sentence } from '#core/units'
import { sourceFuse, type StreamPlan } from '#core/document'
import type { FeedNodeReport } from './feed-node'
import type { FeedReport } from './feed-tree'
import { feedProblemText, isLeadProblem, type FeedProblem } from './feed-problems'
import { signalsOf } from './signals'
import { fanPins, type PinRow } from './wiring'

/** The wiring as a graph to be laid out: what stands in each box, what each lead is labelled with. Drawn from the plan alone. */

export interface DiagramNode {
  id: string
  kind: FeedNodeReport['kind']
  title: string
  lines: Sentence[]
  pins: PinRow[]
  state: 'stop' | 'fix' | 'ok'
  /** the gravest thing that is wrong here */
  warning: string
  /** share of what it can give, 0..1 and above; null where that is not known */
  share: number | null
}
export interface DiagramEdge {
  id: string
  from: string
  to: string
  label: Sentence
  state: 'stop' | 'fix' | 'ok'
  /** PWM, tach and ground only: nothing is fed through it */
  signal: boolean
}
export interface Diagram {
  nodes: DiagramNode[]
  edges: DiagramEdge[]
}

const v = (value: number) => ({ value, quantity: 'voltage' as const })
const t = (value: number) => ({ value, quantity: 'temperature' as const })
const a = (value: number) => ({ value, quantity: 'current' as const })

function linesOf(node: FeedNodeReport, plan: StreamPlan): Sentence[] {
  const lines: Sentence[] = []
  const amps = node.inA
  if (node.kind === 'source') {
    lines.push([v(node.outV), plan.sources.find((s) => s.id === node.id)?.output === 'ac' ? ' AC' : ' DC'])
    const fuseA = sourceFuse(plan.sources.find((s) => s.id === node.id)!)
    lines.push([
      ...(node.limitA === null ? ['its current is not known'] : ['gives ', a(node.limitA)]),
      ...(fuseA === null ? [] : [', fuse ', a(fuseA)]),
    ])
    lines.push(
      node.outA === null
        ? ['draw not known']
        : ['drawn ', a(node.outA), ...(node.startA === null ? [] : [', start ', a(node.startA)])],
    )
  } else if (node.kind === 'converter') {
    lines.push([
      v(node.inV),
      ' → ',
      v(node.outV),
      ...(node.ohm ? [`, ${Number(node.ohm.toPrecision(3))} Ω`] : []),
    ])
    if (amps !== null) lines.push(['in ', a(amps), ', out ', a(node.outA ?? 0)])
    lines.push(['heat ', { value: node.heatW, quantity: 'power' }])
  } else if (node.kind === 'switch') {
    const part = plan.feed.find((p) => p.id === node.id)
    lines.push([node.what])
    if (part?.onC != null)
      lines.push(['closes at ', t(part.onC), ...(part.offC === null ? [] : [', opens at ', t(part.offC)])])
    lines.push([v(node.outV), ...(node.outA === null ? [] : [' · ', a(node.outA)])])
  } else if (node.kind === 'branch') {
    lines.push([v(node.outV)])
    if (node.outA !== null)
      lines.push([a(node.outA), ...(node.startA === null ? [] : [', starting ', a(node.startA)])])
  } else {
    lines.push([v(node.inV), ...(amps === null ? [', current not known'] : [' · ', a(amps)])])
    if (node.what && (node.kind === 'load' || node.what !== PICK)) lines.push([node.what])
    if (node.startA !== null && amps !== null && node.startA > 1.05 * amps)
      lines.push(['starting ', a(node.startA)])
  }
  return lines
}

const stateOf = (problems: readonly FeedProblem[]): DiagramNode['state'] =>
  problems.some((p) => p.severity === 'stop') ? 'stop' : problems.length ? 'fix' : 'ok'
/** The first stop, else the first thing to fix, in words. */
function warningOf(problems: readonly FeedProblem[]): string {
  const worst = problems.find((p) => p.severity === 'stop') ?? problems[0]
  return worst ? feedProblemText(worst) : ''
}

/** The diagram of a plan's feed. Without a source there is none. */
export function diagramOf(plan: StreamPlan, feed: FeedReport): Diagram {
  return {
    nodes: feed.nodes.map((n) => ({
      id: n.id,
      kind: n.kind,
      title: n.name,
      lines: linesOf(n, plan),
      pins: fanPins(plan, feed, n),
      state: stateOf(n.problems),
      share: n.utilisation,
      warning: warningOf(n.problems),
    })),
    edges: [...feedEdges(feed), ...signalEdges(plan, feed)],
  }
}

/** The leads from every node to what hangs on it. */
const feedEdges = (feed: FeedReport): DiagramEdge[] =>
  feed.nodes
    .filter((n) => n.parentId !== null)
    .map((n) => {
      const { lead } = n
      const parts: Sentence[] = []
      if (lead?.lengthM) parts.push([{ value: lead.lengthM, quantity: 'distance' }])
      if (lead?.awg) parts.push([`${lead.awg} AWG`])
      if (lead?.fuseA) parts.push(['fuse ', a(lead.fuseA)])
      return {
        id: `${n.parentId}-${n.id}`,
        from: n.parentId!,
        to: n.id,
        label: parts.flatMap((p, i) => (i ? [' · ', ...p] : p)),
        state: stateOf(n.problems.filter(isLeadProblem)),
        signal: false,
      }
    })

/** From a header that only steers to the fans it steers. */
function signalEdges(plan: StreamPlan, feed: FeedReport): DiagramEdge[] {
  const { pwmFrom, tachTo } = plan.wiring
  return feed.nodes.flatMap((node): DiagramEdge[] => {
    if (!node.fans) return []
    const { header, apart } = signalsOf(plan, feed, node)
    if (!header || !apart || !feed.nodes.some((n) => n.id === header.id)) return []
    const wires = [pwmFrom === 'host' ? 'PWM' : '', tachTo === 'host' ? '1 tach' : '', 'ground']
    return [
      {
        id: `${header.id}~${node.id}`,
        from: header.id,
        to: node.id,
        label: [wires.filter(Boolean).join(', ')],
        state: 'ok',
        signal: true,
      },
    ]
  })
}
