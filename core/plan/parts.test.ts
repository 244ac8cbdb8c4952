import { describe, expect, test } from 'vitest'
import { airState } from '#core/air'
import { computeReport, type Report } from './report'
import { requirementOf } from '#core/requirement'
import { driveLevels, evaluateCandidate, operationOf, type Candidate } from '#core/selection'
import {
  alike,
  airSystem,
  elementDrop,
  impellerDiameter,
  installationOf,
  levelAtListener,
  modelElement,
  modelFan,
  modelPath,
  pathDrop,
  sweptArea,
  type FanArray,
} from '#core/system'
import {
  newTarget,
  newElement,
  newFan,
  newStreamPlan,
  newSource,
  pathStarters,
  type ElementKind,
  type Fan,
  type PathElement,
  type StreamPlan,
  newPlace,
  seenAt,
} from '#core/document'
import { levelDistance } from '#core/noise'
import { planFacts } from '#core/rules'
import { sayIn } from '#core/units'
import { driveAt, feedFrom, pick, selectionOf, stand, tell } from '../../tests/plans'

const air = airState(20, 0, 0)!
const element = (kind: ElementKind, rest: Partial<PathElement> = {}): PathElement => ({
  ...newElement(kind, kind),
  ...rest,
})
const inRow = (row: PathElement[], index: number, at: typeof air) =>
  modelElement(row[index]!, { row, index, air: at })
const dropOfPath = (path: PathElement[], q: number) => pathDrop(modelPath({ path, branches: [] }, air), q)

// invented
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin',
  ratedA: 0.2,
  startV: 6,
  minV: 5,
  maxV: 13,
  noiseDbA: 30,
  noiseDistanceM: 1,
  price: 10,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.01, pressurePa: 24 },
    { flowM3s: 0.02, pressurePa: 0 },
  ],
}
const model = (f: Fan = fan) => {
  const made = modelFan(f)
  if (!made.ok) throw new Error(made.reason)
  return made.model
}
const alone = (f: Fan = fan): FanArray => alike(model(f), 1, 'single')
function report(change: (p: StreamPlan) => void = () => {}): Report {
  const plan = newStreamPlan('j', 'Box')
  Object.assign(plan.job, { heatW: 60, heatBasis: 'measured', insideMaxC: 40 })
  plan.path = [element('opening', { areaM2: 0.004 }), element('fan'), element('chamber', { areaM2: 0.1 })]
  pick(plan, selectionOf('f'), 12)
  change(plan)
  const result = computeReport({ shown: null, plan, fans: [fan] })
  if (!result.ok) throw new Error(result.reason)
  return result.report
}

describe('elements of a path', () => {
  test.each([
    ['opening', {}, 'its free area'],
    ['grille', { freeAreaRatio: 0.5 }, 'its gross area'],
    ['grille', { areaM2: 0.01, freeAreaRatio: null }, 'its free-area ratio, or its hole pattern'],
    ['filter', {}, 'its face area'],
    ['filter', { areaM2: 0.01, medium: 'sheet' }, 'its medium, or a point or c₁ of the data sheet'],
    ['duct', {}, 'its bore'],
    ['duct', { diameterM: 0.1 }, 'its length'],
    ['bend', {}, 'its bore'],
    ['custom', {}, 'a measured or data-sheet point, or a head'],
  ] as const)('%s with %o says what it lacks', (kind, rest, missing) => {
    expect(inRow([element(kind, rest)], 0, air).missing).toBe(missing)
    expect(modelPath({ path: [element(kind, rest)], branches: [] }, air).complete).toBe(false)
  })
  test('a grille is harder as an exit from a chamber than inside a duct run', () => {
    const g = element('grille', { areaM2: 0.01, freeAreaRatio: 0.6 })
    const d = element('duct', { diameterM: 0.1, lengthM: 0.5 })
    const inside = elementDrop(inRow([d, g, d], 1, air), 0.02)
    expect(elementDrop(inRow([g, d], 0, air), 0.02)).toBeGreaterThan(inside)
    expect(elementDrop(inRow([d, g], 1, air), 0.02)).toBeGreaterThan(inside)
    expect(elementDrop(inRow([element('chamber'), g, d], 1, air), 0.02)).toBeCloseTo(
      elementDrop(inRow([g, d], 0, air), 0.02),
      12,
    )
  })
  test('a duct between rooms pays entrance and exit once, into a chamber of any size as into the open', () => {
    const d = element('duct', { diameterM: 0.1, lengthM: 0.01, surface: 'smooth' })
    const v = 0.02 / ((Math.PI / 4) * 0.01)
    const q2 = (air.density * v * v) / 2
    const friction = dropOfPath([d], 0.02) - 1.5 * q2
    expect(friction).toBeGreaterThan(0)
    expect(friction).toBeLessThan(0.01 * q2)
    expect(dropOfPath([d, element('chamber', { areaM2: (Math.PI / 4) * 0.01 })], 0.02)).toBeCloseTo(
      dropOfPath([d], 0.02),
      9,
    )
  })
  test('two halves of a duct in a row are one duct', () => {
    const half = element('duct', { diameterM: 0.08, lengthM: 1 })
    expect(dropOfPath([half, { ...half, id: 'second' }], 0.015)).toBeCloseTo(
      dropOfPath([{ ...half, lengthM: 2 }], 0.015),
      8,
    )
  })
  test('own values are scaled to the air: inertial with density, viscous with viscosity', () => {
    const high = airState(20, 2500, 0)!
    const inertial = element('custom', { b: 50000 })
    expect(
      elementDrop(inRow([inertial], 0, high), 0.01) / elementDrop(inRow([inertial], 0, air), 0.01),
    ).toBeCloseTo(high.density / air.density, 9)
    const viscous = element('custom', { a: 500 })
    expect(elementDrop(inRow([viscous], 0, high), 0.01)).toBeCloseTo(
      elementDrop(inRow([viscous], 0, air), 0.01),
      12,
    )
  })
  test('a loaded filter loses twice', () => {
    const clean = element('filter', { areaM2: 0.02 })
    expect(dropOfPath([{ ...clean, loadFactor: 2 }], 0.01)).toBeCloseTo(2 * dropOfPath([clean], 0.01), 9)
  })
  test('the starters are rows with the fan in its place', () => {
    for (const s of pathStarters) expect(s.kinds.filter((k) => k.kind === 'fan')).toHaveLength(1)
  })
})

