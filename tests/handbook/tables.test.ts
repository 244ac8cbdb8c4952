import { describe, expect, test } from 'vitest'
import { airState } from '#core/air'
import {
  bFromK,
  dischargeCoefficients,
  filterMedia,
  FLAP_PRESSURE,
  flapPiece,
  hoods,
  kDamper,
  kElbow,
  kReducer,
  kSlideGate,
  meshFactor,
  mitres,
  outlets,
  slackLevels,
  surfaces,
  wyes,
  type Piece,
} from '#core/airpath'
import { nusselt } from '#core/heat'
import { walls } from '#core/need'
import { situations } from '#core/noise'
import { awgAmpacity, cellVoltage, metricResistance, supplyDefaults, usbBudget, usbVoltages } from '#core/power'
import { connectorLimit, diodeVolts, ledVolts } from '#core/supply'
import {
  elementSchema,
  newElement,
  newFeedPart,
  newSource,
  wiringSchema,
  type ElementKind,
  type PathElement,
} from '#core/document'
import { elementDrop, modelElement } from '#core/system'

/**
 * Every table of the core against the handbook's values (written here a second time, with their source), and every entry
 * of it reached from an element, a source or a load that a plan can hold.
 */

const air = airState(20, 0, 0.5)!
const el = (kind: ElementKind, rest: Partial<PathElement> = {}): PathElement =>
  elementSchema.parse({ ...newElement('e', kind), ...rest })
const pipe = el('duct', { diameterM: 0.1, lengthM: 1 })
const BORE = (Math.PI / 4) * 0.1 ** 2
const Q = 0.02
/** Loss coefficient that an element of a plan has in a pipe of 100 mm. */
function kOf(element: PathElement, ends: 'both' | 'before' | 'after' = 'both'): number {
  const row = [...(ends === 'after' ? [] : [pipe]), element, ...(ends === 'before' ? [] : [pipe])]
  const model = modelElement(element, { row, index: row.indexOf(element), air })
  expect(model.missing).toBeNull()
  return elementDrop(model, Q) / (bFromK(1, BORE, air.density) * Q * Q)
}
const middle = ([low, high]: readonly [number, number]) => (low + high) / 2

