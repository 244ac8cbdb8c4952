import { describe, expect, test } from 'vitest'
import {
  newConverter,
  newElement,
  newFan,
  newStreamPlan,
  newSource,
  newTarget,
  planSchema,
  type Fan,
  type StreamPlan,
  seenFrom,
  wholePlan,
} from '#core/document'
import { computeReport } from '#core/plan'
import { symptoms, type Symptom } from './cause'
import { causesOf } from './causes'
import { knownOf, type Known } from './known'
import { measurementsOf } from './measures'
import { troubleSearch, type Answer } from './search'
import { convertBy, feedFrom, pick, selectionOf, tell } from '../../tests/plans'

/** A search ends at the cause that the measurements speak of. Numbers invented. */

const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.008, pressurePa: 26 },
    { flowM3s: 0.016, pressurePa: 0 },
  ],
}
function box(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  tell(plan, { goal: 'cool', heatW: 20, insideMaxC: 40, direction: 'out', ambientC: 22 })
  pick(plan, selectionOf('f'), 10.5)
  feedFrom(plan, { ...newSource('s', 'adapter', 12), lowV: 11.8, highV: 12.2, iMaxA: 1 })
  convertBy(plan, { ...newConverter('c', 10.5), iMaxA: 1 })
  plan.path.unshift(
    { ...newElement('g', 'grille'), areaM2: 0.01, freeAreaRatio: 0.6 },
    { ...newElement('x', 'filter'), areaM2: 0.02, medium: 'foam20' },
  )
  plan.targets = [newTarget({ id: 't', kind: 'temperature', limit: 40, place: 'lid' }, 'main')]
  change(plan)
  return seenFrom(planSchema.parse(wholePlan(plan)))
}
function known(plan = box()): Known {
  const made = computeReport({ plan, fans: [fan], shown: null })
  if (!made.ok) throw new Error(made.reason)
  return knownOf(plan, made.report)
}
const chances = (k: Known, s: Symptom, answers: Record<string, Answer>) =>
  troubleSearch(k, s, answers).causes.map((c) => c.chance)

describe('what the plan knows', () => {
  test('is its own numbers', () => {
    const made = computeReport({ plan: box(), fans: [fan], shown: null })
    if (!made.ok) throw new Error(made.reason)
    const { power, selection } = made.report
    expect(known()).toMatchObject({
      fanV: power.fanV,
      runA: power.fanRunA,
      startV: 5,
      maxV: 13.2,
      rpm: 2400 * selection!.candidate.speed,
      hot: { limitC: 40, place: 'lid' },
      hasFilter: true,
    })
    expect(power.fanV).not.toBeNull()
  })
  test.each([
    ['fanV', -10.4, 'negative'],
    ['fanV', 0.1, 'none'],
    ['fanV', 4.2, 'below-start'],
    ['fanV', 7, 'low'],
    ['fanV', 10.4, 'ok'],
    ['fanV', 12.9, 'high'],
    ['sourceV', 12, 'ok'],
    ['sourceV', 9, 'low'],
    ['fanA', 0, 'none'],
    ['fanA', 0.4, 'high'],
    ['rpm', 1200, 'low'],
    ['hotC', 44, 'hot'],
    ['hotC', 39, 'ok'],
    ['intakeC', 30, 'warm'],
  ])('%s %d is %s', (key, value, band) => {
    expect(
      measurementsOf(known())
        .find((m) => m.key === key)!
        .band(value),
    ).toBe(band)
  })
})

