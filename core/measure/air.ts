import { GRAVITY } from '#core/air'

/** Air speed, flow and pressure from what a hobby bench has. */

export type TraverseRule = 'rectangle-log-tchebycheff' | 'circle-log-tchebycheff' | 'circle-log-linear'
/** Where to read along a side or a diameter, as shares of it. Reference: ISO 3966, ASHRAE 111 (from memory). */
const rules: Record<TraverseRule, Record<number, readonly number[]>> = {
  'rectangle-log-tchebycheff': {
    5: [0.074, 0.288, 0.5, 0.712, 0.926],
    6: [0.061, 0.235, 0.437, 0.563, 0.765, 0.939],
    7: [0.053, 0.203, 0.366, 0.5, 0.634, 0.797, 0.947],
  },
  'circle-log-tchebycheff': {
    6: [0.032, 0.137, 0.312, 0.688, 0.863, 0.968],
    8: [0.024, 0.1, 0.194, 0.334, 0.666, 0.806, 0.9, 0.976],
    10: [0.019, 0.076, 0.155, 0.215, 0.357, 0.643, 0.785, 0.845, 0.924, 0.981],
  },
  'circle-log-linear': {
    6: [0.032, 0.135, 0.321, 0.679, 0.865, 0.968],
    8: [0.021, 0.117, 0.184, 0.345, 0.655, 0.816, 0.883, 0.979],
    10: [0.019, 0.077, 0.153, 0.217, 0.361, 0.639, 0.783, 0.847, 0.923, 0.981],
  },
}
/**
 * Positions of a rule; null for a number of points that it does not have.
 * @param points how many
 * Reference: docs/physics.md ME2 to ME5
 */
export const traversePoints = (rule: TraverseRule, points: number): readonly number[] | null =>
  rules[rule][points] ?? null

/**
 * Flow through a disc or ring from its mean air speed, m3/s. @param hub diameter that is blocked, m
 * @param diameter m, above 0
 * @param meanSpeed m/s
 * Reference: docs/physics.md ME2 to ME5
 */
export const flowFromSpeed = (diameter: number, meanSpeed: number, hub = 0) =>
  (Math.PI / 4) * (diameter ** 2 - hub ** 2) * meanSpeed
/**
 * Flow through a rectangle from equal cells, m3/s; null without readings.
 * @param width m
 * @param height m
 * @param speeds m/s
 * Reference: docs/physics.md ME2 to ME5
 */
export const flowFromGrid = (width: number, height: number, speeds: readonly number[]): number | null =>
  speeds.length ? (width * height * speeds.reduce((s, v) => s + v, 0)) / speeds.length : null
/**
 * Air speed of a velocity pressure, m/s; under about 2 m/s low-cost sensors see nothing.
 * @param pressure Pa
 * @param density kg/m3, above 0
 * Reference: docs/physics.md ME2 to ME5
 */
export const speedFromVelocityPressure = (pressure: number, density: number) =>
  Math.sqrt((2 * Math.max(0, pressure)) / density)
/**
 * Speed from a blade-pass line, rpm.
 * @param hertz Hz, above 0
 * @param blades how many, 1 or more
 * Reference: docs/physics.md ME2 to ME5
 */
export const speedFromBladePass = (hertz: number, blades: number) => (60 * hertz) / blades

/**
 * Pressure of a liquid column along a tube at an angle, Pa. @param angleDeg 90 stands upright
 * @param length m
 * @param density kg/m3, above 0
 * Reference: docs/physics.md ME2 to ME5
 */
export const columnPressure = (length: number, density: number, angleDeg = 90) =>
  density * GRAVITY * length * Math.sin((angleDeg * Math.PI) / 180)
/**
 * Difference of two barometric sensors that were swapped between the readings, Pa: their offset cancels.
 * @param d1 first reading, Pa
 * @param d2 second reading, Pa
 * Reference: docs/physics.md ME2 to ME5
 */
export const swappedSensorPressure = (d1: number, d2: number) => (d1 - d2) / 2
/**
 * What a height between two sensors makes, Pa.
 * @param height m
 * @param density kg/m3, above 0
 * Reference: docs/physics.md ME2 to ME5
 */
export const heightPressure = (height: number, density: number) => density * GRAVITY * height
/**
 * Noise of a difference of two means, Pa. @param samples of each
 * @param sigma standard deviation
 * Reference: docs/physics.md ME2 to ME5
 */
export const pairNoise = (sigma: number, samples: number) => sigma * Math.sqrt(2 / samples)

/**
 * Air speed that topples a card, m/s: weight at mid foot against drag at mid height.
 * @param foot depth of the foot
 * @param drag about 1.2 (common practice)
 * @param mass kg
 * @param width m
 * @param height m
 * @param density kg/m3, above 0
 */
export const topplingSpeed = (
  mass: number,
  width: number,
  height: number,
  foot: number,
  drag: number,
  density: number,
) => Math.sqrt((2 * mass * GRAVITY * foot) / (density * drag * width * height ** 2))
