import { sourceFuse } from '#core/document'
import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { sayIn } from '#core/units'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'
import { labelsOf } from './labels'

/** Labels of the demo jobs: what the plan says, in few words. */

const jobs = demoPlans().map((plan) => [plan.job.id, plan] as const)
function labels(id: string) {
  const plan = jobs.find(([j]) => j === id)![1]
  const made = computeReport({ plan, fans: demoFans, shown: null })
  if (!made.ok) throw new Error(made.reason)
  return { plan, report: made.report, list: labelsOf(plan, made.report, '2026-11-20') }
}
const words = (list: ReturnType<typeof labels>['list']) =>
  list.map((l) => [l.big, ...l.lines].map((x) => sayIn(x, {}).replaceAll('\u00A0', ' ')).join(' | '))

describe('labels', () => {
  test('plug, fuse, screw, way of the air and date of one job', () => {
    const { list, plan } = labels('job-film-cabinet')
    const text = words(list).join('\n')
    expect(text).toContain('12 V DC, + marked | Wall adapter 12 V 1.5 A')
    expect(text).toContain('set to 10.5 V | do not turn')
    expect(text).toContain('fuse 1 A | at Wall adapter 12 V 1.5 A | the same value again, never a larger one')
    expect(text).toContain('AIR | blows in')
    expect(text).toContain(`${plan.job.name} | built 2026-11-20`)
    expect(list.filter((l) => l.arrow)).toHaveLength(1)
  })
  test.each(jobs)('%s: each once, short, nothing unknown', (id) => {
    const { list, report, plan } = labels(id)
    expect(new Set(list.map((l) => l.key)).size).toBe(list.length)
    for (const text of words(list)) {
      expect(text).not.toMatch(/NaN|undefined|null|–/)
      expect(text.length).toBeLessThan(160)
    }
    // every fuse, every fan that hangs on the feed
    const { nodes } = report.power.feed
    expect(list.filter((l) => l.key.startsWith('fuse-'))).toHaveLength(
      nodes.filter((n) => n.lead?.fuseA).length + plan.sources.filter((s) => sourceFuse(s)).length,
    )
    expect(list.filter((l) => l.key.startsWith('plug-'))).toHaveLength(nodes.filter((n) => n.fans).length)
  })
})
