import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { bFromK, bOpening, kContraction, kElbow, kExpansion, kMesh, kPerforated, orificeFlow } from './fittings'
import { ductDrop, frictionFactor, frictionFactorExplicit } from './friction'
import { filterDrop, filterMedia } from './filter'
import {
  fitResistance,
  flowAtDrop,
  parallelDrop,
  parallelFlowAtDrop,
  pathExponent,
  quadraticParallel,
  seriesResistance,
} from './resistance'
import { slitDrop } from './slit'

const positive = (min: number, max: number) => fc.double({ min, max, noNaN: true })

describe('duct friction', () => {
  // Moody chart values for a smooth and a rough pipe, e.g. ASHRAE Fundamentals; laminar: Hagen-Poiseuille 64/Re
  test.each([
    [1000, 0, 0.064],
    [1e5, 0, 0.018],
    [1e5, 0.01, 0.0385],
    [1e6, 0.001, 0.0199],
  ])('Re %s, e/D %s', (reynolds, rough, f) => {
    expect(frictionFactor(reynolds, rough) / f).toBeCloseTo(1, 1)
  })
  test('the explicit form stays within 2 % of Colebrook', () => {
    fc.assert(
      fc.property(positive(4001, 1e7), positive(1e-6, 0.05), (re, e) => {
        expect(Math.abs(frictionFactorExplicit(re, e) / frictionFactor(re, e) - 1)).toBeLessThan(0.02)
      }),
    )
  })
  test('no jump at the ends of the transition', () => {
    for (const re of [2300, 4000])
      expect(frictionFactor(re - 1e-6, 0.002)).toBeCloseTo(frictionFactor(re + 1e-6, 0.002), 6)
  })
  test('the drop rises with flow and length, falls with bore', () => {
    fc.assert(
      fc.property(positive(1e-4, 0.1), positive(0.02, 0.3), positive(0.1, 10), (q, d, l) => {
        const drop = ductDrop(q, d, l, 1e-4, 1.2, 1.81e-5)
        expect(ductDrop(q * 1.05, d, l, 1e-4, 1.2, 1.81e-5)).toBeGreaterThan(drop)
        expect(ductDrop(q, d, l * 2, 1e-4, 1.2, 1.81e-5)).toBeCloseTo(2 * drop, 8)
        expect(ductDrop(q, d * 1.1, l, 1e-4, 1.2, 1.81e-5)).toBeLessThan(drop)
      }),
    )
  })
  test('laminar duct: Hagen-Poiseuille', () => {
    // dp = 128 mu L Q/(pi D^4)
    const [q, d, l, mu] = [2e-5, 0.03, 2, 1.81e-5]
    expect(ductDrop(q, d, l, 0, 1.2, mu)).toBeCloseTo((128 * mu * l * q) / (Math.PI * d ** 4), 8)
    expect(ductDrop(0, d, l, 0, 1.2, mu)).toBe(0)
  })
  test('a slit is plane Poiseuille flow', () =>
    expect(slitDrop(0.001, 0.05, 1, 1.81e-5)).toBeCloseTo((12 * 1.81e-5 * 0.05) / 1e-6, 9))
})

describe('fittings', () => {
  test('a fully open grille replaces the plain entrance or exit', () => {
    expect(kPerforated(1, 'in-duct')).toBeCloseTo(0, 12)
    expect(kPerforated(1, 'intake')).toBeCloseTo(0.5, 3)
    expect(kPerforated(1, 'exhaust')).toBeCloseTo(1, 12)
    expect(kMesh(1)).toBe(0)
  })
  test.each([0, -0.2, 1.01, Number.NaN])('a free-area ratio of %s is refused', (s) => {
    expect(kPerforated(s, 'intake')).toBeNull()
    expect(kMesh(s)).toBeNull()
  })
  test('less open is always harder, in every place', () => {
    fc.assert(
      fc.property(
        positive(0.05, 0.95),
        fc.constantFrom('intake' as const, 'in-duct' as const, 'exhaust' as const),
        (s, place) => {
          expect(kPerforated(s, place)!).toBeGreaterThan(kPerforated(s + 0.05, place)!)
        },
      ),
    )
  })
  test('bends: sharper costs more, outside the table there is no value', () => {
    expect(kElbow(0.5)!).toBeGreaterThan(kElbow(1)!)
    expect(kElbow(1, 45)! / kElbow(1)!).toBeCloseTo(0.6, 9)
    expect(kElbow(9)).toBe(kElbow(2.5))
    expect(kElbow(0.3)).toBeNull()
    expect(kElbow(1, 120)).toBeNull()
  })
  test('a change of size that is none costs nothing', () => {
    expect(kExpansion(1, 1)).toBe(0)
    expect(kContraction(1, 1)).toBe(0)
    expect(kExpansion(1, 1e9)).toBeCloseTo(1, 6)
  })
  test('an opening by its b and by the orifice equation is one thing', () => {
    fc.assert(
      fc.property(positive(1e-4, 0.1), positive(0.5, 50), (area, dp) => {
        expect(flowAtDrop(0, bOpening(area, 0.61, 1.2), dp)).toBeCloseTo(orificeFlow(area, 0.61, dp, 1.2), 9)
      }),
    )
    expect(orificeFlow(0.01, 0.61, -5, 1.2)).toBe(-orificeFlow(0.01, 0.61, 5, 1.2))
    expect(bFromK(1, 0.02, 1.2)).toBeCloseTo(1500, 9)
  })
})

