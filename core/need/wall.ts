import { effectiveArea } from './heat'

/** Heat passage of a wall, inside air to still room air, W/(m2.K). Common practice, no source. */
export interface Wall {
  key: string
  name: string
  low: number
  high: number
}
export const walls: Wall[] = [
  { key: 'steel', name: 'Painted steel or aluminium', low: 5, high: 5.5 },
  { key: 'polished', name: 'Bare polished metal', low: 3.5, high: 4 },
  { key: 'plastic', name: 'Plastic, 3 mm', low: 3.5, high: 4.5 },
  { key: 'acrylic', name: 'Acrylic, 3 mm', low: 4, high: 5 },
  { key: 'wood', name: 'Plywood or MDF, 18 mm', low: 2.5, high: 3 },
  { key: 'foam', name: 'Sheet with 20 mm of foam', low: 1.2, high: 1.5 },
]
/** Gain of the inner side when a fan stirs the box. Common practice, no source (10 to 20 %). */
const STIRRED = 1.15

/**
 * Wall loss of a box, W/K, with its range. Sides in m; the floor never counts.
 * Reference: heat balance
 */
export function wallLoss(
  wall: Wall,
  heightM: number,
  widthM: number,
  depthM: number,
  placement: 'free-standing' | 'wall',
): { value: number; low: number; high: number } {
  const area = effectiveArea(heightM, widthM, depthM, placement) * STIRRED
  return { value: (area * (wall.low + wall.high)) / 2, low: area * wall.low, high: area * wall.high }
}
