import { describe, expect, test } from 'vitest'
import { computeReport, type Report } from './report'
import { allowedLevel } from './machine-sound'
import {
  addStream,
  settleFeed,
  newElement,
  newFan,
  newFeedPart,
  newPlan,
  newSource,
  newStream,
  newTarget,
  planSchema,
  removeStream,
  seenFrom,
  setDrive,
  type Fan,
  type PlanDocument,
  wholePlan,
} from '#core/document'
import { selectionOf, stand } from '../../tests/plans'

// invented
const fan = (id: string, ratedV: number, noiseDbA: number): Fan => ({
  ...newFan(id),
  maker: 'Testmoor',
  model: `Whin ${id}`,
  ratedV,
  ratedA: 0.2,
  startV: 0.4 * ratedV,
  minV: 0.3 * ratedV,
  maxV: 1.1 * ratedV,
  noiseDbA,
  noiseDistanceM: 1,
  wires: 2,
  price: 10,
  points: [
    { flowM3s: 0, pressurePa: 60 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
})
const twelve = fan('twelve', 12, 30)
const twentyFour = fan('twentyfour', 24, 34)
const fans = [twelve, twentyFour]
const open = (id: string) => [
  { ...newElement(`${id}-slot`, 'opening'), areaM2: 0.004 },
  newElement(`${id}-fan`, 'fan'),
]

const leadTo = (plan: PlanDocument, stream: string) => plan.feed.find((f) => f.streamId === stream)!

/** A 24 V supply fan, a 12 V board fan beside it, on a 24 V and a 12 V rail. */
function machine(change: (p: PlanDocument) => void = () => {}): PlanDocument {
  const plan = newPlan('j', 'Machine')
  const supply = plan.streams[0]!
  supply.job.streamName = 'Supply'
  supply.path = open('supply')
  stand(supply, selectionOf('twentyfour'))
  const rail = (volts: number) => ({
    ...newSource(`rail-${volts}`, 'rail'),
    name: `Rail ${volts}`,
    nominalV: volts,
    iMaxA: 1,
    regulated: true,
  })
  plan.sources = [rail(24), rail(12)]
  const board = newStream('board', 'Board')
  board.path = open('board')
  stand(board, selectionOf('twelve'))
  plan.streams.push(board)
  settleFeed(plan, null)
  leadTo(plan, 'board').parentId = 'rail-12'
  change(plan)
  return plan
}
function report(plan: PlanDocument, stream?: string): Report {
  const result = computeReport({ shown: null, plan: seenFrom(plan, stream), fans })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const told = (r: Report) => r.findings.findings.flatMap((f) => [f, ...f.also])

describe('a plan from one of its streams', () => {
  const three = machine((p) => addStream(p, 'tray', 'Tray'))
  test.each(['main', 'board', 'tray'])('from %s, and whole again: nothing is lost', (id) => {
    const seen = seenFrom(three, id)
    expect(seen.job.streamName).toBe({ main: 'Supply', board: 'Board', tray: 'Tray' }[id])
    expect(wholePlan(seen)).toEqual(three)
    expect(planSchema.safeParse(wholePlan(seen)).success).toBe(true)
  })
  test('what is changed is that stream’s alone; what is the machine’s is shared', () => {
    const seen = structuredClone(seenFrom(three, 'board'))
    seen.job.heatW = 7
    seen.job.ambientC = 19
    seen.path = []
    const { job, streams } = wholePlan(seen)
    expect(job.ambientC).toBe(19)
    expect(job).not.toHaveProperty('heatW')
    expect(streams.map((s) => [s.id, s.job.heatW, s.path.length])).toEqual([
      ['main', null, 2],
      ['board', 7, 0],
      ['tray', null, 0],
    ])
  })
  test('a stream that is not there is taken for the first one', () => {
    expect(seenFrom(three, 'nowhere').stream).toBe('main')
  })
})

describe('what cannot be is told where it happened', () => {
  const messages = (plan: PlanDocument) => planSchema.safeParse(plan).error?.issues.map((i) => i.message) ?? []
  test('nine streams', () => {
    const nine = machine((p) => {
      for (let i = 0; i < 7; i++) addStream(p, `s${i}`, `S ${i}`)
    })
    expect(messages(nine)).toEqual(['At most 8.'])
  })
  test('two streams of one id, a lead and a target of a stream that is gone', () => {
    expect(messages(machine((p) => p.streams.push(newStream('board', 'Again'))))).toEqual([
      'Two air streams share an id.',
    ])
    expect(messages(machine((p) => p.streams.pop()))).toEqual(['A lead feeds an air stream that is not there.'])
    expect(
      messages(
        machine((p) =>
          p.targets.push(newTarget({ id: 't', kind: 'flow', limit: 0.01, streamId: 'gone' }, 'main')),
        ),
      ),
    ).toEqual(['A target is about an air stream that is not there.'])
  })
  test('a loop of leads, and a lead that hangs on nothing', () => {
    const loop = machine((p) => {
      p.feed.push(
        { ...newFeedPart('a', 'branch', 'b'), name: 'A' },
        { ...newFeedPart('b', 'branch', 'a'), name: 'B' },
      )
    })
    expect(messages(loop)).toEqual(['A feeds itself: a loop.'])
    expect(messages(machine((p) => (p.sources = [])))).toEqual(['Supply hangs on something that is not there.'])
  })
  test('a second lead of a stream: its fans would be fed twice', () => {
    const twice = machine((p) => p.feed.push({ ...newFeedPart('again', 'load', null), streamId: 'main' }))
    expect(messages(twice)).toEqual(['An air stream has one lead: two feed it.'])
  })
  test('any stream can be taken away but the last one', () => {
    const left = machine((p) => removeStream(p, 'main'))
    expect(messages(left)).toEqual([])
    expect(left).toMatchObject({
      streams: [{ id: 'board' }],
      feed: [{ streamId: 'board', parentId: 'rail-12' }],
    })
    removeStream(left, 'board')
    expect(left.streams).toHaveLength(1)
  })
  test('a stream that is taken away takes its leads and targets along', () => {
    const plan = machine((p) =>
      p.targets.push(newTarget({ id: 't', kind: 'flow', limit: 0.01, streamId: 'board' }, 'main')),
    )
    removeStream(plan, 'board')
    expect(plan).toMatchObject({ streams: [{ id: 'main' }], feed: [{ streamId: 'main' }], targets: [] })
    expect(messages(plan)).toEqual([])
  })
})

describe('several sources and the fans of every stream', () => {
  test('each stream gets the voltage of its own rail, each rail the current of its own fans', () => {
    const r = report(machine())
    expect(r.streams.map((s) => [s.name, Math.round(s.volts!)])).toEqual([
      ['Supply', 24],
      ['Board', 12],
    ])
    const node = (id: string) => r.power.feed.nodes.find((n) => n.id === id)!
    expect(node('rail-24').outA).toBeCloseTo(0.2, 3)
    expect(node('rail-12').outA).toBeCloseTo(0.2, 3)
    expect(r.power.loadRunA).toBeCloseTo(0.2, 3)
  })
  test('a 12 V fan of a further stream on the 24 V rail is a stop, by its name', () => {
    const r = report(machine((p) => (leadTo(p, 'board').parentId = 'rail-24')))
    expect(told(r).find((f) => f.id === 'power-direct-too-high')).toMatchObject({
      severity: 'stop',
      subject: { name: 'Board' },
      at: { station: 'power', part: 'lead-board' },
    })
    expect(r.stations.find((s) => s.key === 'power')!.state).toBe('stop')
  })
  test('a rail that is asked for too much is named; the other one is not', () => {
    const r = report(machine((p) => (p.sources[1]!.iMaxA = 0.15)))
    const over = told(r).filter((f) => f.id === 'power-overload')
    expect(over.map((f) => f.subject?.name)).toEqual(['Rail 12'])
  })
  test('a node that is marked never stands in a station that is green', () => {
    const r = report(machine((p) => (p.sources[1]!.nominalV = 30)))
    expect(r.power.feed.nodes.some((n) => n.problems.some((p) => p.severity === 'stop'))).toBe(true)
    expect(r.stations.find((s) => s.key === 'power')!.state).toBe('stop')
  })
  test('the drive of a further stream is set in its own lead, and taken out again', () => {
    const faced = structuredClone(seenFrom(machine(), 'board'))
    setDrive(faced, { volts: 9, converterId: 'step' })
    expect(faced.feed.map((f) => [f.id, f.parentId, f.outV])).toEqual([
      ['lead-main', 'rail-24', null],
      ['step', 'rail-12', 9],
      ['lead-board', 'step', null],
    ])
    expect(report(wholePlan(faced)).streams[1]!.volts).toBeCloseTo(9, 1)
    setDrive(faced, { volts: 12, converterId: 'other' })
    expect(faced.feed.map((f) => [f.id, f.parentId])).toEqual([
      ['lead-main', 'rail-24'],
      ['lead-board', 'rail-12'],
    ])
  })
  test('a fan that is picked first gets its lead and its voltage in one go', () => {
    const faced = structuredClone(
      seenFrom(
        machine((p) => (p.feed = p.feed.filter((f) => f.streamId === 'main'))),
        'board',
      ),
    )
    setDrive(faced, { volts: 12, converterId: 'step' })
    // the 12 V rail has it: nothing stands between
    expect(faced.feed.map((f) => [f.id, f.parentId])).toEqual([
      ['lead-main', 'rail-24'],
      ['lead-board', 'rail-12'],
    ])
    expect(report(wholePlan(faced)).streams[1]!.volts).toBeCloseTo(12, 1)
  })
  test('a converter that feeds others too stays as it is: the lead gets one of its own', () => {
    const plan = machine((p) => {
      p.feed.unshift({ ...newFeedPart('shared', 'converter', 'rail-12'), outV: 12 })
      p.feed.push({ ...newFeedPart('lamp', 'load', 'shared'), currentA: 0.1 })
      leadTo(p, 'board').parentId = 'shared'
    })
    const faced = structuredClone(seenFrom(plan, 'board'))
    setDrive(faced, { volts: 7, converterId: 'own' })
    expect(faced.feed.find((f) => f.id === 'shared')!.outV).toBe(12)
    expect(leadTo(wholePlan(faced), 'board').parentId).toBe('own')
    expect(faced.feed.find((f) => f.id === 'own')).toMatchObject({ parentId: 'rail-12', outV: 7 })
  })
})

describe('the sound of the whole', () => {
  const four = machine((p) => {
    for (const [id, level] of [
      ['tray', 31],
      ['drum', 36],
    ] as const) {
      addStream(p, id, id)
      Object.assign(p.streams.at(-1)!.job, { asIs: true, heardDbA: level })
    }
  })
  test('four sources add by their energies, and are silenced the loudest first', () => {
    const { sources, total, order } = report(four).sound
    const levels = sources.map((s) => s.level!)
    // 10 lg of the sum of 10^(L/10), by hand
    const sum = (list: number[]) => 10 * Math.log10(list.reduce((s, l) => s + 10 ** (l / 10), 0))
    expect(total).toBeCloseTo(sum(levels), 9)
    expect(levels.slice(2)).toEqual([31, 36])
    const loudest = levels.toSorted((a, b) => b - a)
    expect(order.map((o) => o.level)).toEqual(loudest)
    expect(order[0]!.left).toBeCloseTo(sum(loudest.slice(1)), 9)
    expect(order.at(-1)!.left).toBeNull()
  })
  test('a fan of which nothing is known is not in the sum, and that is said', () => {
    const r = report(
      machine((p) => {
        addStream(p, 'tray', 'Tray')
        p.streams[2]!.job.asIs = true
      }),
    )
    expect(r.sound.unknown).toEqual(['Tray'])
    expect(r.sound.sources[2]!.basis).toBeNull()
  })
  test('what the others make is taken off the limit of the stream that is ranked', () => {
    // 40 dB less 37 dB leaves 37 dB: half of the energy
    expect(allowedLevel(40, 10 * Math.log10(10 ** 4 / 2))).toBeCloseTo(10 * Math.log10(10 ** 4 / 2), 9)
    expect(allowedLevel(40, null)).toBe(40)
    // others over the limit alone: another stream must be quietened first
    expect(allowedLevel(40, 45)).toBe(40)
    const limited = structuredClone(four)
    limited.targets = [newTarget({ id: 'l', kind: 'level', limit: 40 }, 'main')]
    const others = [report(limited).sound.sources[1]!.level!, 31, 36]
    const left = 10 ** 4 - others.reduce((s, l) => s + 10 ** (l / 10), 0)
    expect(report(limited).selectionContext.levelLimit).toBeCloseTo(10 * Math.log10(left), 9)
  })
})

describe('findings of several streams', () => {
  test('each names its stream and leads to it; a job of one names none', () => {
    const narrow = machine((p) => (p.streams[1]!.path[0]!.areaM2 = 0.0004))
    const mine = told(report(narrow)).filter((f) => f.station === 'air-path')
    expect(mine.length).toBeGreaterThan(0)
    for (const f of mine) expect([f.stream?.name, f.at.stream]).toEqual(['Board', 'board'])
    const alone = machine((p) => {
      removeStream(p, 'board')
      p.streams[0]!.path[0]!.areaM2 = 0.0004
    })
    for (const f of told(report(alone))) expect(f.stream).toBeNull()
  })
  test('a stream that stays as it is is asked for no path and no need', () => {
    const r = report(
      machine((p) => {
        addStream(p, 'tray', 'Tray')
        Object.assign(p.streams[2]!.job, {
          asIs: true,
          existingFanId: 'twelve',
          existingV: 12,
          existingCount: 2,
        })
        settleFeed(p, null)
        leadTo(p, 'tray').parentId = 'rail-12'
      }),
    )
    expect(told(r).filter((f) => f.stream?.id === 'tray')).toEqual([])
    // but its current is drawn: two fans of 0.2 A beside the board's
    expect(r.power.feed.nodes.find((n) => n.id === 'rail-12')!.outA).toBeCloseTo(0.6, 3)
  })
  test('the level target is held against all fans together, and told once', () => {
    // two fans of about 34 and 30 dB: each is under 35.0, both together are over it
    const r = report(machine((p) => p.targets.push(newTarget({ id: 'l', kind: 'level', limit: 35.2 }, 'main'))))
    expect(r.sound.sources.every((s) => s.level! < 35.2)).toBe(r.sound.total! > 35.2)
    const missed = told(r).filter((f) => f.id === 'noise-target-missed')
    expect(missed.map((f) => [f.subject?.id, f.stream])).toEqual([['l', null]])
  })
  test('a target of a further stream is held against that stream', () => {
    const of = (streamId: string) =>
      report(
        machine((p) => {
          Object.assign(p.streams[1]!.job, { heatW: 300, insideMaxC: 60 })
          Object.assign(p.streams[0]!.job, { heatW: 1, insideMaxC: 60 })
          p.targets.push(
            newTarget({ id: 't', kind: 'temperature', limit: 25, place: 'inside', streamId }, 'main'),
          )
        }),
      )
    const hotter = (r: Report) =>
      told(r)
        .filter((f) => f.id === 'target-hotter')
        .map((f) => f.stream?.name)
    expect(hotter(of('board'))).toEqual(['Board'])
    expect(hotter(of('main'))).toEqual([])
  })
  test('a job of one stream is planned, whatever a stream that went had said', () => {
    const alone = machine((p) => {
      removeStream(p, 'board')
      p.streams[0]!.job.asIs = true
    })
    expect(report(alone).streams[0]).toMatchObject({ asIs: false, fanName: '1 × Whin twentyfour' })
  })
  test('what may stand in one stream is still told of another', () => {
    const both = machine((p) => {
      p.streams[0]!.path[0]!.areaM2 = 0.0004
      p.streams[1]!.path[0]!.areaM2 = 0.0004
    })
    const ids = (r: Report) =>
      r.findings.findings.filter((f) => f.id === 'air-inlet-small').map((f) => f.stream?.id)
    expect(ids(report(both))).toEqual(['main', 'board'])
    both.job.known = [{ rule: 'air-inlet-small', subject: 'board', reason: 'It is wide behind' }]
    expect(ids(report(both))).toEqual(['main'])
  })
})
