import DxfParser from 'dxf-parser'
import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { demoFans } from '../../demo/fans'
import { demoPlan } from '../../demo/jobs'
import { seenAt, type Fit } from '#core/document'
import type { AdapterReport } from '#core/mount'
import { adapterTemplate, fanTemplate, panelTemplate, templateDxf, templateSvg, tilesOf } from './index'

/** Files read back by other readers than what wrote them: every circle where it belongs, to a hundredth of a millimetre. */

const plan = seenAt(demoPlan('job-film-cabinet'))
const withFit = (fit: Fit | null) => ({ ...plan, place: { ...plan.place, fit } })
const result = computeReport({ plan, fans: demoFans, shown: null })
if (!result.ok) throw new Error(result.reason)
const mount = result.report.mount!
const template = fanTemplate(plan, mount, 0.086)
// a frame of 92 mm has its screws 82.5 mm apart: 41.25 mm to each side of the middle
const corners = [-41.25, 41.25].flatMap((x) => [-41.25, 41.25].map((y) => [x, y]))

interface Circle {
  x: number
  y: number
  d: number
  layer: string
}
const sorted = (list: Circle[]) => list.toSorted((a, b) => b.d - a.d || a.x - b.x || a.y - b.y)
const wanted = sorted([
  { x: 0, y: 0, d: 86, layer: 'cut' },
  // pilot of the saw: a quarter inch
  { x: 0, y: 0, d: 6.4, layer: 'drill' },
  ...corners.map(([x, y]) => ({ x: x!, y: y!, d: 4.5, layer: 'drill' })),
])
function alike(found: Circle[]) {
  expect(found.map((c) => c.layer)).toEqual(wanted.map((c) => c.layer))
  sorted(found).forEach((c, i) => {
    for (const key of ['x', 'y', 'd'] as const) expect(Math.abs(c[key] - wanted[i]![key])).toBeLessThan(0.01)
  })
}

