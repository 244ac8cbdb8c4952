import { describe, expect, test } from 'vitest'
import {
  converterOf,
  newBattery,
  newBuild,
  newConverter,
  newFan,
  newFit,
  newSource,
  newStreamPlan,
  newTarget,
  planSchema,
  seenFrom,
  wholePlan,
  type Fan,
  type StreamPlan,
} from '#core/document'
import { sayIn } from '#core/units'
import { computeReport } from '#core/plan'
import {
  buildMarkdown,
  buildSheet,
  cautionRules,
  cautionsOf,
  judge,
  tickStep,
  untickStep,
  type BuiltStep,
} from './index'
import { convertBy, feedFrom, pick, selectionOf, tell, unpick } from '../../tests/plans'

/** The build of a plan: steps with its numbers, cautions where the danger is. Numbers invented. */

const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  wires: 4,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.008, pressurePa: 26 },
    { flowM3s: 0.016, pressurePa: 0 },
  ],
}
function ordinary(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  tell(plan, {
    goal: 'cool',
    equipment: 'Box',
    heatW: 20,
    insideMaxC: 40,
    direction: 'out',
    airOutlet: 'same-room',
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
    mustNotFail: false,
    fitDepthM: 0.05,
  })
  pick(plan, selectionOf('f'), 10.5)
  feedFrom(
    plan,
    { ...newSource('s', 'adapter', 12), lowV: 11.8, highV: 12.2, iMaxA: 1 },
    { wireAwg: 22, wireLengthM: 1 },
  )
  convertBy(plan, { ...newConverter('c', 10.5), iMaxA: 1 })
  tell(plan, { fit: { ...newFit('fit'), material: 'wood', panelM: 0.009, guard: 'wire' } })
  plan.build = newBuild('b')
  change(plan)
  return seenFrom(planSchema.parse(wholePlan(plan)))
}
function report(plan: StreamPlan) {
  const made = computeReport({ plan, fans: [fan], shown: null })
  if (!made.ok) throw new Error(made.reason)
  return made.report
}
const build = (plan: StreamPlan) => report(plan).build
const steps = (plan: StreamPlan) => build(plan).sittings.flatMap((s) => s.steps)
const step = (plan: StreamPlan, key: string): BuiltStep => {
  const found = steps(plan).find((s) => s.key === key)
  if (!found) throw new Error(`${key} is not among ${steps(plan).map((s) => s.key)}`)
  return found
}

describe('steps', () => {
  test('stand in the handbook’s order, in sittings', () => {
    const order = steps(ordinary()).map((s) => s.key)
    const before = (a: string, b: string) =>
      expect(order.indexOf(a), `${a} before ${b}`).toBeLessThan(order.indexOf(b))
    before('as-found', 'baseline')
    before('baseline', 'cut-main')
    before('cut-main', 'chips-main')
    before('chips-main', 'mount-main')
    before('source-s', 'no-short')
    before('no-short', 'converter-c')
    before('converter-c', 'polarity-main')
    before('polarity-main', 'first-main')
    before('first-main', 'direction')
    before('close', 'warm')
    before('warm', 'after')
    expect(new Set(order).size).toBe(order.length)
  })
  test('carry the plan’s own numbers', () => {
    const plan = ordinary()
    const { power, mount } = report(plan)
    expect(step(plan, 'converter-c').text).toContainEqual({ value: 10.5, quantity: 'voltage' })
    expect(step(plan, 'converter-c').measure).toMatchObject({ low: 0.98 * 10.5, high: 1.02 * 10.5 })
    // its window of 11.8 to 12.2 V, with what a meter and a plug may be off
    expect(step(plan, 'source-s').measure!.low).toBeCloseTo(0.95 * 11.8, 9)
    expect(step(plan, 'source-s').measure!.high).toBeCloseTo(1.03 * 12.2, 9)
    expect(step(plan, 'first-main').text).toContainEqual({ value: power.fanRunA, quantity: 'current' })
    expect(step(plan, 'cut-main').text).toContainEqual({ value: mount!.wantedM, quantity: 'length' })
    expect(step(plan, 'dry-main').text).toContainEqual({ value: mount!.leftM, quantity: 'length' })
  })
  test('are only those that this plan needs', () => {
    const bare = ordinary((p) => {
      convertBy(p, null)
      p.places[0]!.fit!.opening = 'round'
      p.places[0]!.fit!.guard = 'none'
    })
    const keys = steps(bare).map((s) => s.key)
    expect(keys.filter((k) => /^(converter|cut|guard|dead|earth|control)/.test(k))).toEqual([])
    expect(steps(ordinary((p) => (p.job.mains = true))).map((s) => s.key)).toEqual(
      expect.arrayContaining(['dead', 'earth']),
    )
  })
})

