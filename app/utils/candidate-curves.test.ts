import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { newElement, newFan, newStreamPlan, type Fan } from '#core/document'
import { sayIn } from '#core/units'
import { otherCrossings } from './candidate-curves'
import { pick, selectionOf } from '../../tests/plans'

// invented: a curve with a deep dip
const dipped: Fan = {
  ...newFan('dipped'),
  maker: 'Testmoor',
  model: 'Whin 120',
  maxV: 13.2,
  points: [
    { flowM3s: 0, pressurePa: 60 },
    { flowM3s: 0.01, pressurePa: 30 },
    { flowM3s: 0.02, pressurePa: 45 },
    { flowM3s: 0.03, pressurePa: 0 },
  ],
}
const candidate = (headPa: number, volts = 12) => {
  const plan = newStreamPlan('j', 'Head')
  plan.path = [{ ...newElement('head', 'custom'), headPa, a: 0, b: 1000 }, newElement('fan', 'fan')]
  pick(plan, selectionOf('dipped'), volts)
  const result = computeReport({ plan, fans: [dipped], shown: null })
  if (!result.ok) throw new Error(result.reason)
  return { candidate: result.report.selection!.candidate, figures: result.report.selection!.figures }
}

describe('where a dipped curve meets the path more than once', () => {
  test('each crossing is listed, the middle one does not hold, and the lowest is planned with', () => {
    const { candidate: c } = candidate(36)
    expect(c.crossings.map((x) => x.stable)).toEqual([true, false, true])
    expect(c.flow).toBe(c.crossings[0]!.flow)
    expect(c.reasons.map((r) => sayIn(r.text, {}))).toContainEqual(
      expect.stringMatching(/^may settle at either of several flows: .* or /),
    )
  })
  test('the drawing has the others on the curve', () => {
    const { candidate: c } = candidate(36)
    const points = Array.from({ length: 61 }, (_, i) => ({ flow: i * 0.0005, pressure: 60 - i }))
    const others = otherCrossings(c, points)
    expect(others.map((o) => o.stable)).toEqual([false, true])
    for (const o of others) expect(o.pressure).toBeCloseTo(60 - o.flow / 0.0005, 6)
  })
  test('one crossing leaves nothing to tell', () => {
    const { candidate: c } = candidate(5)
    expect(c.crossings).toHaveLength(1)
    expect(otherCrossings(c, [])).toEqual([])
  })
  test('above the highest voltage of its sheet the airflow says so, below it does not', () => {
    const note = (volts: number) => candidate(5, volts).figures.find((f) => f.key === 'selection.flow')!.note
    expect(note(15)).toContain('Above its highest voltage of 13.2 V')
    expect(note(12)).not.toContain('highest voltage')
  })
})
