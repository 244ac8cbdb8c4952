import { PWM_PIN_V } from '#core/control'
import type { StreamPlan, Source, Wiring } from '#core/document'
import type { FeedNodeReport } from './feed-node'
import { rootOf, type FeedReport } from './feed-tree'

/** The tach and PWM wires of fans: what they lead to, and whether that shares a ground with what feeds the fans. */

/** What steers and reads the fans at one node. */
export interface Signals {
  /** header that the wires lead to; null where none is wanted or none is planned */
  header: Source | null
  /** what steers or reads is not what feeds the fans: their grounds must be one */
  apart: boolean
  /** what the PWM pin and the tach pin are connected to */
  pwm: string
  tach: string
}

/** Resistor that ties a PWM wire to 5 V, in words. Between common pull-up values; common practice, no source. */
const USUAL_TIE = '4.7 to 10 kΩ'
const PWM_OPEN = 'left open, insulated: full speed'

/** Whether a signal wire leads to a host's header. */
export const fromHost = ({ pwmFrom, tachTo }: Wiring) => pwmFrom === 'host' || tachTo === 'host'
/** Whether nothing varies the PWM wire: the fan runs at full speed whatever duty is planned. */
export const pwmIdle = ({ pwmFrom }: Wiring) => pwmFrom === 'open' || pwmFrom === 'tied'

function pwmWords({ pwmFrom, pwmTieOhm }: Wiring, host: string, steered: boolean): string {
  if (pwmFrom === 'host') return `to ${host}, pin 4`
  if (pwmFrom === 'controller') return `to the controller’s open drain, at most ${PWM_PIN_V} V`
  if (pwmFrom === 'tied') {
    const ohm = pwmTieOhm === null ? USUAL_TIE : `${Number((pwmTieOhm / 1000).toPrecision(3))} kΩ`
    return `to 5 V through ${ohm}: full speed`
  }
  if (pwmFrom === 'open' || !steered) return PWM_OPEN
  return `to the open-drain driver, at most ${PWM_PIN_V} V`
}
function tachWords({ tachTo }: Wiring, host: string): string {
  if (tachTo === 'host') return `one to ${host}, pin 3`
  if (tachTo === 'controller') return 'one to the controller’s input'
  if (tachTo === 'alarm') return 'to the alarm, one each'
  return tachTo === 'input' ? 'to the one input that reads it' : 'left open, insulated'
}

/** A board computer that hangs on the same source has the same ground. */
const sharesBoard = (plan: StreamPlan, feed: FeedReport, root: FeedNodeReport) =>
  plan.feed.some((p) => {
    const node = p.loadKind === 'board' ? feed.nodes.find((n) => n.id === p.id) : undefined
    return node !== undefined && rootOf(feed, node).id === root.id
  })

/**
 * What the tach and PWM wires of the fans at a node lead to. A host's header that is a further source only steers: its
 * ground is joined, its supply pin stays open.
 */
export function signalsOf(plan: StreamPlan, feed: FeedReport, node: FeedNodeReport): Signals {
  const { wiring } = plan
  const root = rootOf(feed, node)
  const headers = plan.sources.filter((s) => s.kind === 'header')
  const header = fromHost(wiring) ? (headers.find((s) => s.id !== root.id) ?? headers[0] ?? null) : null
  const steered = node.fans !== null && node.fans.duty !== null
  const host = header?.name ?? 'the host’s header'
  const controlled = wiring.pwmFrom === 'controller' || wiring.tachTo === 'controller'
  return {
    header,
    apart: fromHost(wiring) ? header?.id !== root.id : controlled && !sharesBoard(plan, feed, root),
    pwm: pwmWords(wiring, host, steered),
    tach: tachWords(wiring, host),
  }
}
