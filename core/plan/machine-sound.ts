import { staysAsIs, streamName, type StreamPlan, dutyOf } from '#core/document'
import { sumLevels } from '#core/noise'
import { quickArrayLevel, type Operation, type SelectionContext } from '#core/selection'
import { drivenV, type AirSystem } from '#core/system'

/** The sound of the whole machine at the listener: the fans of every air stream together, and in which order they are heard. */

/** The fans of one stream as they are heard alone. */
export interface SoundSource {
  /** id of the stream */
  id: string
  name: string
  /** dB(A) at the listener; null where nothing tells it */
  level: number | null
  low: number | null
  high: number | null
  /** heard by somebody; predicted where it runs; from the claim alone where its path is not known */
  basis: 'heard' | 'predicted' | 'claim' | null
}

export interface MachineSound {
  sources: SoundSource[]
  /** all fans together, dB(A), unclamped; null where none is known */
  total: number | null
  low: number | null
  high: number | null
  /** fans that run and are not in the sum, for their level is not known */
  unknown: string[]
  /** the loudest first, each with what is left when it and all before it are silent, dB(A); null: nothing */
  order: { id: string; name: string; level: number; left: number | null }[]
}

/** How far a level that somebody heard may be off, dB: a phone's. Common practice, no source. */
const HEARD_DB = 3

/** A stream's fans at the listener. */
function sourceOf(
  plan: StreamPlan,
  { fanArray }: AirSystem,
  context: SelectionContext,
  { candidate }: Operation,
): SoundSource {
  const base = { id: plan.stream, name: streamName(plan) }
  const { heardDbA } = plan.job
  if (staysAsIs(plan) && heardDbA !== null)
    return { ...base, level: heardDbA, low: heardDbA - HEARD_DB, high: heardDbA + HEARD_DB, basis: 'heard' }
  const level = candidate?.level ?? null
  if (level) return { ...base, level: level.exact, low: level.low, high: level.high, basis: 'predicted' }
  const claimed =
    fanArray && quickArrayLevel(context, fanArray, { volts: drivenV(plan, fanArray), duty: dutyOf(plan) })
  return { ...base, level: claimed, low: null, high: null, basis: claimed === null ? null : 'claim' }
}

/** Order in which sources are silenced, the loudest first. Energies add: 10·lg Σ 10^(L/10). */
function orderOf(sources: readonly SoundSource[]): MachineSound['order'] {
  const known = sources
    .flatMap(({ id, name, level }) => (level === null ? [] : [{ id, name, level }]))
    .toSorted((a, b) => b.level - a.level)
  return known.map((s, i) => ({ ...s, left: sumLevels(known.slice(i + 1).map((x) => x.level)) }))
}

/**
 * All fans of a machine at the listener.
 * @param streams one entry a stream
 */
export function machineSound(
  streams: readonly {
    plan: StreamPlan
    system: AirSystem
    context: SelectionContext
    operation: Operation
  }[],
): MachineSound {
  const sources = streams.map((s) => sourceOf(s.plan, s.system, s.context, s.operation))
  const known = sources.filter((s) => s.level !== null)
  const sum = (key: 'level' | 'low' | 'high') => sumLevels(known.map((s) => s[key] ?? s.level!))
  const silent = (id: string) => {
    const { plan, system } = streams.find((s) => s.plan.stream === id)!
    return !system.fanArray && !staysAsIs(plan)
  }
  return {
    sources,
    total: sum('level'),
    low: sum('low'),
    high: sum('high'),
    unknown: sources.filter((s) => s.level === null && !silent(s.id)).map((s) => s.name),
    order: orderOf(sources),
  }
}

/** What the fans of the other streams make together, dB(A); null where none is known. */
export const othersLevel = ({ sources }: MachineSound, id: string): number | null =>
  sumLevels(sources.flatMap((s) => (s.id === id || s.level === null ? [] : [s.level])))

/**
 * All fans together, dB(A), with another level in the place of one stream's; null where none is known.
 * @param id of the stream
 */
export const wholeWith = (sound: MachineSound, id: string, level: number | null): number | null =>
  sumLevels([othersLevel(sound, id), level].filter((l) => l !== null))

/**
 * Level that one stream's fans may make so that all stay within a limit, dB(A): the limit less the energy of the others.
 * Where the others alone are at it, the limit itself: another stream must be quietened first.
 */
export function allowedLevel(limit: number, others: number | null): number {
  if (others === null) return limit
  const left = 10 ** (limit / 10) - 10 ** (others / 10)
  return left > 10 ** (limit / 10) * LEAST_LEFT ? 10 * Math.log10(left) : limit
}
/** Share of the limit's energy under which no fan could live: another source is to be mended first. */
const LEAST_LEFT = 0.02
