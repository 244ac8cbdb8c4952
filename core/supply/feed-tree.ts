import {
  allowedCurrent,
  awgAmpacity,
  awgArea,
  CONTACT_OHM,
  converterDefaults,
  copperResistance,
  headroomVerdict,
  ledResistor,
  longestWire,
  nearestPreferred,
  nextPreferred,
  resistorForVoltage,
  SETTING_TOLERANCE,
  solveFeed,
  START_CURRENT_FACTOR,
  type FeedConvert,
  type FeedNode,
  type FeedState,
} from '#core/power'
import type { Converter, Fan, FeedPart, PlanDocument, Wiring } from '#core/document'
import { driveSpeed, fanCurrent, fanStartCurrent, modelFan } from '#core/system'
import { arrayCurrent, arrayName, arrayStart, type FanArray } from '#core/system'

/** Insulation and surroundings that a wire is judged by where nothing is told: PVC 70 degC in air of 30 degC, one pair. */
const INSULATION_C = 70
const WIRE_AIR_C = 30
const PAIR = 2
/** Plug and socket pairs on a lead. */
const CONTACT_PAIRS = 2
/** Voltage that a chopped or dropped LED resistor is chosen at, and the LED current of a load that states none, A. Common practice, no source. */
const LED_A = 0.01
/** Drop of one silicon diode, V. Common practice, no source (0.7 to 0.9 V at 0.1 to 1 A). */
export const DIODE_V = 0.75
/** Share of the voltage a lead may lose before it should be mended. Common practice, no source. */
export const DROP_LIMIT = 0.05

/** One lead of the feed, as computed. */
export interface LeadReport {
  awg: number | null
  lengthM: number | null
  ohm: number
  dropV: number
  lossW: number
  ampacityA: number | null
  /** longest one-way length for a drop of 5 %, m */
  longestM: number | null
  fuseA: number | null
}

/** One node of the feed with what it does at nominal voltage, and between what its voltage lies. */
export interface FeedNodeReport {
  id: string
  parentId: string | null
  kind: 'source' | 'converter' | 'branch' | 'load' | 'selection'
  name: string
  what: string
  inV: number
  outV: number
  /** lowest running and highest (without load, settings a little off) voltage at its terminals */
  lowV: number
  highV: number
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
  /** what is wrong or must be minded here */
  problems: { severity: 'stop' | 'fix' | 'note'; text: string }[]
}

export interface FeedReport {
  nodes: FeedNodeReport[]
  settled: boolean
}

interface Built extends FeedNode {
  report: Omit<
    FeedNodeReport,
    | 'inV'
    | 'outV'
    | 'lowV'
    | 'highV'
    | 'inA'
    | 'outA'
    | 'startA'
    | 'powerW'
    | 'heatW'
    | 'efficiency'
    | 'utilisation'
    | 'headroom'
    | 'dropout'
    | 'problems'
  >
  start: (v: number) => number
  known: boolean
  maxV: number | null
  startV: number | null
  adjustableUnset: boolean
}

/** Allowed current of a gauge in the plan's surroundings, A; null where the gauge is not known. */
export function leadAmpacity(awg: number | null, wiring: Wiring): number | null {
  const plan30 = awg === null ? undefined : awgAmpacity[awg]
  return plan30 === undefined
    ? null
    : allowedCurrent(
        plan30,
        wiring.bundle ?? PAIR,
        wiring.insulationC ?? INSULATION_C,
        wiring.wireAirC ?? WIRE_AIR_C,
      )
}
const leadOhm = (awg: number | null, lengthM: number | null) =>
  awg && lengthM ? 2 * lengthM * copperResistance(awgArea(awg)) + CONTACT_PAIRS * CONTACT_OHM : 0

/** A plan's converter as the solver wants it. */
export function convertOf(
  c: Pick<
    Converter,
    'kind' | 'outV' | 'efficiency' | 'dropoutV' | 'measuredV' | 'ohm' | 'ohm2' | 'diodes' | 'duty'
  >,
  nominalV: number,
  loadA: (v: number) => number,
): FeedConvert {
  const usual = converterDefaults[c.kind]
  const outV = c.measuredV ?? c.outV
  return {
    kind: c.kind,
    outV,
    dropoutV: c.dropoutV ?? usual.dropoutV,
    efficiency: c.efficiency ?? usual.efficiency,
    ohm: c.ohm ?? (c.kind === 'resistor' ? (chosenResistor(nominalV, c.outV, loadA(c.outV)) ?? 0) : 0),
    ohm2: c.ohm2 ?? 1e9,
    diodes: c.diodes ?? Math.max(1, Math.round((nominalV - c.outV) / DIODE_V)),
    diodeV: DIODE_V,
    duty: c.duty ?? Math.min(1, c.outV / Math.max(nominalV, 1e-6)),
  }
}
/** Nearest E12 resistor that leaves a voltage at a current, ohm; null where there is nothing to drop. */
export function chosenResistor(supply: number, wantedV: number, amps: number): number | null {
  const ohm = amps > 0 ? resistorForVoltage(supply, wantedV, amps) : 0
  return ohm > 0.1 ? nearestPreferred(ohm, 'E12') : null
}

