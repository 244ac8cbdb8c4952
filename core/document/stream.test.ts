import { describe, expect, test } from 'vitest'
import { demoJobs } from '../../demo/jobs'
import {
  copyPlace,
  copyStream,
  leadOfFans,
  moveStream,
  namePlace,
  placeName,
  newElement,
  newFit,
  newStreamPlan,
  planSchema,
  plannedFans,
  removeStream,
  seenAt,
  seenFrom,
  settlePlaces,
  withoutAside,
  wholePlan,
} from './index'

/** Streams and places as lists: named, moved, copied, put aside. */

const press = () => structuredClone(demoJobs().find((p) => p.job.id === 'job-stencil-press')!)
const names = (plan: ReturnType<typeof press>) => plan.streams.map((s) => s.job.streamName)
let n = 0
const makeId = (kind: string) => `${kind}-made-${n++}`

describe('air streams', () => {
  test('are moved among the others, as far as there are some', () => {
    const plan = press()
    const [first, second, third, fourth] = names(plan)
    moveStream(plan, plan.streams[2]!.id, -1)
    expect(names(plan)).toEqual([first, third, second, fourth])
    moveStream(plan, plan.streams[0]!.id, 9)
    expect(names(plan)).toEqual([third, second, fourth, first])
    moveStream(plan, plan.streams[0]!.id, -1)
    moveStream(plan, 'nobody', 1)
    expect(names(plan)).toEqual([third, second, fourth, first])
  })
  test('a copy has need, path and fans of the other, is fed where it is, and shares nothing with it, nor its targets', () => {
    const plan = press()
    const [old] = plan.streams
    copyStream(plan, old!.id, 'twin', makeId)
    expect(planSchema.safeParse(plan).error?.issues ?? []).toEqual([])
    const [from, to] = [seenFrom(plan, old!.id), seenFrom(plan, 'twin')]
    expect(to.job).toEqual({ ...from.job, streamName: `${from.job.streamName}, copy` })
    expect(plannedFans(to)!.groups.map((g) => g.fanId)).toEqual(plannedFans(from)!.groups.map((g) => g.fanId))
    expect(leadOfFans(to)!.parentId).toBe(leadOfFans(from)!.parentId)
    expect(plan.targets).toEqual(press().targets)
    const idsOf = (p: typeof from) => [...p.path, ...p.branches, ...p.places, ...p.ports].map((x) => x.id)
    expect(idsOf(to).filter((x) => idsOf(from).includes(x))).toEqual([])
    expect(to.path.map((e) => e.kind)).toEqual(from.path.map((e) => e.kind))
    expect(to.places[0]!.elementId).toBe(to.path.find((e) => e.kind === 'fan')!.id)
    to.path[0]!.name = 'Elsewhere'
    to.places[0]!.fans[0]!.count = 7
    expect(from.path[0]!.name).not.toBe('Elsewhere')
    expect(plannedFans(from)!.count).not.toBe(7)
  })
  test('put aside they are no part of the machine, but for the one that is looked at', () => {
    const plan = press()
    const { id } = plan.streams[1]!
    plan.streams[1]!.job.aside = true
    expect(withoutAside(plan, plan.streams[0]!.id).streams.map((s) => s.id)).not.toContain(id)
    expect(withoutAside(plan, plan.streams[0]!.id).feed.some((f) => f.streamId === id)).toBe(false)
    expect(withoutAside(plan, id)).toBe(plan)
    expect(plan.streams).toHaveLength(4)
    // one that is put aside is not shown unasked
    plan.streams[0]!.job.aside = true
    expect(seenFrom(plan).stream).toBe(plan.streams[2]!.id)
    expect(seenFrom(plan, id).stream).toBe(id)
  })
  test('the last one stays', () => {
    const plan = wholePlan(newStreamPlan('j', 'Box'))
    removeStream(plan, 'main')
    expect(plan.streams).toHaveLength(1)
  })
})

