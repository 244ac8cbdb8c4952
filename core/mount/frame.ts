import { frameOf, identifyFrame, type Frame } from '#core/fit'
import type { Fan, Fit } from '#core/document'
import { holeSpacing } from '#core/system'

/** What a calliper showed of the frame beside what its name says, and what to plan for. */

export interface MeasuredFrame {
  /** frame that a calliper shows; null where none or nothing was measured */
  measured: Frame | null
  /** why what was measured is not this fan's frame; '' where it is, or nothing was measured */
  measuredProblem: string
}
/** The frame that the calliper told, or why that is not this fan’s. */
export function measuredOf(fan: Fan, fit: Fit | null): MeasuredFrame {
  const { sideMeasuredM, spacingMeasuredM } = fit ?? { sideMeasuredM: null, spacingMeasuredM: null }
  if (fan.kind === 'blower' || sideMeasuredM === null || spacingMeasuredM === null)
    return { measured: null, measuredProblem: '' }
  const measured = identifyFrame(sideMeasuredM, spacingMeasuredM)
  const mm = (m: number) => `${Number((m * 1000).toFixed(1))} mm`
  if (!measured)
    return {
      measured,
      measuredProblem:
        `No usual frame has holes ${mm(spacingMeasuredM)} apart and a side of ${mm(sideMeasuredM)}: ` +
        'measure both again, or take the holes from the fan itself.',
    }
  return {
    measured,
    measuredProblem:
      frameOf(fan.frameM)?.sideM === measured.sideM
        ? ''
        : `That is a frame of ${mm(measured.sideM)}; the picked fan has ${mm(fan.frameM)}.`,
  }
}

/** One size of a fan: what it is called, what was measured, and between what it lies. */
export interface SizeRow {
  key: 'side' | 'spacing' | 'thickness'
  name: string
  nominalM: number | null
  measuredM: number | null
  lowM: number
  highM: number
  /** what a pocket for it is made to, m; null for what takes none */
  pocketM: number | null
}
/** Doubt of a calliper on moulded plastic, m. Common practice, no source. */
const CALLIPER_M = 0.0001
/**
 * What moulded frames differ from their nominal sizes, m: sides are up to 0.3 mm under and their pads up to 2 mm over,
 * spacings ±0.3, thicknesses ±0.3 and a pad of up to 1 mm on each face. Common practice, no source (handbook fit 1).
 */
const NOMINAL_OFF = {
  side: [-0.0003, 0.002],
  spacing: [-0.0003, 0.0003],
  thickness: [-0.0003, 0.0023],
} as const
/** A pocket is made larger by this than the largest that the frame may be, m, at least. Common practice, no source. */
const POCKET_M = 0.001

/** Sizes of a fan beside each other: nominal and measured, each with its doubt. */
export function sizesOf(fan: Fan, fit: Fit | null): SizeRow[] {
  const row = (
    key: SizeRow['key'],
    name: string,
    nominalM: number | null,
    measuredM: number | null,
  ): SizeRow[] => {
    if (nominalM === null && measuredM === null) return []
    const [low, high] = measuredM === null ? NOMINAL_OFF[key] : [-CALLIPER_M, CALLIPER_M]
    const size = measuredM ?? nominalM!
    const pocketM = key === 'spacing' ? null : (measuredM ?? nominalM!) + POCKET_M
    return [{ key, name, nominalM, measuredM, lowM: size + low, highM: size + high, pocketM }]
  }
  return [
    ...row('side', 'Frame', fan.frameM, fit?.sideMeasuredM ?? null),
    ...row('spacing', 'Screw holes', holeSpacing(fan), fit?.spacingMeasuredM ?? null),
    ...row('thickness', 'Thickness', fan.thicknessM, fan.thicknessMeasuredM),
  ]
}
