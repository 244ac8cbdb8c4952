import {
  awgArea,
  awgDiameter,
  crimpPull,
  fuseChoice,
  heatShrink,
  insulatedDiameter,
  usbBudget,
} from '#core/power'
import type { Fan, PlanDocument, WireConnector, StockKind, StockPart } from '#core/document'
import type { FeedNodeReport } from './feed-node'
import type { FeedReport } from './feed-tree'
import { membersOf, type FanArray } from '#core/system'
import { fromStock } from '#core/document'

/** Plan limit of a contact, A. From memory and common practice (handbook, connectors). */
export const connectorLimit: Record<WireConnector, { name: string; amps: number }> = {
  header: { name: 'keyed fan header', amps: 3 },
  'pin-housing': { name: 'loose pin housing', amps: 1 },
  'wire-to-board': { name: 'wire-to-board, 2 to 2.5 mm', amps: 2 },
  'small-1.25': { name: 'small, 1.25 mm', amps: 1 },
  barrel: { name: 'barrel plug 5.5 mm', amps: 3 },
  peripheral: { name: 'peripheral 4-pin', amps: 5 },
  xt30: { name: 'two-pole power plug, 15 A class', amps: 15 },
  spade: { name: 'spade 6.3 mm', amps: 15 },
  screw: { name: 'screw terminal', amps: 10 },
  'usb-a': { name: 'USB-A', amps: 1.5 },
  'usb-c': { name: 'USB Type-C lead', amps: 3 },
  splice: { name: 'soldered splice', amps: 100 },
}

/** Function of each position of a plug, counted from the keyed end. Handbook, fan connectors (4-wire specification, from memory; peripheral plug published). */
export interface PinRow {
  pin: number
  use: string
  connect: string
  colour: 'minus' | 'plus' | 'tach' | 'pwm'
}
const headerPins = (wires: number, tachUsed: boolean, pwm: boolean): PinRow[] => [
  { pin: 1, use: 'ground', connect: 'to −', colour: 'minus' },
  { pin: 2, use: '+ supply', connect: 'to +', colour: 'plus' },
  ...(wires >= 3
    ? [
        {
          pin: 3,
          use: 'tach out',
          connect: tachUsed ? 'to the one input that reads it' : 'left open, insulated',
          colour: 'tach' as const,
        },
      ]
    : []),
  ...(wires >= 4
    ? [
        {
          pin: 4,
          use: 'PWM in',
          connect: pwm ? 'to the open-drain driver, at most 5.25 V' : 'left open, insulated: full speed',
          colour: 'pwm' as const,
        },
      ]
    : []),
]
/** What each wire of the picked fan is for: by position and function, never by colour alone. */
export function fanPins(plan: PlanDocument, fan: Fan): PinRow[] {
  return headerPins(
    fan.wires ?? 2,
    plan.wiring.tachUsed === true,
    plan.selection?.duty !== null && plan.selection !== null,
  )
}

/** One conductor from here to there. */
export interface WireRow {
  number: number
  from: string
  fromPin: string
  to: string
  toPin: string
  pole: '+' | '−' | 'tach' | 'PWM'
  awg: number | null
  mm2: number | null
  colour: string
  lengthM: number | null
  currentA: number | null
  ampacityA: number | null
  fuseA: number | null
  stripM: number | null
  /** force a crimp must hold, N */
  pullN: number | null
  end: string
}

/** Strip length for the small contacts of thin wire and for the ferrules of thick, m. Common practice, no source. */
const stripOf = (awg: number) => (awg >= 20 ? 0.0025 : 0.009)

