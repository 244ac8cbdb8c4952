import type { FeedState } from '#core/power'
import type { BuiltNode, FeedNodeReport } from './feed-node'

/** Share of the voltage a lead may lose before it should be mended. Common practice, no source. */
export const DROP_LIMIT = 0.05
/** Share of what a source or converter can give that is used without a word. Common practice, no source. */
const USED_LIMIT = 0.8
/** An output that falls less below its set voltage is no fault. Common practice, no source. */
const SAG_LIMIT = 0.02

/** What can be wrong with a node of the feed, each code with the values it speaks of, V. */
export type FeedProblem = { severity: 'stop' | 'fix' } & (
  | { code: 'over-voltage'; values: { highV: number; maxV: number }; assumed: boolean }
  | { code: 'no-start'; values: { lowV: number; startV: number }; assumed: boolean }
  | { code: 'does-not-run'; values: { inV: number; minV: number }; assumed: boolean }
  | {
      code:
        | 'current-unknown'
        | 'not-settled'
        | 'resistor-unknown'
        | 'contract-lacks'
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

const plainWords: Record<Exclude<Code, 'over-voltage' | 'no-start' | 'does-not-run'>, string> = {
  'not-settled': 'finds no voltage to run at: the loads pull it down faster than it can give',
  'resistor-unknown':
    'its ohms are worked out from the fan’s current, which is not known: measure it, or type the ohms',
  'contract-lacks': 'this port does not offer that voltage',
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
  if (!('values' in problem)) return plainWords[problem.code]
  const ending = problem.assumed ? ' (assumed, measure it)' : ''
  const volts = (v: number) => `${v.toFixed(1)} V`
  if (problem.code === 'over-voltage')
    return `up to ${volts(problem.values.highV)} on a fan for ${volts(problem.values.maxV)}${ending}`
  if (problem.code === 'no-start')
    return `down to ${volts(problem.values.lowV)}, starts at ${volts(problem.values.startV)}${ending}`
  return `does not run: gets ${volts(problem.values.inV)}, runs from ${volts(problem.values.minV)}${ending}`
}

type Solved = Pick<
  FeedNodeReport,
  'utilisation' | 'lowV' | 'lowFirm' | 'highV' | 'highFirm' | 'lead' | 'worstA'
>

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
  const { assumed, minV, maxV, startV } = node
  /** a stop rests on what a sheet or a meter says */
  const weight = (isAssumed: boolean) => (isAssumed ? ('fix' as const) : ('stop' as const))
  const overAssumed = assumed.max || !(solved.highFirm || state.inV > (maxV ?? Infinity))
  if (maxV !== null && highV > maxV * 1.0001)
    problems.push({
      severity: weight(overAssumed),
      code: 'over-voltage',
      values: { highV: solved.highFirm || overAssumed ? highV : state.inV, maxV },
      assumed: overAssumed,
    })
  if (minV !== null && state.inV < minV - 1e-9)
    problems.push({
      severity: weight(assumed.min),
      code: 'does-not-run',
      values: { inV: state.inV, minV },
      assumed: assumed.min,
    })
  else if (startV !== null && lowV < startV) {
    const lowAssumed = assumed.start || !(solved.lowFirm || state.inV < startV)
    problems.push({
      severity: weight(lowAssumed),
      code: 'no-start',
      values: { lowV: solved.lowFirm || lowAssumed ? lowV : state.inV, startV },
      assumed: lowAssumed,
    })
  }
  if (!node.known) fix(node.convert ? 'resistor-unknown' : 'current-unknown')
  const setV = node.convert?.outV ?? 0
  if (state.dropout && state.outV < (1 - SAG_LIMIT) * setV) fix('input-low')
  if (node.adjustableUnset) stop('unset')
  if (utilisation !== null && utilisation > 1) stop('overloaded')
  else if (utilisation !== null && utilisation > USED_LIMIT) fix('used-up')
  const amps = solved.worstA ?? state.inA
  if (lead?.ampacityA && amps > lead.ampacityA) stop('wire-thin')
  if (lead && aboveV > 0 && lead.dropV > DROP_LIMIT * aboveV) fix('wire-drop')
  if (lead?.guardA && lead.ampacityA && lead.guardA > lead.ampacityA) stop('fuse-large')
  if (lead?.fuseA && amps > lead.fuseA) fix('fuse-small')
  return problems
}
