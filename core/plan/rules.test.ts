import { describe, expect, test } from 'vitest'
import { computeReport } from './report'
import {
  newConverter,
  newElement,
  newFan,
  newPlan,
  newReading,
  newRun,
  newSource,
  type Fan,
  type PlanDocument,
} from '#core/document'
import { ruleGroups } from '#core/rules'

// invented: an ordinary 12 V fan on an ordinary path, a plan that raises nothing but notes
const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  noiseDbA: 26,
  noiseDistanceM: 1,
  wires: 3,
  bearing: 'ball',
  ipWater: 4,
  maxAirC: 70,
  massKg: 0.09,
  points: [
    [0, 40],
    [0.004, 34],
    [0.008, 26],
    [0.012, 14],
    [0.016, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}
function good(): PlanDocument {
  const plan = newPlan('j', 'Box')
  Object.assign(plan.job, {
    goal: 'cool',
    equipment: 'Box',
    heatW: 100,
    heatBasis: 'measured',
    insideMaxC: 40,
    ambientC: 25,
    ambientMaxC: 28,
    direction: 'in',
    fitDepthM: 0.05,
    fitWidthM: 0.1,
    inletClearM: 0.2,
    outletClearM: 0.2,
    openingGapM: 0.5,
    baffled: true,
    hotPartInPath: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
    roomDbA: 25,
  })
  plan.targets = [{ id: 't', kind: 'level', limit: 40, place: '', setBy: '', why: '' }]
  plan.path = [
    { ...newElement('in', 'grille'), areaM2: 0.012, freeAreaRatio: 0.6 },
    { ...newElement('filter', 'filter'), areaM2: 0.03, medium: 'foam20' },
    { ...newElement('fan', 'fan') },
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.006 },
  ]
  plan.selection = {
    id: 'p',
    fanId: 'f',
    count: 1,
    arrangement: 'single',
    driveV: 12,
    secondFanId: null,
    duty: null,
  }
  plan.source = {
    ...newSource('s', 'adapter'),
    iMaxA: 1,
    wireAwg: 20,
    wireLengthM: 1,
    fuseFitted: true,
    fuseA: 0.5,
    polarityChecked: true,
  }
  return plan
}
const found = (change: (p: PlanDocument, f: Fan) => void) => {
  const plan = good()
  const own = structuredClone(fan)
  change(plan, own)
  const result = computeReport({ shown: null, plan, fans: [own] })
  if (!result.ok) throw new Error(result.reason)
  return result.report.findings
}
const source = (
  p: PlanDocument,
  kind: 'usb' | 'vehicle' | 'pack' | 'header' | 'power-bank',
  rest: object = {},
) => {
  p.source = {
    ...newSource('s', kind),
    iMaxA: 1,
    wireAwg: 20,
    wireLengthM: 1,
    polarityChecked: true,
    fuseFitted: true,
    fuseA: 0.5,
    ...rest,
  }
}
const converter = (p: PlanDocument, rest: object = {}) => {
  p.source = { ...p.source!, nominalV: 24, lowV: 23, highV: 25 }
  p.converter = { ...newConverter('c', 12), iMaxA: 1, setFirst: true, ...rest }
}
const runs = (p: PlanDocument, before: object, after: object) => {
  const base = {
    fanV: 12,
    voltageAt: 'fan' as const,
    ambientC: 22,
    heatW: 100,
    distanceM: 1,
    soakS: 1800,
    lid: 'closed' as const,
    steady: false,
  }
  p.runs = [
    { ...newRun('a', 'baseline', '2026-01-01T10:00:00Z'), ...base, ...before },
    { ...newRun('b', 'after', '2026-01-02T10:00:00Z'), ...base, ...after },
  ]
}
const level = (value: number) => ({ readings: [newReading('r', 'level', 'x', value)] })

test('the ordinary plan has nothing to stop or to mend', () => {
  expect(
    found(() => {})
      .findings.filter((f) => f.severity !== 'note')
      .map((f) => f.id),
  ).toEqual([])
})

