import { fansIn, readingMean, samePlace, type Run, type ThermalPartDoc } from '#core/document'

/** A part's heat capacity and conductances from runs in which it soaked: what was measured instead of guessed. */

export interface Soaked {
  runId: string
  name: string
  /** fans on or off in it */
  moved: boolean
  conductanceWK: number
  /** null where the run tells no time constant */
  capacityJK: number | null
}

/** Places at which temperatures were read. */
export const placesRead = (runs: readonly Run[]): string[] => [
  ...new Set(
    runs.flatMap((r) => r.readings.filter((x) => x.quantity === 'temperature' && x.place).map((x) => x.place)),
  ),
]

/**
 * What each run tells of a place: G = P/(T − T_a), C = τ·G.
 * @param share of the load that the part takes, 0..1
 * @returns runs with load, ambient and a rise there, the newest first
 * Reference: first-order balance at its end (handbook heat 2, HT13)
 */
export function soakedAt(runs: readonly Run[], place: string, share: number): Soaked[] {
  return runs
    .flatMap((run): Soaked[] => {
      const { heatW, ambientC, tauS } = run
      const read = run.readings.findLast((r) => r.quantity === 'temperature' && samePlace(r.place, place))
      if (!read || !heatW || ambientC === null) return []
      const riseK = readingMean(read) - ambientC
      if (!(riseK > 0)) return []
      const conductanceWK = (heatW * share) / riseK
      const off = fansIn(run, run.stage).some((f) => f.off === true) || run.fanV === 0
      return [
        {
          runId: run.id,
          name: run.name || run.kind,
          moved: !off,
          conductanceWK,
          capacityJK: tauS === null ? null : tauS * conductanceWK,
        },
      ]
    })
    .reverse()
}

/** What runs tell, as it goes into a part. */
export function measuredPart(soaked: readonly Soaked[]): Partial<ThermalPartDoc> {
  const moved = soaked.find((s) => s.moved)
  const still = soaked.find((s) => !s.moved)
  const capacity = soaked.find((s) => s.capacityJK !== null)?.capacityJK ?? null
  return {
    ...(moved ? { movedWK: moved.conductanceWK } : {}),
    ...(still ? { stillWK: still.conductanceWK } : {}),
    ...(capacity === null ? {} : { capacityJK: capacity, massKg: null, material: null }),
    ...(moved && capacity !== null ? { basis: 'measured' as const } : {}),
  }
}