/** Fittings: hydraulics handbooks and industrial-ventilation practice (from memory), common practice where marked there. */
const pieces: Record<string, readonly [number, number]> = {
  'free-end': [0.8, 1],
  flush: [0.5, 0.5],
  tapered: [0.15, 0.35],
  rounded: [0.04, 0.04],
  'free-exit': [1, 1],
  louvre: [2, 6],
  cowl: [1.5, 3],
  wye: [0.3, 0.5],
  tee: [1, 1.3],
  mitre: [1.2, 1.2],
  mitre45: [0.34, 0.34],
  'u-turn': [2, 3],
  hose: [0.5, 1],
}
describe('fittings', () => {
  const of: [readonly Piece[], ElementKind, 'both' | 'before' | 'after'][] = [
    [hoods, 'hood', 'after'],
    [outlets, 'outlet', 'before'],
    [wyes, 'wye', 'both'],
    [mitres, 'bend', 'both'],
  ]
  test.each(of.flatMap(([list, kind, ends]) => list.map((p) => [kind, p.key, p, ends] as const)))(
    '%s, %s: the handbook’s band, its middle in the plan, and the band in its doubt',
    (kind, key, piece, ends) => {
      const band = pieces[key]!
      expect([piece.low, piece.high]).toEqual(band)
      const element = el(kind, {
        style: key,
        diameterM: 0.1,
        count: kind === 'bend' ? 1 : null,
        basis: 'measured',
      })
      expect(kOf(element, ends)).toBeCloseTo(middle(band), 9)
      const row = ends === 'after' ? [element, pipe] : [pipe, element, ...(ends === 'both' ? [pipe] : [])]
      const { uncertainty } = modelElement(element, { row, index: row.indexOf(element), air })
      const half = (band[1] - band[0]) / 2 / middle(band)
      expect(uncertainty).toBeCloseTo(Math.hypot(0.1, half), 9)
    },
  )
  test('a light flap: 1.5 to 4, and 2 to 5 Pa to open', () => {
    expect([flapPiece.low, flapPiece.high]).toEqual([1.5, 4])
    expect(FLAP_PRESSURE).toEqual({ value: 3.5, low: 2, high: 5 })
  })
  test.each([
    [0.5, 0.71],
    [0.75, 0.33],
    [1, 0.22],
    [1.5, 0.15],
    [2, 0.13],
    [2.5, 0.12],
  ])('round bend r/D %s: %s (ASHRAE, from memory)', (ratio, k) => {
    expect(kElbow(ratio)).toBe(k)
    expect(kOf(el('bend', { diameterM: 0.1, radiusRatio: ratio, style: 'round', count: 1 }))).toBeCloseTo(k, 9)
  })
  test.each([
    [30, 0.45],
    [45, 0.6],
    [60, 0.78],
  ])('a bend of %s degrees: %s of a square one', (angle, share) => {
    expect(kElbow(1, angle)! / kElbow(1)!).toBeCloseTo(share, 9)
  })
  test.each([
    [0, 0.2],
    [5, 0.24],
    [10, 0.52],
    [15, 0.9],
    [20, 1.54],
    [25, 2.51],
    [30, 3.91],
    [35, 6.22],
    [40, 10.8],
    [45, 18.7],
    [50, 32.6],
    [55, 58.8],
    [60, 118],
    [65, 256],
    [70, 751],
  ])('a blade %s degrees from open: %s (after Weisbach, from memory)', (angle, k) => {
    expect(kDamper(angle)! / k).toBeCloseTo(1, 9)
    expect(kOf(el('damper', { diameterM: 0.1, angleDeg: angle, style: 'blade' })) / k).toBeCloseTo(1, 9)
  })
  test.each([
    [0.25, 17],
    [0.5, 2.1],
    [0.75, 0.3],
    [1, 0.1],
  ])('a slide gate open by %s: %s', (open, k) => {
    expect(kSlideGate(open)).toBe(k)
    expect(kOf(el('damper', { diameterM: 0.1, freeAreaRatio: open, style: 'slide' }))).toBeCloseTo(k, 9)
  })
  test.each([
    [10, 0.2],
    [20, 0.4],
    [30, 0.6],
    [45, 0.9],
    [60, 1],
  ])('a diffuser of %s degrees: %s of the sudden one; narrowing gradually 0.05 to 0.1', (angle, share) => {
    expect(kReducer(1, 4, angle) / kReducer(1, 4, 180)).toBeCloseTo(share, 9)
    if (angle >= 20 && angle <= 60) expect(kReducer(4, 1, angle)).toBeCloseTo(0.075, 9)
  })
  test.each([
    [50, 1.44],
    [100, 1.24],
    [200, 1.08],
    [400, 1.01],
    [500, 1],
    [5000, 1],
  ])('a mesh at wire Reynolds %s: %s times', (reynolds, factor) =>
    expect(meshFactor(reynolds)).toBeCloseTo(factor, 9),
  )
  test('discharge: sharp 0.61, slot 0.6 to 0.65, crack 0.65 to 0.7, rounded 0.95', () => {
    expect(dischargeCoefficients.sharp).toBe(0.61)
    expect(dischargeCoefficients.rounded).toBe(0.95)
    expect(Math.abs(dischargeCoefficients.slot - 0.625)).toBeLessThanOrEqual(0.025)
    expect(Math.abs(dischargeCoefficients.crack - 0.675)).toBeLessThanOrEqual(0.025)
    for (const edge of Object.keys(dischargeCoefficients) as (keyof typeof dischargeCoefficients)[])
      expect(kOf(el('opening', { areaM2: BORE, edge }))).toBeCloseTo(dischargeCoefficients[edge] ** -2, 9)
  })
})

