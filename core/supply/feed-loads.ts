import { ledResistor, nextPreferred, START_CURRENT_FACTOR } from '#core/power'
import type { Fan, FeedPart } from '#core/document'
import { fanCurrent, fanStartCurrent, modelFan, type FanModel } from '#core/system'

/** LED current of a load that states none, A, and the drop of an LED that states none, V. Common practice, no source. */
const LED_A = 0.01
const LED_V = 2.1
/** Drop of an LED by its colour, V: the middle of its band. Common practice, no source. */
export const ledVolts = { red: 2, yellow: 2.1, green: 3.1, blue: 3.1, white: 3.1 } as const
/** Drop of one LED of a load, V. */
export const ledDrop = ({ ledV, ledColour }: Pick<FeedPart, 'ledV' | 'ledColour'>): number =>
  ledV ?? (ledColour ? ledVolts[ledColour] : LED_V)

/** What a load draws over its voltage. */
export interface LoadLaw {
  /** running current and current at the start, A at V */
  current: (v: number) => number
  start: (v: number) => number
  known: boolean
  /** what it is, in words */
  what: string
  /** resistor of an LED string, ohm */
  ohm: number | null
  maxV: number | null
  startV: number | null
  minV: number | null
  /** which of these no sheet states */
  assumed: { max: boolean; start: boolean; min: boolean }
}

/** What has no voltage of its own to be held to. */
const noLimits = {
  maxV: null,
  startV: null,
  minV: null,
  assumed: { max: false, start: false, min: false },
} as const

/** Fans by their own law. */
function fanLaw(model: FanModel, count: number): LoadLaw {
  return {
    current: (v) => count * (fanCurrent(model, v) ?? 0),
    start: (v) => count * (fanStartCurrent(model, v) ?? 0),
    known: model.fan.ratedA !== null,
    what: `${count} × ${model.fan.model}`,
    ohm: null,
    maxV: model.maxV,
    startV: model.startV,
    minV: model.minV,
    assumed: { max: !model.maxKnown, start: !model.startKnown, min: !model.minKnown },
  }
}

/** LEDs behind the next larger resistor of the E24 series. */
function ledLaw(part: FeedPart, atV: number): LoadLaw {
  const { count } = part
  const forward = (part.ledString ?? 1) * ledDrop(part)
  const wanted = part.currentA ?? LED_A
  const ohm = atV > forward && wanted > 0 ? nextPreferred(ledResistor(atV, 1, forward, wanted), 'E24') : null
  const current = (v: number) => (ohm === null ? 0 : (count * Math.max(0, v - forward)) / ohm)
  return {
    current,
    start: current,
    known: true,
    what: `${count} × LED string${wanted > 0 ? (ohm === null ? '' : ` behind ${ohm} Ω`) : ', dark: no current'}`,
    ohm,
    ...noLimits,
  }
}

/** Modules like a resistor, boards at constant power, the rest at constant current. */
function plainLaw(part: FeedPart, atV: number): LoadLaw {
  const { count, loadKind } = part
  const amps = part.currentA ?? 0
  const rated = part.ratedV ?? atV
  const laws: Partial<Record<NonNullable<FeedPart['loadKind']>, (v: number) => number>> = {
    module: (v) => (count * amps * v) / rated,
    board: (v) => (v > 0.5 * rated ? (count * amps * rated) / v : 0),
  }
  const current = (loadKind && laws[loadKind]) ?? (() => count * amps)
  const turns = loadKind === 'pump' || loadKind === 'fan'
  const usual = turns ? START_CURRENT_FACTOR : 1
  const factor = part.startA !== null && amps > 0 ? part.startA / amps : usual
  return {
    current,
    start: (v) => current(v) * factor,
    known: part.currentA !== null,
    what: count > 1 ? `${count} of them` : '',
    ohm: null,
    ...noLimits,
  }
}

/**
 * The law of a load.
 * @param fans of the shelf, for loads that are fans
 * @param atV voltage that is handed to it without load, V
 */
export function loadLaw(part: FeedPart, fans: readonly Fan[], atV: number): LoadLaw {
  const fan = part.loadKind === 'fan' && part.fanId ? fans.find((f) => f.id === part.fanId) : undefined
  const made = fan && modelFan(fan)
  if (made?.ok) return fanLaw(made.model, part.count)
  return part.loadKind === 'led' ? ledLaw(part, atV) : plainLaw(part, atV)
}
