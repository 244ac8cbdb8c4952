import { describe, expect, test } from 'vitest'
import {
  addStream,
  seenFrom,
  wholePlan,
  newConverter,
  newFeedPart,
  newStreamPlan,
  newSource,
  planSchema,
  setDrive,
  type StreamPlan,
} from './index'

/** A 12 V fan at 9 V behind a converter that a lamp hangs on too; the source gives 24 V. */
function machine(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Machine')
  p.selection = {
    id: 's',
    fanId: 'f',
    secondFanId: null,
    secondCount: null,
    count: 1,
    arrangement: 'single',
    driveV: 9,
    duty: null,
  }
  p.source = { ...newSource('source', 'rail'), nominalV: 24 }
  p.converter = { ...newConverter('c', 9), iMaxA: 2, setFirst: true, measuredV: 9.02, efficiency: 0.88 }
  p.feed = [newFeedPart('lamp', 'load', 'c'), newFeedPart('pump', 'load', null)]
  change(p)
  return p
}
const drive = (volts: number, rest: object = {}, change?: (p: StreamPlan) => void) => {
  const p = machine(change)
  setDrive(p, { volts, converterId: 'new', ...rest })
  return p
}
const parents = (p: StreamPlan) => p.feed.map((f) => f.parentId)

describe('setting the drive voltage', () => {
  test('moves selection and converter together; what was set and measured is not any more', () => {
    const p = drive(10.5)
    expect(p.selection!.driveV).toBe(10.5)
    expect(p.converter).toMatchObject({
      id: 'c',
      outV: 10.5,
      setFirst: false,
      measuredV: null,
      efficiency: 0.88,
    })
    expect(parents(p)).toEqual(['c', null])
  })
  test('the voltage it has already leaves a set converter set', () => {
    expect(drive(9).converter).toMatchObject({ setFirst: true, measuredV: 9.02 })
  })
  test('what the source gives needs no converter, and a lamp on it hangs on the source: the plan stays valid', () => {
    const p = drive(24)
    expect(p.converter).toBeNull()
    expect(parents(p)).toEqual([null, null])
    expect(planSchema.safeParse(wholePlan(p)).success).toBe(true)
  })
  test.each([
    ['24 V on a 12 V source', 24, 12, 'boost'],
    ['5 V on a 12 V source', 5, 12, 'buck'],
  ])('%s makes a %s converter that suits', (_, volts, nominalV, kind) => {
    const p = drive(volts, {}, (x) => {
      x.converter = null
      x.feed = []
      x.source!.nominalV = nominalV
    })
    expect(p.converter).toMatchObject({ id: 'new', kind, outV: volts, setFirst: false })
  })
  test('a resistor stays one, but is chosen again; a converter the wrong way round is replaced in its place', () => {
    const resistor = drive(8, {}, (x) => Object.assign(x.converter!, { kind: 'resistor', ohm: 33 }))
    expect(resistor.converter).toMatchObject({ kind: 'resistor', ohm: null, outV: 8 })
    const up = drive(30)
    expect(up.converter).toMatchObject({ id: 'c', kind: 'boost', iMaxA: 2, efficiency: null })
    expect(parents(up)).toEqual(['c', null])
  })
  test('a way that was chosen is taken as it is, with its duty', () => {
    const p = drive(8, { by: { kind: 'pwm', duty: 0.4, pwmHz: 25000 }, duty: null })
    expect(p.converter).toMatchObject({ id: 'c', kind: 'pwm', duty: 0.4, outV: 8 })
    const wire = drive(24, { by: 'straight', duty: 0.5 })
    expect(wire.selection).toMatchObject({ driveV: 24, duty: 0.5 })
    expect(parents(wire)).toEqual([null, null])
  })
  test('without source or selection what is there follows', () => {
    const bare = drive(10, {}, (x) => {
      x.source = null
      x.converter = null
      x.feed = []
    })
    expect(bare.selection!.driveV).toBe(10)
    expect(bare.converter).toBeNull()
    const unfed = drive(10, {}, (x) => {
      x.source = null
    })
    expect(unfed.converter).toMatchObject({ outV: 10, setFirst: false })
    const none = drive(10, {}, (x) => {
      x.selection = null
    })
    expect(none.converter!.outV).toBe(10)
  })
})

describe('the fans of a further stream', () => {
  /** A stream beside the first one, which stands in front; a 12 V rail beside the source of 24 V. */
  const beside = (volts: number, change: (p: StreamPlan) => void = () => {}) => {
    const home = machine()
    home.sources = [{ ...newSource('rail-12', 'rail'), nominalV: 12 }]
    const whole = wholePlan(home)
    addStream(whole, 'board', 'Board')
    const p = seenFrom(whole, 'board')
    p.selection = { ...home.selection!, id: 'b' }
    change(p)
    setDrive(p, { volts, converterId: 'made' })
    return p
  }
  const lead = (p: StreamPlan) => p.feed.find((f) => f.streamId === 'board')!
  test('hang straight on the source that has their voltage', () => {
    expect(lead(beside(24)).parentId).toBeNull()
    expect(lead(beside(12)).parentId).toBe('rail-12')
    expect(beside(12).feed.some((f) => f.kind === 'converter')).toBe(false)
  })
  test('else behind a converter that bears the stream’s name', () => {
    const p = beside(7)
    expect(p.feed.find((f) => f.id === lead(p).parentId)).toMatchObject({
      kind: 'converter',
      name: 'Converter of Board',
      outV: 7,
      parentId: null,
    })
    // a voltage that the rail has needs none any more
    setDrive(p, { volts: 12, converterId: 'again' })
    expect(lead(p).parentId).toBe('rail-12')
    expect(p.feed.some((f) => f.kind === 'converter')).toBe(false)
  })
  test('where somebody hung them, they stay', () => {
    const p = beside(12, (x) => x.feed.push({ ...newFeedPart('own', 'load', 'c'), streamId: 'board' }))
    const made = p.feed.find((f) => f.id === lead(p).parentId)!
    expect(made).toMatchObject({ kind: 'converter', converterKind: 'boost', parentId: 'c' })
  })
})