/** What a load draws over its voltage, A: fans by their own law, LEDs by their resistor, modules like a resistor, boards at constant power, the rest at constant current. */
function loadCurrent(
  part: FeedPart,
  fans: readonly Fan[],
  atV: number,
): {
  current: (v: number) => number
  start: (v: number) => number
  known: boolean
  what: string
  ohm: number | null
  maxV: number | null
  startV: number | null
} {
  const n = part.count
  const amps = part.currentA ?? 0
  const rated = part.ratedV ?? atV
  const plain = { known: part.currentA !== null, ohm: null, maxV: null, startV: null }
  if (part.loadKind === 'fan' && part.fanId) {
    const fan = fans.find((f) => f.id === part.fanId)
    const made = fan ? modelFan(fan) : null
    if (made?.ok) {
      const { model } = made
      return {
        current: (v) => (driveSpeed(model, v) > 0 ? n * (fanCurrent(model, v) ?? 0) : 0),
        start: (v) => n * (fanStartCurrent(model, v) ?? 0),
        known: model.fan.ratedA !== null,
        what: `${n} × ${fan!.model}`,
        ohm: null,
        maxV: model.maxV,
        startV: model.startV,
      }
    }
  }
  if (part.loadKind === 'led') {
    const forward = (part.ledString ?? 1) * (part.ledV ?? 2.1)
    const ohm =
      atV > forward ? nextPreferred(ledResistor(atV, 1, forward, part.currentA ?? LED_A), 'E24') : null
    const current = (v: number) => (ohm === null ? 0 : (n * Math.max(0, v - forward)) / ohm)
    return {
      current,
      start: current,
      known: true,
      what: `${n} × LED string${ohm === null ? '' : ` behind ${ohm} Ω`}`,
      ohm,
      maxV: null,
      startV: null,
    }
  }
  const law =
    part.loadKind === 'module'
      ? (v: number) => (n * amps * v) / rated
      : part.loadKind === 'board'
        ? (v: number) => (v > 0.5 * rated ? (n * amps * rated) / v : 0)
        : () => n * amps
  const startFactor =
    part.startA !== null && amps > 0
      ? part.startA / amps
      : part.loadKind === 'pump' || part.loadKind === 'fan'
        ? START_CURRENT_FACTOR
        : 1
  return { ...plain, current: law, start: (v) => law(v) * startFactor, what: n > 1 ? `${n} of them` : '' }
}

