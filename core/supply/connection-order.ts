import { SETTING_NEAR } from '#core/power'
import type { StreamPlan, Source } from '#core/document'
import { arrayName, membersOf, type FanArray } from '#core/system'
import type { FeedNodeReport } from './feed-node'
import type { FeedReport } from './feed-tree'
import { signalsOf } from './signals'
import { windowOf } from './source-window'

/** A step of the safe order, with what must be true before the next one. */
export interface OrderStep {
  text: string
  caution: boolean
}
const step = (text: string): OrderStep => ({ text, caution: false })
const caution = (text: string): OrderStep => ({ text, caution: true })
const volt = (v: number) => `${v.toFixed(v < 1 ? 2 : 1)} V`

const fused: Source['kind'][] = ['pack', 'house-battery', 'vehicle']
const lithium: Source['kind'][] = ['pack', 'power-bank']

/** What the source without load should show. */
function expectedOf(plan: StreamPlan, source: Source): string {
  const window = windowOf(plan, source)
  return window ? `${volt(window.lowV)} to ${volt(window.highV)}` : 'note what it gives'
}

const mainsStep = caution(
  'Mains parts are near: unplug, wait, measure. Work only on the low-voltage side, below 60 V DC; ' +
    'the rest is for a licensed electrician.',
)

function sourceSteps(plan: StreamPlan, source: Source): OrderStep[] {
  const fuse = source.fuseA ? `, ${source.fuseA} A` : ''
  return [
    caution(`Disconnect ${source.name}. Nothing is connected while it is on.`),
    ...(fused.includes(source.kind)
      ? [
          caution(
            `Fuse first: in the + lead, within 0.2 m of the terminal${fuse}. Take the fuse out while you work.`,
          ),
        ]
      : []),
    ...(lithium.includes(source.kind)
      ? [caution('Lithium: only with its protection board, never charged below 0 °C, unattended or on fabric.')]
      : []),
    step(`Measure ${source.name} without load: ${expectedOf(plan, source)}, DC, and which pin is +.`),
  ]
}

function converterSteps(plan: StreamPlan, node: FeedNodeReport): OrderStep[] {
  const part = plan.feed.find((p) => p.id === node.id)
  if (!part) return []
  const kind = part.converterKind
  if (kind === 'resistor')
    return [step(`${node.name}: ${node.ohm ?? '?'} Ω, away from plastic and cable; its tabs covered.`)]
  if (kind !== 'buck' && kind !== 'boost' && kind !== 'linear') return []
  // what it is to be set to, not what it was last measured at
  const wanted = part.outV ?? node.outV
  if (!part.adjustable)
    return [
      caution(
        `${node.name}: power it without its load and read ${volt(wanted)} (accept ${volt(0.95 * wanted)} to ` +
          `${volt(1.05 * wanted)}), power off.`,
      ),
    ]
  return [
    caution(
      `${node.name}: power it without its load, turn the screw until the meter reads ` +
        `${volt(wanted)} (accept ${volt((1 - SETTING_NEAR) * wanted)} to ${volt((1 + SETTING_NEAR) * wanted)}), power off, ` +
        `lock the screw with lacquer.`,
    ),
  ]
}

/** What is to be known of a switch before it is trusted. */
function switchSteps({ feed }: StreamPlan, node: FeedNodeReport): OrderStep[] {
  const part = feed.find((p) => p.id === node.id)
  if (!part) return []
  const where = part.sensorAt ? ` at ${part.sensorAt}` : ''
  if (part.switchKind === 'thermal-no' || part.switchKind === 'thermostat') {
    const from = part.onC === null ? 'its temperature' : `${part.onC} °C`
    return [
      step(
        `${node.name}: its sensor${where}, pressed to what gets warm, insulated from live metal. Warm it until it closes ` +
          `and note where; let it cool until it opens. Below ${from} the fan stands still: that is no fault.`,
      ),
    ]
  }
  if (part.switchKind === 'thermal-nc')
    return [step(`${node.name}: its sensor${where}. Closed when cold; warm it and see that it opens.`)]
  if (part.switchKind === 'relay')
    return [
      step(`${node.name}: a diode across its coil, stripe to +. The fan’s + goes through its open contact.`),
    ]
  return [step(`${node.name}: in the + lead only. Off while you work; meter that it opens.`)]
}

