import { newConverter } from '#core/document'
import type { PlanDocument } from '#core/document'

/** Share of the drive voltage that a source may differ by and still drive the fan straight. */
const STRAIGHT = 0.05

/**
 * Drives the pick at a voltage: the feed follows, so that the chain stays one. A converter that is turned wants to be set
 * again before the fan is connected.
 */
export function driveAt(d: PlanDocument, volts: number) {
  if (!d.selection) return
  d.selection.driveV = volts
  const nominal = d.source?.nominalV ?? null
  if (nominal === null) return
  if (Math.abs(nominal - volts) < STRAIGHT * volts) d.converter = null
  else if (d.converter)
    Object.assign(d.converter, {
      kind: volts < nominal ? 'buck' : 'boost',
      outV: volts,
      setFirst: false,
      measuredV: null,
    })
  else d.converter = { ...newConverter(newId('converter'), volts), kind: volts < nominal ? 'buck' : 'boost' }
}