/** The nodes of a plan's feed, the source first, every node after what it hangs on. Parts that hang on nothing are left out. */
function build(plan: PlanDocument, fanArray: FanArray | null, fans: readonly Fan[]): Built[] {
  const { source, converter, selection, wiring } = plan
  if (!source || source.kind === 'none' || source.nominalV === null) return []
  const nominalV = source.nominalV
  const nodes: Built[] = []
  const none = { start: () => 0, known: true, maxV: null, startV: null, adjustableUnset: false }
  const lead = (awg: number | null, lengthM: number | null, fuseA: number | null): LeadReport => ({
    awg,
    lengthM,
    ohm: leadOhm(awg, lengthM),
    dropV: 0,
    lossW: 0,
    ampacityA: leadAmpacity(awg, wiring),
    longestM: null,
    fuseA,
  })
  const fansA = (v: number) =>
    fanArray && selection ? (arrayCurrent(fanArray, { volts: v, duty: selection.duty }) ?? 0) : 0
  nodes.push({
    ...none,
    id: source.id,
    parent: -1,
    ohm: 0,
    convert: null,
    current: null,
    report: {
      id: source.id,
      parentId: null,
      kind: 'source',
      name: source.name,
      what: '',
      limitA: source.iMaxA,
      ohm: null,
      lead: null,
    },
  })
  if (converter) {
    const convert = convertOf(converter, nominalV, fansA)
    nodes.push({
      ...none,
      id: converter.id,
      parent: 0,
      ohm: 0,
      convert,
      current: null,
      adjustableUnset:
        converter.adjustable &&
        !converter.setFirst &&
        (converter.kind === 'buck' || converter.kind === 'boost' || converter.kind === 'linear'),
      report: {
        id: converter.id,
        parentId: source.id,
        kind: 'converter',
        name: converterNames[converter.kind],
        what: '',
        limitA: converter.iMaxA,
        ohm: convert.ohm || null,
        lead: null,
      },
    })
  }
  const trunk = nodes.length - 1
  if (selection && fanArray) {
    const lim = fanArray
    const selectionLead = lead(
      source.wireAwg,
      source.wireLengthM,
      source.fuseFitted === false ? null : source.fuseA,
    )
    nodes.push({
      ...none,
      id: selection.id,
      parent: trunk,
      ohm: selectionLead.ohm,
      convert: null,
      current: fansA,
      start: (v) => arrayStart(lim, v) ?? 0,
      known: arrayCurrent(fanArray, { volts: selection.driveV, duty: selection.duty }) !== null,
      maxV: Math.min(lim.model.maxV, lim.second?.maxV ?? Infinity),
      startV: Math.max(lim.model.startV, lim.second?.startV ?? 0),
      report: {
        id: selection.id,
        parentId: nodes[trunk]!.id,
        kind: 'selection',
        name: arrayName(fanArray),
        what: 'your pick',
        limitA: null,
        ohm: null,
        lead: selectionLead,
      },
    })
  }
  // parts below what is there already, until none finds its place any more
  const left = [...plan.feed]
  for (let placed = true; placed && left.length;) {
    placed = false
    for (const part of [...left]) {
      const parent =
        part.parentId === null
          ? 0
          : nodes.findIndex(
              (n) => n.id === part.parentId && n.report.kind !== 'load' && n.report.kind !== 'selection',
            )
      if (parent < 0) continue
      left.splice(left.indexOf(part), 1)
      placed = true
      nodes.push(
        partNode(part, parent, nodes, nominalV, fans, lead(part.wireAwg, part.wireLengthM, part.fuseA)),
      )
    }
  }
  return nodes
}

function partNode(
  part: FeedPart,
  parent: number,
  nodes: readonly Built[],
  nominalV: number,
  fans: readonly Fan[],
  lead: LeadReport,
): Built {
  const aboveV = voltageAbove(nodes, parent, nominalV)
  const base = {
    id: part.id,
    parent,
    ohm: lead.ohm,
    start: () => 0,
    known: true,
    maxV: null,
    startV: null,
    adjustableUnset: false,
  }
  const report = {
    id: part.id,
    parentId: nodes[parent]!.id,
    name: part.name,
    what: '',
    limitA: part.iMaxA,
    ohm: null,
    lead,
  }
  if (part.kind === 'branch')
    return { ...base, convert: null, current: null, report: { ...report, kind: 'branch' } }
  if (part.kind === 'converter') {
    const kind = part.converterKind ?? 'buck'
    const convert = convertOf(
      {
        kind,
        outV: part.outV ?? aboveV,
        efficiency: part.efficiency,
        dropoutV: null,
        measuredV: null,
        ohm: part.ohm,
        ohm2: null,
        diodes: null,
        duty: null,
      },
      aboveV,
      () => 0,
    )
    return {
      ...base,
      convert,
      current: null,
      adjustableUnset: kind !== 'resistor' && part.setFirst === false,
      report: { ...report, kind: 'converter', what: converterNames[kind], ohm: part.ohm },
    }
  }
  const load = loadCurrent(part, fans, aboveV)
  return {
    ...base,
    convert: null,
    current: load.current,
    start: load.start,
    known: load.known,
    maxV: load.maxV,
    startV: load.startV,
    report: { ...report, kind: 'load', what: load.what, ohm: load.ohm, limitA: null },
  }
}

/** Voltage that a node hands on without load, V. */
function voltageAbove(nodes: readonly Built[], at: number, nominalV: number): number {
  for (let i = at; i >= 0; i = nodes[i]!.parent) {
    const c = nodes[i]!.convert
    if (c && (c.kind === 'buck' || c.kind === 'boost' || c.kind === 'linear')) return c.outV
    if (c?.kind === 'pwm') return c.duty * nominalV
  }
  return nominalV
}

export const converterNames: Record<Converter['kind'], string> = {
  buck: 'Step-down converter',
  boost: 'Step-up converter',
  linear: 'Linear regulator',
  resistor: 'Series resistor',
  divider: 'Voltage divider',
  diode: 'Series diodes',
  pwm: 'Chopped supply',
}

