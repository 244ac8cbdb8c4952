import { describe, expect, test } from 'vitest'
import { seeded } from '#core/numeric'
import {
  inPhoto,
  inPlane,
  lengthInPlane,
  obliqueness,
  openAreaOf,
  planeOf,
  straighten,
  type PlanePoint,
} from './index'
import type { Pixel } from './axes'
import { madeGrille, staggeredHoles, workshopGrille, type MadeGrille } from './made-grille'

type Open = (p: PlanePoint) => boolean
const mod = (x: number, m: number) => ((x % m) + m) % m
const patterns: Record<string, (pitch: number, hole: number) => Open> = {
  square: (pitch, hole) => (p) =>
    Math.hypot(mod(p.x, pitch) - pitch / 2, mod(p.y, pitch) - pitch / 2) < hole / 2,
  staggered: staggeredHoles,
  mesh: (pitch, hole) => (p) => mod(p.x, pitch) < hole && mod(p.y, pitch) < hole,
  slots: (pitch, hole) => (p) => mod(p.y, pitch) < hole && mod(p.x, 5 * pitch) < 4.2 * pitch,
}

const photoOf = (made: MadeGrille) => madeGrille(made)!
/** The true share, from the pattern itself. */
function truth(open: Open, widthM: number, heightM: number): number {
  const N = 350
  let n = 0
  for (let i = 0; i < N; i++)
    for (let k = 0; k < N; k++) if (open({ x: ((i + 0.5) / N) * widthM, y: ((k + 0.5) / N) * heightM })) n++
  return n / (N * N)
}
const straightOn: Pixel[] = [
  { x: 36, y: 30 },
  { x: 504, y: 30 },
  { x: 504, y: 390 },
  { x: 36, y: 390 },
]
const shot = (part: Partial<MadeGrille>): MadeGrille => ({
  width: 540,
  height: 420,
  open: patterns.square!(0.01, 0.007),
  corners: straightOn,
  widthM: 0.13,
  heightM: 0.1,
  dark: 40,
  bright: 190,
  shade: 0,
  noise: 0,
  blur: 0,
  seed: 1,
  ...part,
})
function measured(s: MadeGrille) {
  const flat = straighten(photoOf(s), s.corners, s)
  return flat.ok ? openAreaOf(flat.straight, 'dark') : flat
}

describe('a plane in a photo', () => {
  const corners: Pixel[] = [
    { x: 100, y: 80 },
    { x: 700, y: 120 },
    { x: 640, y: 560 },
    { x: 140, y: 500 },
  ]
  const map = planeOf(corners, 0.0856, 0.054)!
  test('its corners are where they are, and the way back leads back', () => {
    const flat = [
      [0, 0],
      [0.0856, 0],
      [0.0856, 0.054],
      [0, 0.054],
    ] as const
    flat.forEach(([x, y], i) => {
      const at = inPhoto(map, { x, y })
      expect(at.x).toBeCloseTo(corners[i]!.x, 6)
      expect(at.y).toBeCloseTo(corners[i]!.y, 6)
    })
    const inside = inPlane(map, inPhoto(map, { x: 0.03, y: 0.02 }))
    expect(inside.x).toBeCloseTo(0.03, 9)
    expect(inside.y).toBeCloseTo(0.02, 9)
  })
  test('lengths: the long side of a card of 85.6 by 54 mm is 85.6 mm', () => {
    expect(lengthInPlane(map, corners[0]!, corners[1]!)).toBeCloseTo(0.0856, 9)
    expect(lengthInPlane(map, corners[0]!, corners[2]!)).toBeCloseTo(Math.hypot(0.0856, 0.054), 9)
  })
  test('crossed corners, a corner inside, no size: no plane', () => {
    expect(planeOf([corners[0]!, corners[2]!, corners[1]!, corners[3]!], 1, 1)).toBeNull()
    expect(planeOf([corners[0]!, corners[1]!, { x: 300, y: 150 }, corners[3]!], 1, 1)).toBeNull()
    expect(planeOf(corners, 0, 1)).toBeNull()
    expect(planeOf(corners.slice(1), 1, 1)).toBeNull()
  })
  test('straight on it is as large at every corner', () => {
    expect(obliqueness(planeOf(straightOn, 0.13, 0.1)!, 0.13, 0.1)).toBeCloseTo(1, 3)
  })
})

