import { describe, expect, test } from 'vitest'
import { newElement, newStreamPlan, planSchema, type StreamPlan, wholePlan } from '#core/document'
import { figure } from '#core/figure'
import type { Quantity } from '#core/units'
import { placesFor } from './index'

const plan = (): StreamPlan => ({
  ...newStreamPlan('job-x', 'X'),
  path: [{ ...newElement('slot', 'opening'), name: 'Slot' }, newElement('fan', 'fan')],
})
const of = (quantity: Quantity) => placesFor(plan(), figure('x', 'x', quantity, 1, '', ''), () => 'target-1')

describe('a sum’s result goes into a job', () => {
  test.each<[Quantity, number]>([
    ['flow', 0.01],
    ['volume', 0.3],
    ['power', 40],
    ['speed', 0.5],
    ['duration', 600],
    ['perHour', 12],
    ['area', 0.004],
    ['temperature', 40],
    ['level', 30],
  ])('%s: every place takes it, and the plan stays valid', (quantity, value) => {
    const places = of(quantity)
    expect(places.length).toBeGreaterThan(0)
    for (const place of places) {
      const p = plan()
      place.put(p, value, 'from a sum')
      expect(JSON.stringify(planSchema.parse(wholePlan(p)))).toContain(String(value))
      expect(p).not.toEqual(plan())
    }
  })
  test('an area goes to the elements that have one; how it came about goes with a field', () => {
    expect(of('area').map((p) => p.label)).toEqual([
      'Opening of the nozzle, in Need',
      'Area of Slot, in Air path',
    ])
    const p = plan()
    of('power')[0]!.put(p, 40, 'P = U · I')
    expect(p.job.workings).toEqual([{ key: 'heatW', value: 40, text: 'P = U · I' }])
  })
  test('what no place takes is only copied', () => {
    expect(of('resistance')).toEqual([])
  })
})
