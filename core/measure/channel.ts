import type { Quantity } from '#core/units'

/** What a channel of a log measures, read off its name: `sink_degC`, `fan_rpm`, `box_Pa`. */

export type ChannelQuantity = Extract<
  Quantity,
  | 'temperature'
  | 'level'
  | 'flow'
  | 'pressure'
  | 'rotation'
  | 'voltage'
  | 'current'
  | 'power'
  | 'speed'
  | 'ratio'
  | 'frequency'
  | 'number'
>
export interface Channel {
  name: string
  quantity: ChannelQuantity
}

interface Suffix {
  quantity: ChannelQuantity
  factor: number
  offset: number
}
const suffix = (quantity: ChannelQuantity, factor = 1, offset = 0): Suffix => ({ quantity, factor, offset })
/** Endings of a channel's name and what they say; SI value = value * factor + offset. */
export const channelUnits: Readonly<Record<string, Suffix>> = {
  degC: suffix('temperature'),
  degF: suffix('temperature', 5 / 9, -160 / 9),
  K: suffix('temperature', 1, -273.15),
  Pa: suffix('pressure'),
  hPa: suffix('pressure', 100),
  mmH2O: suffix('pressure', 9.80665),
  rpm: suffix('rotation'),
  V: suffix('voltage'),
  mV: suffix('voltage', 1e-3),
  A: suffix('current'),
  mA: suffix('current', 1e-3),
  W: suffix('power'),
  dBA: suffix('level'),
  m3h: suffix('flow', 1 / 3600),
  cfm: suffix('flow', 0.3048 ** 3 / 60),
  ls: suffix('flow', 1e-3),
  mps: suffix('speed'),
  pct: suffix('ratio', 0.01),
  Hz: suffix('frequency'),
}
/**
 * The ending that writes a quantity without losing anything.
 * Reference: a choice of ours
 */
export const suffixOf = (quantity: ChannelQuantity): string =>
  ({
    temperature: 'degC',
    level: 'dBA',
    flow: 'm3h',
    pressure: 'Pa',
    rotation: 'rpm',
    voltage: 'V',
    current: 'A',
    power: 'W',
    speed: 'mps',
    ratio: 'pct',
    frequency: 'Hz',
    number: '',
  })[quantity]

export interface NamedChannel extends Channel {
  factor: number
  offset: number
}
const lower = new Map(Object.entries(channelUnits).map(([k, v]) => [k.toLowerCase(), v]))
/**
 * A name with its unit behind the last underscore; a name without a known unit is a plain number.
 * @example channelOf('sink_degC').quantity // 'temperature'
 * Reference: a choice of ours
 */
export function channelOf(text: string): NamedChannel {
  const cut = text.lastIndexOf('_')
  const ending = text.slice(cut + 1)
  const found = cut > 0 ? (channelUnits[ending] ?? lower.get(ending.toLowerCase())) : undefined
  return found
    ? { name: text.slice(0, cut).replaceAll('_', ' '), ...found }
    : { name: text.replaceAll('_', ' '), quantity: 'number', factor: 1, offset: 0 }
}
/**
 * The name a channel is written under in files and bench lines.
 * Reference: a choice of ours
 */
export function channelName({ name, quantity }: Channel): string {
  const ending = suffixOf(quantity)
  return name.trim().replaceAll(/\s+/g, '_') + (ending ? `_${ending}` : '')
}