function leadSteps({ name, lead }: FeedNodeReport): OrderStep[] {
  if (!lead || (lead.awg === null && lead.lengthM === null)) return []
  const gauge =
    lead.mm2 !== null ? `${lead.mm2} mm²` : lead.awg === null ? 'gauge as listed' : `${lead.awg} AWG`
  const length = lead.lengthM === null ? '' : `, ${lead.lengthM} m`
  return [step(`Lead to ${name}: ${gauge}${length}. Heat-shrink on before soldering; pull each crimp.`)]
}

function fanSteps(feed: FeedReport): OrderStep[] {
  const all = feed.nodes.flatMap((n) => (n.fans ? [n.fans] : []))
  return all.flatMap((fans) => stepsOf(fans.fanArray, all.length > 1 ? ` of ${arrayName(fans.fanArray)}` : ''))
}
function stepsOf(fanArray: FanArray, which: string): OrderStep[] {
  const wires = fanArray.model.fan.wires ?? 2
  const tach = wires >= 3 ? ', tach' : ''
  const pwm = wires === 4 ? ', PWM' : ''
  return [
    caution(
      `Identify the fan’s leads${which} by position and with a meter, not by colour: ground, +${tach}${pwm}. Insulate what stays open.`,
    ),
    ...(fanArray.count > 1
      ? [
          step(
            `The ${membersOf(fanArray).length} fans stand side by side electrically, never in series: each sees the whole voltage.`,
          ),
        ]
      : []),
  ]
}

/** How what steers and what feeds are joined: by ground and signals, never by their supply pins. */
function signalSteps(plan: StreamPlan, feed: FeedReport): OrderStep[] {
  const { hub } = plan.wiring
  const steps = feed.nodes.flatMap((node): OrderStep[] => {
    if (!node.fans) return []
    const { header, apart } = signalsOf(plan, feed, node)
    if (!apart) return []
    const what = header?.name ?? (plan.wiring.pwmFrom === 'host' ? 'the host’s header' : 'the controller')
    return [
      caution(
        `From ${what} to ${node.name} only signals and ground: PWM, one tach, and its ground joined with the feed’s. ` +
          'Its supply pin stays open and insulated: two supplies on one wire push against each other.',
      ),
    ]
  })
  const powered =
    hub === 'powered' ? [step('The hub has its own supply: that one on first, then the host.')] : []
  return [...steps, ...(steps.length ? powered : [])]
}

function powerOnSteps(plan: StreamPlan, feed: FeedReport): OrderStep[] {
  const { wiring } = plan
  const fed = feed.nodes.filter((n) => n.fans)
  const warm = plan.feed.find((p) => p.switchKind === 'thermal-no' || p.switchKind === 'thermostat')
  const bridged = warm && feed.nodes.some((n) => n.id === warm.id) ? warm.name : ''
  const amps = (at: FeedNodeReport) => (at.inA === null ? '' : `, ${at.inA.toFixed(3)} A`)
  const whose = (at: FeedNodeReport) => (fed.length > 1 ? `${at.name}’s` : 'the fan’s')
  return [
    caution(
      'Polarity at the open plug, powered, without the fan: + on the + pin. Reversed polarity destroys a brushless fan at once.',
    ),
    step('Power off. Plug in the fan. Tie the lead within 50 mm of the plug, blades free of cable.'),
    step(
      `Power on with a hand on the switch${bridged ? `, ${bridged} bridged for this once` : ''}: it starts, blows the planned ` +
        'way, nothing gets hot in the first minute.',
    ),
    ...fed.map((at) =>
      step(
        `Measure at ${whose(at)} own terminals, running: ${volt(at.inV)} expected${amps(at)}. Note it in the Log.`,
      ),
    ),
    ...(wiring.strainRelief === true ? [] : [step('Strain relief on every lead that can be pulled.')]),
  ]
}

/** The order to connect in, so that nothing is powered before it is known to be right. Common practice, no source. */
export function connectionOrder(plan: StreamPlan, feed: FeedReport): OrderStep[] {
  const sources = plan.sources.filter((s) => feed.nodes.some((n) => n.id === s.id))
  if (!sources.length) return []
  return [
    ...(plan.job.mains ? [mainsStep] : []),
    ...sources.flatMap((source) => sourceSteps(plan, source)),
    ...feed.nodes.filter((n) => n.kind === 'converter').flatMap((n) => converterSteps(plan, n)),
    ...feed.nodes.filter((n) => n.kind === 'switch').flatMap((n) => switchSteps(plan, n)),
    ...feed.nodes.flatMap(leadSteps),
    ...fanSteps(feed),
    ...signalSteps(plan, feed),
    ...powerOnSteps(plan, feed),
  ]
}
