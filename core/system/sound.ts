import {
  addPenalties,
  atDistance,
  atSpeed,
  identicalLevels,
  levelDistance,
  situations,
  SPEED_EXPONENT,
  speedExponentBand,
  sumLevels,
  usualPenalty,
  wallPenalty,
  type Penalty,
} from '#core/noise'
import { rangeBySquares } from '#core/numeric'
import type { PathElement, Place } from '#core/document'
import { drivenSpeed, impellerDiameter, type FanModel } from './fan-model'
import { isOfOneKind, type ArrayDrive, type FanArray, type FanGroup } from './fan-array'
import type { FanPlace } from './path'

/** Distance assumed for a claim that does not state one, m, and what that may be off, dB. Common practice, no source. */
export const ASSUMED_DISTANCE_M = 1
const ASSUMED_DISTANCE_DB = 3
/** How far a level claim may be off, dB, 95 times in 100; converted from sone. Common practice, no source. */
const CLAIM_DB = 3
const SONE_DB = 5

/**
 * Lowest level worth stating, dB(A): below it bearing and commutation tones rule and no room lets one hear it.
 * Handbook asks under 15 (common practice).
 */
export const LEVEL_FLOOR = 15

/** Gap between a grille and the blades from which it counts as spaced off, m. Common practice, no source. */
const SPACED_M = 0.01

/** What surrounds the fans, as far as it is known, and what that adds to their sound. */
export interface Installation {
  penalties: Penalty[]
  value: number
  low: number
  high: number
}

/** Penalties of what stands directly before or behind the fan. */
function ofNeighbour(e: PathElement | undefined, side: 'in' | 'out', gapM: number | null): Penalty[] {
  if (!e) return []
  const intake = side === 'in'
  if (e.kind === 'grille') {
    if (e.style === 'mesh') return intake ? [situations.meshIntake] : []
    if (e.style === 'guard') return [intake ? situations.guardIntake : situations.guardOutlet]
    if (!intake) return [situations.grilleOutlet]
    return [gapM !== null && gapM >= SPACED_M ? situations.grilleSpaced : situations.grilleIntake]
  }
  if (e.kind === 'filter' && intake && e.medium === 'mesh') return [situations.meshIntake]
  if (intake && (e.kind === 'bend' || e.kind === 'damper')) return [situations.bendIntake]
  return []
}

/** Whether one knows what the air meets on its way into the fan: something stands there, or the clearance is stated. */
const intakeKnown = (before: PathElement | undefined, { inletClearM }: Place) =>
  (before !== undefined && before.kind !== 'chamber' && before.kind !== 'split') || inletClearM !== null

/**
 * What the installation adds to the free-air claim, dB(A): the situations that elements and gaps tell; where nothing is
 * known of the intake, what is usual.
 * @param place what is told of their place
 * @param at where in the path they stand; at the end of the row where it is not told
 * @param pressurePa at the operating point, Pa
 * @param stalled known to run in stall
 * Reference: common practice, no source; adding rule of the same
 */
export function installationOf(
  place: Place,
  { row, index }: Pick<FanPlace, 'row' | 'index'>,
  model: FanModel,
  pressurePa: number,
  stalled: boolean,
): Installation {
  const [before, after] = index < 0 ? [row.at(-1), undefined] : [row[index - 1], row[index + 1]]
  const penalties: Penalty[] = [
    ...ofNeighbour(before, 'in', place.upstreamGapM),
    ...ofNeighbour(after, 'out', null),
    ...(place.inletClearM === null ? [] : [wallPenalty(place.inletClearM / impellerDiameter(model.fan))]),
    ...(place.thinPanel ? [place.mountIsolated ? situations.softMount : situations.hardMount] : []),
    ...(stalled ? [situations.stall] : []),
    ...(intakeKnown(before, place) ? [] : [usualPenalty(pressurePa)]),
  ].filter((p) => p.high > 0)
  return { penalties, ...addPenalties(penalties) }
}

/** A level with its range. The parts it is made of stand beside it, so that a working can add them up. */
export interface LevelEstimate {
  /** as stated: not below the floor */
  value: number
  low: number
  high: number
  /** unclamped, to put fans in order */
  exact: number
  /** level of one fan as claimed, and what is added to it, dB */
  parts: LevelParts
  /** both fans of an unlike pair, whose energies add; null for equal fans */
  pair: [LevelEstimate, LevelEstimate] | null
}
export interface LevelParts {
  claim: number
  speed: number
  distance: number
  count: number
  installation: number
  correction: number
}