describe('filters', () => {
  test('twice the face halves the linear part and quarters the other', () => {
    expect(filterDrop(0.02, 0.04, 30, 0)).toBeCloseTo(filterDrop(0.02, 0.02, 30, 0) / 2, 12)
    expect(filterDrop(0.02, 0.04, 0, 30)).toBeCloseTo(filterDrop(0.02, 0.02, 0, 30) / 4, 12)
  })
  test('every medium lies inside its own band', () => {
    for (const m of filterMedia) {
      expect(m.c1, m.key).toBeGreaterThanOrEqual(m.c1Low)
      expect(m.c1, m.key).toBeLessThanOrEqual(m.c1High)
      expect(m.c2, m.key).toBeGreaterThanOrEqual(m.c2Low)
      expect(m.c2, m.key).toBeLessThanOrEqual(m.c2High)
    }
  })
})

describe('paths', () => {
  const branch = fc.record({ a: positive(0, 2000), b: positive(1, 5e5) })
  test('flow at a drop turns the drop round', () => {
    fc.assert(
      fc.property(branch, positive(0.01, 500), ({ a, b }, dp) => {
        const q = flowAtDrop(a, b, dp)!
        expect(a * q + b * q * q).toBeCloseTo(dp, 6)
      }),
    )
    expect(flowAtDrop(0, 0, 5)).toBeNull()
    expect(flowAtDrop(3, 4, 0)).toBe(0)
  })
  test('branches side by side share one drop and all the flow', () => {
    fc.assert(
      fc.property(fc.array(branch, { minLength: 1, maxLength: 5 }), positive(1e-3, 0.05), (branches, q) => {
        expect(parallelFlowAtDrop(branches, parallelDrop(branches, q)!)).toBeCloseTo(q, 8)
      }),
    )
  })
  test('two equal openings side by side are one of twice the area; in a row their resistances add', () => {
    expect(quadraticParallel([100, 100])).toBeCloseTo(25, 12)
    expect(
      seriesResistance([
        { a: 1, b: 2 },
        { a: 3, b: 4 },
      ]),
    ).toEqual({ a: 4, b: 6 })
    expect(seriesResistance([])).toEqual({ a: 0, b: 0 })
  })
  test('a fit finds the coefficients that made the data, and never a negative one', () => {
    fc.assert(
      fc.property(positive(0, 1000), positive(1000, 1e5), (a, b) => {
        const flows = [0.005, 0.01, 0.015, 0.02]
        const fit = fitResistance(
          flows,
          flows.map((q) => a * q + b * q * q),
        )!
        expect(fit.a).toBeCloseTo(a, 4)
        expect(fit.b / b).toBeCloseTo(1, 6)
      }),
    )
    // bends upward more than any square: the linear part would be negative
    expect(fitResistance([0.01, 0.02], [1, 6])!.a).toBe(0)
    expect(fitResistance([0.01], [4])).toEqual({ a: 0, b: 40000 })
    expect(fitResistance([], [])).toBeNull()
    expect(fitResistance([0], [3])).toBeNull()
  })
  test('exponent between two points', () => {
    expect(pathExponent(1, 3, 2, 12)).toBeCloseTo(2, 12)
    expect(pathExponent(1, 0, 2, 12)).toBeNull()
  })
})