/** The from–to table: both conductors of every lead, and the signal wires of the pick. */
export function wireList(plan: PlanDocument, feed: FeedReport, fanArray: FanArray | null): WireRow[] {
  const { wiring } = plan
  const nameOf = new Map(feed.nodes.map((n) => [n.id, n.name]))
  const rows: WireRow[] = []
  const end = wiring.connector ? connectorLimit[wiring.connector].name : wiring.join === 'cut' ? 'spliced' : ''
  const add = (node: FeedNodeReport, pole: WireRow['pole'], colour: string, toPin: string, fromPin = pole) => {
    const awg = node.lead?.awg ?? null
    rows.push({
      number: rows.length + 1,
      from: nameOf.get(node.parentId ?? '') ?? '',
      fromPin,
      to: node.name,
      toPin,
      pole,
      awg,
      mm2: awg === null ? null : awgArea(awg) * 1e6,
      colour,
      lengthM: node.lead?.lengthM ?? null,
      currentA: pole === '+' || pole === '−' ? node.inA : null,
      ampacityA: node.lead?.ampacityA ?? null,
      fuseA: pole === '+' ? (node.lead?.fuseA ?? null) : null,
      stripM: awg === null ? null : stripOf(awg),
      pullN: awg === null ? null : crimpPull(awg),
      end: node.kind === 'selection' ? end : '',
    })
  }
  for (const node of feed.nodes) {
    if (node.kind === 'source') continue
    const selection = node.kind === 'selection'
    add(node, '+', wiring.plusColour || 'red', selection ? '2' : '+')
    add(node, '−', wiring.minusColour || 'black', selection ? '1' : '−')
    if (!selection || !fanArray) continue
    const { fan } = fanArray.model
    if (wiring.tachUsed && (fan.wires ?? 0) >= 3)
      rows.push({
        ...signal(rows.length + 1, node.name, 'tach'),
        to: 'tach input',
        from: node.name,
        fromPin: '3',
        toPin: 'one input only',
      })
    if (plan.selection?.duty !== null && (fan.wires ?? 0) === 4)
      rows.push({
        ...signal(rows.length + 1, node.name, 'PWM'),
        from: 'PWM driver',
        fromPin: 'open drain',
        to: node.name,
        toPin: '4',
      })
  }
  return rows
}
const signal = (number: number, name: string, pole: 'tach' | 'PWM'): WireRow => ({
  number,
  from: name,
  fromPin: '',
  to: '',
  toPin: '',
  pole,
  awg: null,
  mm2: null,
  colour: '',
  lengthM: null,
  currentA: null,
  ampacityA: null,
  fuseA: null,
  stripM: null,
  pullN: null,
  end: '',
})

/** A step of the safe order, with what must be true before the next one. */
export interface OrderStep {
  text: string
  caution: boolean
}
const volt = (v: number) => `${v.toFixed(v < 10 ? 2 : 1)} V`

/** The order to connect in, so that nothing is powered before it is known to be right. */
export function connectionOrder(plan: PlanDocument, feed: FeedReport, fanArray: FanArray | null): OrderStep[] {
  const { source, wiring, converter } = plan
  if (!source || !feed.nodes.length) return []
  const steps: OrderStep[] = []
  const add = (text: string, caution = false) => steps.push({ text, caution })
  if (plan.job.mains)
    add(
      'Mains parts are near: unplug, wait, measure. Work only on the low-voltage side, below 60 V DC; the rest is for a licensed electrician.',
      true,
    )
  add(`Disconnect ${source.name}. Nothing is connected while it is on.`, true)
  if (source.kind === 'pack' || source.kind === 'house-battery' || source.kind === 'vehicle')
    add(
      `Fuse first: in the + lead, within 0.2 m of the terminal${source.fuseA ? `, ${source.fuseA} A` : ''}. Take the fuse out while you work.`,
      true,
    )
  if (source.kind === 'pack' || source.kind === 'power-bank')
    add('Lithium: only with its protection board, never charged below 0 °C, unattended or on fabric.', true)
  add(
    `Measure ${source.name} without load: ${source.lowV !== null && source.highV !== null ? `${volt(source.lowV)} to ${volt(source.highV)}` : source.nominalV === null ? 'note what it gives' : volt(source.nominalV)}, DC, and which pin is +.`,
  )
  for (const node of feed.nodes) {
    if (node.kind !== 'converter') continue
    const part = node.id === converter?.id ? converter : plan.feed.find((p) => p.id === node.id)
    const kind = part && 'converterKind' in part ? part.converterKind : converter?.kind
    if (kind === 'buck' || kind === 'boost' || kind === 'linear')
      add(
        `${node.name}: power it without its load, turn the screw until the meter reads ${volt(node.outV)} (accept ${volt(0.95 * node.outV)} to ${volt(1.05 * node.outV)}), power off, lock the screw with lacquer.`,
        true,
      )
    else if (kind === 'resistor')
      add(`${node.name}: ${node.ohm ?? '?'} Ω, away from plastic and cable; its tabs covered.`)
  }
  for (const node of feed.nodes) {
    if (!node.lead || (node.lead.awg === null && node.lead.lengthM === null)) continue
    add(
      `Lead to ${node.name}: ${node.lead.awg === null ? 'gauge as listed' : `${node.lead.awg} AWG`}${node.lead.lengthM === null ? '' : `, ${node.lead.lengthM} m`}. Heat-shrink on before soldering; pull each crimp.`,
    )
  }
  if (fanArray) {
    add(
      `Identify the fan’s leads by position and with a meter, not by colour: ground, +${(fanArray.model.fan.wires ?? 2) >= 3 ? ', tach' : ''}${fanArray.model.fan.wires === 4 ? ', PWM' : ''}. Insulate what stays open.`,
      true,
    )
    if (fanArray.count > 1)
      add(
        `The ${membersOf(fanArray).length} fans stand side by side electrically, never in series: each sees the whole voltage.`,
      )
  }
  add(
    `Polarity at the open plug, powered, without the fan: + on the + pin. Reversed polarity destroys a brushless fan at once.`,
    true,
  )
  add('Power off. Plug in the fan. Tie the lead within 50 mm of the plug, blades free of cable.')
  add(
    'Power on with a hand on the switch: it starts, blows the planned way, nothing gets hot in the first minute.',
  )
  const selection = feed.nodes.find((n) => n.kind === 'selection')
  if (selection)
    add(
      `Measure at the fan’s own terminals, running: ${volt(selection.inV)} expected${selection.inA === null ? '' : `, ${selection.inA.toFixed(3)} A`}. Note it in the Log.`,
    )
  if (wiring.strainRelief !== true) add('Strain relief on every lead that can be pulled.')
  return steps
}

