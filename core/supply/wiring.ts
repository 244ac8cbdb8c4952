import { awgArea, crimpPull, fuseChoice, usbBudget } from '#core/power'
import { sourceFuse, type StreamPlan, type Source, type WireConnector } from '#core/document'
import type { FeedNodeReport } from './feed-node'
import type { FeedReport } from './feed-tree'
import { fromHost, signalsOf, type Signals } from './signals'

/** Plan limit of a contact, A. From memory and common practice (docs/physics.md, connectors). */
export const connectorLimit: Record<WireConnector, { name: string; amps: number }> = {
  header: { name: 'keyed fan header', amps: 3 },
  'pin-housing': { name: 'loose pin housing', amps: 1 },
  'wire-to-board': { name: 'wire-to-board, 2 to 2.5 mm', amps: 2 },
  'small-1.25': { name: 'small, 1.25 mm', amps: 1 },
  barrel: { name: 'barrel plug 5.5 mm (5 A where it is a good one)', amps: 3 },
  peripheral: { name: 'peripheral 4-pin', amps: 5 },
  xt30: { name: 'two-pole power plug, 15 A class', amps: 15 },
  xt60: { name: 'two-pole power plug, 30 A class', amps: 30 },
  'spade-2.8': { name: 'spade 2.8 mm', amps: 5 },
  'spade-4.8': { name: 'spade 4.8 mm', amps: 10 },
  spade: { name: 'spade 6.3 mm', amps: 15 },
  screw: { name: 'screw terminal', amps: 10 },
  'usb-a': { name: 'USB-A', amps: 1.5 },
  'usb-c': { name: 'USB Type-C lead', amps: 3 },
  splice: { name: 'soldered splice', amps: 100 },
}

/**
 * Function of each position of a plug, counted from the keyed end. docs/physics.md, fan connectors (4-wire specification,
 * from memory; peripheral plug published).
 */
export interface PinRow {
  pin: number
  use: string
  connect: string
  colour: 'minus' | 'plus' | 'tach' | 'pwm'
}
const headerPins = (wires: number, { tach, pwm }: Signals): PinRow[] => [
  { pin: 1, use: 'ground', connect: 'to −', colour: 'minus' },
  { pin: 2, use: '+ supply', connect: 'to +', colour: 'plus' },
  ...(wires >= 3 ? [{ pin: 3, use: 'tach out', connect: tach, colour: 'tach' as const }] : []),
  ...(wires >= 4 ? [{ pin: 4, use: 'PWM in', connect: pwm, colour: 'pwm' as const }] : []),
]
/** What each wire of the fans at a node is for: by position and function, never by colour alone. */
export const fanPins = (plan: StreamPlan, feed: FeedReport, node: FeedNodeReport): PinRow[] =>
  node.fans ? headerPins(node.fans.fanArray.model.fan.wires ?? 2, signalsOf(plan, feed, node)) : []

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