describe('what is measured', () => {
  const measure = (key: string) => step(ordinary(), key).measure!
  test.each([
    ['converter-c', 10.52, true, ''],
    ['converter-c', 12.9, false, 'The fan may get 13.2 V at most'],
    ['converter-c', -10.5, false, 'reversed'],
    ['polarity-main', 10.4, true, ''],
    ['polarity-main', -10.4, false, 'Swapped'],
    ['polarity-main', 3, false, 'Too little arrives'],
    ['no-short', 4, false, 'short'],
    ['no-short', 1e4, true, ''],
    ['joined', 2, false, 'joint'],
    ['warm', 71, false, 'Too warm'],
    ['warm', 38, true, ''],
  ])('%s: %d', (key, value, ok, words) => {
    const judged = judge(measure(key), value)
    expect(judged.ok).toBe(ok)
    if (!judged.ok) expect(judged.message).toContain(words)
  })
  test('behind a resistor the open plug shows more than the fan will get, and says so', () => {
    const plan = ordinary((p) => {
      convertBy(p, { ...converterOf(p)!, converterKind: 'resistor', ohm: 22 })
    })
    const { text, measure: at } = step(plan, 'polarity-main')
    const said = sayIn(text).replaceAll('\u00a0', ' ')
    expect(said).toContain('as nothing is drawn it may show up to 12.2 V')
    expect(judge(at!, 12.1).ok).toBe(true)
    expect(judge(at!, 13).ok).toBe(false)
    // what a converter holds, it holds unloaded too
    expect(sayIn(step(ordinary(), 'polarity-main').text)).not.toContain('nothing is drawn')
  })
  test('which way the air goes is seen: one answer is right, the others say what to do', () => {
    const { look } = step(ordinary(), 'direction')
    expect(look!.right).toBe('as planned')
    expect(look!.wrong.map((w) => w.means).join(' ')).toContain('never swap')
    const plan = ordinary()
    tickStep(plan, step(plan, 'direction'), {
      at: '2026-01-01T10:00:00Z',
      who: '',
      value: 0,
      note: '',
      photoId: null,
    })
    expect(buildSheet('Box', build(plan), {}).sittings.flatMap((s) => s.steps)).toContainEqual(
      expect.objectContaining({ title: 'Which way does the air go?', value: 'as planned', done: true }),
    )
  })
  test('what is measured stands in the log as well, and goes with its tick', () => {
    const plan = ordinary()
    const tick = { at: '2026-01-01T10:00:00Z', who: 'Ada', note: '', photoId: null }
    tickStep(plan, step(plan, 'polarity-main'), { ...tick, value: 10.4 })
    tickStep(plan, step(plan, 'warm'), { ...tick, value: 38 })
    const run = () => plan.runs.find((r) => r.id === 'build-checks')
    expect(run()).toMatchObject({ kind: 'bench', who: 'Ada' })
    expect(run()!.readings.map((r) => [r.quantity, r.value])).toEqual([
      ['voltage', 10.4],
      ['temperature', 38],
    ])
    // measured again: one reading, the later value
    tickStep(plan, step(plan, 'warm'), { ...tick, value: 41 })
    expect(run()!.readings.map((r) => r.value)).toEqual([10.4, 41])
    untickStep(plan, 'warm')
    untickStep(plan, 'polarity-main')
    expect(plan.runs).toEqual([])
    expect(plan.build!.ticks).toEqual([])
    expect(planSchema.safeParse(wholePlan(plan)).success).toBe(true)
  })
  test('a target of temperature is looked at after an hour', () => {
    const plan = ordinary((p) => {
      p.targets = [newTarget({ id: 't', kind: 'temperature', limit: 40, place: 'lid' }, 'main')]
    })
    const hour = step(plan, 'hour-t')
    expect(hour.measure).toMatchObject({ high: 40, low: null })
    expect(judge(hour.measure!, 44).ok).toBe(false)
    expect(steps(ordinary()).some((s) => s.key.startsWith('hour-'))).toBe(false)
  })
  test('what lies on the table is named once a sitting', () => {
    const sitting = build(ordinary()).sittings.find((s) => s.key === 'wiring')!
    expect(sitting.tools).toEqual([...new Set(sitting.tools)])
    expect(sitting.tools).toContain('meter')
  })
  test('goes back into the plan, and a changed plan asks again', () => {
    const plan = ordinary()
    const tick = { at: '2026-01-01T10:00:00Z', who: 'Ada', value: 10.52, note: '', photoId: null }
    tickStep(plan, step(plan, 'converter-c'), tick)
    expect(converterOf(plan)).toMatchObject({ setFirst: true, measuredV: 10.52 })
    expect(step(plan, 'converter-c').state).toBe('done')
    converterOf(plan)!.outV = 9
    expect(step(plan, 'converter-c').state).toBe('again')
    expect(build(plan).done).toBe(0)
  })
})

