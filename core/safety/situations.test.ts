import { describe, expect, it } from 'vitest'
import { jobSchema, newStreamPlan } from '../document'
import { applies, say, sayNoneElse, situations } from './situations'

const of = (key: string) => situations.find((s) => s.key === key)!
const fresh = () => newStreamPlan('job-a', 'A').job

describe('what can hurt', () => {
  it('is not known of anything at first, and can be said of each', () => {
    for (const s of situations) {
      const job = fresh()
      expect(applies(job, s), s.key).toBeNull()
      say(job, s, true)
      expect(applies(job, s), s.key).toBe(true)
      expect(jobSchema.safeParse(job).success, s.key).toBe(true)
      say(job, s, false)
      expect(applies(job, s), s.key).not.toBe(true)
    }
  })
  it('forgets what was asked of a situation that does not apply', () => {
    const job = fresh()
    say(job, of('opensSupply'), true)
    job.storedV = 320
    job.discharged = true
    say(job, of('opensSupply'), false)
    expect([job.opensSupply, job.storedV, job.discharged]).toEqual([false, null, null])
  })
  it('is told by an answer alone: a stored voltage without a word of opening anything', () => {
    const job = { ...fresh(), opensSupply: false, storedV: 60 }
    expect(applies(job, of('opensSupply'))).toBe(true)
  })
  it('says no to what nobody spoke of, and leaves the rest', () => {
    const job = fresh()
    say(job, of('mains'), true)
    say(job, of('height'), true)
    sayNoneElse(job)
    expect([job.mains, job.wet, job.laser, job.cautions]).toEqual([true, false, false, ['height']])
    expect(situations.filter((s) => s.says && applies(job, s) === null)).toEqual([])
  })
})
