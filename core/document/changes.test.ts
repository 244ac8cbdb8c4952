import { describe, expect, test } from 'vitest'
import { changeWords, newElement, newFit, newStreamPlan, newTarget, type StreamPlan } from './index'

const plan = (): StreamPlan => ({
  ...newStreamPlan('job-x', 'X'),
  path: [
    { ...newElement('a', 'opening'), name: 'Slot' },
    { ...newElement('b', 'fan'), name: 'Fan' },
  ],
})
const after = (change: (p: StreamPlan) => void) => {
  const p = structuredClone(plan())
  change(p)
  return p
}

describe('what a change was, in words', () => {
  test.each<[string, (p: StreamPlan) => void]>([
    ['Slot changed', (p) => (p.path[0]!.areaM2 = 0.01)],
    ['Slot removed', (p) => p.path.shift()],
    ['Filter added', (p) => p.path.push(newElement('c', 'filter'))],
    ['the air path', (p) => p.path.push(newElement('c', 'filter'), newElement('d', 'bend'))],
    ['order of the air path', (p) => p.path.reverse()],
    ['facts of the job', (p) => (p.job.heatW = 5)],
    ['target added', (p) => p.targets.push(newTarget({ id: 't', kind: 'level', limit: 30 }, 'main'))],
    ['place of the fans changed', (p) => (p.places[0]!.fit = newFit('fit'))],
    ['picked fan', (p) => (p.places[0]!.fans = [{ fanId: 'f', count: 1 }])],
    ['nothing', () => {}],
  ])('%s', (words, change) => {
    expect(changeWords(plan(), after(change))).toBe(words)
  })
  test('the name of the field comes first', () => {
    expect(
      changeWords(
        plan(),
        after((p) => (p.job.heatW = 5)),
        'Heat released inside',
      ),
    ).toBe('Heat released inside')
  })
  test('what brought others along is named', () => {
    const words = changeWords(
      plan(),
      after((p) => {
        p.path.shift()
        p.job.heatW = 5
      }),
    )
    expect(words).toBe('Slot removed')
  })
})
