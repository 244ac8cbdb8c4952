import { atDistance, atSpeed, identicalLevels, levelDistance, sumLevels } from '#core/noise'
import { drivenSpeed, type FanModel } from './fan-model'
import type { FanArray, ArrayDrive } from './fan-array'

/** Distance assumed for a claim that does not state one, m. Common practice, no source. */
const ASSUMED_DISTANCE_M = 1
/** What an installed fan is louder than its free-air claim, dB: least, planned, most. Common practice, no source (3 to 10). */
const INSTALLED = { low: 0, middle: 3, high: 8 }
/** Extra when it runs in stall, dB. Common practice, no source (3 to 10). */
const STALL = { low: 3, middle: 6, high: 10 }

/**
 * Lowest level worth stating, dB(A): below it bearing and commutation tones rule and no room lets one hear it.
 * Handbook asks under 15 (common practice).
 */
const FLOOR = 15

export interface LevelEstimate {
  value: number
  low: number
  high: number
}

/**
 * Level of n equal fans at the listener, dB(A): claim, fan sound law, distance, installation.
 * @param speed speed ratio, > 0
 * @param restricted the path resists, so the free-air claim does not hold
 * @param count fans, 1 or more
 * @returns null where the fan has no level or stands still
 */
export function levelAtListener(
  model: FanModel,
  speed: number,
  count: number,
  listenerM: number,
  restricted: boolean,
  stalled: boolean,
): LevelEstimate | null {
  const {
    claimDbA: claim,
    claimDistanceM,
    fan: { trusted },
  } = model
  if (claim === null) return null
  const driven = atSpeed(claim, 1, speed * (trusted?.rotation?.middle ?? 1))
  if (driven === null) return null
  const base = identicalLevels(
    atDistance(driven, claimDistanceM ?? ASSUMED_DISTANCE_M, levelDistance(listenerM)),
    count,
  )
  const add = (which: keyof typeof INSTALLED) =>
    (restricted ? INSTALLED[which] : 0) + (stalled ? STALL[which] : 0) + (trusted?.level?.[which] ?? 0)
  const stated = (level: number) => Math.max(FLOOR, level)
  return {
    value: stated(base + add('middle')),
    low: stated(base + add('low') - 1),
    high: stated(base + add('high') + 1),
  }
}

/** Level of a group at the listener, dB(A): equal fans add by their number, unlike ones by energy. */
export function arrayLevel(
  { model, second, count }: FanArray,
  { volts, duty }: ArrayDrive,
  listenerM: number,
  restricted: boolean,
  stalled: boolean,
): LevelEstimate | null {
  const speed = drivenSpeed(model, volts, duty)
  if (!second) return levelAtListener(model, speed, count, listenerM, restricted, stalled)
  const a = levelAtListener(model, speed, 1, listenerM, restricted, stalled)
  const b = levelAtListener(second, drivenSpeed(second, volts, duty), 1, listenerM, restricted, stalled)
  return (
    a &&
    b && {
      value: sumLevels([a.value, b.value])!,
      low: sumLevels([a.low, b.low])!,
      high: sumLevels([a.high, b.high])!,
    }
  )
}
