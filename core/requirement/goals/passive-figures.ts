import { CP_AIR, GRAVITY, ZERO_CELSIUS_K, type AirState } from '#core/air'
import type { Job } from '#core/document'
import { figure, input, type Figure } from '#core/figure'
import { flowUnder, type PathModel } from '#core/system'

/** What a box gets rid of with no fan at all: through its walls, and by the air that rises through its own openings. */

/**
 * Air that rises through the path by itself at a rise of the air inside, m3/s; null where the heights of intake and
 * outlet, or a size of the path, are not known; 0 where the air leaves no higher than it enters.
 * Reference: stack effect Δp = ρ·g·h·Δt/T, ASHRAE Fundamentals (from memory)
 */
function risingFlow(job: Job, air: AirState, path: PathModel, rise: number): number | null {
  const { intakeHeightM, outletHeightM } = job
  if (intakeHeightM === null || outletHeightM === null || !path.complete) return null
  const height = outletHeightM - intakeHeightM
  if (!(height > 0)) return 0
  const inside = job.ambientC + rise + ZERO_CELSIUS_K
  return flowUnder(path, (air.density * GRAVITY * height * rise) / inside)
}

/**
 * Heat that a box is rid of at its highest temperature without any fan, W.
 * @param insideMaxC highest temperature inside, degC
 * Reference: heat balance of a stirred box with the flow of the stack effect
 */
export function passiveFigure(job: Job, air: AirState, path: PathModel, insideMaxC: number | null): Figure {
  const rise = insideMaxC === null ? null : insideMaxC - job.ambientC
  const warms = rise !== null && rise > 0
  const flow = warms ? risingFlow(job, air, path, rise) : null
  const known = warms && (flow !== null || job.wallLossWK !== null)
  return figure(
    'need.passive',
    'Gets rid of without any fan',
    'power',
    known ? ((job.wallLossWK ?? 0) + air.density * CP_AIR * (flow ?? 0)) * rise : null,
    'P = (UA + ρ·cp·Q_rises)·Δt',
    'heat balance; stack effect ρ·g·h·Δt/T through the openings, ASHRAE Fundamentals (from memory)',
    {
      basis: 'estimated',
      inputs: [
        input('UA', 'wall loss', job.wallLossWK ?? 0, 'thermalConductance'),
        input('ρ', 'air density', air.density, 'density'),
        input('cp', 'heat capacity of air, J/(kg·K)', CP_AIR, 'number'),
        input('Q_rises', 'air that rises by itself', flow ?? 0, 'flow'),
        input('Δt', 'rise that is allowed', rise, 'temperatureDifference'),
      ],
      note: !known
        ? 'Needs the wall loss, or the heights of intake and outlet in the Brief.'
        : flow === null
          ? 'Walls only: the heights of intake and outlet, in the Brief, add the air that rises by itself.'
          : 'With the fan taken out: one that stands still is in the way. No draught, no sun on the box.',
    },
  )
}
