import { describe, expect, test } from 'vitest'
import { fromStock, newStreamPlan, newSource } from '#core/document'
import { partsList } from '#core/supply'
import { demoStock } from '../../demo/stock'
import { readStock, writeStock } from './stock-table'
import { feedFrom } from '../../tests/plans'

describe('parts as a table', () => {
  test('out and in again changes nothing', () => {
    const rows = readStock(writeStock(demoStock))
    expect(typeof rows === 'string' ? rows : rows.map((r) => r.part)).toEqual(demoStock)
  })
  test('units, decimal commas and unknown kinds', () => {
    const rows = readStock(
      'Kind;Name;Volts;Amps;Price;Owned\nsupply;Brick;12 V;500 mA;7,50;yes\nspaceship;X;;;;\nsupply;;;;;\nsupply;Far;900;;;\n',
    )
    expect(typeof rows === 'string' ? [] : rows.map((r) => (r.message ? 'bad' : r.part!.amps))).toEqual([
      0.5,
      'bad',
      'bad',
      'bad',
    ])
    expect(rows[0]).toMatchObject({ part: { price: 7.5, owned: true, id: 'part-supply-brick' } })
  })
  test('no table is said', () => expect(readStock('hello')).toContain('kind and name'))
})

describe('what is taken from the shelf', () => {
  test('by name first, then an owned one that gives enough', () => {
    expect(fromStock(demoStock, 'supply', { name: 'wall adapter 24 v 1 a' })!.volts).toBe(24)
    expect(fromStock(demoStock, 'supply', { volts: 12, amps: 1.2 })!.name).toBe('Wall adapter 12 V 1.5 A')
    expect(fromStock(demoStock, 'supply', { volts: 12, amps: 3 })).toBeNull()
  })
  test('an owned supply costs the plan nothing', () => {
    const plan = newStreamPlan('j', 'x')
    feedFrom(plan, { ...newSource('s', 'adapter'), name: 'Any brick' })
    const cost = (stock: typeof demoStock) => partsList(plan, { nodes: [], settled: true }, [], [], stock).total
    expect(cost([])).toBeGreaterThan(0)
    expect(cost(demoStock)).toBe(0)
  })
})
