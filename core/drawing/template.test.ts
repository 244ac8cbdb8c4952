import DxfParser from 'dxf-parser'
import { describe, expect, test } from 'vitest'
import { computeReport } from '#core/plan'
import { demoFans } from '../../demo/fans'
import { demoJobs } from '../../demo/jobs'
import { adapterTemplate, fanTemplate, panelTemplate, templateDxf, templateSvg } from './index'

/** Files read back by other readers than what wrote them: every circle where it belongs, to a hundredth of a millimetre. */

const plan = demoJobs().find((j) => j.job.id === 'job-film-cabinet')!
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
  expect(panel.rounds.filter((r) => r.layer === 'drill')).toHaveLength(8)
  const dxf = new DxfParser().parseSync(templateDxf(panel))!
  expect(dxf.entities.filter((e) => e.type === 'CIRCLE')).toHaveLength(10)
  const edge = panel.strokes.map((s) => Math.abs(s.toM[0] - s.fromM[0]))
  expect(edge.some((l) => Math.abs(l - 0.42) < 1e-9)).toBe(true)
  expect(panelTemplate({ ...plan, fit: null }, { ...mount, layout: null }, 0.086)).toBeNull()
})

describe('an adapter as a flat sheet', () => {
  const adapter = (bore: number, length: number) =>
    adapterTemplate({ ...plan, fit: { ...plan.fit!, adapterM: bore, adapterLengthM: length } }, 0.12)
  test('its edges are as long as the circles they become, its slant as the cone’s side', () => {
    // by hand: 120 to 80 mm over 74.642 mm is a half angle of 15 degrees, slant 77.27 mm, radii 231.8 and 154.6 mm
    const [outer, inner] = adapter(0.08, 0.074642)!.arcs!
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
  test('two ends alike, or nothing told, make none', () => {
    expect(adapter(0.12, 0.05)).toBeNull()
    expect(adapterTemplate({ ...plan, fit: null }, 0.12)).toBeNull()
  })
})
