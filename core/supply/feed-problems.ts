import type { FeedState } from '#core/power'
import type { BuiltNode, FeedNodeReport } from './feed-node'

/** Share of the voltage a lead may lose before it should be mended. Common practice, no source. */
export const DROP_LIMIT = 0.05
/** Share of what a source or converter can give that is used without a word. Common practice, no source. */
const USED_LIMIT = 0.8

/** What can be wrong with a node of the feed, each code with the values it speaks of, V. */
export type FeedProblem = { severity: 'stop' | 'fix' } & (
  | { code: 'over-voltage'; values: { highV: number; maxV: number } }
  | { code: 'no-start'; values: { lowV: number; startV: number } }
  | {
      code:
        | 'current-unknown'
        | 'input-low'
        | 'unset'
        | 'overloaded'
        | 'used-up'
        | 'wire-thin'
        | 'wire-drop'
        | 'fuse-large'
        | 'fuse-small'
    }
)

type Code = FeedProblem['code']
/** Problems that are the lead's, not the node's. */
const ofLead: Code[] = ['wire-thin', 'wire-drop', 'fuse-large', 'fuse-small']
/** Whether a problem is the lead’s and not the node’s. */
export const isLeadProblem = ({ code }: FeedProblem) => ofLead.includes(code)

const plainWords: Record<Exclude<Code, 'over-voltage' | 'no-start'>, string> = {
  'current-unknown': 'its current is not known: not in the sums',
  'input-low': 'input too low for its output',
  unset: 'set it before connecting',
  overloaded: 'overloaded',
  'used-up': 'more than 80 % of what it gives',
  'wire-thin': 'more current than its wire carries',
  'wire-drop': 'its wire loses more than 5 %',
  'fuse-large': 'its fuse lets more through than its wire carries',
  'fuse-small': 'its fuse is smaller than its current',
}
/** A problem in words: the one place where it is worded. */
export function feedProblemText(problem: FeedProblem): string {
  if (problem.code === 'over-voltage')
    return `up to ${problem.values.highV.toFixed(1)} V on a fan for ${problem.values.maxV.toFixed(1)} V`
  if (problem.code === 'no-start')
    return `down to ${problem.values.lowV.toFixed(1)} V, starts at ${problem.values.startV.toFixed(1)} V`
  return plainWords[problem.code]
}

type Solved = Pick<FeedNodeReport, 'utilisation' | 'lowV' | 'highV' | 'lead'>

/**
 * What is wrong with a node.
 * @param state as solved at nominal voltage
 * @param aboveV voltage that the node above hands on, V
 */
export function problemsOf(node: BuiltNode, state: FeedState, solved: Solved, aboveV: number): FeedProblem[] {
  const { lowV, highV, utilisation, lead } = solved
  const problems: FeedProblem[] = []
  const stop = (code: keyof typeof plainWords) => problems.push({ severity: 'stop', code })
  const fix = (code: keyof typeof plainWords) => problems.push({ severity: 'fix', code })
  if (node.maxV !== null && highV > node.maxV * 1.0001)
    problems.push({ severity: 'stop', code: 'over-voltage', values: { highV, maxV: node.maxV } })
  if (node.startV !== null && lowV < node.startV)
    problems.push({ severity: 'stop', code: 'no-start', values: { lowV, startV: node.startV } })
  if (!node.known) fix('current-unknown')
  if (state.dropout) fix('input-low')
  if (node.adjustableUnset) stop('unset')
  if (utilisation !== null && utilisation > 1) stop('overloaded')
  else if (utilisation !== null && utilisation > USED_LIMIT) fix('used-up')
  if (lead?.ampacityA && state.inA > lead.ampacityA) stop('wire-thin')
  if (lead && aboveV > 0 && lead.dropV > DROP_LIMIT * aboveV) fix('wire-drop')
  if (lead?.fuseA && lead.ampacityA && lead.fuseA > lead.ampacityA) stop('fuse-large')
  if (lead?.fuseA && state.inA > lead.fuseA) fix('fuse-small')
  return problems
}
