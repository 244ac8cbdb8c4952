import { describe, expect, test } from 'vitest'
import { freeAreaRatioOf } from './openings'
import { modelElement } from '.'
import type { ElementModel } from './model'
import { elementDrop } from '../path'
import { newElement, type ElementKind, type PathElement } from '#core/document'
import { airState } from '#core/air'
import {
  ductDrop,
  finDrop,
  kDamper,
  kElbow,
  kMesh,
  kPerforated,
  laminarConstant,
  meshFactor,
  packedBedDrop,
  surfaces,
} from '#core/airpath'

const air = airState(20, 0, 0.5)!
const { density: rho, viscosity: mu } = air
const el = (kind: ElementKind, rest: Partial<PathElement> = {}): PathElement => ({
  ...newElement(kind, kind),
  ...rest,
})
/** An element alone in its row, or between others. */
const model = (element: PathElement, before: PathElement[] = [], after: PathElement[] = []): ElementModel =>
  modelElement(element, { row: [...before, element, ...after], index: before.length, air })
const drop = (element: PathElement, q: number, before: PathElement[] = [], after: PathElement[] = []) =>
  elementDrop(model(element, before, after), q)
const area = (d: number) => (Math.PI / 4) * d ** 2
const staticHead = (q: number, a: number) => (rho / 2) * (q / a) ** 2
const room = el('chamber', { areaM2: 0.5 })
const q = 0.01

describe('openings', () => {
  test('a sharp hole by the orifice equation, a rounded one loses less', () => {
    expect(drop(el('opening', { areaM2: 0.005, edge: 'sharp' }), q)).toBeCloseTo(staticHead(q, 0.61 * 0.005), 9)
    expect(drop(el('opening', { areaM2: 0.005, edge: 'rounded' }), q)).toBeLessThan(
      drop(el('opening', { areaM2: 0.005 }), q) / 2,
    )
  })
  test('a deep slot adds the friction of its walls', () => {
    const thin = el('slot', { widthM: 0.3, gapM: 0.004 })
    const deep = { ...thin, lengthM: 0.03 }
    expect(drop(thin, q)).toBeCloseTo(staticHead(q, 0.62 * 0.0012), 6)
    expect(drop(deep, q) - drop(thin, q)).toBeCloseTo((12 * mu * 0.03 * (q / 0.0012)) / 0.004 ** 2, 6)
  })
  test('a grille by its ratio, or by its holes', () => {
    const typed = el('grille', { areaM2: 0.01, freeAreaRatio: 0.3265 })
    const holes = el('grille', {
      areaM2: 0.01,
      freeAreaRatio: null,
      pattern: 'staggered',
      holeM: 0.003,
      pitchM: 0.005,
    })
    expect(freeAreaRatioOf(holes)).toBeCloseTo(0.3265, 3)
    expect(drop(holes, q) / drop(typed, q)).toBeCloseTo(1, 2)
    expect(model({ ...holes, holeM: 0.006 }).missing).toContain('do not overlap')
  })
  test('woven mesh inside a row: its own law only; as an intake the entrance comes on top', () => {
    const mesh = el('grille', { areaM2: 0.01, freeAreaRatio: 0.6, style: 'mesh' })
    const duct = el('duct', { diameterM: 0.1, lengthM: 1 })
    // 1 m/s past wires of 0.25 mm: Re 17, where slow air resists more
    const k = kMesh(0.6)! * meshFactor((rho * 1 * 0.25e-3) / mu)
    expect(k / kMesh(0.6)!).toBeGreaterThan(2)
    expect(drop(mesh, q, [duct], [duct])).toBeCloseTo(k * staticHead(q, 0.01), 9)
    expect(drop(mesh, q, [], [duct])).toBeCloseTo((k + 0.5) * staticHead(q, 0.01), 9)
  })
  test('a plate as the outlet of a box carries its exit loss', () => {
    expect(drop(el('grille', { areaM2: 0.01, freeAreaRatio: 0.5 }), q, [room])).toBeCloseTo(
      kPerforated(0.5, 'exhaust')! * staticHead(q, 0.01),
      9,
    )
  })
  test.each([
    ['hood', 'rounded', 0.04],
    ['hood', 'free-end', 0.9],
    ['outlet', 'free-exit', 1],
    ['outlet', 'louvre', 4],
  ] as const)('%s, %s: K %s', (kind, style, k) => {
    const pipe = [el('duct', { diameterM: 0.1, lengthM: 1 })]
    const row: [PathElement[], PathElement[]] = kind === 'hood' ? [[], pipe] : [pipe, []]
    expect(drop(el(kind, { diameterM: 0.1, style }), q, ...row)).toBeCloseTo(k * staticHead(q, area(0.1)), 9)
  })
})

