import {
  choppedAverage,
  converterDefaults,
  idealDuty,
  nearestPreferred,
  resistorForVoltage,
  type FeedConvert,
} from '#core/power'
import {
  converterNames,
  isConverter,
  isFansLead,
  isOneOfSeveral,
  partsAbove,
  sourceFuse,
  type Converter,
  type Fan,
  type FeedPart,
  type StreamPlan,
  type Source,
  type SwitchKind,
} from '#core/document'
import { arrayLaw, arrayLimits, arrayName, arrayStart } from '#core/system'
import { leadOf } from './feed-lead'
import { loadLaw } from './feed-loads'
import type { BuiltNode, LeadReport, StreamFans } from './feed-node'

/** Drop of one diode, V: silicon 0.7 to 0.9 V at 0.1 to 1 A, Schottky 0.3 to 0.5 V. Common practice, no source. */
export const diodeVolts = { silicon: 0.75, schottky: 0.3 } as const
/** Drop of a diode at a light load over its full one. Common practice, no source. */
export const DIODE_LIGHT = 0.8

export const switchNames: Record<SwitchKind, string> = {
  hand: 'hand switch',
  relay: 'relay',
  timer: 'timer',
  'thermal-no': 'thermal switch, closes when warm',
  'thermal-nc': 'thermal switch, opens when warm',
  thermostat: 'thermostat',
}

/**
 * A converter as the solver wants it.
 * @param aboveV what it is handed, V
 * @param drawA what hangs on it draws at a voltage, A
 */
export function convertOf(c: Converter, aboveV: number, drawA: (v: number) => number): FeedConvert {
  const kind = c.converterKind
  const usual = converterDefaults[kind]
  const wishedV = c.outV ?? aboveV
  const diodeV = diodeVolts[c.diodeKind ?? 'silicon']
  return {
    kind,
    outV: c.measuredV ?? wishedV,
    dropoutV: c.dropoutV ?? usual.dropoutV,
    efficiency: c.efficiency ?? usual.efficiency,
    ohm: c.ohm ?? (kind === 'resistor' ? (chosenResistor(aboveV, wishedV, drawA(wishedV)) ?? 0) : 0),
    ohm2: c.ohm2 ?? 1e9,
    diodes: c.diodes ?? Math.max(1, Math.round((aboveV - wishedV) / diodeV)),
    diodeV,
    duty: c.duty ?? Math.min(1, idealDuty('buck', Math.max(aboveV, 1e-6), wishedV)),
  }
}
/**
 * Nearest E12 resistor that leaves a voltage at a current, ohm; null where there is nothing to drop.
 * @param supply V
 * @param amps A
 */
export function chosenResistor(supply: number, wantedV: number, amps: number): number | null {
  const ohm = amps > 0 ? resistorForVoltage(supply, wantedV, amps) : 0
  return ohm > 0.1 ? nearestPreferred(ohm, 'E12') : null
}

const holdsItsOutput = (kind: FeedConvert['kind']) => kind === 'buck' || kind === 'boost' || kind === 'linear'

/** Voltage that a node hands on without load, V. */
function voltageAbove(nodes: readonly BuiltNode[], at: number, nominalV: number): number {
  for (let i = at; i >= 0; i = nodes[i]!.parent) {
    const c = nodes[i]!.convert
    if (c && holdsItsOutput(c.kind)) return c.outV
    if (c?.kind === 'pwm') return choppedAverage(voltageAbove(nodes, nodes[i]!.parent, nominalV), c.duty)
  }
  return nominalV
}

const passive = {
  ohm: 0,
  convert: null,
  current: null,
  start: () => 0,
  known: true,
  maxV: null,
  startV: null,
  minV: null,
  assumed: { max: false, start: false, min: false },
  adjustableUnset: false,
  metered: false,
}

function sourceNode(source: Source): BuiltNode {
  const { id, name, iMaxA } = source
  const stated = {
    id,
    parentId: null,
    kind: 'source' as const,
    name,
    what: '',
    limitA: iMaxA,
    ohm: null,
    lead: null,
  }
  return { ...passive, id, parent: -1, stated }
}

/** What fans draw at a voltage, A. */
const drawOf =
  ({ fanArray, duty }: StreamFans) =>
  (volts: number) =>
    arrayLaw(fanArray, { volts, duty }) ?? 0

const isKnown = ({ fanArray, driveV, duty }: StreamFans) => arrayLaw(fanArray, { volts: driveV, duty }) !== null

/** The fans of a stream at the end of their lead. */
function fansNode(
  id: string,
  fans: StreamFans,
  what: string,
  lead: LeadReport,
  above: { index: number; id: string },
): BuiltNode {
  const { fanArray } = fans
  const limits = arrayLimits(fanArray)
  return {
    ...passive,
    id,
    parent: above.index,
    ohm: lead.ohm,
    current: drawOf(fans),
    start: (v) => arrayStart(fanArray, v) ?? 0,
    known: isKnown(fans),
    maxV: limits.maxV,
    startV: limits.startV,
    minV: limits.minV,
    assumed: { max: !limits.maxKnown, start: !limits.startKnown, min: !limits.minKnown },
    stated: {
      id,
      parentId: above.id,
      kind: 'selection',
      name: arrayName(fanArray),
      what,
      limitA: null,
      ohm: null,
      lead,
      fans,
    },
  }
}

/** What the fans of the only stream are in the feed. */
export const PICK = 'your pick'

/** What a part of the feed is worked out from. */
interface Making {
  plan: StreamPlan
  /** the source's, V */
  nominalV: number
  /** that each source's fuse lets through, A; null without a fuse */
  fuseA: number | null
  fans: readonly Fan[]
  streams: readonly StreamFans[]
}