describe('the template of a fan, read back', () => {
  test('DXF: millimetres, layers, circles and the ruler', () => {
    const dxf = new DxfParser().parseSync(templateDxf(template))!
    expect(dxf.header.$INSUNITS).toBe(4)
    const circles = dxf.entities.flatMap((e) => {
      if (e.type !== 'CIRCLE') return []
      const { center, radius } = e as unknown as { center: { x: number; y: number }; radius: number }
      return [{ x: center.x, y: center.y, d: 2 * radius, layer: e.layer }]
    })
    alike(sorted(circles))
    const lengths = dxf.entities.flatMap((e) => {
      const { vertices } = e as unknown as { vertices?: { x: number; y: number }[] }
      return e.type === 'LINE' && vertices ? [Math.abs(vertices[1]!.x - vertices[0]!.x)] : []
    })
    expect(lengths.some((l) => Math.abs(l - 100) < 0.01)).toBe(true)
  })
  test('SVG: one unit a millimetre, the same circles about the middle of the hole', () => {
    const svg = templateSvg(template)
    const [, width, , box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 ([\d.]+) /.exec(svg)!
    expect(box).toBe(width)
    const read = [...svg.matchAll(/<circle class="(\w+)" cx="([\d.]+)" cy="([\d.]+)" r="([\d.]+)"/g)].map(
      ([, layer, cx, cy, r]) => ({ layer: layer!, x: Number(cx), y: Number(cy), d: 2 * Number(r) }),
    )
    const middle = read.find((c) => c.layer === 'cut')!
    alike(sorted(read.map((c) => ({ ...c, x: c.x - middle.x, y: middle.y - c.y }))))
    expect(svg).toContain('measure me')
  })
})

test('the whole panel: both fans at their pitch, the panel’s edge about them', () => {
  // two of 92 mm on 420 mm: 210 mm from middle to middle
  const panel = panelTemplate(plan, mount, 0.086)!
  const cuts = panel.rounds.filter((r) => r.layer === 'cut').map((r) => [r.xM, r.yM])
  expect(cuts).toEqual([
    [-0.105, 0],
    [0.105, 0],
  ])
  expect(panel.rounds.filter((r) => r.layer === 'drill')).toHaveLength(10)
  const dxf = new DxfParser().parseSync(templateDxf(panel))!
  expect(dxf.entities.filter((e) => e.type === 'CIRCLE')).toHaveLength(12)
  const edge = panel.strokes.map((s) => Math.abs(s.toM[0] - s.fromM[0]))
  expect(edge.some((l) => Math.abs(l - 0.42) < 1e-9)).toBe(true)
  expect(panelTemplate(withFit(null), { ...mount, layout: null }, 0.086)).toBeNull()
})

describe('an adapter as a flat sheet', () => {
  const round = (d: number): AdapterReport['fanEnd'] => ({ shape: 'round', widthM: d, heightM: d })
  const between = (fanEnd: AdapterReport['fanEnd'], farEnd: AdapterReport['fanEnd'], lengthM: number) =>
    adapterTemplate(plan, {
      fanEnd,
      farEnd,
      lengthM,
      steepDeg: 10,
      way: null,
      tooSteep: false,
      k: null,
      dropPa: null,
    })
  const adapter = (bore: number, length: number) => between(round(0.12), round(bore), length)
  test('its edges are as long as the circles they become, its slant as the cone’s side', () => {
    // by hand: 120 to 80 mm over 74.642 mm is a half angle of 15 degrees, slant 77.27 mm, radii 231.8 and 154.6 mm
    const [outer, inner] = adapter(0.08, 0.074642)!.arcs
    expect(outer!.radiusM).toBeCloseTo(0.23182, 4)
    expect(inner!.radiusM).toBeCloseTo(0.15455, 4)
    const tabless = (360 * 0.06) / 0.23182
    const turned = (tabless * Math.PI) / 180
    expect(outer!.radiusM * turned).toBeCloseTo(Math.PI * 0.12, 4)
    expect(inner!.radiusM * turned).toBeCloseTo(Math.PI * 0.08, 4)
  })
  test('read back from DXF: two arcs about one point, and the tab beyond the edge', () => {
    const made = adapter(0.08, 0.074642)!
    const dxf = new DxfParser().parseSync(templateDxf(made))!
    const arcs = dxf.entities.filter((e) => e.type === 'ARC') as unknown as { radius: number; layer: string }[]
    expect(arcs.map((a) => a.radius).toSorted((a, b) => b - a)[0]!).toBeCloseTo(231.82, 1)
    expect(new Set(arcs.map((a) => a.layer))).toEqual(new Set(['cut']))
    expect(templateSvg(made)).toMatch(/<path d="M[\d.-]+ [\d.-]+ A231\.8/)
  })
  test('two round ends alike make none: a tube is a rectangle', () => {
    expect(adapter(0.12, 0.05)).toBeNull()
  })
  test('square to round, read back from DXF: its edges have the lengths of both ends, its words the sizes', () => {
    const made = between({ shape: 'square', widthM: 0.12, heightM: 0.12 }, round(0.1), 0.08)!
    expect(made.words.map((w) => w.text)).toContain('square 120 × 120 to Ø 100, 80 long (mm)')
    const dxf = new DxfParser().parseSync(templateDxf(made))!
    const lines = dxf.entities.flatMap((e) => {
      const { vertices } = e as unknown as { vertices?: { x: number; y: number }[] }
      return e.type === 'LINE' && vertices
        ? [{ layer: e.layer, d: Math.hypot(vertices[1]!.x - vertices[0]!.x, vertices[1]!.y - vertices[0]!.y) }]
        : []
    })
    // sides of 120 mm, the seam's two halves of 60 mm
    const cuts = lines.filter((l) => l.layer === 'cut').map((l) => l.d)
    expect(cuts.filter((d) => Math.abs(d - 120) < 0.01)).toHaveLength(3)
    expect(cuts.filter((d) => Math.abs(d - 60) < 0.01)).toHaveLength(2)
    // 96 chords of a circle of 100 mm
    const chords = cuts.filter((d) => d < 4)
    expect(chords.reduce((sum, d) => sum + d, 0)).toBeCloseTo(96 * 100 * Math.sin(Math.PI / 96), 2)
    // eight folds from the corners, each of 100.5 mm: 10, 60 and 80 mm
    const folds = lines.filter((l) => l.layer === 'mark' && Math.abs(l.d - Math.hypot(10, 60, 80)) < 0.01)
    expect(folds).toHaveLength(8)
  })
})

describe('holes that are there or cut without a saw, and blowers', () => {
  const made = (fit: Partial<Fit>, of = mount) =>
    fanTemplate(withFit({ ...plan.place.fit!, ...fit }), of, 0.086)
  const roundsOf = (fit: Partial<Fit>, layer: string) => made(fit).rounds.filter((r) => r.layer === layer)
  test('what is there is marked and not cut', () => {
    expect(roundsOf({ opening: 'round' }, 'cut')).toEqual([])
    expect(roundsOf({ opening: 'tapered', openingWidthM: 0.1 }, 'mark').map((r) => r.diameterM)).toEqual([
      0.086, 0.1,
    ])
    const oval = made({ opening: 'oval', openingWidthM: 0.09, openingHeightM: 0.06 })
    expect(oval.arcs.map((a) => [a.layer, a.radiusM])).toEqual([
      ['mark', 0.03],
      ['mark', 0.03],
    ])
    const svg = templateSvg(made({ opening: 'square', openingWidthM: 0.08, openingHeightM: 0.07 }))
    expect(svg).not.toContain('class="cut"')
  })
  test('a saw has its pilot, a chain its holes inside the line, a grille rings of holes', () => {
    expect(roundsOf({ cutWay: 'saw' }, 'drill')).toHaveLength(5)
    const chain = roundsOf({ cutWay: 'chain', drillM: 0.005 }, 'drill').slice(0, -4)
    expect(chain).toHaveLength(46)
    for (const { xM, yM } of chain) expect(Math.hypot(xM, yM) + 0.0025).toBeCloseTo(0.043, 9)
    const ring = roundsOf({ cutWay: 'ring', drillM: 0.006 }, 'drill')
    expect(ring.length).toBeGreaterThan(40)
    expect(roundsOf({ cutWay: 'ring', drillM: 0.006 }, 'cut')).toEqual([])
  })
  test('a blower by its own measures', () => {
    const blower = { ...mount, fan: { ...mount.fan, kind: 'blower' as const, frameM: 0.075, thicknessM: 0.03 } }
    const lugs = [
      { xM: 0.004, yM: 0.07 },
      { xM: 0.071, yM: 0.006 },
    ]
    const intake = made({ blowerFace: 'intake', lugs }, blower)
    const drills = intake.rounds.filter((r) => r.layer === 'drill')
    expect(drills.map((r) => [r.xM + 0.0375, r.yM + 0.0375])).toEqual(
      lugs.map((l) => [expect.closeTo(l.xM, 9), expect.closeTo(l.yM, 9)]),
    )
    const outlet = {
      blowerFace: 'outlet',
      outletWidthM: 0.03,
      outletHeightM: 0.026,
      outletFromM: 0.01,
    } as const
    const cut = made(outlet, blower).strokes.filter((s) => s.layer === 'cut')
    const xs = cut.flatMap((s) => [s.fromM[0], s.toM[0]])
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(-0.0275, 9), expect.closeTo(0.0025, 9)])
  })
})

