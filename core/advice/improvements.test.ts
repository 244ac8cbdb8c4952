import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { defaultRank, paretoFront, modelShelf, replacementNotes, type Candidate } from '#core/selection'
import { rankShelf } from '../../tests/ranked'
import { improvementsOf } from './improvements'
import { measurementSensitivity } from './uncertainty'
import {
  converterOf,
  newConverter,
  newElement,
  newFan,
  newStreamPlan,
  type Fan,
  type StreamPlan,
} from '#core/document'
import { sayIn } from '#core/units'
import { convertBy, pick, selectionOf, stand, unpick } from '../../tests/plans'

const curve = (shutOff: number, free: number) =>
  [
    [0, 1],
    [0.3, 0.86],
    [0.6, 0.6],
    [0.85, 0.25],
    [1, 0],
  ].map(([q, p]) => ({ flowM3s: q! * free, pressurePa: p! * shutOff }))
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.18,
  startV: 5,
  noiseDbA: 28,
  noiseDistanceM: 1,
  price: 8,
  wires: 3,
  points: curve(45, 0.016),
}
const others: Fan[] = [
  {
    ...newFan('g'),
    model: 'Whin 120',
    frameM: 0.12,
    ratedA: 0.25,
    startV: 5,
    noiseDbA: 26,
    noiseDistanceM: 1,
    price: 12,
    wires: 4,
    points: curve(35, 0.035),
  },
  {
    ...newFan('h'),
    model: 'Whin 80 slim',
    thicknessM: 0.015,
    ratedA: 0.1,
    startV: 5,
    noiseDbA: 24,
    noiseDistanceM: 1,
    price: 6,
    wires: 2,
    points: curve(25, 0.012),
  },
]
const fans = [fan, ...others]
function plan(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const p = newStreamPlan('j', 'Box')
  Object.assign(p.job, { goal: 'cool', heatW: 90, heatBasis: 'estimate', insideMaxC: 40, ambientC: 22 })
  p.path = [
    { ...newElement('in', 'grille'), name: 'Front slots', areaM2: 0.006, freeAreaRatio: 0.4 },
    { ...newElement('filter', 'filter'), name: 'Filter', areaM2: 0.01, medium: 'coarse' },
    newElement('fan', 'fan'),
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.005 },
  ]
  pick(p, selectionOf('f'), 9)
  change(p)
  return p
}
const reportOf = (p: StreamPlan) => {
  const result = computeReport({ shown: null, plan: p, fans })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}
const improvements = (p: StreamPlan) => improvementsOf({ shown: null, plan: p, fans }, reportOf(p))

describe('levers', () => {
  test('each tells the margin its own plan really has', () => {
    const list = improvements(plan())
    expect(list.length).toBeGreaterThan(6)
    for (const l of list) {
      const r = reportOf(l.plan)
      expect(l.flow).toBe(r.selection!.served.value)
      expect(l.margin).toBeCloseTo(r.selection!.served.value! / r.need.wanted! - 1, 9)
      const before = reportOf(plan()).selection!.served.value!
      expect(l.change.flow).toBeCloseTo(l.flow! / before - 1, 9)
      expect(l.gain).toBeGreaterThan(0)
    }
  })
  test('what meets the need stands first, the strongest first among equals', () => {
    const list = improvements(plan())
    const flags = list.map((l) => l.meets)
    expect(flags).toEqual([...flags].sort((a, b) => Number(b) - Number(a)))
    for (const asked of [false, true])
      for (const group of [true, false]) {
        const gains = list.filter((l) => l.meets === group && (l.group === 'need') === asked).map((l) => l.gain)
        expect(gains).toEqual([...gains].sort((a, b) => b - a))
      }
    // what asks for less is no answer to too little air: it comes last
    const first = list.findIndex((l) => l.group === 'need')
    expect(first).toBeGreaterThan(0)
    expect(list.slice(first).every((l) => l.group === 'need')).toBe(true)
  })
  test('path, drive, fans and wishes are all tried', () => {
    expect(new Set(improvements(plan()).map((l) => l.group))).toEqual(
      new Set(['path', 'drive', 'fans', 'need']),
    )
  })
  test('the plan itself is left alone', () => {
    const p = plan()
    const before = JSON.stringify(p)
    improvements(p)
    expect(JSON.stringify(p)).toBe(before)
  })
  test('a converter is turned with the drive, and wants to be set again', () => {
    const p = plan((x) => {
      convertBy(x, { ...newConverter('c', 8), iMaxA: 1, setFirst: true, measuredV: 8 })
    })
    const of = (key: string) => improvements(p).find((l) => l.key === key)!.plan
    expect(converterOf(of('drive.volt'))).toMatchObject({ id: 'c', outV: 9, setFirst: false, measuredV: null })
    expect(converterOf(of('drive.rated'))).toMatchObject({ outV: 12, setFirst: false })
  })
  test('without a pick or a need there are none', () => {
    expect(
      improvements(
        plan((p) => {
          unpick(p)
        }),
      ),
    ).toEqual([])
    expect(
      improvements(
        plan((p) => {
          p.job.heatW = null
        }),
      ),
    ).toEqual([])
  })
})

