import type { Assumption, PathSizes, Shape } from '#core/begin'
import type { Goal, Job } from '#core/document'
import type { Quantity } from '#core/units'

type JobField = Field<keyof Job & string>

/** The facts that a goal begins with, as a person would ask for them. */
const facts: Record<Goal, { key: keyof Job & string; label: string; quantity: Quantity }[]> = {
  cool: [
    { key: 'heatW', label: 'Heat released inside', quantity: 'power' },
    { key: 'insideMaxC', label: 'Highest temperature inside', quantity: 'temperature' },
    { key: 'ambientC', label: 'Room air', quantity: 'temperature' },
  ],
  part: [
    { key: 'heatW', label: 'Heat of the part', quantity: 'power' },
    { key: 'partMaxC', label: 'Part at most', quantity: 'temperature' },
    { key: 'ambientC', label: 'Air around it', quantity: 'temperature' },
  ],
  ventilate: [
    { key: 'volumeM3', label: 'Free air volume', quantity: 'volume' },
    { key: 'airChangesPerH', label: 'Air changes per hour', quantity: 'perHour' },
  ],
  fume: [
    { key: 'captureDistanceM', label: 'Source to opening', quantity: 'distance' },
    { key: 'captureSpeedMs', label: 'Air speed wanted at the source', quantity: 'speed' },
    { key: 'nozzleAreaM2', label: 'Opening of the nozzle', quantity: 'area' },
  ],
  stir: [
    { key: 'volumeM3', label: 'Free air volume', quantity: 'volume' },
    { key: 'turnoversPerH', label: 'Turnovers per hour', quantity: 'perHour' },
  ],
  chill: [
    { key: 'waterAreaM2', label: 'Water surface', quantity: 'area' },
    { key: 'waterC', label: 'Water temperature', quantity: 'temperature' },
    { key: 'crossAreaM2', label: 'Cross-section of the air over it', quantity: 'area' },
    { key: 'surfaceSpeedMs', label: 'Air speed over the water', quantity: 'speed' },
  ],
  quieten: [
    { key: 'giveRiseK', label: 'It may get warmer by', quantity: 'temperatureDifference' },
    { key: 'listenerM', label: 'Listener at', quantity: 'distance' },
  ],
}

/** A goal's first facts; each says what is assumed while it is empty. */
export function beginFields(
  goal: Goal,
  assumptions: readonly Assumption[],
  range: (low: number, high: number, quantity: Quantity) => string,
): JobField[] {
  return facts[goal].map(({ key, label, quantity }): JobField => {
    const a = assumptions.find((x) => x.key === key)
    return {
      key,
      label,
      quantity,
      ...(a
        ? { hint: `empty: ${range(a.low, a.high, quantity)} assumed` }
        : key === 'giveRiseK'
          ? { hint: 'for quiet; empty: not at all' }
          : { required: true }),
    }
  })
}

/** The few shapes of an air path. */
export const shapeCards: { value: Shape; name: string; what: string }[] = [
  { value: 'box', name: 'Box with holes', what: 'In at one side, out at the other' },
  { value: 'hose', name: 'Hose to the outside', what: 'Through a hose and out' },
  { value: 'heatsink', name: 'Heatsink', what: 'The fan blows on fins' },
  { value: 'open', name: 'Open', what: 'Nothing but a guard in the way' },
  { value: 'like', name: 'Like another job', what: 'Take its air path' },
]
export const sizeFields: Record<keyof PathSizes, { label: string; quantity: Quantity; hint: string }> = {
  holesM2: {
    label: 'Free area of the holes, each side',
    quantity: 'area',
    hint: 'empty: the fan’s own opening',
  },
  boreM: {
    label: 'Bore of the hose',
    quantity: 'length',
    hint: 'empty: the fan’s own size',
  },
  hoseM: { label: 'Length of the hose', quantity: 'distance', hint: 'empty: 2 m assumed' },
}