describe('over several sheets', () => {
  const svg = templateSvg(panelTemplate(plan, mount, 0.086)!)
  test('what goes on one sheet stays on one', () => {
    expect(tilesOf(templateSvg(template), 'A4')).toEqual({
      landscape: false,
      sheets: [{ name: 'A1', svg: templateSvg(template) }],
    })
  })
  test.each(['A4', 'LETTER'] as const)(
    '%s: every point of the drawing is on a sheet, at one to one',
    (paper) => {
      const { sheets, landscape } = tilesOf(svg, paper)
      // 428 mm wide and about 290 high: two sheets that lie, beside and below
      expect(landscape).toBe(true)
      const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!.map(Number)
      const boxes = sheets.map(({ svg: s }) => {
        const [, width, height] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(s)!.map(Number)
        const view = /viewBox="([\d.]+) ([\d.]+) ([\d.]+) ([\d.]+)"/.exec(s)!.slice(1).map(Number)
        expect(view.slice(2)).toEqual([width, height])
        return { x: view[0]!, y: view[1]!, right: view[0]! + width!, foot: view[1]! + height! - 16 }
      })
      expect(sheets.length).toBeGreaterThan(1)
      for (let x = 0; x <= w!; x += 7)
        for (let y = 0; y <= h!; y += 7)
          expect(boxes.some((b) => x >= b.x && x <= b.right && y >= b.y && y <= b.foot)).toBe(true)
      expect(sheets.map((s) => s.name)).toContain('B1')
      expect(sheets[0]!.svg).toContain('Measure me')
    },
  )
  test('neighbours show the same crosses', () => {
    const crossesOf = (s: string) =>
      [...s.matchAll(/<line [^>]*stroke="#1b2126" stroke-width="0.25"\/>/g)].length
    const [one, other] = tilesOf(svg, 'A4').sheets
    // each has one ruler of its own as well
    expect(crossesOf(one!.svg)).toBe(crossesOf(other!.svg))
    expect(crossesOf(one!.svg)).toBeGreaterThan(4)
  })
})
