import { loudnessRatio } from '#core/noise'
import type { Objective, RankOptions, Weights } from './options'

/** Smaller is better. */
const score: Record<Exclude<Objective, 'weights'>, (c: Scored) => number> = {
  quietest: (c) => c.level ?? 1e3,
  margin: (c) => -(c.margin ?? -1),
  cheapest: (c) => c.cost ?? 1e6,
  power: (c) => c.powerW ?? 1e3,
  thinnest: (c) => c.thicknessM,
  loudness: (c) => (!c.flow || c.level === null ? 1e3 : loudnessRatio(c.level - 40) / c.flow),
  value: (c) => (!c.flow || c.cost === null ? 1e6 : c.cost / c.flow),
}
/** What a group is scored by. */
export interface Scored {
  flow: number | null
  level: number | null
  margin: number | null
  cost: number | null
  powerW: number | null
  thicknessM: number
}

/**
 * What one unit of each wish is worth in the weighted score: 10 dB, the whole need, 5 W, 20 of money, 25 mm. A choice
 * of ours, so that one step of each is felt about alike.
 */
const UNIT = { level: 10, margin: 1, power: 5, cost: 20, thickness: 0.025 }
/** More margin than this is no further gain in the weighted score. */
const ENOUGH_MARGIN = 1

/** Weighted sum of the wishes, smaller is better: level per 10 dB, power per 5 W, money per 20, thickness per 25 mm, less the margin. */
export function weightedScore(c: Scored, w: Weights): number {
  const missing = 3
  return (
    w.quiet * (c.level === null ? missing : c.level / UNIT.level) +
    w.power * (c.powerW === null ? missing : c.powerW / UNIT.power) +
    w.cheap * (c.cost === null ? missing : c.cost / UNIT.cost) +
    (w.thin * c.thicknessM) / UNIT.thickness -
    (w.margin * Math.min(ENOUGH_MARGIN, c.margin ?? -1)) / UNIT.margin
  )
}

export type Order = Pick<RankOptions, 'objective' | 'weights'>
/** The score of an objective: smaller is better. */
export const scoreOf = ({ objective, weights }: Order) =>
  objective === 'weights' ? (c: Scored) => weightedScore(c, weights) : score[objective]
