import { hang } from '../../tests/plans'
import { describe, expect, test } from 'vitest'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'
import { settingsSchema } from '#shared/schemas/settings'
import {
  fanSchema,
  newFeedPart,
  newReading,
  planSchema,
  readingSchema,
  wholePlan,
  type StreamPlan,
} from './index'

const refusal = (change: (p: StreamPlan) => void) => {
  const plan = structuredClone(demoPlans()[0]!)
  change(plan)
  const result = planSchema.safeParse(wholePlan(plan))
  return result.success ? '' : `${result.error.issues[0]!.path.join('.')}: ${result.error.issues[0]!.message}`
}

describe('a plan', () => {
  test.each([
    [
      'text where a number belongs',
      (p: StreamPlan) => {
        Object.assign(p.job, { heatW: 'hot' })
      },
      'streams.0.job.heatW',
    ],
    [
      'a negative heat',
      (p: StreamPlan) => {
        p.job.heatW = -1
      },
      'streams.0.job.heatW: Not below 0.',
    ],
    [
      'a humidity of 140 %',
      (p: StreamPlan) => {
        p.job.humidity = 1.4
      },
      'job.humidity: Not above 1.',
    ],
    [
      'NaN',
      (p: StreamPlan) => {
        p.job.ambientC = Number.NaN
      },
      'job.ambientC',
    ],
    [
      'an empty name',
      (p: StreamPlan) => {
        p.job.name = '  '
      },
      'job.name: A job needs a name.',
    ],
    [
      'an opening of nothing',
      (p: StreamPlan) => {
        p.path[0]!.areaM2 = 0
      },
      'streams.0.path.0.areaM2: An area must be above zero.',
    ],
    [
      'a share above all',
      (p: StreamPlan) => {
        p.path[4]!.freeAreaRatio = 1.5
      },
      'streams.0.path.4.freeAreaRatio: A share cannot be above 100 %.',
    ],
    [
      'three places of the fan',
      (p: StreamPlan) => {
        p.path.push({ ...p.path[2]!, id: 'again' }, { ...p.path[2]!, id: 'more' })
      },
      'streams.0.places: Fans have at most 2 places',
    ],
    [
      'a part that hangs on nothing',
      (p: StreamPlan) => {
        hang(p, newFeedPart('a', 'load', 'gone'))
      },
      'feed: Load hangs on something that is not there',
    ],
    [
      'a part on a load',
      (p: StreamPlan) => {
        hang(p, newFeedPart('a', 'load', null), { ...newFeedPart('b', 'load', 'a'), name: 'Lamp' })
      },
      'feed: Lamp hangs on Load, which is a load',
    ],
    [
      'a feed that goes round',
      (p: StreamPlan) => {
        hang(p, newFeedPart('a', 'branch', 'b'), newFeedPart('b', 'branch', 'a'))
      },
      'feeds itself: a loop',
    ],
    [
      'a wire of no length',
      (p: StreamPlan) => {
        p.feed[0]!.wireLengthM = 0
      },
      'feed.0.wireLengthM: A wire has a length above zero',
    ],
    [
      'an absurd gauge',
      (p: StreamPlan) => {
        p.feed[0]!.wireAwg = 40
      },
      'feed.0.wireAwg: Not thinner than 30 AWG',
    ],
    [
      'a split inside a way: a loop',
      (p: StreamPlan) => {
        p.path.push(
          { ...p.path[0]!, id: 's', kind: 'split' },
          { ...p.path[0]!, id: 't', kind: 'split', branchId: 'w' },
        )
        p.branches = [{ id: 'w', splitId: 's', name: 'Way', leak: false, times: 1 }]
      },
      'streams.0.path: A split cannot stand inside a way, nor a fan in one of several unlike ways: the path would go round in a loop.',
    ],
    [
      'a way of no split',
      (p: StreamPlan) => {
        p.branches = [{ id: 'w', splitId: 'gone', name: 'Way', leak: false, times: 1 }]
      },
      'streams.0.path: A way belongs to no split.',
    ],
    [
      'an element in a way that is not there',
      (p: StreamPlan) => {
        p.path[0]!.branchId = 'gone'
      },
      'streams.0.path: An element stands in a way that is not there.',
    ],
    [
      'a doubt whose ends are crossed',
      (p: StreamPlan) => {
        p.uncertainties = [{ id: 'heatW', grade: 'range', low: 5, high: 3 }]
      },
      'streams.0.uncertainties.0: The lower end',
    ],
    [
      'a doubt of what is no number',
      (p: StreamPlan) => {
        Object.assign(p, { uncertainties: [{ id: 'name', grade: 'measured', low: null, high: null }] })
      },
      'streams.0.uncertainties.0.id',
    ],
    [
      'a negative rise',
      (p: StreamPlan) => {
        p.job.measuredRiseK = -3
      },
      'streams.0.job.measuredRiseK: A rise must be above zero.',
    ],
    [
      'a point without flow',
      (p: StreamPlan) => {
        p.path[0]!.points = [{ flowM3s: 0, pressurePa: 3 }]
      },
      'streams.0.path.0.points.0.flowM3s: A flow must be above zero.',
    ],
    [
      'a pocket of water colder than ice',
      (p: StreamPlan) => {
        p.job.waterC = -4
      },
      'streams.0.job.waterC',
    ],
    [
      'an id twice',
      (p: StreamPlan) => {
        p.path.push({ ...p.path[0]! })
      },
      'streams.0.path: Two elements share an id.',
    ],
    [
      'no fans at all in a pick',
      (p: StreamPlan) => {
        p.places[0]!.fans[0]!.count = 0
      },
      'streams.0.places.0.fans.0.count',
    ],
    [
      'an unknown goal',
      (p: StreamPlan) => {
        Object.assign(p.job, { goal: 'fly' })
      },
      'streams.0.job.goal',
    ],
    [
      'a date that is none',
      (p: StreamPlan) => {
        p.runs[0]!.takenAt = 'yesterday'
      },
      'runs.0.takenAt',
    ],
    [
      'a level no ear survives',
      (p: StreamPlan) => {
        p.runs[0]!.readings[0]!.value = 300
      },
      'runs.0.readings.0.value: Not above 130.',
    ],
  ])('with %s is refused where it happened', (_, change, where) => {
    expect(refusal(change)).toContain(where)
  })
  test('the demo passes', () => expect(refusal(() => {})).toBe(''))
  test('a reading is judged by its own kind', () => {
    const reading = newReading('r', 'level', '', 150)
    expect(readingSchema.safeParse({ ...reading, quantity: 'level' }).success).toBe(false)
    expect(readingSchema.safeParse({ ...reading, quantity: 'temperature' }).success).toBe(true)
    expect(readingSchema.safeParse({ ...reading, quantity: 'power', value: -3 }).success).toBe(false)
    expect(
      readingSchema.safeParse({ ...reading, value: 30, repeats: [31, 150] }).error?.issues[0],
    ).toMatchObject({ path: ['repeats', 1] })
  })
})

