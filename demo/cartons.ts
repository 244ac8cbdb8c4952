import { cartonSchema, type Carton, type Fan } from '#core/document'
import { designCarton, readRig, readRigLeak, rigOf } from '#core/lab'

/** Fans of the workshop that were measured on a carton, so that a newcomer sees one half-way. All of it is made up. */

const GAUGE_PA = 0.5
const LEAK_HOLE_M = 0.012
const VOLTS = 12
/** Holes that were open, one reading each; the leak card was read last. */
const OPEN = [0, 6, 3, 1, 5]

/** The carton of a fan, with its readings. */
function cartonOf(fan: Fan, seed: number): Carton | null {
  const made = designCarton(fan, GAUGE_PA)
  if (!made.ok) return null
  const { widthM, heightM, depthM, holesM } = made.design
  const carton = cartonSchema.parse({
    id: 'carton-first',
    takenAt: '2026-04-18T15:20:00.000Z',
    widthM,
    heightM,
    depthM,
    holesM,
    gaugePa: GAUGE_PA,
    leakHoleM: LEAK_HOLE_M,
    notes: 'Carton of the printing paper, two layers of net curtain.',
  })
  const rig = rigOf(carton, fan, seed)
  if (!rig) return null
  return {
    ...carton,
    leakPressurePa: readRigLeak(rig, carton, LEAK_HOLE_M, seed),
    readings: OPEN.map((open, i) => ({
      id: `reading-${i + 1}`,
      ...readRig(rig, carton, fan, open, VOLTS, seed + i + 1),
    })),
  }
}

/** Fans with what was read of them on a carton. */
const measured: Record<string, number> = { 'fan-sedge-80x25-12v': 41 }
export function withCartons(fans: Fan[]): Fan[] {
  return fans.map((fan) => {
    const seed = measured[fan.id]
    const carton = seed === undefined ? null : cartonOf(fan, seed)
    return carton ? { ...fan, cartons: [carton] } : fan
  })
}