describe('ducts', () => {
  const duct = el('duct', { diameterM: 0.1, lengthM: 2, surface: 'pvc' })
  const friction = ductDrop(q, 0.1, 2, surfaces.find((s) => s.key === 'pvc')!.roughness, rho, mu)
  test('alone: entrance, friction, exit', () => {
    expect(drop(duct, q)).toBeCloseTo(friction + 1.5 * staticHead(q, area(0.1)), 9)
  })
  test('a hood and an outlet bring the ends, none is counted twice', () => {
    expect(drop(duct, q, [el('hood', { diameterM: 0.1 })], [el('outlet', { diameterM: 0.1 })])).toBeCloseTo(
      friction,
      9,
    )
  })
  test('a slack hose has its factor on the friction alone', () => {
    const hose = el('duct', { diameterM: 0.1, lengthM: 2, surface: 'hose', slack: 1 })
    const ends = 1.5 * staticHead(q, area(0.1))
    expect((drop({ ...hose, slack: 3 }, q) - ends) / (drop(hose, q) - ends)).toBeCloseTo(3, 9)
  })
  test('a square duct in slow air has the friction constant of its shape (Shah and London)', () => {
    const slow = 2e-4
    const square = el('duct', { widthM: 0.05, heightM: 0.05, lengthM: 3, surface: 'smooth' })
    const v = slow / 0.0025
    // the way in, and the exit of a laminar stream, which carries twice the energy
    expect(drop(square, slow) - 2.5 * staticHead(slow, 0.0025)).toBeCloseTo(
      (laminarConstant(1) * mu * v * 3) / (2 * 0.05 ** 2),
      6,
    )
  })
  const pipe = el('duct', { diameterM: 0.1, lengthM: 1 })
  /** In a pipe of its own bore. */
  const inPipe = (e: PathElement) =>
    drop(
      e,
      q,
      [el('duct', { diameterM: e.diameterM, lengthM: 1 })],
      [el('duct', { diameterM: e.diameter2M ?? e.diameterM, lengthM: 1 })],
    )
  test('a bend, a damper or a reducer at an end of the row pays its way in or out', () => {
    const bend = el('bend', { diameterM: 0.1 })
    const head = staticHead(q, area(0.1))
    expect(drop(bend, q, [pipe], []) - inPipe(bend)).toBeCloseTo(head, 9)
    expect(drop(bend, q, [], [pipe]) - inPipe(bend)).toBeCloseTo(0.5 * head, 9)
    const wider = el('reducer', { diameterM: 0.1, diameter2M: 0.2, angleDeg: 20 })
    expect(drop(wider, q, [pipe], []) - inPipe(wider)).toBeCloseTo(staticHead(q, area(0.2)), 9)
  })
  test('a filter behind a jet neither mends nor ends it', () => {
    const filter = el('filter', { areaM2: 0.02 })
    for (const e of [pipe, el('grille', { areaM2: 0.01 }), el('bend', { diameterM: 0.06 })]) {
      expect(drop(e, q, [], [filter, room])).toBeCloseTo(drop(e, q, [], [room]), 12)
      expect(drop(e, q, [room, filter], [pipe])).toBeCloseTo(drop(e, q, [room], [pipe]), 12)
    }
  })
  test('a flat duct rises without a jump from slow to fast air', () => {
    const flat = el('duct', { widthM: 0.2, heightM: 0.02, lengthM: 2, surface: 'smooth' })
    let before = 0
    for (let flow = 1e-4; flow < 0.05; flow *= 1.002) {
      const now = drop(flat, flow)
      expect(now).toBeGreaterThan(before)
      if (before > 0) expect(now / before).toBeLessThan(1.01)
      before = now
    }
  })
  test('bends: round by radius and angle, mitres by their own', () => {
    expect(inPipe(el('bend', { diameterM: 0.1, radiusRatio: 1.5, angleDeg: 60, count: 2 }))).toBeCloseTo(
      2 * kElbow(1.5, 60)! * staticHead(q, area(0.1)),
      9,
    )
    expect(inPipe(el('bend', { diameterM: 0.1, style: 'mitre', count: 1 }))).toBeCloseTo(
      1.2 * staticHead(q, area(0.1)),
      9,
    )
    expect(model(el('bend', { diameterM: 0.1, radiusRatio: 0.3 })).missing).toContain('half the bore')
  })
  test('a reducer loses on its narrow side, both ways', () => {
    const wide = el('reducer', { diameterM: 0.06, diameter2M: 0.12, angleDeg: 180 })
    expect(inPipe(wide)).toBeCloseTo((1 - 0.25) ** 2 * staticHead(q, area(0.06)), 9)
    expect(inPipe({ ...wide, diameterM: 0.12, diameter2M: 0.06 })).toBeCloseTo(
      0.5 * 0.75 * staticHead(q, area(0.06)),
      9,
    )
    expect(model({ ...wide, diameter2M: null }).missing).toBe('the bore after it')
  })
  test('dampers: a blade by its angle, a gate by its opening; nearly shut there is no table', () => {
    expect(inPipe(el('damper', { diameterM: 0.1, angleDeg: 30 }))).toBeCloseTo(
      kDamper(30)! * staticHead(q, area(0.1)),
      9,
    )
    expect(inPipe(el('damper', { diameterM: 0.1, style: 'slide', freeAreaRatio: 0.5 }))).toBeCloseTo(
      2.1 * staticHead(q, area(0.1)),
      9,
    )
    expect(model(el('damper', { diameterM: 0.1, angleDeg: 85 })).missing).toContain('70°')
    expect(model(el('damper', { diameterM: 0.1, style: 'slide', freeAreaRatio: 0.1 })).missing).toContain(
      'quarter',
    )
  })
  test('a flap asks its pressure first', () => {
    const flap = model(el('flap', { diameterM: 0.1 }))
    expect(flap.staticHead).toBe(3.5)
    expect(elementDrop(flap, 1e-6)).toBeCloseTo(3.5, 6)
    expect(elementDrop(flap, 0)).toBe(0)
  })
  test('an adapter box takes a blower’s slot to a round hole', () => {
    const box = el('adapter', { widthM: 0.03, heightM: 0.02, diameter2M: 0.05 })
    expect(drop(box, 0.002)).toBeCloseTo(staticHead(0.002, 0.0006) + 1.5 * staticHead(0.002, area(0.05)), 6)
  })
})