describe('what to measure first', () => {
  test('with a guessed heat and a measured path it is the heat', () => {
    const p = plan((x) => {
      x.path = x.path.map((e) => ({
        ...e,
        basis: 'measured' as const,
        ...(e.kind === 'filter' ? { medium: 'sheet', c1: 20, c2: 5 } : {}),
      }))
    })
    expect(measurementSensitivity({ shown: null, plan: p, fans })[0]!.source).toBe('heatW')
  })
  test('with a measured heat and a guessed path it is the path', () => {
    const p = plan((x) => {
      x.job.heatBasis = 'measured'
    })
    expect(measurementSensitivity({ shown: null, plan: p, fans })[0]!.source).toBe('path')
  })
  test('gains are shares', () => {
    for (const w of measurementSensitivity({ shown: null, plan: plan(), fans })) {
      expect(w.gain).toBeGreaterThan(0)
      expect(w.gain).toBeLessThanOrEqual(1)
    }
    expect(measurementSensitivity({ shown: null, plan: newStreamPlan('j', 'x'), fans })).toEqual([])
  })
})

describe('ranking and the front', () => {
  const rows = (objective: typeof defaultRank.objective) =>
    rankShelf(reportOf(plan()).selectionContext, modelShelf(fans), { ...defaultRank, objective }).rows
  test('no group on the front is beaten in both, every other one is', () => {
    const all = rows('quietest')
    const front = paretoFront(all)
    const beats = (a: Candidate, b: Candidate) =>
      a.flow! >= b.flow! &&
      a.level!.value <= b.level!.value &&
      (a.flow! > b.flow! || a.level!.value < b.level!.value)
    for (const c of front)
      expect(all.some((o) => o.flow !== null && o.level !== null && beats(o, c))).toBe(false)
    for (const c of all)
      if (c.flow !== null && c.level !== null && !front.includes(c))
        expect(front.some((o) => beats(o, c) || (o.flow === c.flow && o.level!.value === c.level!.value))).toBe(
          true,
        )
  })
  test('thinnest, per loudness, per money put their best usable group first', () => {
    const first = (objective: typeof defaultRank.objective, of: (c: Candidate) => number) => {
      const usable = rows(objective).filter((c) => c.verdict !== 'fail')
      expect(of(usable[0]!)).toBeCloseTo(Math.min(...usable.map(of)), 9)
    }
    first('thinnest', (c) => c.thicknessM)
    first('loudness', (c) => 2 ** ((c.level!.value - 40) / 10) / c.flow!)
    first('value', (c) => c.cost! / c.flow!)
  })
  test('slower is never louder, two side by side never give less on a rising path, two behind each other never less pressure', () => {
    const r = reportOf(plan())
    fc.assert(
      fc.property(fc.double({ min: 6, max: 11, noNaN: true }), (volts) => {
        const at = (driveV: number, count: number, arrangement: 'single' | 'parallel' | 'series') =>
          reportOf(
            plan((p) => {
              pick(p, selectionOf('f', { count, arrangement }), driveV)
            }),
          ).selection!.candidate
        const one = at(volts, 1, 'single')
        expect(at(volts + 1, 1, 'single').level!.value).toBeGreaterThanOrEqual(one.level!.value)
        expect(at(volts, 2, 'parallel').flow!).toBeGreaterThanOrEqual(one.flow! - 1e-9)
        expect(at(volts, 2, 'series').pressure!).toBeGreaterThanOrEqual(one.pressure! - 1e-9)
      }),
      { numRuns: 15 },
    )
    expect(r.selection).not.toBeNull()
  })
})

describe('one fan for another', () => {
  const p = plan((x) => {
    x.job.existingFanId = 'f'
  })
  const notes = (next: Fan, change: (c: Candidate) => Candidate = (c) => c) => {
    const put = structuredClone(p)
    stand(put, selectionOf(next.id))
    const r = reportOf(put)
    return replacementNotes(p.job, fan, 12, next, change(r.selection!.candidate)).map(
      (n) => `${n.severity}: ${sayIn(n.text).replaceAll('\u00a0', ' ')}`,
    )
  }
  test('a larger frame, more wires, another voltage', () => {
    const list = notes(others[0]!)
    expect(list).toContainEqual(expect.stringContaining('fix: Frame of 120 mm where 80 mm was'))
    expect(list).toContainEqual(expect.stringContaining('It wants 9 V, the old one had 12 V'))
    expect(list).toContainEqual(
      expect.stringContaining('note: It had three wires with a tach, now there are four wires'),
    )
    expect(list).toContainEqual(expect.stringContaining('takes 0.25 A'))
  })
  test('a tach that is lost is to be mended', () => {
    expect(notes(others[1]!)).toContainEqual(
      expect.stringContaining(
        'fix: It had three wires with a tach, now there are two wires without a tach: equipment that watches',
      ),
    )
  })
  test('the same fan needs no notes', () => {
    expect(notes(fan)).toEqual([])
  })
})
