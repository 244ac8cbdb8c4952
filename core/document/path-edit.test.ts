import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { newElement, newStreamPlan } from './index'
import type { PathElement } from './index'
import { boreBeside, mayStandIn, placeElement, removeBranch, removeElement, rowOf } from './path-edit'

/** A row a, s (split with ways x: x1 x2, y: y1), b. */
function plan() {
  const p = newStreamPlan('j', 'Box')
  const el = (id: string, branchId: string | null = null, kind: PathElement['kind'] = 'opening') => ({
    ...newElement(id, kind),
    branchId,
  })
  p.path = [el('a'), el('s', null, 'split'), el('x1', 'x'), el('x2', 'x'), el('y1', 'y'), el('b')]
  p.branches = [
    { id: 'x', splitId: 's', name: 'X', leak: false, times: 1 },
    { id: 'y', splitId: 's', name: 'Y', leak: true, times: 1 },
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
  test('a split stays in the main row, a fan may stand in openings alike', () => {
    const way = (id: string, splitId: string) => ({ id, splitId, name: id, leak: false, times: 2 })
    const ways = { branches: [way('x', 'unlike'), way('y', 'unlike'), way('one', 'alike')] }
    expect(mayStandIn(ways, { kind: 'fan' }, 'x')).toBe(false)
    expect(mayStandIn(ways, { kind: 'fan' }, 'one')).toBe(true)
    expect(mayStandIn(ways, { kind: 'split' }, 'one')).toBe(false)
    expect(mayStandIn(ways, { kind: 'fan' }, null)).toBe(true)
    expect(mayStandIn(ways, { kind: 'duct' }, 'x')).toBe(true)
  })
})

describe('the bore beside', () => {
  const row = (...list: [PathElement['kind'], number | null][]) => {
    const p = newStreamPlan('j', 'Box')
    p.path = list.map(([kind, diameterM], i) => ({ ...newElement(`e${i}`, kind), diameterM }))
    return p
  }
  test('is that of the nearest before, else of the nearest behind', () => {
    const p = row(['grille', null], ['duct', 0.1], ['bend', 0.08])
    expect(boreBeside(p, 'duct', null, null)).toBe(0.08)
    expect(boreBeside(p, 'bend', null, 2)).toBe(0.1)
    expect(boreBeside(p, 'outlet', null, 0)).toBe(0.1)
  })
  test('a reducer hands on what it ends in; what has no bore takes none', () => {
    const p = row(['duct', 0.1], ['reducer', 0.1])
    p.path[1]!.diameter2M = 0.06
    expect(boreBeside(p, 'duct', null, null)).toBe(0.06)
    expect(boreBeside(p, 'grille', null, null)).toBeNull()
    expect(boreBeside(row(['grille', null]), 'duct', null, null)).toBeNull()
  })
})
