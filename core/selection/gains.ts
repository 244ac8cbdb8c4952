import { drawnPlaces, type StreamPlan } from '#core/document'
import { fanPlaces, placeGains, type AirSystem } from '#core/system'
import type { Operation } from './operation'

/** Pressure that the picked fans make at each place of the path, Pa, by the place's id; empty where they do not run. */
export function gainsOf(
  plan: StreamPlan,
  { fanArray, air }: AirSystem,
  { candidate }: Operation,
): Map<string, number | null> {
  const places = fanPlaces(plan)
  if (!fanArray || !candidate || candidate.flow === null || candidate.pressure === null) return new Map()
  const { driveV, duty, flow, pressure } = candidate
  const aside = drawnPlaces(plan).filter((d) => d.place?.aside)
  const gains = placeGains(places, { fanArray, drive: { volts: driveV, duty }, flow, pressure }, air)
  for (const { element } of aside) gains.set(element.id, 0)
  return gains
}