describe('media', () => {
  test('a filter’s points make its coefficients; twice loaded is twice the loss', () => {
    const own = el('filter', {
      areaM2: 0.03,
      medium: 'sheet',
      points: [
        { flowM3s: 0.01, pressurePa: 12 },
        { flowM3s: 0.02, pressurePa: 30 },
      ],
    })
    const clean = drop(own, 0.01)
    expect(clean / 12).toBeCloseTo(1, 1)
    expect(drop({ ...own, loadFactor: 2 }, 0.01)).toBeCloseTo(2 * clean, 9)
  })
  test('a bed of grains by Ergun', () => {
    const bed = el('filter', { areaM2: 0.02, medium: 'bed', lengthM: 0.03, grainM: 0.003 })
    expect(drop(bed, q)).toBeCloseTo(packedBedDrop(0.03, 0.42, 0.003, q / 0.02, rho, mu), 9)
    expect(model({ ...bed, grainM: null }).missing).toBe('the size of its grains')
  })
  test('twice the face of a filter is less than half its loss', () => {
    const fine = el('filter', { areaM2: 0.02, medium: 'fine' })
    expect(drop({ ...fine, areaM2: 0.04 }, q)).toBeLessThan(drop(fine, q) / 2 + 1e-9)
  })
  test('fins by developing flow', () => {
    const fins = el('fins', { count: 20, gapM: 0.003, heightM: 0.03, lengthM: 0.1, finM: 0.001 })
    expect(drop(fins, q)).toBeCloseTo(
      finDrop({ gap: 0.003, height: 0.03, length: 0.1, channels: 20, finThickness: 0.001 }, q, rho, mu),
      9,
    )
    for (const key of ['count', 'gapM', 'heightM', 'lengthM'] as const)
      expect(model({ ...fins, [key]: null }).missing).not.toBeNull()
  })
  test('one point of one’s own is a quadratic loss, scaled to this air', () => {
    const own = el('custom', { points: [{ flowM3s: 0.02, pressurePa: 40 }] })
    expect(drop(own, 0.01)).toBeCloseTo((10 * rho) / 1.2, 9)
  })
  test('what rests on a guess is doubted more than what was measured', () => {
    const filter = el('filter', { areaM2: 0.03, medium: 'coarse' })
    expect(model({ ...filter, basis: 'rough-guess' }).uncertainty).toBeGreaterThan(
      model({ ...filter, basis: 'good-guess' }).uncertainty,
    )
    expect(model(el('opening', { areaM2: 0.01, basis: 'measured' })).uncertainty).toBeLessThan(
      model(el('opening', { areaM2: 0.01 })).uncertainty,
    )
  })
})
