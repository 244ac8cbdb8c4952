import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { RibbonSegment } from '#core/plan'
import { layoutRibbon, nameLines, paces, RIBBON, wordsWidth } from './ribbon-layout'

describe('where the ribbon draws what', () => {
  const segment = (
    id: string,
    kind: RibbonSegment['kind'],
    height = 1,
    branches: RibbonSegment['branches'] = [],
  ): RibbonSegment => ({
    id,
    kind,
    name: id,
    areaM2: null,
    height,
    deltaPa: null,
    gaugePa: null,
    temperatureC: null,
    speedMs: null,
    tint: 0,
    missing: false,
    fans: null,
    branches,
  })
  const ways = [
    {
      id: 'x',
      name: 'X',
      leak: false,
      times: 1,
      flow: null,
      segments: [segment('x1', 'opening', 0.5), segment('x2', 'opening')],
    },
    { id: 'y', name: 'Y', leak: true, times: 1, flow: null, segments: [segment('y1', 'slot')] },
  ]
  const row = [
    segment('in', 'room-in'),
    segment('s', 'split', 1, ways),
    segment('box', 'chamber'),
    segment('f', 'fan', 0.7),
    segment('out', 'room-out'),
  ]
  test('pieces fill the width side by side', () => {
    const { pieces } = layoutRibbon(row, 1000)
    expect(pieces[0]!.x).toBe(0)
    for (const [i, p] of pieces.entries())
      if (i) expect(p.x).toBeCloseTo(pieces[i - 1]!.x + pieces[i - 1]!.width, 9)
    expect(pieces.at(-1)!.x + pieces.at(-1)!.width).toBeCloseTo(1000, 9)
    expect(pieces.map((p) => p.index)).toEqual([0, 1, 2, 3, 4])
  })
  test('lanes share the band of their split and do not overlap', () => {
    const { pieces, lanes } = layoutRibbon(row, 1000)
    const home = pieces[1]!
    expect(lanes).toHaveLength(2)
    for (const lane of lanes) {
      expect(lane.x).toBe(home.x)
      expect(lane.width).toBe(home.width)
      expect(lane.top).toBeGreaterThanOrEqual(RIBBON.middle - RIBBON.band / 2)
      for (const p of lane.pieces) {
        expect(p.top).toBeGreaterThanOrEqual(lane.top - 1e-9)
        expect(p.top + p.height).toBeLessThanOrEqual(lane.top + lane.height + 1e-9)
        expect(p.index).toBeNull()
      }
    }
    expect(lanes[1]!.top).toBeGreaterThan(lanes[0]!.top + lanes[0]!.height)
  })
  test('the band’s height follows the free area, about the middle line', () => {
    const { pieces } = layoutRibbon([segment('wide', 'opening', 1), segment('narrow', 'opening', 0.3)], 400)
    expect(pieces[1]!.height / pieces[0]!.height).toBeCloseTo(0.3, 9)
    for (const p of pieces) expect(p.top + p.height / 2).toBeCloseTo(RIBBON.middle, 9)
  })
  test('more elements want more width', () => {
    const sixty = Array.from({ length: 60 }, (_, i) => segment(`e${i}`, 'opening'))
    expect(wordsWidth(sixty)).toBeGreaterThan(5000)
    expect(wordsWidth(row)).toBeGreaterThan(wordsWidth(row.slice(0, 1)))
  })
  test('a name stands whole on one or two lines, or not at all', () => {
    expect(nameLines('Tent', 100)).toEqual(['Tent'])
    expect(nameLines('Hose to the window', 100)).toEqual(['Hose to', 'the window'])
    expect(nameLines('Hose to the window', 60)).toEqual([])
    expect(nameLines('Unterdruckklappe', 60)).toEqual([])
  })
  test('at the width that the words want, every name stands whole', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.stringMatching(/^[a-z]{1,14}$/), { minLength: 1, maxLength: 5 }), {
          minLength: 2,
          maxLength: 12,
        }),
        (names) => {
          const path = names.map((words) => segment(words.join(' '), 'opening'))
          const { pieces } = layoutRibbon(path, wordsWidth(path))
          for (const p of pieces)
            expect(nameLines(p.segment.name, p.width + 1e-6).join(' ')).toBe(p.segment.name)
        },
      ),
      { numRuns: 200 },
    )
  })
  test('the air drifts faster where it flows faster, and nowhere without a flow', () => {
    const at = (speedMs: number | null, kind: RibbonSegment['kind'] = 'duct') => ({
      ...segment('x', kind),
      speedMs,
    })
    expect(paces([at(null), at(null)])).toEqual([null, null])
    const [room, slow, fan, fast] = paces([at(null, 'room-in'), at(0.5), at(null, 'fan'), at(4)])
    expect(room).toBe(slow)
    expect(slow!).toBeLessThan(fan!)
    expect(fan!).toBeLessThan(fast!)
    expect(paces([at(1e-4), at(60)])).toEqual([5, 140])
  })
})
