import {
  choppedAverage,
  converterDefaults,
  idealDuty,
  nearestPreferred,
  resistorForVoltage,
  type FeedConvert,
} from '#core/power'
import {
  inFansLead,
  trunkStream,
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

export const converterNames: Record<Converter['kind'], string> = {
  buck: 'Step-down converter',
  boost: 'Step-up converter',
  linear: 'Linear regulator',
  resistor: 'Series resistor',
  divider: 'Voltage divider',
  diode: 'Series diodes',
  pwm: 'Switched supply (PWM)',
}

export const switchNames: Record<SwitchKind, string> = {
  hand: 'hand switch',
  relay: 'relay',
  timer: 'timer',
  'thermal-no': 'thermal switch, closes when warm',
  'thermal-nc': 'thermal switch, opens when warm',
  thermostat: 'thermostat',
}

/** A plan's converter as the solver wants it. */
export function convertOf(
  c: Pick<
    Converter,
    'kind' | 'outV' | 'efficiency' | 'dropoutV' | 'measuredV' | 'ohm' | 'ohm2' | 'diodes' | 'diodeKind' | 'duty'
  >,
  nominalV: number,
  loadA: (v: number) => number,
): FeedConvert {
  const usual = converterDefaults[c.kind]
  const outV = c.measuredV ?? c.outV
  const diodeV = diodeVolts[c.diodeKind]
  return {
    kind: c.kind,
    outV,
    dropoutV: c.dropoutV ?? usual.dropoutV,
    efficiency: c.efficiency ?? usual.efficiency,
    ohm: c.ohm ?? (c.kind === 'resistor' ? (chosenResistor(nominalV, c.outV, loadA(c.outV)) ?? 0) : 0),
    ohm2: c.ohm2 ?? 1e9,
    diodes: c.diodes ?? Math.max(1, Math.round((nominalV - c.outV) / diodeV)),
    diodeV,
    duty: c.duty ?? Math.min(1, idealDuty('buck', Math.max(nominalV, 1e-6), c.outV)),
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
    if (c?.kind === 'pwm') return choppedAverage(nominalV, c.duty)
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

/** The converter that drives the selected fans. */
function converterNode(
  converter: Converter,
  source: Source,
  nominalV: number,
  fansA: (v: number) => number,
  fansKnown: boolean,
): BuiltNode {
  const convert = convertOf(converter, nominalV, fansA)
  return {
    ...passive,
    id: converter.id,
    parent: 0,
    convert,
    // a resistor that nobody chose is worked out from the current: one that is not known gives none
    known: fansKnown || converter.kind !== 'resistor' || converter.ohm !== null,
    adjustableUnset: converter.adjustable && !converter.setFirst && holdsItsOutput(converter.kind),
    metered: converter.measuredV !== null,
    stated: {
      id: converter.id,
      parentId: source.id,
      kind: 'converter',
      name: converterNames[converter.kind],
      what: '',
      limitA: converter.iMaxA,
      ohm: convert.ohm || null,
      lead: null,
    },
  }
}

/** What fans draw at a voltage, A. */
const drawOf =
  ({ fanArray, selection: { duty } }: StreamFans) =>
  (volts: number) =>
    arrayLaw(fanArray, { volts, duty }) ?? 0

/** The fans of a stream at the end of their lead. */
function fansNode(
  id: string,
  fans: StreamFans,
  what: string,
  lead: LeadReport,
  above: { index: number; id: string },
): BuiltNode {
  const { fanArray } = fans
  const { driveV, duty } = fans.selection
  const limits = arrayLimits(fanArray)
  return {
    ...passive,
    id,
    parent: above.index,
    ohm: lead.ohm,
    current: drawOf(fans),
    start: (v) => arrayStart(fanArray, v) ?? 0,
    known: arrayLaw(fanArray, { volts: driveV, duty }) !== null,
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

/** A further converter of the feed as the plan's own one. */
const asConverter = (part: FeedPart, aboveV: number) => ({
  kind: part.converterKind ?? ('buck' as const),
  outV: part.outV ?? aboveV,
  efficiency: part.efficiency,
  ohm: part.ohm,
  dropoutV: null,
  measuredV: null,
  ohm2: null,
  diodes: part.diodes ?? 1,
  diodeKind: part.diodeKind ?? ('silicon' as const),
  duty: null,
})

/** @param parent index of what it hangs on, among the nodes that are there already */
function partNode(
  plan: StreamPlan,
  part: FeedPart,
  parent: number,
  nodes: readonly BuiltNode[],
  nominalV: number,
  fans: readonly Fan[],
  streams: readonly StreamFans[],
): BuiltNode {
  const aboveV = voltageAbove(nodes, parent, nominalV)
  const lead = leadOf(part, part.fuseA, plan.wiring)
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
  if (part.kind === 'converter') {
    const made = asConverter(part, aboveV)
    return {
      ...base,
      convert: convertOf(made, aboveV, () => 0),
      adjustableUnset: holdsItsOutput(made.kind) && part.setFirst === false,
      stated: { ...stated, what: converterNames[made.kind], ohm: part.ohm },
    }
  }
  const own = streams.find((f) => f.stream === part.streamId)
  if (own) return fansNode(part.id, own, part.name, lead, { index: parent, id: nodes[parent]!.id })
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

/** Puts every further part below what it hangs on, until none finds its place any more. */
function hangParts(
  nodes: BuiltNode[],
  plan: StreamPlan,
  nominalV: number,
  fans: readonly Fan[],
  streams: readonly StreamFans[],
): void {
  const carries = (n: BuiltNode) => n.stated.kind !== 'load' && n.stated.kind !== 'selection'
  const first = nodes[0]!.id === plan.source?.id
  const placeOf = ({ parentId }: FeedPart) =>
    parentId === null ? (first ? 0 : -1) : nodes.findIndex((n) => n.id === parentId && carries(n))
  // a lead whose stream has no fan yet carries nothing
  const fed = (part: FeedPart) => part.streamId === null || streams.some((f) => f.stream === part.streamId)
  let left = plan.feed.filter((part) => fed(part) && !nodes.some((n) => n.id === part.id))
  for (let placed = true; placed && left.length;) {
    placed = false
    for (const part of left) {
      const parent = placeOf(part)
      if (parent < 0) continue
      left = left.filter((p) => p !== part)
      placed = true
      const above = nodes[parent]!.id
      nodes.push(
        partNode(plan, part, parent, nodes, nominalV, fans, streams),
        ...coilNodes(part, parent, above),
      )
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

/** What hangs on the first source before everything else: the plan's converter and the fans of the first air stream. */
function trunkNodes(
  plan: StreamPlan,
  source: Source,
  nominalV: number,
  fans: readonly Fan[],
  streams: readonly StreamFans[],
): BuiltNode[] {
  const { converter } = plan
  const nodes: BuiltNode[] = []
  const first = streams.find((f) => f.stream === trunkStream(plan))
  const known =
    !first || arrayLaw(first.fanArray, { volts: first.selection.driveV, duty: first.selection.duty }) !== null
  if (converter) nodes.push(converterNode(converter, source, nominalV, first ? drawOf(first) : () => 0, known))
  if (!first) return nodes
  // counted from the source, which stands before them
  const all = [sourceNode(source), ...nodes]
  let at = all.length - 1
  for (const part of inFansLead(plan.feed, converter?.id ?? source.id, !converter)) {
    const coil = coilNodes(part, at, all[at]!.id)
    all.push(partNode(plan, part, at, all, nominalV, fans, streams))
    at = all.length - 1
    all.push(...coil)
  }
  const above = { index: at, id: all[at]!.id }
  const lead = leadOf(source, source.fuseFitted === false ? null : source.fuseA, plan.wiring)
  return [...all.slice(1), fansNode(first.selection.id, first, 'your pick', lead, above)]
}

/**
 * The nodes that hang on one source, itself first, every node after what it hangs on. Parts that hang on nothing are left
 * out. The fans of the first air stream hang on the plan's converter, those of a further one where its lead does.
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
  const trunk = source === plan.source ? trunkNodes(plan, source, nominalV, fans, streams) : []
  const nodes = [sourceNode(source), ...trunk]
  hangParts(nodes, plan, nominalV, fans, streams)
  return nodes
}
