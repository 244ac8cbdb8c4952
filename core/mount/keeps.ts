import { leastWeb, type HoleOption } from './hole'
import type { MountReport } from './mount'
import type { Place } from '#core/document'
import { impellerDiameter } from '#core/system'

/** What is there already, held against the picked fan: what can stay, and what no longer fits. */

export interface KeepRow {
  key: 'hole' | 'pattern' | 'depth' | 'width' | 'screws' | 'panel'
  /** as it is called: "The hole of 86 mm" */
  what: 'hole' | 'opening' | 'screw holes' | 'depth' | 'width' | 'screws in the drawer' | 'panel'
  sizeM: number | null
  stays: boolean
  /** why it does not, in words; '' where it stays */
  why: string
}
/** Screw patterns within this are one, m. Common practice, no source. */
const SAME_PATTERN_M = 0.001
/** A hole under this share of the blades blows on sheet (as the design check has it). */
const LEAST_OF_BLADES = 0.95

type Mount = Omit<MountReport, 'figures' | 'keeps'>
function holeRow(place: Place, mount: Mount, hole: HoleOption | null): KeepRow[] {
  const { opening, fan } = mount
  if (opening && opening.shape !== 'round' && opening.shape !== 'tapered') {
    const why =
      Math.max(opening.widthM, opening.heightM) > fan.frameM
        ? 'wider than the frame: an adapter plate closes it'
        : opening.withinM2 < opening.ringM2
          ? 'smaller than what the blades sweep'
          : ''
    return [{ key: 'hole', what: 'opening', sizeM: opening.widthM, stays: why === '', why }]
  }
  if (place.holeM === null) return []
  const needsM = fan.kind === 'axial' ? impellerDiameter(fan) : (place.fit?.intakeM ?? null)
  // the hole of a blower whose intake nobody measured cannot be told
  if (needsM === null) return []
  const least = leastWeb(place.fit?.material)
  const why =
    place.holeM < LEAST_OF_BLADES * needsM
      ? 'smaller than the blades: cut it larger'
      : place.holeM > fan.frameM
        ? 'wider than the frame: an adapter plate closes it'
        : hole?.webM != null && hole.webM < least
          ? 'too near the screw holes of this frame'
          : ''
  return [{ key: 'hole', what: 'hole', sizeM: place.holeM, stays: why === '', why }]
}
function screwRow({ screw, drawerM }: Mount): KeepRow[] {
  if (drawerM === null || !screw) return []
  const why =
    drawerM < screw.leastM
      ? 'too short'
      : screw.mostM !== null && drawerM > screw.gripM + screw.mostM
        ? 'too long: they strike what is behind'
        : ''
  return [{ key: 'screws', what: 'screws in the drawer', sizeM: drawerM, stays: why === '', why }]
}

/** What of a place stays with the picked fan, row by row; only what is told. */
export function keepsOf(place: Place, mount: Mount, hole: HoleOption | null): KeepRow[] {
  const { fan, spacingM, leftM, layout, room, inOpening } = mount
  const rows = holeRow(place, mount, hole)
  if (place.existingHolesM !== null && spacingM !== null) {
    const stays = Math.abs(place.existingHolesM - spacingM) <= SAME_PATTERN_M
    const why = stays ? '' : 'another pattern: drill new ones, or use an adapter plate'
    rows.push({ key: 'pattern', what: 'screw holes', sizeM: place.existingHolesM, stays, why })
  }
  if (place.fitDepthM !== null && leftM !== null)
    rows.push({
      key: 'depth',
      what: 'depth',
      sizeM: place.fitDepthM,
      stays: leftM >= 0,
      why: leftM < 0 ? 'too shallow: a thinner fan, or mount it outside' : '',
    })
  if (place.fitWidthM !== null) {
    const stays = fan.frameM <= place.fitWidthM
    const why = stays ? '' : 'too narrow: a smaller frame'
    rows.push({ key: 'width', what: 'width', sizeM: place.fitWidthM, stays, why })
  }
  rows.push(...screwRow(mount))
  if (room !== null) {
    const gaps = layout?.gaps
    const placed = gaps && gaps.edgeM >= 0 && (gaps.frameM ?? 0) >= 0 && (gaps.zoneM ?? 0) >= 0
    const stays = gaps ? placed === true : layout !== null && inOpening <= room
    const why = stays ? '' : gaps ? 'where they were placed they do not stand free' : `has room for ${room}`
    rows.push({ key: 'panel', what: 'panel', sizeM: null, stays, why })
  }
  return rows
}
