import { describe, expect, test } from 'vitest'
import {
  newElement,
  newSplit,
  newStreamPlan,
  settlePlaces,
  type ElementKind,
  type StreamPlan,
} from '#core/document'
import { endArea, endElements } from './openings'

/** Where the air gets in and out of a row: an opening, fans that fill their hole, or nowhere. */

function planOf(...kinds: ElementKind[]): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  plan.path = kinds.map((kind, i) => ({
    ...newElement(`e${i}`, kind),
    areaM2: kind === 'opening' ? 0.001 * (i + 1) : null,
  }))
  settlePlaces(plan)
  return plan
}
const ends = (plan: StreamPlan) => [endArea(plan, 'in'), endArea(plan, 'out')]

describe('the ends of a path', () => {
  test.each<[string, ElementKind[], [number | null | undefined, number | null | undefined]]>([
    ['two openings', ['opening', 'chamber', 'fan', 'opening'], [0.001, 0.004]],
    ['a fan at the end is itself in the hole', ['opening', 'chamber', 'fan'], [0.001, undefined]],
    ['a fan at the beginning too', ['fan', 'chamber', 'opening'], [undefined, 0.003]],
    ['a box that only a fan leads out of has no way in', ['chamber', 'fan'], [0, undefined]],
    ['a box that only a fan blows into has no way out', ['fan', 'chamber'], [undefined, 0]],
    ['a closed box has neither', ['chamber', 'opening', 'fan', 'chamber'], [0, 0]],
    ['a fan in the open air needs none', ['fan'], [undefined, undefined]],
    ['of one opening the air comes in; where it leaves is not told', ['opening'], [0.001, null]],
    ['a box that was only begun', ['chamber'], [null, null]],
    ['nothing yet', [], [null, null]],
  ])('%s', (_, kinds, wanted) => {
    expect(ends(planOf(...kinds))).toEqual(wanted)
  })
  test('fans that are put aside fill no hole', () => {
    const plan = planOf('opening', 'chamber', 'fan', 'opening', 'fan')
    expect(endArea(plan, 'out')).toBeUndefined()
    plan.places.find((p) => p.elementId === 'e4')!.aside = true
    expect(endArea(plan, 'out')).toBe(0.004)
  })
  test('openings alike count each', () => {
    const plan = planOf('opening', 'chamber')
    const { element, branches } = newSplit('s', [{ id: 'one', name: 'One', leak: false, times: 3 }])
    plan.path.push(element, { ...newElement('o', 'opening', 'one'), areaM2: 0.002 })
    plan.branches = branches
    expect(endArea(plan, 'out')).toBeCloseTo(0.006, 12)
    expect(endElements(plan, 'out').map((e) => e.id)).toEqual(['o'])
  })
})