/** Roughness, mm: ASHRAE classes and common practice. */
const roughness: Record<string, readonly [number, number]> = {
  smooth: [0.0015, 0.0015],
  pvc: [0.03, 0.03],
  spiral: [0.09, 0.15],
  printed: [0.1, 0.3],
  corrugated: [0.9, 2],
  hose: [3, 3],
}
/** Clean media: c1 and c2 bands, highest usual face speed. Common practice, no source. */
const media: Record<string, [number, number, number, number, number]> = {
  foam20: [1, 5, 2, 6, 2],
  foam30: [5, 12, 5, 12, 1.5],
  foam45: [10, 25, 8, 20, 1],
  mesh: [1, 6, 3, 15, 1.5],
  coarse: [15, 40, 0, 15, 1.5],
  fine: [40, 120, 0, 20, 1],
  hepa: [250, 600, 0, 0, 0.5],
  carbonFoam: [15, 50, 10, 30, 0.5],
}
describe('ducts and media', () => {
  test.each(surfaces)('$key lies in its band and rules the friction of a plan’s duct', (s) => {
    const [low, high] = roughness[s.key]!
    expect(s.roughness * 1000).toBeGreaterThanOrEqual(low - 1e-9)
    expect(s.roughness * 1000).toBeLessThanOrEqual(high + 1e-9)
    const rough = kOf(el('duct', { diameterM: 0.1, lengthM: 5, surface: s.key }))
    expect(rough).toBeGreaterThanOrEqual(kOf(el('duct', { diameterM: 0.1, lengthM: 5, surface: 'smooth' })))
  })
  test('slack: 2 to 4 times at 15 %, up to 10 at 30 %, both ends in the doubt', () => {
    expect(slackLevels.map((l) => [l.low, l.high])).toEqual([
      [1, 1],
      [2, 4],
      [4, 10],
    ])
    for (const l of slackLevels) {
      const model = modelElement(
        el('duct', { diameterM: 0.1, lengthM: 2, slack: l.factor, basis: 'measured' }),
        {
          row: [pipe],
          index: 0,
          air,
        },
      )
      expect(model.uncertainty).toBeCloseTo(Math.hypot(0.1, Math.sqrt(l.high / l.low) - 1), 9)
    }
  })
  test.each(filterMedia)('$key: both ends of its band, and the band in its doubt', (m) => {
    expect([m.c1Low, m.c1High, m.c2Low, m.c2High, m.maxFaceSpeed]).toEqual(media[m.key])
    expect(m.c1).toBeGreaterThanOrEqual(m.c1Low)
    expect(m.c1).toBeLessThanOrEqual(m.c1High)
    const filter = el('filter', { areaM2: 0.02, medium: m.key, basis: 'measured' })
    const model = modelElement(filter, { row: [filter], index: 0, air })
    const at = (c1: number, c2: number) => c1 + (c2 * m.maxFaceSpeed) / 2
    const widest = at(m.c1High, m.c2High) / at(m.c1Low, m.c2Low)
    expect((1 + Math.sqrt(model.uncertainty ** 2 - 0.01)) ** 2 / widest).toBeCloseTo(1, 6)
    expect(elementDrop(model, 0.005)).toBeGreaterThan(0)
  })
})

/** What a situation adds, dB: common practice, no source. */
const penalties: Record<string, [number, number]> = {
  guardOutlet: [0, 1],
  guardIntake: [1, 2],
  grilleIntake: [3, 8],
  grilleSpaced: [1, 2],
  grilleOutlet: [1, 4],
  meshIntake: [1, 3],
  bendIntake: [2, 5],
  stall: [3, 10],
  hardMount: [2, 6],
  softMount: [0, 2],
}
test('noise: every situation has the handbook’s band', () => {
  expect(Object.fromEntries(Object.entries(situations).map(([k, s]) => [k, [s.low, s.high]]))).toEqual(
    penalties,
  )
})

