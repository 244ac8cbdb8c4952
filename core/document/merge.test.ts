import { describe, expect, test } from 'vitest'
import { newBuild, type Tick } from './build'
import { newConverter } from './feed'
import { newEvent } from './logbook'
import { mergePlans } from './merge'
import { newElement } from './path'
import { newPlan, planSchema, type PlanDocument } from './plan'

/** Two devices on one job. Values invented. */

const tick = (id: string, value: number | null, at: string, who: string): Tick => ({
  id,
  at,
  who,
  value,
  note: '',
  photoId: null,
  seen: `Step ${id}: do it`,
})
function base(): PlanDocument {
  const plan = newPlan('j', 'Box')
  plan.feed.push(newConverter('c', 10.5))
  plan.streams[0]!.path.unshift(newElement('g', 'grille'))
  plan.build = { ...newBuild('b'), ticks: [tick('dry', null, '2026-01-01T10:00:00Z', 'Ada')] }
  return plan
}
const changed = (change: (p: PlanDocument) => void) => {
  const plan = base()
  change(plan)
  return plan
}
const put = (mine: PlanDocument, theirs: PlanDocument) => mergePlans(base(), mine, theirs)

describe('two devices on one job', () => {
  test('what only one touched is kept from both', () => {
    const both = put(
      changed((p) => {
        p.job.name = 'Mine'
        p.build!.ticks.push(tick('cut', null, '2026-01-01T11:00:00Z', 'Ada'))
      }),
      changed((p) => {
        p.streams[0]!.job.heatW = 40
        p.build!.ticks.push(tick('wire', 10.4, '2026-01-01T11:01:00Z', 'Ben'))
        p.logbook.push(newEvent('e', '2026-01-01T11:01:00Z', 'Dropped it'))
      }),
    )!
    expect(both.plan.job.name).toBe('Mine')
    expect(both.plan.streams[0]!.job.heatW).toBe(40)
    expect(both.plan.build!.ticks.map((t) => t.id)).toEqual(['dry', 'wire', 'cut'])
    expect(both.plan.logbook).toHaveLength(1)
    expect(both.twice).toEqual([])
    expect(planSchema.safeParse(both.plan).success).toBe(true)
  })
  test('a step that both ticked keeps the later value, and the other one in its note', () => {
    const mine = changed((p) => {
      p.build!.ticks.push(tick('set', 10.52, '2026-01-01T11:05:00Z', 'Ada'))
      p.feed[0]!.measuredV = 10.52
    })
    const theirs = changed((p) => {
      p.build!.ticks.push(tick('set', 10.48, '2026-01-01T11:01:00Z', 'Ben'))
      p.feed[0]!.measuredV = 10.48
    })
    for (const both of [put(mine, theirs)!, put(theirs, mine)!]) {
      const set = both.plan.build!.ticks.find((t) => t.id === 'set')!
      expect(set.value).toBe(10.52)
      expect(set.note).toContain('Ben: 10.48')
      expect(both.plan.feed[0]!.measuredV).toBe(10.52)
      expect(both.twice).toEqual(['Step set'])
    }
  })
  test('a tick taken back here and nothing there stays taken back', () => {
    const both = put(
      changed((p) => (p.build!.ticks = [])),
      changed((p) => (p.streams[0]!.job.heatW = 40)),
    )!
    expect(both.plan.build!.ticks).toEqual([])
  })
  test('the first tick of both makes one build', () => {
    const bare = { ...base(), build: null }
    const first = (id: string, step: string): PlanDocument => ({
      ...base(),
      build: { ...newBuild(id), ticks: [tick(step, null, '2026-01-01T10:00:00Z', '')] },
    })
    const both = mergePlans(bare, first('x', 'a'), first('y', 'b'))!
    expect(both.plan.build!.id).toBe('y')
    expect(both.plan.build!.ticks.map((t) => t.id)).toEqual(['b', 'a'])
  })
  const clashes: [string, (p: PlanDocument) => void, (p: PlanDocument) => void][] = [
    ['the same field', (p) => (p.job.name = 'A'), (p) => (p.job.name = 'B')],
    [
      'gone here, changed there',
      (p) => p.streams[0]!.path.shift(),
      (p) => (p.streams[0]!.path[0]!.name = 'Front'),
    ],
  ]
  test.each(clashes)('%s is for a person to decide', (_, mine, theirs) => {
    expect(put(changed(mine), changed(theirs))).toBeNull()
  })
  test('alike changes are no clash', () => {
    const both = put(
      changed((p) => (p.job.name = 'Same')),
      changed((p) => (p.job.name = 'Same')),
    )!
    expect(both.plan.job.name).toBe('Same')
  })
})
