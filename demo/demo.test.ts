import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { modelFan } from '#core/system'
import { dataPlausibility } from '#core/fan'
import { fanSchema, planSchema, wholePlan } from '#core/document'
import { demoFans } from './fans'
import { demoPlan, demoPlans } from './jobs'

describe('the invented workshop', () => {
  test('about sixty fans, each valid, computable and physically plausible', () => {
    expect(demoFans.length).toBeGreaterThanOrEqual(58)
    for (const fan of demoFans) {
      expect(fanSchema.safeParse(fan).error, fan.id).toBeUndefined()
      expect(modelFan(fan).ok, fan.id).toBe(true)
      expect(dataPlausibility(fan.maxFlowM3s!, fan.maxPressurePa!, fan.ratedV * fan.ratedA!), fan.id).toBe(
        'plausible',
      )
    }
    expect(new Set(demoFans.map((f) => `${f.maker} ${f.model}`)).size).toBe(demoFans.length)
  })
  test.each(demoPlans().map((p) => [p.job.name, p] as const))(
    '%s is a valid plan that gives a report',
    (_, plan) => {
      expect(planSchema.safeParse(wholePlan(plan)).error).toBeUndefined()
      expect(computeReport({ shown: null, plan, fans: demoFans }).ok).toBe(true)
    },
  )
  test.each(demoPlans().map((p) => [p.job.name, p] as const))(
    '%s: no part of the wiring is marked without a finding that says why',
    (_, plan) => {
      const result = computeReport({ shown: null, plan, fans: demoFans })
      if (!result.ok) throw new Error(result.reason)
      const { power, findings } = result.report
      const marked = power.feed.nodes.some((n) => n.problems.length > 0)
      if (marked)
        expect(
          findings.findings.filter((f) => f.severity !== 'note' && /^(power|wire|batt)-/.test(f.id)),
        ).not.toEqual([])
    },
  )
  test('one job is finished and met, one has stops, one waits', () => {
    const states = Object.fromEntries(
      demoPlans().map((plan) => {
        const result = computeReport({ shown: null, plan, fans: demoFans })
        return [plan.job.id, result.ok ? result.report : null]
      }),
    )
    expect(states['job-film-cabinet']!.verdict.targets.map((t) => t.verdict)).toEqual(['met', 'met', 'met'])
    expect(states['job-film-cabinet']!.findings.findings.filter((f) => f.severity !== 'note')).toEqual([])
    expect(
      states['job-mushroom-tent']!.findings.findings.filter((f) => f.severity === 'stop').map((f) => f.id),
    ).toEqual(['power-direct-too-high', 'wire-polarity-unchecked'])
    expect(states['job-choir-amplifier']!.verdict.after).toBeNull()
  })
  test.each(demoPlans().map((p) => [p.job.name, p] as const))(
    '%s: every number of a step of the build is a figure of its plan, and no step is said twice',
    (_, plan) => {
      const made = computeReport({ shown: null, plan, fans: demoFans })
      if (!made.ok) throw new Error(made.reason)
      const { build, power, mounts } = made.report
      const steps = build.sittings.flatMap((s) => s.steps)
      expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length)
      const stated = (key: string, quantity: string) =>
        steps
          .find((s) => s.key === key)
          ?.text.flatMap((t) => (typeof t === 'object' && t.quantity === quantity ? [t.value] : []))
      if (power.fanRunA !== null && plan.sources.length)
        expect(stated('first-main', 'current')?.[0]).toBe(power.fanRunA)
      if (power.fanV !== null && plan.sources.length)
        expect(stated('polarity-main', 'voltage')?.[0]).toBe(power.fanV)
      const [mount] = mounts
      const cut = stated('cut-main', 'length')
      if (cut && mount) expect(cut[0]).toBe(mount.holeM ?? mount.wantedM)
      for (const s of steps) expect(JSON.stringify(s.text), s.key).not.toMatch(/null|NaN|undefined/)
    },
  )
  test('one build is half done with evidence, one is held, one is finished', () => {
    const of = (id: string) => {
      const made = computeReport({
        shown: null,
        plan: demoPlan(id),
        fans: demoFans,
      })
      if (!made.ok) throw new Error(made.reason)
      return made.report.build
    }
    const half = of('job-recorder-shelf')
    expect(half.done).toBeGreaterThan(8)
    expect(half.done).toBeLessThan(half.count)
    expect(of('job-film-cabinet')).toMatchObject({ done: of('job-film-cabinet').count })
    expect(of('job-seed-store').sittings.some((s) => s.held)).toBe(true)
  })
})
