import type { Connector, Fan, Place } from '#core/document'

/** What a shelf may be narrowed to. null does not narrow. */
export interface ShelfFilter {
  text: string
  owned: boolean
  /** frame and thickness fit the place */
  fits: boolean
  wires: number | null
  connector: Connector | null
  /** 'no-sleeve' for vertical shafts, heat and vibration */
  bearing: 'ball' | 'fluid' | 'sleeve' | 'no-sleeve' | null
  kind: 'axial' | 'blower' | null
  priceMost: number | null
  /** this frame and no other, m: one that bolts in where the present fan sat */
  frameM: number | null
}

export const noFilter: ShelfFilter = {
  text: '',
  owned: false,
  fits: false,
  wires: null,
  connector: null,
  bearing: null,
  kind: null,
  priceMost: null,
  frameM: null,
}

/** Frames that differ by less are one size, m: nominal sizes are whole millimetres. */
const SAME_FRAME_M = 0.001

/** Whether a fan passes a filter. A value that the sheet does not tell does not pass a filter on it. */
export function passesFilter(
  fan: Fan,
  filter: ShelfFilter,
  place: Pick<Place, 'fitDepthM' | 'fitWidthM' | 'stackExtraM'>,
): boolean {
  const words = filter.text.trim().toLowerCase()
  return (
    (!filter.owned || fan.owned) &&
    (!filter.fits ||
      ((place.fitDepthM === null ||
        (fan.thicknessMeasuredM ?? fan.thicknessM) + (place.stackExtraM ?? 0) <= place.fitDepthM) &&
        (place.fitWidthM === null || fan.frameM <= place.fitWidthM))) &&
    (filter.frameM === null || Math.abs(fan.frameM - filter.frameM) < SAME_FRAME_M) &&
    (filter.wires === null || fan.wires === filter.wires) &&
    (filter.connector === null || fan.connector === filter.connector) &&
    (filter.bearing === null ||
      (filter.bearing === 'no-sleeve'
        ? fan.bearing !== null && fan.bearing !== 'sleeve'
        : fan.bearing === filter.bearing)) &&
    (filter.kind === null || fan.kind === filter.kind) &&
    (filter.priceMost === null || fan.owned || (fan.price !== null && fan.price <= filter.priceMost)) &&
    (!words || `${fan.maker} ${fan.model} ${fan.notes}`.toLowerCase().includes(words))
  )
}