describe('heat and need', () => {
  test('laminar Nusselt numbers (Shah and London)', () => {
    expect(nusselt.plates).toEqual({ temperature: 7.54, flux: 8.24 })
    expect(nusselt.tube).toEqual({ temperature: 3.66, flux: 4.36 })
    expect(nusselt.square).toEqual({ temperature: 2.98, flux: 3.61 })
  })
  test('walls, W/(m²·K), common practice', () => {
    expect(Object.fromEntries(walls.map((w) => [w.key, [w.low, w.high]]))).toEqual({
      steel: [5, 5.5],
      polished: [3.5, 4],
      plastic: [3.5, 4.5],
      acrylic: [4, 5],
      wood: [2.5, 3],
      foam: [1.2, 1.5],
    })
  })
})

describe('power', () => {
  test('contacts, A: from memory and common practice; each can be chosen', () => {
    const limits = Object.fromEntries(Object.entries(connectorLimit).map(([k, c]) => [k, c.amps]))
    expect(limits).toMatchObject({
      header: 3,
      'pin-housing': 1,
      'small-1.25': 1,
      barrel: 3,
      peripheral: 5,
      xt30: 15,
      xt60: 30,
      'spade-2.8': 5,
      'spade-4.8': 10,
      spade: 15,
      screw: 10,
      'usb-a': 1.5,
      'usb-c': 3,
    })
    for (const connector of Object.keys(connectorLimit))
      expect(wiringSchema.parse({ connector }).connector).toBe(connector)
  })
  test('USB: units of current, and steps of a contract; 12 V is in none', () => {
    expect(usbBudget).toMatchObject({
      'usb2-configured': 0.5,
      'usb3-configured': 0.9,
      bc12: 1.5,
      'typec-3A': 3,
    })
    expect(usbVoltages('pd-27W')).toEqual([5, 9])
    for (const kind of Object.keys(usbBudget)) expect(usbVoltages(kind as 'bc12')).not.toContain(12)
  })
  test('cells, V: empty, full', () => {
    expect(cellVoltage['li-ion']).toMatchObject({ empty: 3, full: 4.2 })
    expect(cellVoltage.lifepo4).toMatchObject({ empty: 2.5, full: 3.65 })
  })
  test('gauges and metric wire', () => {
    expect(awgAmpacity).toEqual({
      10: 30,
      12: 20,
      14: 15,
      16: 10,
      18: 7,
      20: 4,
      22: 2.5,
      24: 1.5,
      26: 1,
      28: 0.6,
      30: 0.4,
    })
    expect(metricResistance['5']).toEqual({
      0.5: 0.039,
      0.75: 0.026,
      1: 0.0195,
      1.5: 0.0133,
      2.5: 0.00798,
      4: 0.00495,
      6: 0.0033,
    })
  })
  test('LEDs lie in the band of their colour, diodes in theirs', () => {
    expect(ledVolts.red).toBeGreaterThanOrEqual(1.8)
    expect(ledVolts.red).toBeLessThanOrEqual(2.2)
    for (const colour of ['green', 'blue', 'white'] as const) {
      expect(ledVolts[colour]).toBeGreaterThanOrEqual(2.8)
      expect(ledVolts[colour]).toBeLessThanOrEqual(3.4)
    }
    expect(diodeVolts.schottky).toBe(0.3)
    expect(newFeedPart('l', 'load', null).ledColour).toBeNull()
  })
  test.each(supplyDefaults)('$name can be chosen and has a window around its nominal voltage', (s) => {
    expect(newSource('s', s.kind)).toMatchObject({
      kind: s.kind,
      nominalV: s.nominalV,
      lowV: null,
      highV: null,
    })
    expect(s.lowV).toBeLessThanOrEqual(s.nominalV)
    expect(s.highV).toBeGreaterThanOrEqual(s.nominalV)
  })
})