/** What the level of n equal fans at the listener is made of, dB(A) and dB; null where the fan has none or stands still. */
function levelParts(
  { claimDbA: claim, claimDistanceM, fan: { trusted } }: FanModel,
  speed: number,
  count: number,
  listenerM: number,
  installation: number,
): LevelParts | null {
  if (claim === null) return null
  const driven = atSpeed(claim, 1, speed * (trusted?.rotation?.middle ?? 1))
  if (driven === null) return null
  return {
    claim,
    speed: driven - claim,
    distance: atDistance(0, claimDistanceM ?? ASSUMED_DISTANCE_M, levelDistance(listenerM)),
    count: identicalLevels(0, count),
    installation,
    correction: trusted?.level?.middle ?? 0,
  }
}
const sumOf = (parts: LevelParts) => Object.values(parts).reduce((s: number, x: number) => s + x, 0)

/**
 * The level alone, without its range and its parts: enough to put fans in order, dB(A).
 * @param speed speed ratio, above 0
 * @param count fans, 1 or more
 * @param listenerM m, above 0
 * @param installation what surrounds them, dB
 * @returns null where the fan has no level or stands still
 */
export function exactLevel(
  model: FanModel,
  speed: number,
  count: number,
  listenerM: number,
  installation: number,
): number | null {
  const parts = levelParts(model, speed, count, listenerM, installation)
  return parts && sumOf(parts)
}

/**
 * Level of n equal fans at the listener, dB(A): claim, fan sound law, distance with the room's limit, number,
 * installation.
 * @param speed speed ratio, > 0
 * @param count fans, 1 or more
 * @returns null where the fan has no level or stands still
 * Reference: fan sound law 50 lg n (45 to 60 for small fans); free field up to the room's limit
 */
export function levelAtListener(
  model: FanModel,
  speed: number,
  count: number,
  listenerM: number,
  installation: Installation,
): LevelEstimate | null {
  const parts = levelParts(model, speed, count, listenerM, installation.value)
  if (parts === null) return null
  const { claimDistanceM, fromSone, fan } = model
  const { trusted } = fan
  const ratio = speed * (trusted?.rotation?.middle ?? 1)
  const level = trusted?.level
  const exact = sumOf(parts)
  const around = (low: number, high = low) => [exact - low, exact + high]
  const slope = (exponent: number) => exact + (exponent - SPEED_EXPONENT) * Math.log10(ratio)
  const claimDb = fromSone ? SONE_DB : CLAIM_DB
  const { low, high } = rangeBySquares(exact, [
    level ? [exact + level.low - level.middle, exact + level.high - level.middle] : around(claimDb),
    speedExponentBand.map(slope),
    around(claimDistanceM === null ? ASSUMED_DISTANCE_DB : 0),
    [exact + installation.low - installation.value, exact + installation.high - installation.value],
  ])
  const stated = (x: number) => Math.max(LEVEL_FLOOR, x)
  return { value: stated(exact), low: stated(low), high: stated(high ?? exact), exact, parts, pair: null }
}

/**
 * Level of an array at the listener, dB(A): equal fans add by their number, unlike ones and those at another place by
 * energy.
 * @param installations of each group; the last one holds for the further ones
 */
export function arrayLevel(
  fanArray: FanArray,
  { volts, duty }: ArrayDrive,
  listenerM: number,
  installations: readonly Installation[],
): LevelEstimate | null {
  const of = ({ model, count }: Pick<FanGroup, 'model' | 'count'>, i: number) =>
    levelAtListener(
      model,
      drivenSpeed(model, volts, duty),
      count,
      listenerM,
      installations[Math.min(i, installations.length - 1)]!,
    )
  // alike and in the same surroundings: one working tells them all
  if (isOfOneKind(fanArray) && installations.length < 2) return of(fanArray, 0)
  const [a, b] = fanArray.groups.map(of)
  if (!a || !b) return fanArray.groups.length > 1 ? null : (a ?? null)
  const sum = (key: 'value' | 'low' | 'high' | 'exact') => sumLevels([a[key], b[key]])!
  return {
    value: Math.max(LEVEL_FLOOR, sum('exact')),
    low: sum('low'),
    high: sum('high'),
    exact: sum('exact'),
    parts: a.parts,
    pair: [a, b],
  }
}