describe('a hundred rendered grilles', () => {
  const kinds = Object.keys(patterns)
  const wrong: string[] = []
  let [told, inside] = [0, 0]
  for (let seed = 1; seed <= 100; seed++) {
    const u = seeded(seed)
    const kind = kinds[seed % kinds.length]!
    const pitch = 0.005 + 0.01 * u()
    const hole = pitch * (0.45 + 0.4 * u())
    const off = () => 54 * (u() - 0.5)
    const corners = straightOn.map((c) => ({
      x: c.x + 24 * Math.sign(270 - c.x) + off(),
      y: c.y + 18 * Math.sign(210 - c.y) + off(),
    }))
    const s = shot({
      open: patterns[kind]!(pitch, hole),
      corners,
      shade: 0.45 * u(),
      noise: 8 * u(),
      blur: 1.2 * u(),
      dark: 20 + 50 * u(),
      bright: 140 + 90 * u(),
      seed,
    })
    const made = measured(s)
    if (!made.ok) continue
    told++
    const real = truth(s.open, s.widthM, s.heightM)
    if (Math.abs(made.open.ratio - real) > 0.03)
      wrong.push(`${seed} ${kind}: ${real.toFixed(3)} taken as ${made.open.ratio.toFixed(3)}`)
    if (real >= made.open.low - 0.005 && real <= made.open.high + 0.005) inside++
  }
  test('within three points, or refused', () => {
    expect(wrong).toEqual([])
  })
  test('most are told, and the range holds the truth', () => {
    expect(told).toBeGreaterThan(80)
    expect(inside / told).toBeGreaterThanOrEqual(0.93)
  })
})

describe('holes', () => {
  test('their size and distance in a plate, the wire of a mesh', () => {
    const plate = measured(shot({ open: patterns.square!(0.01, 0.006) }))
    if (!plate.ok) throw new Error(plate.reason)
    expect(plate.open.holes!.diameterM).toBeCloseTo(0.006, 3)
    expect(plate.open.holes!.pitchM).toBeCloseTo(0.01, 3)
    const mesh = measured(shot({ open: patterns.mesh!(0.008, 0.0064) }))
    if (!mesh.ok) throw new Error(mesh.reason)
    expect(mesh.open.holes!.pitchM - mesh.open.holes!.squareM).toBeCloseTo(0.0016, 3)
  })
  test('bright holes before a lamp are open as well', () => {
    const s = shot({ dark: 230, bright: 60 })
    const flat = straighten(photoOf(s), s.corners, s)
    if (!flat.ok) throw new Error(flat.reason)
    const [bright, dark] = (['bright', 'dark'] as const).map((side) => openAreaOf(flat.straight, side))
    if (!bright!.ok || !dark!.ok) throw new Error('refused')
    expect(bright!.open.ratio).toBeCloseTo(truth(s.open, s.widthM, s.heightM), 1)
    expect(bright!.open.ratio + dark!.open.ratio).toBeCloseTo(1, 2)
  })
  test('a part of the photo, away from the card that tells the size', () => {
    const s = shot({ open: (p) => p.x > 0.05 && patterns.square!(0.01, 0.007)(p) })
    const flat = straighten(photoOf(s), s.corners, s, { from: { x: 0.06, y: 0.01 }, to: { x: 0.12, y: 0.09 } })
    if (!flat.ok) throw new Error(flat.reason)
    const made = openAreaOf(flat.straight, 'dark')
    expect(made.ok && made.open.ratio).toBeCloseTo((Math.PI / 4) * 0.49, 1)
  })
})

test('the workshop’s made-up photo is told as it was drawn', () => {
  const made = measured(workshopGrille)
  if (!made.ok) throw new Error(made.reason)
  expect(made.open.ratio).toBeCloseTo((Math.PI / (2 * Math.sqrt(3))) * (0.0062 / 0.009) ** 2, 1)
})

describe('what it refuses', () => {
  const reason = (s: MadeGrille) => {
    const made = measured(s)
    return made.ok ? `told ${made.open.ratio}` : made.reason
  }
  test('too slanted, blurred, no contrast, corners out of order', () => {
    const slanted = [
      { x: 240, y: 120 },
      { x: 300, y: 126 },
      { x: 528, y: 396 },
      { x: 12, y: 390 },
    ]
    expect(reason(shot({ corners: slanted }))).toMatch(/too slanted/)
    expect(reason(shot({ open: patterns.square!(0.005, 0.003), blur: 12 }))).toMatch(/blurred|look alike/)
    expect(reason(shot({ dark: 150, bright: 160 }))).toMatch(/look alike/)
    const [a, b, c, d] = straightOn
    const mixed = shot({})
    expect(straighten(photoOf(mixed), [a!, c!, b!, d!], mixed)).toMatchObject({ ok: false })
  })
})