/** Something the plan needs, what it costs, and whether it is there. */
export interface PartRow {
  what: string
  detail: string
  count: number
  unit: string
  price: number | null
  owned: boolean
  sum: number | null
}

/** Usual prices where nothing else is known: rough, so that a total is no surprise. Common practice, no source. */
const USUAL_PRICE = {
  adapter: 9,
  buck: 2,
  boost: 2.5,
  linear: 1.2,
  resistor: 0.3,
  divider: 0.4,
  diode: 0.6,
  pwm: 3,
  fuse: 1.5,
  wirePerM: 0.5,
  plug: 0.6,
  guard: 1.5,
  filterPerM2: 60,
  shrink: 0.3,
}
const sourceBought = new Set(['adapter', 'power-bank', 'pack', 'house-battery', 'solar'])

/** Everything a plan needs, from its fans to the heat-shrink, with a total. */
export function partsList(
  plan: PlanDocument,
  feed: FeedReport,
  fanArray: FanArray | null,
  fans: readonly Fan[],
  stock: readonly StockPart[] = [],
): { rows: PartRow[]; total: number; unknown: number } {
  const rows: PartRow[] = []
  const add = (
    what: string,
    detail: string,
    count: number,
    unit: string,
    price: number | null,
    owned = false,
  ) =>
    rows.push({
      what,
      detail,
      count,
      unit,
      price,
      owned,
      sum: owned ? 0 : price === null ? null : price * count,
    })
  const fanRow = (fan: Fan, n: number) =>
    add(
      `${fan.maker} ${fan.model}`.trim(),
      `${Math.round(fan.frameM * 1000)} × ${Math.round(fan.thicknessM * 1000)} mm, ${fan.ratedV} V`,
      n,
      '',
      fan.price,
      fan.owned,
    )
  if (fanArray?.second) [fanArray.model, fanArray.second].forEach((m) => fanRow(m.fan, 1))
  else if (fanArray) fanRow(fanArray.model.fan, fanArray.count)
  /** A part at the price of one's own stock, or at a usual one. */
  const addPart = (
    kind: StockKind,
    what: string,
    detail: string,
    count: number,
    unit: string,
    usual: number | null,
    want: { volts?: number | null; amps?: number | null; name?: string } = {},
  ) => {
    const found = fromStock(stock, kind, { ...want, name: want.name ?? what })
    add(
      found && found.name !== what ? `${what}: ${found.name}` : what,
      detail,
      count,
      unit,
      found?.price ?? usual,
      found?.owned ?? false,
    )
  }
  const { source, converter, wiring } = plan
  if (
    source &&
    (source.kind === 'adapter' ||
      source.kind === 'pack' ||
      source.kind === 'house-battery' ||
      source.kind === 'power-bank')
  ) {
    addPart(
      source.kind === 'adapter' ? 'supply' : 'battery',
      source.name,
      source.nominalV === null ? '' : volt(source.nominalV),
      1,
      '',
      source.kind === 'adapter' ? USUAL_PRICE.adapter : null,
      { volts: source.nominalV, amps: feed.nodes[0]?.outA },
    )
  } else if (source && source.kind !== 'none')
    add(
      source.name,
      source.nominalV === null ? '' : volt(source.nominalV),
      1,
      '',
      source.kind === 'adapter' ? USUAL_PRICE.adapter : sourceBought.has(source.kind) ? null : 0,
      !sourceBought.has(source.kind),
    )
  const convNames = {
    buck: 'Step-down converter',
    boost: 'Step-up converter',
    linear: 'Linear regulator',
    resistor: 'Series resistor',
    divider: 'Divider resistors',
    diode: 'Diodes',
    pwm: 'Switch for a chopped supply',
  }
  if (converter)
    addPart(
      'converter',
      convNames[converter.kind],
      converter.kind === 'resistor'
        ? `${converter.ohm ?? feed.nodes.find((n) => n.id === converter.id)?.ohm ?? '?'} Ω, ${converter.ratingW ?? '?'} W`
        : `set to ${volt(converter.outV)}`,
      1,
      '',
      USUAL_PRICE[converter.kind],
      { amps: feed.nodes.find((n) => n.id === converter.id)?.outA },
    )
  for (const part of plan.feed) {
    if (part.kind === 'converter' && part.converterKind)
      addPart(
        'converter',
        part.name,
        part.outV === null ? '' : `set to ${volt(part.outV)}`,
        1,
        '',
        USUAL_PRICE[part.converterKind],
        { amps: feed.nodes.find((n) => n.id === part.id)?.outA },
      )
    if (part.kind === 'load') {
      const fan = fans.find((f) => f.id === part.fanId)
      if (part.loadKind === 'fan' && fan) fanRow(fan, part.count)
      else add(part.name, feed.nodes.find((n) => n.id === part.id)?.what ?? '', part.count, '', null)
    }
  }
  const fused = feed.nodes.filter((n) => n.lead?.fuseA)
  for (const n of fused)
    addPart('fuse', 'Fuse with holder', `${n.lead!.fuseA} A, for ${n.name}`, 1, '', USUAL_PRICE.fuse, {
      amps: n.lead!.fuseA,
    })
  const byGauge = new Map<number, number>()
  for (const { lead } of feed.nodes)
    if (lead?.awg && lead.lengthM) byGauge.set(lead.awg, (byGauge.get(lead.awg) ?? 0) + 2 * lead.lengthM)
  for (const [awg, metres] of [...byGauge].sort((a, b) => a[0] - b[0]))
    addPart(
      'wire',
      `Wire ${awg} AWG`,
      `${wiring.plusColour} and ${wiring.minusColour}`,
      Math.ceil(10 * 1.1 * metres) / 10,
      'm',
      USUAL_PRICE.wirePerM,
      { name: `Wire ${awg} AWG`, volts: 0 },
    )
  if (wiring.connector && wiring.connector !== 'splice')
    add(connectorLimit[wiring.connector].name, 'plug and socket', fanArray?.count ?? 1, '', USUAL_PRICE.plug)
  if (wiring.join === 'cut' && source?.wireAwg) {
    const outer = insulatedDiameter(awgDiameter(source.wireAwg))
    const tube = heatShrink(1.5 * outer, outer)
    add(
      'Heat-shrink',
      tube ? `${(1000 * tube.bore).toFixed(1)} mm, ${tube.ratio}:1` : 'larger ratio',
      2 * (fanArray?.count ?? 1),
      '',
      USUAL_PRICE.shrink,
    )
  }
  if (fanArray)
    addPart(
      'guard',
      'Guard',
      `for ${Math.round(fanArray.model.fan.frameM * 1000)} mm, on each open side`,
      fanArray.count,
      '',
      USUAL_PRICE.guard,
      { name: `Guard ${Math.round(fanArray.model.fan.frameM * 1000)} mm` },
    )
  for (const e of plan.path)
    if (e.kind === 'filter' && e.areaM2)
      add(
        e.name,
        `${Math.round(e.areaM2 * 1e4)} cm²`,
        1,
        '',
        Math.round(USUAL_PRICE.filterPerM2 * e.areaM2 * 10) / 10,
      )
  return {
    rows,
    total: rows.reduce((s, r) => s + (r.sum ?? 0), 0),
    unknown: rows.filter((r) => r.sum === null).length,
  }
}

/** A fuse that protects a lead, A; null where its wire is too thin or not known. */
export function fuseFor(node: FeedNodeReport, vehicle: boolean): number | null {
  return node.lead?.ampacityA && node.inA !== null
    ? fuseChoice(node.inA, node.lead.ampacityA, vehicle ? 'blade' : 'iec60127')
    : null
}

/** Budget of a USB source, A; null for other sources. */
export const usbBudgetOf = (plan: PlanDocument) =>
  plan.source?.kind === 'usb' ? usbBudget[plan.source.usbKind ?? 'usb2-configured'] : null
