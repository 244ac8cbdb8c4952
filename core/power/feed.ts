import type { ConverterKind } from './converter'

/**
 * A feed as a tree: source, converters, branches, loads, each on its own wire. Solved by Newton's method on the tree:
 * every subtree is replaced by its straight line I = J + G V at the voltage of the last round (from the leaves to the
 * root), then the voltages are told from the root to the leaves, until they stand.
 * Reference: Kirchhoff; Norton equivalents of linearised networks
 */

export interface FeedConvert {
  kind: Exclude<ConverterKind, 'none'>
  /** set output of buck, boost and linear, V */
  outV: number
  /** what the input must exceed the output by, V */
  dropoutV: number
  /** of buck and boost, 0..1 */
  efficiency: number
  /** series resistor, or the upper one of a divider, ohm */
  ohm: number
  /** lower one of a divider, ohm */
  ohm2: number
  /** silicon diodes in a row and the drop of each, V */
  diodes: number
  diodeV: number
  /** share of the time that a chopped supply is on, 0..1 */
  duty: number
}

export interface FeedNode {
  id: string
  /** index of the node it hangs on; -1 for the source. Nodes stand after their parents. */
  parent: number
  /** wire there and back with its contacts, ohm */
  ohm: number
  convert: FeedConvert | null
  /** what a load draws at a voltage, A; null for everything else */
  current: ((v: number) => number) | null
}

export interface FeedState {
  /** voltage at its own terminals, behind its wire, V */
  inV: number
  /** what it hands on, V (of a chopped supply the mean) */
  outV: number
  /** current through its wire, A */
  inA: number
  outA: number
  wireDropV: number
  /** turned to heat inside it, W */
  heatW: number
  /** regulated output is not reached: the input is too low */
  dropout: boolean
}

export interface FeedSolution {
  states: FeedState[]
  /** the loads have a voltage to run at */ settled: boolean
}

const ROUNDS = 60
const STEP = 1e-4

/** A straight line of current over voltage. */
interface Line {
  j: number
  g: number
}
const behindOhm = ({ j, g }: Line, ohm: number): Line =>
  ohm === 0 ? { j, g } : { j: j / (1 + g * ohm), g: g / (1 + g * ohm) }

/** The line of a converter's input, from that of its output, at the present voltages. */
function convertLine(c: FeedConvert, out: Line, inV: number): Line {
  if (c.kind === 'resistor') return behindOhm(out, c.ohm)
  if (c.kind === 'divider') return behindOhm({ j: out.j, g: out.g + 1 / Math.max(c.ohm2, 1e-6) }, c.ohm)
  if (c.kind === 'diode') return { j: out.j - out.g * c.diodes * c.diodeV, g: out.g }
  if (c.kind === 'pwm') return { j: c.duty * out.j, g: c.duty ** 2 * out.g }
  if (inDropout(c, inV)) return { j: out.j - out.g * c.dropoutV, g: out.g }
  const outA = Math.max(0, out.j + out.g * c.outV)
  if (c.kind === 'linear') return { j: outA, g: 0 }
  const inA = (c.outV * outA) / (c.efficiency * Math.max(inV, 1e-3))
  return { j: 2 * inA, g: -inA / Math.max(inV, 1e-3) }
}
const inDropout = (c: FeedConvert, inV: number) =>
  c.kind !== 'boost' && (c.kind === 'buck' || c.kind === 'linear') && inV < c.outV + c.dropoutV

/** Output of a converter at an input voltage and current, V. */
function convertV(c: FeedConvert, inV: number, inA: number): number {
  switch (c.kind) {
    case 'resistor':
    case 'divider':
      return inV - c.ohm * inA
    case 'diode':
      return Math.max(0, inV - c.diodes * c.diodeV)
    case 'pwm':
      return c.duty * inV
    case 'boost':
      return inV > 0.5 ? c.outV : 0
    default:
      return inDropout(c, inV) ? Math.max(0, inV - c.dropoutV) : c.outV
  }
}

/**
 * Voltages and currents of a feed.
 * @param nodes the source first, every node after its parent
 * @param sourceV at the source's terminals, V
 */
export function solveFeed(nodes: readonly FeedNode[], sourceV: number): FeedSolution {
  const n = nodes.length
  const inV = new Float64Array(n).fill(sourceV)
  const outV = new Float64Array(n).fill(sourceV)
  const own: Line[] = nodes.map(() => ({ j: 0, g: 0 }))
  const children: Line[] = nodes.map(() => ({ j: 0, g: 0 }))
  nodes.forEach((node, i) => {
    if (i > 0) inV[i] = outV[node.parent]!
    outV[i] = node.convert ? convertV(node.convert, inV[i]!, 0) : inV[i]!
  })
  let settled = false
  for (let round = 0; round < ROUNDS && !settled; round++) {
    for (const line of children) line.j = line.g = 0
    for (let i = n - 1; i >= 0; i--) {
      const { current, convert, ohm, parent } = nodes[i]!
      const v = Math.max(0, inV[i]!)
      let line = children[i]!
      if (current) {
        const low = Math.max(0, v - STEP)
        const g = (current(v + STEP) - current(low)) / (v + STEP - low)
        line = { j: current(v) - g * v, g }
      } else if (convert) line = convertLine(convert, line, v)
      own[i] = line
      if (parent >= 0) {
        const seen = behindOhm(line, ohm)
        children[parent]!.j += seen.j
        children[parent]!.g += seen.g
      }
    }
    let moved = 0
    nodes.forEach((node, i) => {
      const above = i === 0 ? sourceV : outV[node.parent]!
      const line = own[i]!
      // 1 + G R at or below zero: the load pulls its own voltage down faster than the wire can bring it
      const next = Math.max(0, (above - node.ohm * line.j) / Math.max(1e-6, 1 + node.ohm * line.g))
      moved = Math.max(moved, Math.abs(next - inV[i]!))
      inV[i] = next
      outV[i] = node.convert
        ? Math.max(0, convertV(node.convert, next, Math.max(0, line.j + line.g * next)))
        : next
    })
    settled = moved < 1e-9
  }
  const inA = new Float64Array(n)
  const outA = new Float64Array(n)
  for (let i = n - 1; i >= 0; i--) {
    const { current, convert, parent } = nodes[i]!
    inA[i] = current
      ? Math.max(0, current(Math.max(0, inV[i]!)))
      : convert
        ? throughConverter(convert, inV[i]!, outV[i]!, outA[i]!)
        : outA[i]!
    if (parent >= 0) outA[parent]! += inA[i]!
  }
  const states = nodes.map((node, i): FeedState => {
    const wireDropV = node.ohm * inA[i]!
    return {
      inV: inV[i]!,
      outV: outV[i]!,
      inA: inA[i]!,
      outA: outA[i]!,
      wireDropV,
      heatW: node.convert
        ? Math.max(0, node.convert.kind === 'pwm' ? 0 : inV[i]! * inA[i]! - outV[i]! * outA[i]!)
        : 0,
      dropout: node.convert !== null && inDropout(node.convert, inV[i]!),
    }
  })
  return { states, settled }
}

function throughConverter(c: FeedConvert, inV: number, outV: number, outA: number): number {
  if (c.kind === 'pwm') return c.duty * outA
  if (c.kind === 'divider') return outA + outV / Math.max(c.ohm2, 1e-6)
  if ((c.kind === 'buck' || c.kind === 'boost') && !inDropout(c, inV))
    return inV > 1e-3 ? (outV * outA) / (c.efficiency * inV) : 0
  return outA
}
