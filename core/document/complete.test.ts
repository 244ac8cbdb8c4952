import { describe, expect, test } from 'vitest'
import { completePlan, newElement, newPlan, planSchema } from './index'

/** A plan as files had it before streams were a list: the first stream in the plan itself, further ones beside it. */
const flat = (more: object = {}) => ({
  job: { id: 'j', name: 'Box', heatW: 12 },
  path: [{ id: 'hole', kind: 'opening', name: 'Hole', areaM2: 0.01 }],
  ...more,
})
const read = (raw: unknown) => planSchema.parse(completePlan(raw))

describe('an older plan file', () => {
  test('without the newer fields is completed, its own values stand', () => {
    const { streams, targets, job } = read(
      flat({ targets: [{ id: 't', kind: 'level', limit: 30, place: '', why: '' }] }),
    )
    expect(streams).toHaveLength(1)
    expect(streams[0]!.path[0]).toMatchObject({
      areaM2: 0.01,
      edge: null,
      branchId: null,
      style: null,
      points: [],
    })
    expect(streams[0]!.job).toMatchObject({ heatW: 12, airOutlet: null, fumeWay: 'capture' })
    expect(job.name).toBe('Box')
    expect(targets[0]!.setBy).toBe('')
  })
  test('what named no stream is the first one’s; a target of the whole machine names none', () => {
    const plan = read(
      flat({
        job: { id: 'j', name: 'Box', known: [{ rule: 'r', subject: '', reason: 'so' }] },
        streams: [{ id: 'board', job: { streamName: 'Board' } }],
        targets: [
          { id: 'a', kind: 'temperature', limit: 40 },
          { id: 'b', kind: 'level', limit: 30 },
          { id: 'c', kind: 'flow', limit: 0.01, streamId: 'board' },
        ],
        controls: [{ id: 'k' }],
        day: { id: 'd', parts: [{ id: 'p', name: 'Part', limitC: null }] },
        runs: [
          {
            id: 'run',
            kind: 'baseline',
            takenAt: '2026-01-01T10:00:00Z',
            fans: [{ id: 'f' }, { id: 'g', streamId: 'board' }],
          },
        ],
      }),
    )
    expect(plan.streams.map((s) => s.id)).toEqual(['main', 'board'])
    expect(plan.targets.map((t) => t.streamId)).toEqual(['main', null, 'board'])
    expect(plan.controls[0]!.streamIds).toEqual(['main'])
    expect(plan.day!.parts[0]!.streamId).toBe('main')
    expect(plan.runs[0]!.fans.map((f) => f.streamId)).toEqual(['main', 'board'])
    expect(plan.job.known.map((k) => k.subject)).toEqual(['', 'main'])
  })
  test('a whole one is left as it is, and nonsense stays nonsense', () => {
    const plan = newPlan('j', 'Box')
    plan.streams[0]!.path = [newElement('a', 'duct')]
    expect(completePlan(plan)).toEqual(plan)
    expect(completePlan('no plan')).toBe('no plan')
    expect(planSchema.safeParse(completePlan({ job: { goal: 'fly' } })).success).toBe(false)
    expect(planSchema.safeParse(completePlan(flat({ targets: ['no target'] }))).success).toBe(false)
  })
})