describe('places of fans', () => {
  const boxed = () => {
    const plan = newStreamPlan('j', 'Box')
    plan.path = [newElement('a', 'fan'), newElement('box', 'chamber')]
    settlePlaces(plan)
    return plan
  }
  test('a fan that is drawn takes the place that stands nowhere; a further one gets its own', () => {
    const plan = boxed()
    expect(plan.places.map((p) => p.elementId)).toEqual(['a'])
    plan.places[0]!.direction = 'in'
    plan.path.push(newElement('b', 'fan'))
    settlePlaces(plan)
    // beyond the box it draws out what the other one blows in
    expect(plan.places.map((p) => [p.elementId, p.direction])).toEqual([
      ['a', 'in'],
      ['b', 'out'],
    ])
  })
  test('in one duct both blow the same way', () => {
    const plan = newStreamPlan('j', 'Duct')
    plan.path = [newElement('a', 'fan'), newElement('duct', 'duct')]
    settlePlaces(plan)
    plan.places[0]!.direction = 'out'
    plan.path.push(newElement('b', 'fan'))
    settlePlaces(plan)
    expect(plan.places[1]!.direction).toBe('out')
  })
  test('a fan that is taken out leaves what was told of its place, and another one takes that up', () => {
    const plan = boxed()
    plan.path.push(newElement('b', 'fan'))
    settlePlaces(plan)
    const { id } = plan.places[1]!
    plan.places[1]!.holeM = 0.1
    plan.path.pop()
    settlePlaces(plan)
    expect(plan.places.map((p) => [p.id === id, p.elementId])).toEqual([
      [false, 'a'],
      [true, null],
    ])
    plan.path.push(newElement('c', 'fan'))
    settlePlaces(plan)
    expect(plan.places).toMatchObject([{ elementId: 'a' }, { id, elementId: 'c', holeM: 0.1 }])
    // of which nothing was told goes
    plan.places[1]!.holeM = null
    plan.path.pop()
    settlePlaces(plan)
    expect(plan.places).toHaveLength(1)
  })
  test('one is told like another but for its fans and the way they blow', () => {
    const plan = boxed()
    plan.path.push(newElement('b', 'fan'))
    settlePlaces(plan)
    const [a, b] = plan.places as [(typeof plan.places)[0], (typeof plan.places)[0]]
    Object.assign(a, { direction: 'in', holeM: 0.09, fans: [{ fanId: 'f', count: 2 }], fit: newFit('fa') })
    Object.assign(b, { direction: 'out', fit: { ...newFit('fb'), panelM: 0.01 } })
    copyPlace(a, b)
    expect(b).toMatchObject({ direction: 'out', holeM: 0.09, fans: [], fit: { id: 'fb', panelM: null } })
    b.fit!.keepClear.push({ id: 'k', name: 'Beam', leftM: 0, bottomM: 0, widthM: 0.1, heightM: 0.1 })
    expect(a.fit!.keepClear).toEqual([])
  })
  test('a place is called as its element of the path, and by itself as long as there is none', () => {
    const plan = boxed()
    const [place] = plan.places
    namePlace(plan, place!, 'Floor')
    expect([plan.path[0]!.name, place!.name, placeName(plan, place!)]).toEqual(['Floor', '', 'Floor'])
    plan.path.shift()
    settlePlaces(plan)
    expect(placeName(plan, place!)).toBe('Place 1')
    namePlace(plan, place!, 'Back')
    expect(placeName(plan, place!)).toBe('Back')
  })
  test('a plan is seen from the place that is asked for, else from one that has fans', () => {
    const plan = boxed()
    plan.path.push(newElement('b', 'fan'))
    settlePlaces(plan)
    plan.places[1]!.fans = [{ fanId: 'f', count: 1 }]
    expect(seenAt(plan).place).toBe(plan.places[1])
    expect(seenAt(plan, plan.places[0]!.id).place).toBe(plan.places[0])
    expect(seenAt(plan, 'nobody').place).toBe(plan.places[1])
  })
  test.each<[string, (plan: ReturnType<typeof boxed>) => void, string]>([
    ['two at one element', (p) => p.places.push({ ...p.places[0]!, id: 'x' }), 'at one element'],
    ['one at nothing', (p) => (p.places[0]!.elementId = 'gone'), 'at no fan of the path'],
    [
      'a pair at one of two',
      (p) => {
        p.path.push(newElement('b', 'fan'))
        settlePlaces(p)
        p.places[0]!.fans = [
          { fanId: 'f', count: 1 },
          { fanId: 'g', count: 1 },
        ]
        p.places[1]!.fans = [{ fanId: 'f', count: 1 }]
      },
      'of one kind, side by side',
    ],
    [
      'too many fans together',
      (p) => {
        p.path.push(newElement('b', 'fan'))
        settlePlaces(p)
        for (const place of p.places) place.fans = [{ fanId: 'f', count: 9 }]
      },
      'At most 16 fans',
    ],
  ])('%s are refused', (_, change, words) => {
    const plan = boxed()
    change(plan)
    expect(planSchema.safeParse(wholePlan(plan)).error?.issues[0]?.message).toContain(words)
  })
})