describe('candidates and their reasons', () => {
  const reasons = (change: (p: StreamPlan) => void, volts = 12, f: Fan = fan): string => {
    const { selectionContext: context } = report(change)
    return evaluateCandidate(context, alone(f), { volts, duty: null })
      .reasons.map((r) => sayIn(r.text))
      .join('; ')
      .replaceAll('\u00a0', ' ')
  }
  test.each([
    [
      'the depth',
      (p: StreamPlan) => {
        tell(p, { fitDepthM: 0.02 })
      },
      12,
      'needs 25 mm of depth, the space has 20 mm',
    ],
    [
      'the width',
      (p: StreamPlan) => {
        tell(p, { fitWidthM: 0.06 })
      },
      12,
      'frame of 80 mm, the space has 60 mm',
    ],
    ['the start voltage', () => {}, 5.5, 'starts at 6 V, driven at 5.5 V'],
    ['the start margin', () => {}, 6.5, 'hardly above its start voltage of 6 V'],
    ['the highest voltage', () => {}, 14, 'allows only 13 V'],
    [
      'the money',
      (p: StreamPlan) => {
        p.targets = [newTarget({ id: 't', kind: 'money', limit: 8 }, 'main')]
      },
      12,
      '€ 2 over the money limit',
    ],
    [
      'the level',
      (p: StreamPlan) => {
        p.targets = [newTarget({ id: 't', kind: 'level', limit: 20 }, 'main')]
      },
      12,
      'dB too loud',
    ],
    [
      'the flow',
      (p: StreamPlan) => {
        p.job.heatW = 500
      },
      12,
      'more than this fan can push',
    ],
    [
      'the margin',
      (p: StreamPlan) => {
        Object.assign(p.job, { margin: 3, heatW: 100 })
      },
      12,
      'short of the margin',
    ],
  ])('%s', (_, change, volts, text) => {
    expect(reasons(change, volts)).toContain(text)
  })
  test('a fan that cannot reach the pressure is told by how much', () => {
    expect(
      reasons((p) => {
        p.path[0]!.areaM2 = 0.0004
      }),
    ).toMatch(/needs [\d.]+ Pa more than this fan can push/)
  })
  test('no noise figure is a warning only where a level is wanted', () => {
    const silent = { ...fan, noiseDbA: null }
    expect(reasons(() => {}, 12, silent)).not.toContain('noise')
    expect(
      reasons(
        (p) => {
          p.targets = [newTarget({ id: 't', kind: 'level', limit: 20 }, 'main')]
        },
        12,
        silent,
      ),
    ).toContain('no noise figure')
  })
  test('an owned fan costs nothing, an unknown price stays unknown', () => {
    const { selectionContext: context } = report()
    const cost = (f: Fan, count: number): Candidate['cost'] =>
      evaluateCandidate(context, alike(model(f), count, 'parallel'), { volts: 12, duty: null }).cost
    expect(cost({ ...fan, owned: true }, 3)).toBe(0)
    expect(cost(fan, 3)).toBe(30)
    expect(cost({ ...fan, price: null }, 3)).toBeNull()
  })
  test('two in series may lose 15 % between them: the low end shows it', () => {
    const { selectionContext: context } = report((p) => {
      p.path[0]!.areaM2 = 0.002
    })
    const c = evaluateCandidate(
      context,
      { ...alone(), count: 2, arrangement: 'series' },
      { volts: 12, duty: null },
    )
    expect(c.flow! - c.flowLow!).toBeGreaterThan(c.flowHigh! - c.flow!)
  })
  test('drive levels run from the safe start to rated, and are what a meter can be set to', () => {
    const levels = driveLevels(model(), 10)
    expect(levels[0]).toBeGreaterThanOrEqual(1.2 * 6)
    expect(levels.at(-1)).toBe(12)
    expect(levels).toEqual([...new Set(levels)].sort((a, b) => a - b))
    for (const v of levels) expect(Math.abs(v * 10 - Math.round(v * 10))).toBeLessThan(1e-9)
  })
})

