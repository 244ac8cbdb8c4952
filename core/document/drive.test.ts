import { dutyOf } from '#core/document'
import { describe, expect, test } from 'vitest'
import {
  addSource,
  addStream,
  converterOf,
  driveVolts,
  leadOfFans,
  seenFrom,
  wholePlan,
  newConverter,
  newFeedPart,
  newStreamPlan,
  newSource,
  planSchema,
  setDrive,
  settleFeed,
  sourceOf,
  type StreamPlan,
} from './index'
import { convertBy, feedFrom, hang, pick, putBefore, selectionOf, stand } from '../../tests/plans'

/** A 12 V fan at 9 V behind a converter of its own; the source gives 24 V, and a pump hangs on it. */
function machine(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Machine')
  pick(p, selectionOf('f'), 9)
  feedFrom(p, { ...newSource('source', 'rail'), nominalV: 24 })
  convertBy(p, { ...newConverter('c', 9), iMaxA: 2, setFirst: true, measuredV: 9.02, efficiency: 0.88 })
  hang(p, newFeedPart('pump', 'load', null))
  change(p)
  return p
}
const withLamp = (p: StreamPlan) => void p.feed.push(newFeedPart('lamp', 'load', 'c'))
const drive = (volts: number, rest: object = {}, change?: (p: StreamPlan) => void) => {
  const p = machine(change)
  setDrive(p, { volts, converterId: 'new', ...rest })
  expect(planSchema.safeParse(wholePlan(p)).success).toBe(true)
  return p
}
const parents = (p: StreamPlan) => Object.fromEntries(p.feed.map((f) => [f.id, f.parentId]))

describe('setting the drive voltage', () => {
  test('turns what makes it; what was set and measured is not any more', () => {
    const p = drive(10.5)
    expect(driveVolts(p)).toBe(10.5)
    const turned = { id: 'c', outV: 10.5, setFirst: false, measuredV: null, efficiency: 0.88 }
    expect(converterOf(p)).toMatchObject(turned)
    expect(parents(p)).toEqual({ c: 'source', 'lead-main': 'c', pump: 'source' })
  })
  test('the voltage it has already leaves a set converter set', () => {
    expect(converterOf(drive(9))).toMatchObject({ setFirst: true, measuredV: 9.02 })
  })
  test('what the source gives needs no converter', () => {
    const p = drive(24)
    expect(parents(p)).toEqual({ 'lead-main': 'source', pump: 'source' })
    expect(driveVolts(p)).toBe(24)
  })
  test('a converter that a lamp hangs on too stays as it is: the fans get one of their own, from the source', () => {
    const p = drive(10.5, {}, withLamp)
    expect(p.feed.find((f) => f.id === 'c')).toMatchObject({ outV: 9, setFirst: true })
    expect(converterOf(p)).toMatchObject({ id: 'new', converterKind: 'buck', outV: 10.5 })
    expect(parents(p)).toMatchObject({ lamp: 'c', new: 'source', 'lead-main': 'new' })
    expect(parents(drive(24, {}, withLamp))).toMatchObject({ lamp: 'c', 'lead-main': 'source' })
    // what it gives already is enough
    expect(parents(drive(9, {}, withLamp))).toMatchObject({ lamp: 'c', 'lead-main': 'c' })
  })
  test('a switch in the lead stays in it, behind the converter', () => {
    const p = drive(5, {}, (x) => {
      convertBy(x, null)
      putBefore(x, newFeedPart('switch', 'switch', null))
    })
    expect(parents(p)).toMatchObject({ new: 'source', switch: 'new', 'lead-main': 'switch' })
    expect(parents(drive(24, {}, (x) => putBefore(x, newFeedPart('switch', 'switch', null))))).toMatchObject({
      switch: 'source',
      'lead-main': 'switch',
    })
  })
  test.each([
    ['24 V on a 12 V source', 24, 12, 'boost'],
    ['5 V on a 12 V source', 5, 12, 'buck'],
  ])('%s makes a %s converter that suits', (_, volts, nominalV, kind) => {
    const p = drive(volts, {}, (x) => {
      convertBy(x, null)
      sourceOf(x)!.nominalV = nominalV
    })
    expect(converterOf(p)).toMatchObject({ id: 'new', converterKind: kind, outV: volts, setFirst: false })
  })
  test('a resistor stays one, but is chosen again; a converter the wrong way round is replaced in its place', () => {
    const resistor = drive(8, {}, (x) => Object.assign(converterOf(x)!, { converterKind: 'resistor', ohm: 33 }))
    expect(converterOf(resistor)).toMatchObject({ converterKind: 'resistor', ohm: null, outV: 8 })
    const up = converterOf(drive(30))
    expect(up).toMatchObject({ id: 'c', converterKind: 'boost', outV: 30, iMaxA: null, efficiency: null })
    expect(up!.name).toBe('Step-up converter')
  })
  test('a way that was chosen is taken as it is, with its duty', () => {
    const p = drive(8, { by: { converterKind: 'pwm', duty: 0.4, pwmHz: 25000 }, duty: null })
    expect(converterOf(p)).toMatchObject({ id: 'c', converterKind: 'pwm', duty: 0.4, outV: 8 })
    const wire = drive(24, { by: 'straight', duty: 0.5 })
    expect(dutyOf(wire)).toBe(0.5)
    expect(converterOf(wire)).toBeNull()
  })
  test('without a source it is a wish, until something makes it', () => {
    const bare = drive(10, {}, (x) => {
      convertBy(x, null)
      feedFrom(x, null)
    })
    expect(leadOfFans(bare)!.wishV).toBe(10)
    expect(driveVolts(bare)).toBe(10)
    addSource(bare, { ...newSource('late', 'rail'), nominalV: 24 })
    expect(driveVolts(bare)).toBe(24)
    const unfed = drive(10, {}, (x) => feedFrom(x, null))
    expect(converterOf(unfed)).toMatchObject({ outV: 10, setFirst: false })
    expect(leadOfFans(unfed)!.wishV).toBeNull()
  })
})