/** Highest voltage that can reach a node's terminals: the source's highest, nothing drawn, settings at their upper end, chopped supplies at their peak. */
function highest(nodes: readonly Built[], sourceHighV: number): Float64Array {
  const high = new Float64Array(nodes.length)
  nodes.forEach(({ parent, convert }, i) => {
    const above = parent < 0 ? sourceHighV : high[parent]!
    if (!convert) high[i] = above
    else if (convert.kind === 'buck' || convert.kind === 'linear')
      high[i] = convert.outV * (1 + SETTING_TOLERANCE)
    else if (convert.kind === 'boost') high[i] = convert.outV * (1 + SETTING_TOLERANCE)
    else if (convert.kind === 'divider') high[i] = (above * convert.ohm2) / (convert.ohm + convert.ohm2)
    // a resistor drops nothing while nothing flows, a chopped supply keeps its peak
    else high[i] = above
  })
  return high
}

function problemsOf(
  node: Built,
  s: FeedState,
  r: Pick<FeedNodeReport, 'utilisation' | 'lowV' | 'highV' | 'lead' | 'startA' | 'inA'>,
  parentV: number,
): FeedNodeReport['problems'] {
  const out: FeedNodeReport['problems'] = []
  const add = (severity: 'stop' | 'fix' | 'note', text: string) => out.push({ severity, text })
  if (node.maxV !== null && r.highV > node.maxV * 1.0001)
    add('stop', `up to ${r.highV.toFixed(1)} V on a fan for ${node.maxV.toFixed(1)} V`)
  if (node.startV !== null && r.lowV < node.startV)
    add('stop', `down to ${r.lowV.toFixed(1)} V, starts at ${node.startV.toFixed(1)} V`)
  if (!node.known) add('fix', 'its current is not known: not in the sums')
  if (s.dropout) add('fix', 'input too low for its output')
  if (node.adjustableUnset) add('stop', 'set it before connecting')
  if (r.utilisation !== null && r.utilisation > 1) add('stop', 'overloaded')
  else if (r.utilisation !== null && r.utilisation > 0.8) add('fix', 'more than 80 % of what it gives')
  if (r.lead?.ampacityA && s.inA > r.lead.ampacityA) add('stop', 'more current than its wire carries')
  if (r.lead && parentV > 0 && r.lead.dropV > DROP_LIMIT * parentV) add('fix', 'its wire loses more than 5 %')
  if (r.lead?.fuseA && r.lead.ampacityA && r.lead.fuseA > r.lead.ampacityA)
    add('stop', 'its fuse lets more through than its wire carries')
  if (r.lead?.fuseA && s.inA > r.lead.fuseA) add('fix', 'its fuse is smaller than its current')
  return out
}

/**
 * The whole feed: every node's voltage window, currents running and at the start, power, heat and head-room.
 * @returns no nodes where there is no source
 */
export function feedOf(plan: PlanDocument, fanArray: FanArray | null, fans: readonly Fan[]): FeedReport {
  const nodes = build(plan, fanArray, fans)
  if (!nodes.length) return { nodes: [], settled: true }
  const { nominalV, lowV, highV } = plan.source!
  const normal = solveFeed(nodes, nominalV!)
  const low = solveFeed(nodes, lowV ?? nominalV!)
  const starting = solveFeed(
    nodes.map((n, i) => (n.current ? { ...n, ohm: 0, current: () => n.start(normal.states[i]!.inV) } : n)),
    nominalV!,
  )
  const high = highest(nodes, highV ?? nominalV!)
  return {
    settled: normal.settled,
    nodes: nodes.map((node, i): FeedNodeReport => {
      const s = normal.states[i]!
      const { report } = node
      const gives = report.kind === 'source' || report.kind === 'converter'
      const outA = gives || report.kind === 'branch' ? s.outA : null
      const utilisation = gives && report.limitA && outA !== null ? outA / report.limitA : null
      const parentV = node.parent < 0 ? nominalV! : normal.states[node.parent]!.outV
      const perM = report.lead?.awg ? copperResistance(awgArea(report.lead.awg)) : null
      const lead = report.lead && {
        ...report.lead,
        dropV: s.wireDropV,
        lossW: s.wireDropV * s.inA,
        longestM: perM !== null && s.inA > 0 ? longestWire(DROP_LIMIT * parentV, perM, s.inA) : null,
      }
      const made = {
        ...report,
        lead,
        inV: s.inV,
        outV: s.outV,
        lowV: low.states[i]!.inV,
        highV: high[i]!,
        inA: node.known ? s.inA : null,
        outA,
        startA: node.known ? starting.states[i]!.inA : null,
        powerW: node.known ? s.inV * s.inA : null,
        heatW: s.heatW,
        efficiency: node.convert && s.inA > 0 ? (s.outV * s.outA) / (s.inV * s.inA) : null,
        utilisation,
        headroom: utilisation === null ? null : headroomVerdict(utilisation),
        dropout: s.dropout,
      }
      return { ...made, problems: problemsOf(node, s, made, parentV) }
    }),
  }
}
