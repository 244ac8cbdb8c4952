/**
 * Volume of a box, m3.
 * @param length m, above 0
 * @param width m, above 0
 * @param height m, above 0
 * Reference: geometry
 */
export const boxVolume = (length: number, width: number, height: number) => length * width * height
/**
 * Volume under a gabled roof, m3: a triangle of its width and height along its length.
 * @param length m, above 0
 * @param width m, above 0
 * @param height m, above 0
 * Reference: geometry
 */
export const roofVolume = (length: number, width: number, height: number) => (length * width * height) / 2
/**
 * Volume of an upright cylinder, m3.
 * @param diameter m, above 0
 * @param height m, above 0
 * Reference: geometry
 */
export const cylinderVolume = (diameter: number, height: number) => (Math.PI / 4) * diameter ** 2 * height

/** Share of a supply's labelled output that usually becomes heat in the box it feeds. Common practice, no source: labels give the most. */
export const LABEL_SHARE = { low: 0.25, value: 0.4, high: 0.7 }
