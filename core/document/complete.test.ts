import { describe, expect, test } from 'vitest'
import { completePlan, newElement, newPlan, planSchema } from './index'

describe('an older plan file', () => {
  test('without the newer fields is completed, its own values stand', () => {
    const {
      targets: _t,
      ports: _p,
      uncertainties: _d,
      sink: _s,
      branches: _b,
      calibration: _c,
      ...old
    } = newPlan('j', 'Box')
    const {
      branchId: _id,
      style: _style,
      points: _points,
      ...element
    } = { ...newElement('hole', 'opening'), areaM2: 0.01 }
    const { airOutlet: _a, fumeWay: _f, ...job } = old.job
    const made = planSchema.parse(
      completePlan({
        ...old,
        job,
        path: [element],
        targets: [{ id: 't', kind: 'level', limit: 30, place: '', why: '' }],
      }),
    )
    expect(made.path[0]).toMatchObject({ areaM2: 0.01, edge: 'sharp', branchId: null, style: null, points: [] })
    expect(made.job).toMatchObject({ name: 'Box', airOutlet: null, fumeWay: 'capture' })
    expect(made.targets[0]!.setBy).toBe('')
  })
  test('a whole one is left as it is, and nonsense stays nonsense', () => {
    const plan = { ...newPlan('j', 'Box'), path: [newElement('a', 'duct')] }
    expect(completePlan(plan)).toEqual(plan)
    expect(completePlan('no plan')).toBe('no plan')
    expect(planSchema.safeParse(completePlan({ job: { goal: 'fly' } })).success).toBe(false)
  })
})