describe('a change of the plan raises its rule', () => {
  const cases: Record<string, (p: PlanDocument, f: Fan) => void> = {
    // need
    'need-no-target': (p) => {
      Object.assign(p.job, { goal: 'ventilate', insideMaxC: null, volumeM3: 1, airChangesPerH: 20 })
      p.targets = []
    },
    'need-flow-short': (p) => {
      p.job.heatW = 245
    },
    'need-flow-far-short': (p) => {
      p.job.heatW = 500
    },
    'need-margin-thin': (p) => {
      p.job.heatW = 212
    },
    'need-oversized': (p) => {
      p.job.heatW = 50
    },
    'need-below-ambient': (p) => {
      p.job.insideMaxC = 24
    },
    'need-rise-tight': (p) => {
      p.job.insideMaxC = 28
    },
    'need-summer-forgotten': (p) => {
      p.job.ambientMaxC = 35
    },
    'need-nameplate-heat': (p) => {
      p.job.heatBasis = 'nameplate'
    },
    // air path
    'air-inlet-small': (p) => {
      p.path[0]!.areaM2 = 0.004
    },
    'air-outlet-small': (p) => {
      p.path[4]!.areaM2 = 0.002
    },
    'air-intake-starved': (p) => {
      p.job.inletClearM = 0.02
    },
    'air-outlet-close': (p) => {
      p.job.outletClearM = 0.02
    },
    'air-short-circuit': (p) => {
      Object.assign(p.job, { openingGapM: 0.1, baffled: false })
    },
    'air-hot-part-bypassed': (p) => {
      p.job.hotPartInPath = false
    },
    'air-grille-closed': (p) => {
      p.path[0]!.freeAreaRatio = 0.4
    },
    'air-filter-too-fast': (p) => {
      p.path[1]!.areaM2 = 0.002
    },
    'air-filter-loaded-short': (p) => {
      p.job.heatW = 160
      p.path[1]!.areaM2 = 0.006
    },
    'air-duct-narrow': (p) => {
      p.path.push({ ...newElement('d', 'duct'), diameterM: 0.06, lengthM: 0.3 })
    },
    'air-duct-fast': (p) => {
      p.path.push({ ...newElement('d', 'duct'), diameterM: 0.035, lengthM: 0.1 })
      p.selection = { ...p.selection!, count: 3, arrangement: 'series' }
    },
    'air-duct-slack': (p) => {
      p.path.push({ ...newElement('d', 'duct'), diameterM: 0.1, lengthM: 1.5, slack: 3 })
    },
    // fan
    'fan-pressure-short': (p) => {
      p.job.heatW = 400
      p.path[4]!.areaM2 = 0.0015
    },
    'fan-stall-region': (p, f) => {
      f.points[2]!.pressurePa = 36
      p.path[4]!.areaM2 = 0.001
    },
    'fan-quiet-type-restricted': (p) => {
      p.path[4]!.areaM2 = 0.0007
    },
    'fan-parallel-no-gain': (p) => {
      Object.assign(p.selection!, { count: 2, arrangement: 'parallel' })
      p.path[4]!.areaM2 = 0.001
    },
    'fan-series-no-gain': (p) => {
      Object.assign(p.selection!, { count: 2, arrangement: 'series' })
      p.path = [{ ...newElement('o', 'opening'), areaM2: 0.05 }, p.path[2]!]
    },
    'fan-will-not-start': (_, f) => {
      f.startV = 12.5
    },
    'fan-start-margin': (_, f) => {
      f.startV = 11
    },
    'fan-too-hot': (p, f) => {
      f.maxAirC = 35
      p.job.direction = 'out'
    },
    'fan-sleeve-hot': (p, f) => {
      f.bearing = 'sleeve'
      Object.assign(p.job, { direction: 'out', insideMaxC: 55 })
    },
    'fan-not-splashproof': (p, f) => {
      p.job.wet = true
      f.ipWater = 0
    },
    'fan-claim-over-power': (_, f) => {
      f.ratedA = 0.01
    },
    'fan-claim-optimistic': (_, f) => {
      f.ratedA = 0.02
    },
    'fan-curve-guessed': (p, f) => {
      Object.assign(f, { points: [], maxFlowM3s: 0.016, maxPressurePa: 40 })
      p.path[4]!.areaM2 = 0.003
    },
    'fan-no-redundancy': (p) => {
      p.job.mustNotFail = true
    },
    // noise
    'noise-target-missed': (p) => {
      p.targets[0]!.limit = 22
      p.job.roomDbA = 15
    },
    'noise-target-unreachable': (p) => {
      p.job.roomDbA = 45
    },
    'noise-other-dominates': (p) => {
      p.job.roomDbA = 39
    },
    'noise-sum-missed': (p) => {
      p.targets[0]!.limit = 30
      p.job.roomDbA = 29
    },
    'noise-distance-unknown': (_, f) => {
      f.noiseDistanceM = null
    },
    // fit
    'fit-too-thick': (p) => {
      p.job.fitDepthM = 0.02
    },
    'fit-no-breathing': (p) => {
      p.job.fitDepthM = 0.028
    },
    'fit-frame-too-wide': (p) => {
      p.job.fitWidthM = 0.07
    },
    // power
    'power-no-source': (p) => {
      p.source = null
    },
    'power-current-unknown': (_, f) => {
      f.ratedA = null
    },
    'power-over-voltage': (p) => {
      p.source!.highV = 14
    },
    'power-under-run': (p, f) => {
      Object.assign(f, { minV: 11.8, startV: 5 })
      p.source!.lowV = 11.4
    },
    'power-wrong-nominal': (p) => {
      converter(p, { outV: 18 })
    },
    'power-direct-too-high': (p) => {
      Object.assign(p.source!, { nominalV: 24 })
    },
    'power-usb-12v-fan': (p) => {
      source(p, 'usb')
    },
    'power-vehicle-high': (p) => {
      source(p, 'vehicle')
    },
    'power-ac-output': (p) => {
      p.source!.output = 'ac'
    },
    'power-overload': (p) => {
      p.source!.iMaxA = 0.1
    },
    'power-headroom-thin': (p) => {
      p.source!.iMaxA = 0.16
    },
    'power-start-surge': (p) => {
      p.source!.iMaxA = 0.2
    },
    'power-header-overload': (p) => {
      source(p, 'header', { iMaxA: 0.1 })
    },
    'power-header-start': (p) => {
      source(p, 'header', { iPeakA: 0.2 })
    },
    'power-usb-overload': (p, f) => {
      Object.assign(f, { ratedV: 5, minV: 3, maxV: 5.6, startV: 3 })
      source(p, 'usb', { iMaxA: 0.1 })
    },
    'power-usb-unconfigured': (p, f) => {
      Object.assign(f, { ratedV: 5, minV: 3, maxV: 5.6, startV: 3 })
      source(p, 'usb', { iMaxA: 0.5 })
    },
    'power-boost-starves': (p) => {
      source(p, 'usb', { iMaxA: 0.3 })
      p.converter = { ...newConverter('c', 12), kind: 'boost', setFirst: true }
    },
    'power-converter-overload': (p) => {
      converter(p, { iMaxA: 0.1 })
    },
    'power-converter-derate': (p) => {
      converter(p, { iMaxA: 0.18 })
    },
    'power-converter-dropout': (p) => {
      converter(p)
      p.source!.lowV = 13
    },
    'power-converter-unset': (p) => {
      converter(p, { setFirst: false })
    },
    'power-converter-misset': (p) => {
      converter(p, { measuredV: 11 })
    },
    // wiring and battery
    'wire-drop': (p) => {
      Object.assign(p.source!, { wireAwg: 30, wireLengthM: 12 })
    },
    'wire-drop-note': (p) => {
      Object.assign(p.source!, { wireAwg: 30, wireLengthM: 5 })
    },
    'wire-ampacity': (p, f) => {
      f.ratedA = 0.6
      p.source!.wireAwg = 30
    },
    'wire-fuse-missing': (p) => {
      source(p, 'pack', { fuseFitted: false })
    },
    'wire-fuse-too-big': (p) => {
      p.source!.fuseA = 10
    },
    'wire-fuse-too-small': (p) => {
      p.source!.fuseA = 0.1
    },
    'wire-fuse-useless': (p) => {
      p.source!.fuseA = 2
    },
    'wire-polarity-unchecked': (p) => {
      p.source!.polarityChecked = false
    },
    'batt-full-too-high': (p, f) => {
      f.maxV = 12.2
      source(p, 'pack', { lowV: 12, highV: 12.6, nominalV: 12 })
    },
    // safety
    'safe-mains': (p) => {
      p.job.mains = true
    },
    'safe-flammable': (p) => {
      p.job.flammable = true
    },
    'safe-certified-only': (p) => {
      p.job.domain = 'medical'
    },
    // measurement
    'meas-voltage-differs': (p) => {
      runs(p, {}, { fanV: 11 })
    },
    'meas-voltage-at-supply': (p) => {
      runs(p, {}, { voltageAt: 'supply' })
    },
    'meas-soak-differs': (p) => {
      runs(p, {}, { soakS: 600 })
    },
    'meas-load-differs': (p) => {
      runs(p, {}, { heatW: 80 })
    },
    'meas-distance-differs': (p) => {
      runs(p, {}, { distanceM: 2 })
    },
    'meas-lid-differs': (p) => {
      runs(p, {}, { lid: 'open' })
    },
    'meas-two-changes': (p) => {
      runs(p, {}, { changes: 2 })
    },
    'meas-few-replicates': (p) => {
      runs(p, {}, {})
    },
    'meas-under-floor': (p) => {
      runs(p, {}, { floorDbA: 30, ...level(31) })
    },
    'meas-background-invalid': (p) => {
      runs(p, {}, { backgroundDbA: 30, ...level(31) })
    },
    'meas-phone-absolute': (p) => {
      runs(p, {}, { instrument: 'phone', ...level(40) })
    },
    'meas-over-claim': (p) => {
      runs(p, {}, { readings: [newReading('r', 'flow', 'out', 0.02)] })
    },
  }
  test.each(Object.entries(cases))('%s', (id, change) => {
    expect(found(change).findings.map((f) => f.id)).toContain(id)
  })
  test('each of them stands in the catalogue, and none fires on the ordinary plan', () => {
    const known = new Set(ruleGroups.flatMap((g) => g.rules).map((r) => r.id))
    const ordinary = new Set(found(() => {}).findings.map((f) => f.id))
    for (const id of Object.keys(cases)) {
      expect(known.has(id), id).toBe(true)
      expect(ordinary.has(id), id).toBe(false)
    }
    expect(Object.keys(cases).length).toBeGreaterThanOrEqual(80)
  })
})
