import { allowedCurrent, awgAmpacity, awgArea, copperResistance, wireDrop } from '#core/power'
import type { Wiring } from '#core/document'
import type { LeadReport } from './feed-node'

/** Insulation and surroundings that a wire is judged by where nothing is told: PVC 70 degC in air of 30 degC, one pair. */
const INSULATION_C = 70
const WIRE_AIR_C = 30
const PAIR = 2
/** Plug and socket pairs on a lead. */
const CONTACT_PAIRS = 2
/**
 * Allowed current of a gauge in the plan's surroundings, A; null where the gauge is not known.
 * @param awg AWG size; 1/0 is 0
 */
export function leadAmpacity(awg: number | null, wiring: Wiring): number | null {
  const rated = awg === null ? undefined : awgAmpacity[awg]
  return rated === undefined
    ? null
    : allowedCurrent(
        rated,
        wiring.bundle ?? PAIR,
        wiring.insulationC ?? INSULATION_C,
        wiring.wireAirC ?? WIRE_AIR_C,
      )
}
const leadOhm = (awg: number | null, lengthM: number | null) =>
  awg && lengthM ? wireDrop(lengthM, copperResistance(awgArea(awg)), 1, CONTACT_PAIRS) : 0

/**
 * A lead before the feed is solved.
 * @param awg AWG size; 1/0 is 0
 */
export const leadOf = (
  awg: number | null,
  lengthM: number | null,
  fuseA: number | null,
  wiring: Wiring,
): LeadReport => ({
  awg,
  lengthM,
  ohm: leadOhm(awg, lengthM),
  dropV: 0,
  lossW: 0,
  ampacityA: leadAmpacity(awg, wiring),
  longestM: null,
  fuseA,
})
