import type { AirState } from '#core/air'
import { continuedPressure } from '#core/fan'
import { groupsAt, groupCurve, type ArrayDrive, type FanArray } from './fan-array'
import { elementDrop, type FanPlace, type PathModel } from './path'

/** Fans where they run: how they are driven, the air they move together and the pressure they make. */
export interface RunningFans {
  fanArray: FanArray
  drive: ArrayDrive
  /** m3/s */
  flow: number
  /** of all of them together, Pa */
  pressure: number
}

/**
 * Pressure that the fans make at each of their places, Pa, by the place's id. Fans at two places carry the same air, each
 * group at its own point of its own curve, which may be beyond its free delivery (it then brakes). A place that is left
 * over makes none.
 */
export function placeGains(
  places: readonly FanPlace[],
  { fanArray, drive, flow, pressure }: RunningFans,
  air: AirState,
): Map<string, number | null> {
  const two = fanArray.arrangement === 'places' && places.length > 1
  const gainAt = (place: FanPlace) => {
    const [group] = groupsAt(fanArray, place)
    if (!group) return 0
    if (!two) return pressure
    const curve = groupCurve(group, 'places', drive, air)
    return curve && continuedPressure(curve, flow)
  }
  return new Map(places.map((place) => [place.element.id, gainAt(place)]))
}

/** What the pressure does at one element of the row. */
export interface PressureStep {
  id: string
  /** change in it, Pa: losses negative, fans positive; null where it is not known */
  deltaPa: number | null
  /** pressure behind it against the room's, Pa; unknown from the first unknown change on */
  gaugePa: number | null
}

/**
 * The pressure along the main row, from the room to the room.
 * @param flow through it, m3/s; null where it is not known
 * @param gains of each place for fans, Pa
 * Reference: pressures in a row add
 */
export function pressureSteps(
  path: PathModel,
  flow: number | null,
  gains: ReadonlyMap<string, number | null>,
): PressureStep[] {
  let gauge: number | null = 0
  return path.main.map((e) => {
    const { id, kind } = e.element
    const known = flow !== null && !e.missing
    const inside = (e.branches ?? []).flatMap((b) => b.elements).find((x) => x.element.kind === 'fan')
    const gain = inside ? (gains.get(inside.element.id) ?? null) : 0
    const delta =
      kind === 'fan' ? (gains.get(id) ?? null) : known && gain !== null ? gain - elementDrop(e, flow) : null
    gauge = gauge === null || (delta === null && kind !== 'chamber') ? null : gauge + (delta ?? 0)
    return { id, deltaPa: delta, gaugePa: gauge }
  })
}