/** What hangs on a part draws at a voltage, A, and whether all of it is known. */
function drawBelow(making: Making, id: string, volts: number): { amps: number; known: boolean } {
  const { plan, streams, fans } = making
  let amps = 0
  let known = true
  for (const part of plan.feed) {
    if (part.parentId !== id) continue
    if (isFansLead(part)) {
      const own = streams.find((f) => f.stream === part.streamId)
      if (!own) continue
      amps += drawOf(own)(volts)
      known &&= isKnown(own)
    } else if (part.kind === 'load') {
      const law = loadLaw(part, fans, volts)
      amps += law.current(volts)
      known &&= law.known
    } else {
      const below = drawBelow(making, part.id, (isConverter(part) ? part.outV : null) ?? volts)
      amps += below.amps
      known &&= below.known
    }
  }
  return { amps, known }
}

/**
 * Fuse that protects a part's lead, A: its own, else the nearest one above it up to a converter, which limits by power and
 * not by current; null where none is known.
 */
function fuseAbove({ plan, fuseA }: Making, part: FeedPart): number | null {
  if (part.fuseA !== null) return part.fuseA
  for (const above of partsAbove(plan, part)) {
    if (isConverter(above)) return null
    if (above.fuseA !== null) return above.fuseA
  }
  return fuseA
}

/** @param parent index of what it hangs on, among the nodes that are there already */
function partNode(making: Making, part: FeedPart, parent: number, nodes: readonly BuiltNode[]): BuiltNode {
  const { plan, nominalV, fans, streams } = making
  const aboveV = voltageAbove(nodes, parent, nominalV)
  const lead = leadOf(part, part.fuseA, fuseAbove(making, part), plan.wiring)
  const base = { ...passive, id: part.id, parent, ohm: lead.ohm }
  const stated = {
    id: part.id,
    parentId: nodes[parent]!.id,
    kind: part.kind,
    name: part.name,
    what: '',
    limitA: part.iMaxA,
    ohm: null,
    lead,
  }
  if (part.kind === 'branch') return { ...base, stated }
  if (part.kind === 'switch')
    return { ...base, stated: { ...stated, what: switchNames[part.switchKind ?? 'hand'], limitA: null } }
  if (isConverter(part)) {
    const convert = convertOf(part, aboveV, (v) => drawBelow(making, part.id, v).amps)
    const { converterKind, outV } = part
    const what = converterNames[converterKind]
    // a resistor that nobody chose is worked out from the current: one that is not known gives none
    const unknown = converterKind === 'resistor' && part.ohm === null && outV !== null
    return {
      ...base,
      convert,
      known: !unknown || drawBelow(making, part.id, outV).known,
      adjustableUnset: part.adjustable && part.setFirst === false && holdsItsOutput(converterKind),
      metered: part.measuredV !== null,
      stated: { ...stated, what: part.name === what ? '' : what, ohm: convert.ohm || null },
    }
  }
  const own = streams.find((f) => f.stream === part.streamId)
  if (own) {
    const what = isOneOfSeveral(plan) ? part.name : PICK
    return fansNode(part.id, own, what, lead, { index: parent, id: nodes[parent]!.id })
  }
  const { what, ohm, ...law } = loadLaw(part, fans, aboveV)
  return { ...base, ...law, stated: { ...stated, what, ohm, limitA: null } }
}

/** The coil of a relay, or the electronics of a timer: drawn from what feeds the switch, not through it. */
function coilNodes(part: FeedPart, parent: number, parentId: string): BuiltNode[] {
  const { coilA } = part
  if (part.kind !== 'switch' || !coilA) return []
  const id = `${part.id}-coil`
  const stated = {
    id,
    parentId,
    kind: 'load' as const,
    name: `${part.name}, its coil`,
    what: 'draws while it is closed',
    limitA: null,
    ohm: null,
    lead: null,
  }
  return [{ ...passive, id, parent, current: () => coilA, start: () => coilA, stated }]
}

/** Puts every part below what it hangs on, until none finds its place any more. */
function hangParts(nodes: BuiltNode[], making: Making): void {
  const carries = (n: BuiltNode) => n.stated.kind !== 'load' && n.stated.kind !== 'selection'
  // a lead whose stream has no fan yet carries nothing
  const fed = (part: FeedPart) =>
    part.streamId === null || making.streams.some((f) => f.stream === part.streamId)
  let left = making.plan.feed.filter(fed)
  for (let placed = true; placed && left.length;) {
    placed = false
    for (const part of left) {
      const parent = nodes.findIndex((n) => n.id === part.parentId && carries(n))
      if (parent < 0) continue
      left = left.filter((p) => p !== part)
      placed = true
      nodes.push(partNode(making, part, parent, nodes), ...coilNodes(part, parent, nodes[parent]!.id))
    }
  }
}

/** No two nodes bear one name: the later ones are numbered. */
export function nameApart(nodes: readonly BuiltNode[]): void {
  const used = new Set<string>()
  for (const { stated } of nodes) {
    const { name } = stated
    for (let n = 2; used.has(stated.name); n++) stated.name = `${name} ${n}`
    used.add(stated.name)
  }
}

/**
 * The nodes that hang on one source, itself first, every node after what it hangs on. Parts that hang on nothing are left
 * out.
 * @param source one of the plan's
 * @param streams the fans of every air stream that has some
 * @returns none where the source has no voltage
 */
export function buildFeed(
  plan: StreamPlan,
  source: Source,
  streams: readonly StreamFans[],
  fans: readonly Fan[],
): BuiltNode[] {
  const { nominalV } = source
  if (source.kind === 'none' || nominalV === null) return []
  const nodes = [sourceNode(source)]
  const fuseA = sourceFuse(source)
  hangParts(nodes, { plan, nominalV, fuseA, fans, streams })
  return nodes
}
