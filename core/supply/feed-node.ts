import type { FeedNode } from '#core/power'
import type { FanArray } from '#core/system'
import type { FeedProblem } from './feed-problems'

/** One lead of the feed, as computed. */
export interface LeadReport {
  /** AWG size, or the one that has no more copper than the metric wire */
  awg: number | null
  /** metric cross-section where that was stated, mm2 */
  mm2: number | null
  /** of one conductor, ohm/m */
  ohmPerM: number | null
  lengthM: number | null
  ohm: number
  dropV: number
  lossW: number
  ampacityA: number | null
  /** longest one-way length for a drop of 5 %, m */
  longestM: number | null
  /** its own fuse, and the one that protects its wire: that or the nearest on the way to the source */
  fuseA: number | null
  guardA: number | null
}

/** The fans of an air stream, as the feed sees them. */
export interface StreamFans {
  /** id of the stream */
  stream: string
  /** on their PWM wire, 0..1; null: none */
  duty: number | null
  /** what they are planned to be driven at, V */
  driveV: number
  fanArray: FanArray
}

/** One node of the feed with what it does at nominal voltage, and between what its voltage lies. */
export interface FeedNodeReport {
  id: string
  parentId: string | null
  kind: 'source' | 'converter' | 'branch' | 'switch' | 'load' | 'selection'
  name: string
  what: string
  /** voltage that the node above hands on, V */
  aboveV: number
  inV: number
  outV: number
  /** lowest running and highest (without load, settings a little off) voltage at its terminals */
  lowV: number
  highV: number
  /** that highest voltage is typed, measured or in the nature of its source, not a tolerance that is usual */
  highFirm: boolean
  /** the same of its lowest */
  lowFirm: boolean
  /** running voltage with the source at its highest */
  highRunV: number
  /** between what its running voltage lies, settings a little off as well, V */
  runs: { low: number; high: number }
  /** largest current over the source's window, A: a converter takes most at the lowest voltage */
  worstA: number | null
  worstOutA: number | null
  inA: number | null
  outA: number | null
  startA: number | null
  powerW: number | null
  heatW: number
  efficiency: number | null
  /** of a source or converter: share of what it can give */
  utilisation: number | null
  headroom: 'ok' | 'fix' | 'stop' | null
  limitA: number | null
  dropout: boolean
  /** a series or LED resistor, ohm */
  ohm: number | null
  lead: LeadReport | null
  /** what its sheet or what is usual says it stands and needs, V */
  limits: FeedLimits
  /** of a 'selection': the fans of the air stream that hang here */
  fans: StreamFans | null
  /** what is wrong or must be minded here */
  problems: FeedProblem[]
}

/** Highest voltage a load stands, what surely starts it, what keeps it running, V; and which of these no sheet states. */
export interface FeedLimits {
  maxV: number | null
  startV: number | null
  minV: number | null
  /** what rests on these is to be checked, no stop */
  assumed: { max: boolean; start: boolean; min: boolean }
}

/** What a node is before the feed is solved. */
type Stated = Pick<FeedNodeReport, 'id' | 'parentId' | 'kind' | 'name' | 'what' | 'limitA' | 'ohm' | 'lead'> & {
  fans?: StreamFans
}

/** A node as the solver wants it, with what is stated of it. */
export interface BuiltNode extends FeedNode, FeedLimits {
  stated: Stated
  /** current at the start over the voltage at its terminals, A */
  start: (v: number) => number
  /** whether its current is known */
  known: boolean
  adjustableUnset: boolean
  /** its output was measured */
  metered: boolean
}
