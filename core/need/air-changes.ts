/**
 * Airflow for a number of air changes, m3/s.
 * @param volumeM3 free air volume, m3, > 0
 * @param changesPerHour air changes per hour, > 0
 * Reference: definition of the air change rate, Q = n V
 */
export function airChangesFlow(volumeM3: number, changesPerHour: number): number {
  return (volumeM3 * changesPerHour) / 3600
}

export interface AirChangeGuide {
  place: string
  low: number
  high: number
}

/** Typical air changes per hour. Common practice, no source. */
export const airChangeGuide: AirChangeGuide[] = [
  { place: 'dry store', low: 2, high: 4 },
  { place: 'living room', low: 0.5, high: 1 },
  { place: 'workshop', low: 6, high: 6 },
  { place: 'soldering corner (with local capture)', low: 10, high: 10 },
  { place: 'printer enclosure', low: 5, high: 20 },
  { place: 'toilet or bath', low: 6, high: 10 },
  { place: 'space under a roof, in summer', low: 10, high: 12 },
  { place: 'grow or fruiting chamber', low: 20, high: 60 },
]