/** The from–to table: both conductors of every lead, and the signal wires of every stream's fans. */
export function wireList(plan: StreamPlan, feed: FeedReport): WireRow[] {
  const { wiring } = plan
  const nameOf = new Map(feed.nodes.map((n) => [n.id, n.name]))
  /** the fuse of a source stands where its leads begin */
  const fuseAt = (id: string | null) => {
    const source = plan.sources.find((s) => s.id === id)
    return source ? sourceFuse(source) : null
  }
  const rows: WireRow[] = []
  const end = wiring.connector ? connectorLimit[wiring.connector].name : wiring.join === 'cut' ? 'spliced' : ''
  const add = (node: FeedNodeReport, pole: WireRow['pole'], colour: string, toPin: string, fromPin: string) => {
    const awg = node.lead?.awg ?? null
    rows.push({
      number: rows.length + 1,
      from: nameOf.get(node.parentId ?? '') ?? '',
      fromPin,
      to: node.name,
      toPin,
      pole,
      awg,
      mm2: node.lead?.mm2 ?? (awg === null ? null : awgArea(awg) * 1e6),
      colour,
      lengthM: node.lead?.lengthM ?? null,
      currentA: pole === '+' || pole === '−' ? node.worstA : null,
      ampacityA: node.lead?.ampacityA ?? null,
      fuseA: pole === '+' ? (node.lead?.fuseA ?? fuseAt(node.parentId)) : null,
      stripM: awg === null ? null : stripOf(awg),
      pullN: awg === null ? null : crimpPull(awg),
      end: node.kind === 'selection' ? end : '',
    })
  }
  for (const node of feed.nodes) {
    if (node.kind === 'source') continue
    const { fans } = node
    // a switch stands in the + conductor, the other one passes it by
    const behindSwitch = feed.nodes.find((n) => n.id === node.parentId)?.kind === 'switch'
    const here = node.kind === 'switch'
    add(node, '+', wiring.plusColour || 'red', here ? 'in' : fans ? '2' : '+', behindSwitch ? 'out' : '+')
    add(
      node,
      '−',
      wiring.minusColour || 'black',
      here ? 'passes by' : fans ? '1' : '−',
      behindSwitch ? 'passes by' : '−',
    )
    if (!fans) continue
    for (const row of signalRows(plan, feed, node)) rows.push({ ...row, number: rows.length + 1 })
  }
  return rows
}

/** The tach and PWM wires of the fans at a node, and the ground that they share with what steers them. */
function signalRows(plan: StreamPlan, feed: FeedReport, node: FeedNodeReport): WireRow[] {
  const { tachTo, pwmFrom } = plan.wiring
  const { header, apart } = signalsOf(plan, feed, node)
  const wires = node.fans!.fanArray.model.fan.wires ?? 2
  const tachRead = wires >= 3 && tachTo !== null && tachTo !== 'open'
  const steered = wires >= 4 && (pwmFrom === null ? node.fans!.duty !== null : pwmFrom !== 'open')
  const host = header?.name ?? 'Header of the host'
  const reader = { host, controller: 'Controller', alarm: 'Alarm', input: 'Tach input' }
  const driver = { host, controller: 'Controller', tied: '5 V', open: '' }
  const rows: WireRow[] = []
  if (tachRead)
    rows.push(signal('tach', [node.name, '3'], [reader[tachTo], tachTo === 'host' ? '3' : 'one input only']))
  if (steered) {
    const from = pwmFrom === null ? 'PWM driver' : driver[pwmFrom]
    const pin = pwmFrom === 'host' ? '4' : pwmFrom === 'tied' ? 'through the resistor' : 'open drain'
    rows.push(signal('PWM', [from, pin], [node.name, '4']))
  }
  if (rows.length && apart)
    rows.push(
      signal(
        '−',
        [header || fromHost(plan.wiring) ? host : 'Controller', header ? '1' : '−'],
        [node.name, '1'],
      ),
    )
  return rows
}
const signal = (
  pole: WireRow['pole'],
  [from, fromPin]: [string, string],
  [to, toPin]: [string, string],
): WireRow => ({
  number: 0,
  from,
  fromPin,
  to,
  toPin,
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

/** A fuse that protects a lead, A; null where its wire is too thin or not known. */
export function fuseFor(node: FeedNodeReport, family: FuseFamily): number | null {
  return node.lead?.ampacityA && node.worstA !== null
    ? fuseChoice(node.worstA, node.lead.ampacityA, family)
    : null
}
/** Family of a source's fuses: as chosen, else blades on lead-acid batteries and vehicles, glass ones elsewhere. */
export const fuseFamilyOf = (source: Source | null): FuseFamily =>
  source?.fuseFamily ?? (source?.kind === 'vehicle' || source?.kind === 'house-battery' ? 'blade' : 'iec60127')
export type FuseFamily = NonNullable<Source['fuseFamily']>

/** Budget of a USB source, A; null for other sources. */
export const usbBudgetOf = (source: Source | null) =>
  source?.kind === 'usb' ? usbBudget[source.usbKind ?? 'usb2-configured'] : null