describe('level at the listener', () => {
  test('distance counts between the near field and the room’s limit', () => {
    expect([0.1, 0.3, 1, 1.5, 6].map(levelDistance)).toEqual([0.3, 0.3, 1, 1.5, 1.5])
  })
  const free = { penalties: [], value: 0, low: 0, high: 0 }
  const place = newPlace('here')
  const at = (...kinds: [ElementKind, Partial<PathElement>?][]) => ({
    row: kinds.map(([kind, rest], i) => element(kind, { id: `e${i}`, ...rest })),
    index: kinds.findIndex(([kind]) => kind === 'fan'),
  })
  test('what is not known of an installation grows smoothly with the pressure, from nothing to 3 to 10 dB', () => {
    const of = (p: number) => installationOf(place, at(['chamber'], ['fan']), model(), p, false)
    expect(of(0).value).toBe(0)
    for (let p = 0; p < 40; p += 0.1) expect(of(p + 0.1).value - of(p).value).toBeLessThan(0.2)
    expect(of(1e4)).toMatchObject({ penalties: [{ key: 'usual' }] })
    expect(of(1e4).low).toBeGreaterThan(2.9)
    expect(of(1e4).high).toBeCloseTo(10, 1)
  })
  test('grilles, guards and near walls come from the elements: the largest fully, half of the next', () => {
    const of = (...kinds: Parameters<typeof at>) => installationOf(place, at(...kinds), model(), 50, false)
    expect(of(['grille', { style: 'plate' }], ['fan']).value).toBe(5.5)
    expect(of(['grille', { style: 'plate' }], ['fan'], ['grille', { style: 'plate' }]).value).toBe(
      5.5 + 2.5 / 2,
    )
    expect(of(['grille', { style: 'guard' }], ['fan'], ['grille', { style: 'guard' }]).value).toBe(1.5 + 0.25)
    const spaced = { ...place, upstreamGapM: 0.015 }
    expect(installationOf(spaced, at(['grille'], ['fan']), model(), 50, false).value).toBe(1.5)
    const near = { ...place, inletClearM: 0.25 * impellerDiameter(fan) }
    expect(installationOf(near, at(['chamber'], ['fan']), model(), 50, false).value).toBe(7.5)
    expect(installationOf(place, at(['duct'], ['fan']), model(), 50, true).penalties).toMatchObject([
      { key: 'stall' },
    ])
  })
  test('the parts add up, and the range holds more than the claim’s doubt', () => {
    const level = levelAtListener(model(), 0.7, 2, 2, { ...free, value: 4, low: 2, high: 7 })!
    expect(Object.values(level.parts).reduce((s, x) => s + x, 0)).toBeCloseTo(level.exact, 9)
    expect(level.high - level.value).toBeGreaterThan(Math.hypot(3, 3) - 1e-9)
  })
  test('nothing under 15 dB(A) is stated, but the exact one still puts fans in order; no claim, no level', () => {
    const quiet = levelAtListener(model(), 0.3, 1, 1, free)!
    expect(quiet.value).toBe(15)
    expect(quiet.exact).toBeLessThan(15)
    expect(levelAtListener(model({ ...fan, noiseDbA: null }), 1, 1, 1, free)).toBeNull()
    expect(levelAtListener(model(), 0, 1, 1, free)).toBeNull()
  })
  test('a claimed sound power is 11 dB more than the level at one metre', () => {
    expect(model({ ...fan, noiseDbA: 41, noiseIsPower: true }).claimDbA).toBeCloseTo(30.01, 2)
  })
})