describe('a plan that was changed', () => {
  test('keeps what its fans were driven at where nothing makes it any more', () => {
    const before = wholePlan(machine())
    const after = wholePlan(
      machine((p) => {
        convertBy(p, null)
        feedFrom(p, null)
      }),
    )
    settleFeed(after, before)
    expect(driveVolts(seenFrom(after))).toBe(9)
    // and forgets it once something does
    addSource(after, { ...newSource('late', 'rail'), nominalV: 12 })
    settleFeed(after, before)
    expect(after.feed.find((f) => f.streamId === 'main')).toMatchObject({ parentId: 'late', wishV: null })
  })
})

describe('the fans of one of several streams', () => {
  /** A stream beside the first one; a 12 V rail beside the source of 24 V. */
  const beside = (volts: number, change: (p: StreamPlan) => void = () => {}) => {
    const home = machine()
    home.sources.push({ ...newSource('rail-12', 'rail'), nominalV: 12 })
    const whole = wholePlan(home)
    addStream(whole, 'board', 'Board')
    const p = seenFrom(whole, 'board')
    stand(p, selectionOf('f'))
    change(p)
    setDrive(p, { volts, converterId: 'made' })
    return p
  }
  const lead = (p: StreamPlan) => leadOfFans(p)!
  test('hang straight on the source that has their voltage', () => {
    expect(lead(beside(24)).parentId).toBe('source')
    expect(lead(beside(12)).parentId).toBe('rail-12')
    expect(converterOf(beside(12))).toBeNull()
  })
  test('else behind a converter that bears the stream’s name', () => {
    const p = beside(7)
    expect(converterOf(p)).toMatchObject({ name: 'Step-down converter of Board', outV: 7, parentId: 'source' })
    // a voltage that the rail has needs none any more
    setDrive(p, { volts: 12, converterId: 'again' })
    expect(lead(p).parentId).toBe('rail-12')
    expect(p.feed.filter((f) => f.kind === 'converter').map((f) => f.id)).toEqual(['c'])
  })
  test('leave a converter that others hang on', () => {
    const p = beside(7, (x) => x.feed.push({ ...newFeedPart('own', 'load', 'c'), streamId: 'board' }))
    expect(p.feed.find((f) => f.id === 'c')!.outV).toBe(9)
    expect(converterOf(p)).toMatchObject({ id: 'made', outV: 7, parentId: 'source' })
  })
})
