import { REFERENCE_DENSITY } from '#core/air'
import type { Fan } from '#core/document'
import { lastFlow, pressureAt } from '#core/fan'
import { modelFan } from '#core/system'
import { areaForFlow, holeArea, SHARP } from './orifice'

/** A carton for a fan: its size, and holes that spread the readings evenly over the curve that is expected. */

export interface CartonDesign {
  widthM: number
  heightM: number
  depthM: number
  /** in the order in which they are opened, each beside those before */
  holesM: number[]
  /** what is expected with so many holes open */
  expected: { open: number; flowM3s: number; pressurePa: number }[]
  /** what the person should know before cutting */
  warnings: string[]
}
export type DesignResult = { ok: true; design: CartonDesign } | { ok: false; reason: string }

/** Shares of free delivery that the holes aim at. A choice of ours: even steps, none so small that leaks rule. */
const AIMS = [0.15, 0.28, 0.41, 0.54, 0.66, 0.77, 0.86]
/** A reading is worth taking from this many times what the gauge resolves. Common practice, no source. */
const GAUGE_TIMES = 3
/** The holes take at most this share of their wall: the box stays a still one. Common practice, no source. */
const OPEN_SHARE = 0.18
/** A wall is at least so many frames wide, and the box so many frames long. Common practice, no source. */
const WALL_FRAMES = 2.5
const DEPTH_FRAMES = 3
/** Cartons come in such steps, holes are cut in such, m. */
const BOX_STEP_M = 0.05
const HOLE_STEP_M = 0.001
/** Smaller holes cannot be cut exactly enough, m. Common practice, no source. */
const LEAST_HOLE_M = 0.006

const stepped = (x: number, step: number) => Math.round(x / step) * step
const upTo = (x: number, step: number) => Math.ceil(x / step - 1e-9) * step

/**
 * Designs a carton for a fan from the curve that its sheet promises.
 * @param fan of the shelf
 * @param gaugePa what the pressure gauge resolves, Pa
 * @returns a reason where its pressure cannot be read on that gauge
 * Reference: the orifice equation at points of the expected curve; rules of thumb as named here
 */
export function designCarton(fan: Fan, gaugePa: number): DesignResult {
  const made = modelFan(fan)
  if (!made.ok) return { ok: false, reason: made.reason }
  const curve = made.model.curves.middle
  const free = lastFlow(curve)
  const aims = AIMS.map((share) => ({ flow: share * free, pressure: pressureAt(curve, share * free) ?? 0 }))
  const readable = aims.filter((a) => a.pressure >= GAUGE_TIMES * gaugePa)
  if (readable.length < 3)
    return {
      ok: false,
      reason:
        `This fan makes too little pressure for a gauge that resolves ${gaugePa} Pa: take a finer one, such as a water ` +
        'tube laid at a slope of 1 in 20, or run the fan at its highest voltage.',
    }
  const holesM: number[] = []
  const expected: CartonDesign['expected'] = []
  let area = 0
  for (const aim of readable) {
    const wanted = areaForFlow(aim.flow, aim.pressure, REFERENCE_DENSITY) / SHARP
    const d = stepped(Math.sqrt((4 * Math.max(0, wanted - area)) / Math.PI), HOLE_STEP_M)
    if (d < LEAST_HOLE_M) continue
    holesM.push(d)
    area += holeArea(d)
    expected.push({ open: holesM.length, flowM3s: aim.flow, pressurePa: aim.pressure })
  }
  const side = upTo(Math.max(WALL_FRAMES * fan.frameM, Math.sqrt(area / OPEN_SHARE)), BOX_STEP_M)
  return {
    ok: true,
    design: {
      widthM: side,
      heightM: side,
      depthM: upTo(Math.max(DEPTH_FRAMES * fan.frameM, side), BOX_STEP_M),
      holesM,
      expected,
      warnings:
        readable.length < AIMS.length
          ? [
              'Near free delivery the box’s pressure falls below what this gauge reads: the last part of the curve is drawn on.',
            ]
          : [],
    },
  }
}

/** What one needs for it. @param holes how many */
export const cartonList = (holes: number): string[] => [
  'A carton of about that size, its seams taped inside and outside',
  `Thin stiff card for the wall with ${holes === 1 ? 'one hole' : `${holes} holes`}: thinner than a tenth of the smallest, ` +
    'edges cut sharp',
  'Tape that comes off again, to close the holes',
  'Two layers of net curtain or mesh across the middle of the box: they still the fan’s jet',
  'A pressure gauge: a pair of barometric sensors, or a water tube laid at a slope',
  'A supply that can be read, at the fan’s own terminals',
]