describe('what the sheet leaves open', () => {
  test('is filled with usual values', () => {
    const bare = model({ ...fan, startV: null, minV: null, maxV: null })
    expect(bare).toMatchObject({ startKnown: false })
    expect(bare.startV).toBeCloseTo(6.96, 2)
    expect(bare.maxV).toBeCloseTo(13.2, 9)
    expect(sweptArea(fan)).toBeLessThan((Math.PI / 4) * impellerDiameter(fan) ** 2)
  })
})

describe('facts', () => {
  const factsOf = (r: Report, plan: StreamPlan) => {
    const system = airSystem(plan, r.air, r.fans)
    const requirement = requirementOf(r.needEnv)
    const operation = operationOf(plan, system, r.selectionContext, r.power.fanV)
    const { power, runtime, verdict, fans, needEnv, selectionContext: context } = r
    return planFacts({
      machineDbA: null,
      day: null,
      streams: [],
      mount: r.mount,
      mounts: r.mounts,
      plan: seenAt(plan),
      fans,
      needEnv,
      context,
      system,
      requirement,
      operation,
      power,
      runtime,
      verdict,
    })
  }
  test('are in the units the rules are written in, and what is not known is left out', () => {
    let plan!: StreamPlan
    const r = report((p) => {
      feedFrom(p, { ...newSource('s', 'adapter'), iMaxA: 1 })
      tell(p, { fitDepthM: 0.03, inletClearM: 0.05 })
      plan = p
    })
    const { facts, open, subjects } = factsOf(r, plan)
    expect(facts['fan.size']).toBeCloseTo(80, 9)
    expect(facts['fit.depth']).toBeCloseTo(30, 9)
    expect(facts['air.inletFreeArea']).toBeCloseTo(40, 9)
    expect(facts['op.flow']).toBeCloseTo(r.selection!.candidate.flow! * 3600, 6)
    expect(facts['supply.iMax']).toBe(1)
    expect(facts).not.toHaveProperty(['air.openingGap'])
    expect(open.has('air.openingGap')).toBe(true)
    const member = subjects.find((x) => x.kind === 'member')!.known
    expect(member.facts).not.toHaveProperty(['fan.bearing'])
    expect(member.open.has('fan.bearing')).toBe(true)
    for (const [name, value] of Object.entries(facts))
      expect(typeof value === 'number' ? Number.isFinite(value) : true, name).toBe(true)
  })
  test('claims are of one fan at its rated voltage, whatever it is driven at and however many there are', () => {
    let plan!: StreamPlan
    const r = report((p) => {
      stand(p, selectionOf(fan.id, { count: 2, arrangement: 'parallel' }))
      driveAt(p, 18)
      plan = p
    })
    const { subjects } = factsOf(r, plan)
    const of = (kind: string) => subjects.find((x) => x.kind === kind)!.known.facts
    expect(of('sheet')['fan.freeFlow']! as number).toBeLessThan((of('array')['fan.freeFlow']! as number) / 2)
  })
})

describe('ribbon and rail', () => {
  test('pressures of the ribbon add up to nothing, and the air is warm behind the box', () => {
    const { ribbon, selection } = report()
    expect(ribbon.map((s) => s.kind)).toEqual(['room-in', 'opening', 'fan', 'chamber', 'room-out'])
    expect(ribbon.reduce((s, x) => s + (x.deltaPa ?? 0), 0)).toBeCloseTo(0, 9)
    expect(ribbon[0]!.tint).toBe(0)
    expect(ribbon.at(-1)!.temperatureC!).toBeCloseTo(
      22 + selection!.figures.find((f) => f.key === 'selection.rise')!.value!,
      9,
    )
    for (const s of ribbon) expect(s.height).toBeGreaterThan(0)
  })
  test('a missing size shows on the ribbon and in the rail', () => {
    const r = report((p) => {
      p.path[0]!.areaM2 = null
    })
    expect(r.ribbon[1]!.missing).toBe(true)
    expect(sayIn(r.stations.find((s) => s.key === 'air-path')!.headline)).toBe('an element lacks its size')
    expect(r.selection).toBeNull()
  })
  test('states: not begun, settled, to fix, stop', () => {
    const empty = computeReport({ shown: null, plan: newStreamPlan('e', 'E'), fans: [] })
    expect(empty.ok && empty.report.stations.map((s) => s.state)).toEqual([
      'not-begun',
      'fix',
      'not-begun',
      'not-begun',
      'not-begun',
      'not-begun',
      'not-begun',
      'not-begun',
      'not-begun',
      'not-begun',
    ])
    const state = (r: Report, key: string) => r.stations.find((s) => s.key === key)!.state
    expect(
      state(
        report((p) => {
          p.job.mains = true
        }),
        'brief',
      ),
    ).toBe('stop')
    expect(
      state(
        report((p) => {
          p.job.equipment = 'Box'
        }),
        'brief',
      ),
    ).toBe('settled')
  })
})
