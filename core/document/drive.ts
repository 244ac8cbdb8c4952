import { newConverter, type Converter } from './feed'
import type { PlanDocument } from './plan'

/** Share of the drive voltage that a source may differ by and still drive the fan straight. Common practice, no source. */
const STRAIGHT = 0.05

/** How the selected fans come to their voltage. */
export interface Drive {
  /** voltage at the fans, V, 0.5 to 60 */
  volts: number
  /** PWM duty 0..1, null without; left as it is where not given */
  duty?: number | null
  /**
   * What makes the voltage: nothing ('straight'), a converter as described, or whatever suits the source ('auto', where
   * not given): straight within 5 % of it, else the converter that is there if it can, else one up or down.
   */
  by?: 'auto' | 'straight' | Partial<Converter>
  /** id for a converter that has to be made */
  converterId: string
}

/** What was chosen for another voltage and must be chosen again. */
const UNSET = { setFirst: false, measuredV: null, ohm: null, ohm2: null, diodes: null, duty: null } as const

const raises = (kind: Converter['kind']) => kind === 'boost'

/** A converter of a kind for a voltage: the one that is there where it is of that kind, else a new one in its place. */
function converterFor(plan: PlanDocument, kind: Converter['kind'], volts: number, id: string): Converter {
  const { converter } = plan
  if (converter?.kind === kind) return { ...converter, ...UNSET, outV: volts }
  return { ...newConverter(converter?.id ?? id, volts), kind, iMaxA: converter?.iMaxA ?? null }
}

/**
 * The one command that sets the drive voltage, wherever it is asked from: the fan selection and the converter that drives
 * it move together, and what hung on a converter that goes hangs on the source from then on.
 * @param plan changed in place; without a fan selection only the converter is set
 */
export function setDrive(plan: PlanDocument, { volts, duty, by = 'auto', converterId }: Drive): void {
  const { selection, source, converter } = plan
  if (selection) {
    selection.driveV = volts
    if (duty !== undefined) selection.duty = duty
  }
  if (by === 'straight') return dropConverter(plan)
  if (by !== 'auto') {
    const kind = by.kind ?? converter?.kind ?? 'buck'
    plan.converter = { ...converterFor(plan, kind, volts, converterId), ...by }
    return
  }
  const nominal = source?.nominalV ?? null
  if (nominal === null) {
    if (converter && converter.outV !== volts)
      plan.converter = converterFor(plan, converter.kind, volts, converterId)
    return
  }
  if (Math.abs(nominal - volts) < STRAIGHT * volts) return dropConverter(plan)
  const up = volts > nominal
  const suits = converter !== null && raises(converter.kind) === up
  if (suits && converter.outV === volts) return
  plan.converter = converterFor(plan, suits ? converter.kind : up ? 'boost' : 'buck', volts, converterId)
}

function dropConverter(plan: PlanDocument): void {
  const gone = plan.converter?.id
  plan.converter = null
  if (gone !== undefined) for (const part of plan.feed) if (part.parentId === gone) part.parentId = null
}