describe('a search', () => {
  test('the swapped pair: one measurement', () => {
    const first = troubleSearch(known(), 'still', {})
    expect(first.end).toBe('open')
    expect(first.next!.key).toBe('fanV')
    const found = troubleSearch(known(), 'still', { fanV: -10.4 })
    expect(found).toMatchObject({ end: 'found', next: null })
    expect(found.causes[0]!.key).toBe('swapped')
  })
  test('the starved converter: low under load, right without', () => {
    const found = troubleSearch(known(), 'slow', { fanV: 6.4, openV: 10.5, sourceV: 11 })
    expect(found.causes[0]!.key).toBe('starved')
    const set = troubleSearch(known(), 'slow', { fanV: 6.4, openV: 6.5, sourceV: 12 })
    expect(set.causes[0]!.key).toBe('set-low')
    const wire = troubleSearch(known(), 'slow', { fanV: 8, openV: 10.5, sourceV: 12, others: 'better' })
    expect(wire.causes[0]!.key).toMatch(/wire|starved/)
  })
  const odd: Record<string, Answer>[] = [
    {},
    { fanV: 1e5 },
    { fanV: -3, rpm: 0 },
    { turns: 'no such' },
    { fanV: null },
  ]
  test('chances are chances, whatever is answered', () => {
    for (const symptom of Object.keys(symptoms) as Symptom[])
      for (const answers of odd) {
        const all = chances(known(), symptom, answers)
        expect(all.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
        expect(all.every((x) => x >= 0 && x <= 1)).toBe(true)
      }
  })
  test('what no cause explains is told, and nothing is found by it', () => {
    const { odd, end } = troubleSearch(known(), 'still', { fanV: 13.5 })
    expect(odd.map((m) => m.key)).toEqual(['fanV'])
    expect(end).toBe('likely')
  })
  test('without any number of the plan it asks what can be looked at', () => {
    const bare = newStreamPlan('j', 'Bare')
    feedFrom(bare, null)
    const made = computeReport({ plan: bare, fans: [], shown: null })
    if (!made.ok) throw new Error(made.reason)
    for (const symptom of Object.keys(symptoms) as Symptom[]) {
      const { next, causes } = troubleSearch(knownOf(bare, made.report), symptom, {})
      expect(causes.length).toBeGreaterThan(1)
      expect(next === null || next.quantity === null || next.band(1e6) !== '').toBe(true)
    }
  })
  /** What a cause shows most likely, as an answer. */
  const answerOf = (shows: Record<string, number> | undefined) =>
    shows ? Object.entries(shows).toSorted((a, b) => b[1] - a[1])[0]![0] : null
  const such: Record<string, Partial<Known>> = {
    held: { switched: true },
    control: { switched: true },
    burns: { converter: { ...known().converter!, burns: true } },
    empty: { battery: true },
    bank: { battery: true, autoOffA: 0.1 },
    windmill: { several: true },
  }
  const all = (Object.keys(symptoms) as Symptom[]).flatMap((s) =>
    causesOf(s, known()).map((c) => [s, c.key, c.shows] as const),
  )
  test.each(all)('%s: %s stands among the first two after at most four answers', (symptom, key, shows) => {
    // as likely as in a plan that has such a thing
    const k = { ...known(), ...such[key] }
    const answers: Record<string, Answer> = {}
    let result = troubleSearch(k, symptom, answers)
    for (let i = 0; i < 4 && result.next; i++) {
      answers[result.next.key] = answerOf(shows[result.next.key])
      result = troubleSearch(k, symptom, answers)
    }
    expect(result.causes.slice(0, 2).map((c) => c.key)).toContain(key)
  })
  test('every measurement is asked by some search, every cause says what to do', () => {
    const used = new Set(all.flatMap(([, , shows]) => Object.keys(shows)))
    expect(
      measurementsOf(known())
        .map((m) => m.key)
        .filter((k) => !used.has(k)),
    ).toEqual([])
    for (const s of Object.keys(symptoms) as Symptom[])
      for (const c of causesOf(s, known())) {
        expect(c.physics).toMatch(/\.$/)
        expect(c.fix.length).toBeGreaterThan(0)
      }
  })
})

test('a running fan is held against what it runs at, not against what stands there unloaded', () => {
  const behind = known(
    box((p) => {
      convertBy(p, { ...newConverter('c', 9), converterKind: 'resistor', ohm: 40 })
    }),
  )
  const at = measurementsOf(behind).find((m) => m.key === 'fanV')!
  // 11.9 V at a plug behind a resistor, plugged in: the fan draws nothing, or the resistor is bridged
  expect(behind.fanV!).toBeLessThan(11)
  expect(at.band(11.9)).toBe('high')
  expect(at.band(behind.fanV!)).toBe('ok')
})