describe('a fan', () => {
  const fan = demoFans[15]!
  const issue = (change: object) => {
    const result = fanSchema.safeParse({ ...fan, ...change })
    return result.success ? '' : `${result.error.issues[0]!.path.join('.')}: ${result.error.issues[0]!.message}`
  }
  test.each([
    [{ points: [{ flowM3s: 0, pressurePa: 9 }] }, 'points: One point is no curve'],
    [
      {
        points: [
          { flowM3s: 0.01, pressurePa: 9 },
          { flowM3s: 0.01, pressurePa: 3 },
        ],
      },
      'points.1.flowM3s: Each flow must be larger',
    ],
    [{ minV: 20, maxV: 13 }, 'minV: The lowest voltage lies above the highest.'],
    [{ startV: 20 }, 'startV: It would never start'],
    [{ interceptV: 12 }, 'interceptV: Must lie below'],
    [{ ratedV: 0 }, 'ratedV'],
    [{ model: '' }, 'model: A fan needs a model name.'],
    [{ wires: 5 }, 'wires'],
    [{ frameM: 5 }, 'frameM: Not above 0.5.'],
  ])('%o is refused', (change, where) => {
    expect(issue(change)).toContain(where)
  })
  test('may lack most of its values', () => {
    expect(
      issue({
        minV: null,
        maxV: null,
        startV: null,
        interceptV: null,
        ratedA: null,
        noiseDbA: null,
        price: null,
        wires: null,
        bearing: null,
        points: [],
      }),
    ).toBe('')
  })
})

test('settings know three themes', () => {
  expect(settingsSchema.safeParse({ units: { flow: 'CFM' }, theme: 'dark' }).success).toBe(true)
  expect(settingsSchema.safeParse({ units: {}, theme: 'pink' }).success).toBe(false)
})