/** For every caution a plan that calls for it; the ordinary plan is its silent neighbour. */
const casebook: Record<string, (p: StreamPlan) => void> = {
  'mains-inside': (p) => (p.job.mains = true),
  'earth-path': (p) => (p.job.mains = true),
  isolation: (p) => (p.job.mains = true),
  capacitors: (p) => (p.job.storedV = 300),
  'supply-fan': (p) => (p.job.opensSupply = true),
  'lithium-pack': (p) => feedFrom(p, newSource('s', 'pack')),
  'lead-acid': (p) => (p.battery = newBattery('b', 'house-battery')),
  'gas-appliance': (p) => (p.job.openFlue = true),
  'radon-soil': (p) => (p.job.cautions = ['cellar']),
  'flammable-vapour': (p) => (p.job.flammable = true),
  'combustible-dust': (p) => (p.job.cautions = ['dust']),
  fumes: (p) => (p.job.goal = 'fume'),
  'fume-neighbour': (p) => Object.assign(p.job, { goal: 'ventilate', airOutlet: 'outdoors' }),
  laser: (p) => (p.job.laser = true),
  'water-near': (p) => (p.job.wet = true),
  condensation: (p) => (p.job.humidity = 0.9),
  vehicle: (p) => (p.job.domain = 'vehicle'),
  'aircraft-medical': (p) => (p.job.domain = 'medical'),
  'must-cool': (p) => (p.job.mustNotFail = true),
  'thermal-cutout': (p) => (p.job.mustNotFail = true),
  fire: (p) => (p.job.heatW = 80),
  'hot-surface': (p) => (p.job.touchC = 70),
  'ladder-roof': (p) => (p.job.cautions = ['height']),
  'hidden-services': (p) => (p.job.cautions = ['walls']),
  hearing: (p) => (p.job.heardDbA = 84),
  'magnet-vibration': (p) => (p.job.cautions = ['sensitive']),
  'animals-plants': (p) => (p.job.cautions = ['living']),
  food: (p) => (p.job.cautions = ['food']),
  warranty: (p) => (p.job.cautions = ['rented']),
  tenancy: (p) => (p.job.cautions = ['rented']),
  'radio-noise': (p) => (p.job.cautions = ['sensitive']),
}
/** Called for by the ordinary plan itself: without a fan, without a cut. */
const silenced: Record<string, (p: StreamPlan) => void> = {
  'rotating-parts': (p) => unpick(p),
  'eyes-dust': (p) => (p.places[0]!.fit = null),
}

describe('cautions', () => {
  type Change = (p: StreamPlan) => unknown
  const called = (plan: StreamPlan) => cautionsOf(plan).called.map((c) => c.id)
  test('every caution of the handbook has its case', () => {
    expect([...Object.keys(casebook), ...Object.keys(silenced)].toSorted()).toEqual(
      cautionRules.map((r) => r.id).toSorted(),
    )
    expect(cautionRules).toHaveLength(33)
  })
  test.each(Object.entries(casebook))('%s', (id, change) => {
    expect(called(ordinary(change))).toContain(id)
    expect(called(ordinary())).not.toContain(id)
  })
  test.each(Object.entries(silenced))('%s', (id, change) => {
    expect(called(ordinary())).toContain(id)
    expect(called(ordinary(change))).not.toContain(id)
  })
  const holding: [string, Change, Change | null][] = [
    ['flammable-vapour', (p: StreamPlan) => (p.job.flammable = true), null],
    ['aircraft-medical', (p: StreamPlan) => (p.job.domain = 'aircraft'), null],
    [
      'gas-appliance',
      (p: StreamPlan) => (p.job.openFlue = true),
      (p: StreamPlan) => (p.job.supplyOpening = true),
    ],
    ['mains-inside', (p: StreamPlan) => Object.assign(p.job, { mains: true, opensSupply: true }), null],
    [
      'gas-appliance',
      (p: StreamPlan) => Object.assign(p.job, { openFlue: null, airOutlet: 'outdoors' }),
      (p: StreamPlan) => (p.job.openFlue = false),
    ],
  ]
  test.each(holding)(
    '%s holds every sitting from its own on, until the plan changes or somebody answers',
    (id, change, remedy) => {
      const held = build(ordinary(change)).sittings
      expect(held.every((s) => s.held)).toBe(true)
      const answered = ordinary((p) => {
        change(p)
        p.build!.releases = [
          { id, at: '2026-01-01T10:00:00Z', who: 'Ada, electrician', reason: 'Checked on site' },
        ]
      })
      expect(build(answered).sittings.some((s) => s.held)).toBe(false)
      if (remedy)
        expect(
          build(
            ordinary((p) => {
              change(p)
              remedy(p)
            }),
          ).sittings.some((s) => s.held),
        ).toBe(false)
    },
  )
  test('what nobody answered is listed as not checked', () => {
    expect(build(ordinary((p) => (p.job.mains = null))).unasked.map((c) => c.id)).toContain('mains-inside')
    expect(build(ordinary()).unasked.map((c) => c.id)).not.toContain('mains-inside')
  })
  test('the sheet says all of it, and its last line defers', () => {
    const text = buildMarkdown(buildSheet('Box', build(ordinary((p) => (p.job.mains = true))), {}))
    expect(text).toContain('> **Parts inside stay dangerous after switching off.**')
    expect(text.replaceAll('\u00a0', ' ')).toContain(
      'nothing connected behind it**: ____. To 10.5 V, accept 10.3 V to 10.7 V',
    )
    expect(text.trimEnd().split('\n').at(-1)).toBe('If you are not sure, stop and ask someone licensed for it.')
    expect(text).not.toMatch(/NaN|undefined|null/)
  })
})
