import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { newElement, newPlan } from './index'
import type { PathElement } from './index'
import { mayStandIn, placeElement, removeBranch, removeElement, rowOf } from './path-edit'
import { layoutRibbon, MIN_PIECE, RIBBON, ribbonWeight } from '../../app/charts/ribbon-layout'
import type { RibbonSegment } from '#core/plan'

/** A row a, s (split with ways x: x1 x2, y: y1), b. */
function plan() {
  const p = newPlan('j', 'Box')
  const el = (id: string, branchId: string | null = null, kind: PathElement['kind'] = 'opening') => ({
    ...newElement(id, kind),
    branchId,
  })
  p.path = [el('a'), el('s', null, 'split'), el('x1', 'x'), el('x2', 'x'), el('y1', 'y'), el('b')]
  p.branches = [
    { id: 'x', splitId: 's', name: 'X', leak: false },
    { id: 'y', splitId: 's', name: 'Y', leak: true },
  ]
  return p
}
const ids = (p: ReturnType<typeof plan>, row: string | null = null) => rowOf(p, row).map((e) => e.id)

describe('placing elements', () => {
  test('at a place, at the end, and from one row to another', () => {
    const p = plan()
    placeElement(p, newElement('n', 'filter'), null, 1)
    expect(ids(p)).toEqual(['a', 'n', 's', 'b'])
    placeElement(
      p,
      p.path.find((e) => e.id === 'x1')!,
      null,
      0,
    )
    expect(ids(p)).toEqual(['x1', 'a', 'n', 's', 'b'])
    expect(ids(p, 'x')).toEqual(['x2'])
    placeElement(
      p,
      p.path.find((e) => e.id === 'b')!,
      'y',
      null,
    )
    expect(ids(p, 'y')).toEqual(['y1', 'b'])
  })
  test('any move keeps every element once and the other rows as they were', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('a', 'x1', 'x2', 'y1', 'b'),
        fc.constantFrom(null, 'x', 'y'),
        fc.nat(6),
        (id, row, index) => {
          const p = plan()
          const before = {
            main: ids(p).filter((x) => x !== id),
            x: ids(p, 'x').filter((x) => x !== id),
            y: ids(p, 'y').filter((x) => x !== id),
          }
          placeElement(
            p,
            p.path.find((e) => e.id === id)!,
            row,
            index,
          )
          expect(p.path.map((e) => e.id).sort()).toEqual(
            plan()
              .path.map((e) => e.id)
              .sort(),
          )
          expect(ids(p, row)[Math.min(index, ids(p, row).length - 1)]).toBe(id)
          const after = {
            main: ids(p).filter((x) => x !== id),
            x: ids(p, 'x').filter((x) => x !== id),
            y: ids(p, 'y').filter((x) => x !== id),
          }
          expect(after).toEqual(before)
        },
      ),
    )
  })
  test('a split takes its ways with it, a way what stands in it', () => {
    const p = plan()
    removeBranch(p, 'x')
    expect(p.path.map((e) => e.id)).toEqual(['a', 's', 'y1', 'b'])
    removeElement(p, 's')
    expect(p.path.map((e) => e.id)).toEqual(['a', 'b'])
    expect(p.branches).toEqual([])
  })
  test('fan and split stay in the main row', () => {
    expect(mayStandIn({ kind: 'fan' }, 'x')).toBe(false)
    expect(mayStandIn({ kind: 'split' }, 'x')).toBe(false)
    expect(mayStandIn({ kind: 'fan' }, null)).toBe(true)
    expect(mayStandIn({ kind: 'duct' }, 'x')).toBe(true)
  })
})

describe('where the ribbon draws what', () => {
  const segment = (
    id: string,
    kind: RibbonSegment['kind'],
    height = 1,
    branches: RibbonSegment['branches'] = [],
  ): RibbonSegment => ({
    id,
    kind,
    name: id,
    areaM2: null,
    height,
    deltaPa: null,
    gaugePa: null,
    temperatureC: null,
    tint: 0,
    missing: false,
    fans: null,
    branches,
  })
  const ways = [
    {
      id: 'x',
      name: 'X',
      leak: false,
      flow: null,
      segments: [segment('x1', 'opening', 0.5), segment('x2', 'opening')],
    },
    { id: 'y', name: 'Y', leak: true, flow: null, segments: [segment('y1', 'slot')] },
  ]
  const row = [
    segment('in', 'room-in'),
    segment('s', 'split', 1, ways),
    segment('box', 'chamber'),
    segment('f', 'fan', 0.7),
    segment('out', 'room-out'),
  ]
  test('pieces fill the width side by side', () => {
    const { pieces } = layoutRibbon(row, 1000)
    expect(pieces[0]!.x).toBe(0)
    for (const [i, p] of pieces.entries())
      if (i) expect(p.x).toBeCloseTo(pieces[i - 1]!.x + pieces[i - 1]!.width, 9)
    expect(pieces.at(-1)!.x + pieces.at(-1)!.width).toBeCloseTo(1000, 9)
    expect(pieces.map((p) => p.index)).toEqual([0, 1, 2, 3, 4])
  })
  test('lanes share the band of their split and do not overlap', () => {
    const { pieces, lanes } = layoutRibbon(row, 1000)
    const home = pieces[1]!
    expect(lanes).toHaveLength(2)
    for (const lane of lanes) {
      expect(lane.x).toBe(home.x)
      expect(lane.width).toBe(home.width)
      expect(lane.top).toBeGreaterThanOrEqual(RIBBON.middle - RIBBON.band / 2)
      for (const p of lane.pieces) {
        expect(p.top).toBeGreaterThanOrEqual(lane.top - 1e-9)
        expect(p.top + p.height).toBeLessThanOrEqual(lane.top + lane.height + 1e-9)
        expect(p.index).toBeNull()
      }
    }
    expect(lanes[1]!.top).toBeGreaterThan(lanes[0]!.top + lanes[0]!.height)
  })
  test('the band’s height follows the free area, about the middle line', () => {
    const { pieces } = layoutRibbon([segment('wide', 'opening', 1), segment('narrow', 'opening', 0.3)], 400)
    expect(pieces[1]!.height / pieces[0]!.height).toBeCloseTo(0.3, 9)
    for (const p of pieces) expect(p.top + p.height / 2).toBeCloseTo(RIBBON.middle, 9)
  })
  test('more elements want more width', () => {
    const sixty = Array.from({ length: 60 }, (_, i) => segment(`e${i}`, 'opening'))
    expect(MIN_PIECE * ribbonWeight(sixty)).toBeGreaterThan(5000)
    expect(ribbonWeight(row)).toBeGreaterThan(ribbonWeight(row.slice(0, 1)))
  })
})
