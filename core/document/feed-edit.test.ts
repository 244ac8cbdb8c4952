import { describe, expect, test } from 'vitest'
import {
  addSource,
  batterySource,
  converterOf,
  driveVolts,
  leadOfFans,
  newConverter,
  newFeedPart,
  newSource,
  newStreamPlan,
  partsAbove,
  partsBelow,
  removeSource,
  sourceOf,
  takeOut,
  withConverterKind,
  withOutput,
  type FeedPart,
  type StreamPlan,
} from './index'
import { convertBy, feedFrom, hang, pick, putBefore, selectionOf } from '../../tests/plans'

/** A rail of 24 V, a converter to 12 V, a switch, and the fans behind it; a lamp on the rail. */
function plan(): StreamPlan {
  const p = newStreamPlan('j', 'Box')
  pick(p, selectionOf('f'), 12)
  feedFrom(p, { ...newSource('rail', 'rail'), nominalV: 24 }, { wireAwg: 22 })
  convertBy(p, newConverter('c', 12))
  putBefore(p, newFeedPart('sw', 'switch', null))
  hang(p, newFeedPart('lamp', 'load', null))
  return p
}
const ids = (parts: readonly FeedPart[]) => parts.map((p) => p.id)

describe('read from a part towards its source', () => {
  test('what it hangs on, the nearest first; what hangs on it', () => {
    const p = plan()
    expect(ids(partsAbove(p, leadOfFans(p)!))).toEqual(['sw', 'c'])
    expect(ids(partsBelow(p, 'c')).toSorted()).toEqual(['c', 'lead-main', 'sw'])
    expect([sourceOf(p)!.id, converterOf(p)!.id, driveVolts(p)]).toEqual(['rail', 'c', 12])
  })
  test('a loop ends, and has no source', () => {
    const p = plan()
    p.feed.find((f) => f.id === 'c')!.parentId = 'sw'
    expect(ids(partsAbove(p, leadOfFans(p)!))).toEqual(['sw', 'c'])
    expect(sourceOf(p)).toBeNull()
  })
  test('diodes make no voltage of their own: what stands before them is asked', () => {
    const p = plan()
    putBefore(p, { ...newConverter('d', null, 'diode'), diodes: 2 })
    expect([converterOf(p)!.id, driveVolts(p)]).toEqual(['d', 12])
  })
  test('present fans of a stream that stays have what they have, where nothing feeds them', () => {
    const p = newStreamPlan('j', 'Box')
    expect(driveVolts(p)).toBeNull()
    Object.assign(p.job, { asIs: true, existingV: 9 })
    expect(driveVolts(p)).toBe(9)
  })
  test('a battery is told for the source that has one, wherever it stands', () => {
    const p = plan()
    expect(batterySource(p)!.id).toBe('rail')
    p.sources.push(newSource('pack', 'pack'))
    expect(batterySource(p)!.id).toBe('pack')
    expect(batterySource({ sources: [] })).toBeNull()
  })
})

describe('edits', () => {
  test('a part that is taken out leaves what hung on it where it hung', () => {
    const p = plan()
    takeOut(p, 'c')
    expect(p.feed.find((f) => f.id === 'sw')!.parentId).toBe('rail')
    takeOut(p, 'nowhere')
    expect(ids(p.feed).toSorted()).toEqual(['lamp', 'lead-main', 'sw'])
  })
  test('a source that goes leaves its parts to the first one left, the last one to nothing', () => {
    const p = plan()
    addSource(p, { ...newSource('second', 'rail'), nominalV: 12 })
    removeSource(p, 'rail')
    expect(p.feed.find((f) => f.id === 'lamp')!.parentId).toBe('second')
    removeSource(p, 'second')
    expect(p.feed.find((f) => f.id === 'lamp')!.parentId).toBeNull()
    // the next one finds them hanging on nothing
    addSource(p, newSource('third', 'rail'))
    expect(p.feed.find((f) => f.id === 'lamp')!.parentId).toBe('third')
    addSource(p, newSource('fourth', 'rail'))
    expect(sourceOf(p)!.id).toBe('third')
  })
  test('another kind of converter keeps its place, its lead and what it is to give, nothing else', () => {
    const old = { ...newConverter('c', 9), parentId: 'rail', wireAwg: 20, iMaxA: 2, efficiency: 0.9, ohm: 5 }
    const next = withConverterKind(old, 'linear')
    expect(next).toMatchObject({ id: 'c', parentId: 'rail', wireAwg: 20, outV: 9, name: 'Linear regulator' })
    expect([next.iMaxA, next.efficiency, next.ohm]).toEqual([null, null, null])
    expect(withConverterKind({ ...old, name: 'Mine' }, 'boost').name).toBe('Mine')
  })
  test('another output asks for what was chosen, set and measured anew', () => {
    const set = { ...newConverter('c', 9), setFirst: true, measuredV: 9.1, ohm: 5, duty: 0.5, efficiency: 0.9 }
    expect(withOutput(set, 8)).toMatchObject({
      outV: 8,
      setFirst: false,
      measuredV: null,
      ohm: null,
      duty: null,
      efficiency: 0.9,
    })
  })
})
