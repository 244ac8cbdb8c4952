import {
  allowedCurrent,
  awgAmpacity,
  awgArea,
  awgNotThicker,
  copperResistance,
  metricOhm,
  wireDrop,
} from '#core/power'
import type { Wiring } from '#core/document'
import type { LeadReport } from './feed-node'

/** Insulation and surroundings that a wire is judged by where nothing is told: PVC 70 degC in air of 30 degC, one pair. */
const INSULATION_C = 70
const WIRE_AIR_C = 30
const PAIR = 2
/** Plug and socket pairs on a lead. */
export const CONTACT_PAIRS = 2
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
/** A conductor: its resistance per length, ohm/m, and the gauge by whose current it is judged. */
function conductorOf({ wireAwg, wireMm2 }: Conductor): { ohmPerM: number; awg: number } | null {
  if (wireMm2 !== null) return { ohmPerM: metricOhm(wireMm2), awg: awgNotThicker(wireMm2) }
  return wireAwg === null ? null : { ohmPerM: copperResistance(awgArea(wireAwg)), awg: wireAwg }
}

/** What a lead is made of: an AWG size, or a metric cross-section, mm2, which counts where both are there. */
export interface Conductor {
  wireAwg: number | null
  wireMm2: number | null
  wireLengthM: number | null
}

/**
 * A lead before the feed is solved.
 * @param fuseA its own fuse, A
 * @param guardA the fuse that protects its wire, its own or one nearer to the source, A
 */
export function leadOf(
  lead: Conductor,
  fuseA: number | null,
  guardA: number | null,
  wiring: Wiring,
): LeadReport {
  const conductor = conductorOf(lead)
  const lengthM = lead.wireLengthM
  return {
    awg: conductor?.awg ?? null,
    mm2: lead.wireMm2,
    ohmPerM: conductor?.ohmPerM ?? null,
    lengthM,
    ohm: conductor && lengthM ? wireDrop(lengthM, conductor.ohmPerM, 1, CONTACT_PAIRS) : 0,
    dropV: 0,
    lossW: 0,
    ampacityA: leadAmpacity(conductor?.awg ?? null, wiring),
    longestM: null,
    fuseA,
    guardA,
  }
}
