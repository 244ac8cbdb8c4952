import { describe, expect, test } from 'vitest'
import {
  converterOf,
  newBattery,
  newBuild,
  newConverter,
  newElement,
  newEvent,
  newFan,
  newReading,
  newRun,
  newSource,
  newStreamPlan,
  type Fan,
  type StreamPlan,
  type Run,
} from '#core/document'
import { computeReport } from '#core/plan'
import {
  careStart,
  careTasks,
  driftReport,
  missingEntries,
  settingsChange,
  settingsOf,
  timeLine,
} from './index'
import { convertBy, feedFrom, pick, selectionOf, tell } from '../../tests/plans'

/** Care, drift and the log book. Numbers invented; intervals: handbook build 5 (common practice). */

const fan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  lifeH: 30_000,
  lifeC: 40,
  points: [
    { flowM3s: 0, pressurePa: 40 },
    { flowM3s: 0.008, pressurePa: 26 },
    { flowM3s: 0.016, pressurePa: 0 },
  ],
}
function box(change: (p: StreamPlan) => void = () => {}): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  tell(plan, { goal: 'cool', heatW: 20, insideMaxC: 35, direction: 'out', hoursPerDay: 12 })
  pick(plan, selectionOf('f'), 10.5)
  feedFrom(plan, { ...newSource('s', 'adapter', 12), iMaxA: 1 })
  convertBy(plan, { ...newConverter('c', 10.5), iMaxA: 1 })
  change(plan)
  return plan
}
function report(plan: StreamPlan) {
  const made = computeReport({ plan, fans: [fan], shown: null })
  if (!made.ok) throw new Error(made.reason)
  return made.report
}
const tasks = (change?: (p: StreamPlan) => void, from = '2026-01-10') => {
  const plan = box(change)
  return careTasks(plan, report(plan), from)
}
const task = (key: string, change?: (p: StreamPlan) => void, from?: string) =>
  tasks(change, from).find((t) => t.key === key)

describe('care', () => {
  test('what every fan asks for, the next one first', () => {
    const list = tasks()
    expect(list.map((t) => t.key)).toEqual(
      expect.arrayContaining(['tight', 'blades', 'bearing', 'drift', 'wiring']),
    )
    expect(list.map((t) => t.due!)).toEqual(list.map((t) => t.due!).toSorted())
    expect(list[0]).toMatchObject({ key: 'tight', due: '2026-01-17', everyDays: null })
    expect(task('drift')!.due).toBe('2026-02-09')
  })
  test.each([
    ['usual', 12, 180],
    ['dusty', 12, 72],
    ['clean', 12, 360],
    ['usual', 24, 90],
    ['usual', 3, 360],
    ['dusty', 24, 36],
  ] as const)('blades in %s air at %d h a day: %d days', (airDust, hoursPerDay, days) => {
    expect(task('blades', (p) => Object.assign(p.job, { airDust, hoursPerDay }))!.everyDays).toBe(days)
  })
  test('an interval’s working gives its interval', () => {
    const { why, everyDays } = task('blades', (p) =>
      Object.assign(p.job, { airDust: 'dusty', hoursPerDay: 20 }),
    )!
    const [usual, ...factors] = [...why.matchAll(/(?:Usually|×) ([\d.]+)/g)].map((m) => Number(m[1]))
    expect(factors).toHaveLength(2)
    expect(Math.round(factors.reduce((x, f) => x * f, usual!) - everyDays!)).toBe(0)
  })
  test('near the floor is dusty air; nobody said is told as assumed', () => {
    expect(task('blades', (p) => (p.job.intakeHeightM = 0.1))!.everyDays).toBe(72)
    expect(task('blades')!.why).toContain('assumed')
    expect(task('blades', (p) => (p.job.airDust = 'usual'))!.why).not.toContain('assumed')
  })
  test('a filter by its kind, one’s own days before all', () => {
    const filter = (medium: string) => (p: StreamPlan) =>
      void p.path.unshift({ ...newElement('x', 'filter'), medium })
    expect(task('filter', filter('foam20'))).toMatchObject({ title: 'Clean the filter', everyDays: 30 })
    expect(task('filter', filter('fine'))).toMatchObject({ title: 'Change the fine filter', everyDays: 365 })
    expect(
      task('filter', (p) => {
        filter('fine')(p)
        p.job.filterDays = 45
      })!.everyDays,
    ).toBe(45)
    expect(task('filter', (p) => (p.path = p.path.filter((e) => e.kind !== 'grille')))).toBeUndefined()
  })
  test('seals age by their warmth', () => {
    const duct = (p: StreamPlan) => void p.path.unshift(newElement('d', 'duct'))
    expect(task('seals', duct)!.everyDays).toBe(365)
    const warm = task('seals', (p) => {
      duct(p)
      p.job.insideMaxC = 50
    })!
    expect(warm.everyDays).toBe(180)
    expect(warm.why).toContain('× 0.5')
    expect(task('seals')).toBeUndefined()
  })
  test('nests in spring and autumn, where an opening is outdoors', () => {
    const out = (p: StreamPlan) => (p.job.airOutlet = 'outdoors')
    expect(task('nests', out, '2026-01-10')!.due).toBe('2026-04-01')
    expect(task('nests', out, '2026-05-10')!.due).toBe('2026-10-01')
    expect(task('nests', out, '2026-11-10')!.due).toBe('2027-04-01')
    expect(task('nests')).toBeUndefined()
  })
  test('battery, alarm, spare, carbon only where they are', () => {
    expect(task('battery', (p) => (p.battery = newBattery('b', 'house-battery')))!.how).toContain('topped up')
    expect(task('alarm', (p) => (p.job.mustNotFail = true))!.everyDays).toBe(180)
    for (const key of ['battery', 'alarm', 'carbon']) expect(task(key)).toBeUndefined()
    expect(
      task('carbon', (p) => Object.assign(p.job, { goal: 'fume', carbonLifeH: 600, carbonHours: 120 }))!
        .everyDays,
    ).toBe(40)
  })
  test('what was done is counted from then, and the first look is done once', () => {
    const done =
      (careKey: string, at: string, nextDue: string | null = null) =>
      (p: StreamPlan) =>
        void p.logbook.push({
          ...newEvent(`e${at}`, `${at}T10:00:00Z`, 'Done'),
          kind: 'care',
          careKey,
          nextDue,
        })
    expect(task('blades', done('blades', '2026-03-01'))).toMatchObject({
      last: '2026-03-01',
      due: '2026-08-28',
    })
    expect(task('blades', done('blades', '2026-03-01', '2026-04-01'))!.due).toBe('2026-04-01')
    expect(task('tight', done('tight', '2026-01-17'))!.due).toBeNull()
    expect(task('drift', done('drift', '2026-02-09'))!.due).toBe('2027-02-09')
  })
  test('is counted from the day that was told, else from the last step of the build', () => {
    const plan = box()
    expect(careStart(plan, '2026-07-01')).toBe('2026-07-01')
    const tick = { id: 'close', who: '', value: null, note: '', photoId: null, seen: '' }
    plan.build = { ...newBuild('b'), ticks: [{ ...tick, at: '2026-06-02T10:00:00Z' }] }
    expect(careStart(plan, '2026-07-01')).toBe('2026-06-02')
    plan.job.maintenanceFrom = '2026-06-20'
    expect(careStart(plan, '2026-07-01')).toBe('2026-06-20')
  })
})

describe('drift since the build', () => {
  const run = (id: string, takenAt: string, readings: Run['readings'], rest: Partial<Run> = {}): Run => ({
    ...newRun(id, 'after', takenAt),
    fanV: 10.5,
    heatW: 20,
    ambientC: 20,
    distanceM: 1,
    instrument: 'class2',
    readings,
    ...rest,
  })
  const first = [
    newReading('n', 'rotation', 'fan', 2100),
    newReading('a', 'current', 'feed', 0.1),
    newReading('t', 'temperature', 'lid', 40),
    newReading('l', 'level', 'chair', 30),
  ]
  const later = (values: Partial<Record<string, number>>) =>
    first.map((r) => ({ ...r, value: values[r.id] ?? r.value }))
  const drift = (values: Partial<Record<string, number>>, rest: Partial<Run> = {}) =>
    driftReport({
      runs: [run('x', '2026-01-01T10:00:00Z', first), run('y', '2026-02-01T10:00:00Z', later(values), rest)],
    })
  const drifted = (d: ReturnType<typeof drift>) =>
    d.rows.filter((r) => r.state === 'drifted').map((r) => r.kind)

  test('at the handbook’s thresholds, each in its own way', () => {
    expect(drift({}).rows.map((r) => r.state)).toEqual(['held', 'held', 'held', 'held'])
    expect(drifted(drift({ n: 1900 }))).toEqual([])
    expect(drifted(drift({ n: 1880 }))).toEqual(['speed'])
    expect(drifted(drift({ a: 0.125 }))).toEqual(['current'])
    // 15 % of a rise of 20 K
    expect(drifted(drift({ t: 42.9 }))).toEqual([])
    expect(drifted(drift({ t: 43.1 }))).toEqual(['rise'])
    expect(drifted(drift({ l: 32.9 }))).toEqual([])
    expect(drifted(drift({ l: 33 }))).toEqual(['level'])
    // better is no drift
    expect(drifted(drift({ n: 2600, a: 0.05, t: 30, l: 20 }))).toEqual([])
  })
  test('a warmer room alone is no drift', () => {
    expect(drifted(drift({ t: 46 }, { ambientC: 26 }))).toEqual([])
  })
  test.each([
    [{ fanV: 12 }, 'another one', 4],
    [{ fanV: null }, 'not noted', 4],
    [{ heatW: 40 }, 'load was another', 1],
    [{ distanceM: 0.5 }, 'another distance', 1],
    [{ instrument: 'phone' as const }, 'another kind of instrument', 1],
  ])('unlike is not compared: %o', (rest, words, count) => {
    const { rows, unlike } = drift({ n: 100, t: 90, l: 60, a: 2 }, rest)
    expect(unlike).toHaveLength(count)
    expect(unlike.every((u) => u.includes(words))).toBe(true)
    expect(rows).toHaveLength(4 - count)
  })
  test('a repeat of the same days is no drift', () => {
    const repeat = run('y', '2026-01-05T10:00:00Z', later({ n: 100 }))
    expect(driftReport({ runs: [run('x', '2026-01-01T10:00:00Z', first), repeat] }).latest).toBeNull()
  })
  test('another change is another state; a single run drifts from nothing', () => {
    const change = run('y', '2026-02-01T10:00:00Z', later({ n: 100 }), { changeNo: 2 })
    expect(driftReport({ runs: [run('x', '2026-01-01T10:00:00Z', first), change] })).toMatchObject({
      first: { id: 'y' },
      latest: null,
      rows: [],
    })
    expect(driftReport({ runs: [] })).toMatchObject({ first: null, rows: [] })
  })
})

describe('settings', () => {
  test('are held against the last ones that were written down', () => {
    const plan = box()
    const now = settingsOf(plan, report(plan))
    expect(now.join('\n')).toContain('10.5 V')
    expect(settingsChange(now, [])).toMatchObject({ first: true })
    const noted = {
      ...newEvent('e', '2026-01-01T10:00:00Z', 'As built'),
      kind: 'setting' as const,
      settings: now.join('\n'),
    }
    expect(settingsChange(now, [noted])).toEqual({ first: false, changed: [] })
    converterOf(plan)!.outV = 9
    const { changed } = settingsChange(settingsOf(plan, report(plan)), [noted])
    expect(changed).toHaveLength(1)
    expect(changed[0]!.before).toContain('10.5 V')
    expect(changed[0]!.now).toContain('9')
    convertBy(plan, null)
    expect(settingsChange(settingsOf(plan, report(plan)), [noted]).changed.some((c) => c.now === '')).toBe(true)
  })
})

describe('the log book', () => {
  test('is one line of time, the latest first, and says what is missing', () => {
    const plan = box((p) => {
      p.build = {
        ...newBuild('b'),
        ticks: [
          {
            id: 'converter-c',
            at: '2026-01-02T10:00:00Z',
            who: 'Ada',
            value: 10.52,
            note: 'varnished',
            photoId: null,
            seen: '',
          },
        ],
        releases: [{ id: 'mains-inside', at: '2026-01-01T12:00:00Z', who: 'Ben', reason: 'Unplugged' }],
      }
      p.runs = [
        {
          ...newRun('r', 'after', '2026-01-03T10:00:00Z'),
          readings: [newReading('t', 'temperature', 'lid', 40)],
        },
      ]
      p.logbook = [
        {
          ...newEvent('e', '2026-01-04T10:00:00Z', 'Dropped it'),
          kind: 'fault',
          before: '2100',
          after: '2090',
        },
      ]
    })
    const line = timeLine(plan, report(plan), {})
    expect(line.map((e) => e.from)).toEqual(['book', 'run', 'build', 'build'])
    expect(line[0]!.detail).toBe('before 2100; after 2090')
    expect(line[1]!.detail.replaceAll('\u00A0', ' ')).toContain('Temperature lid 40')
    expect(line[2]).toMatchObject({ who: 'Ada', what: 'Set Step-down converter, nothing connected behind it' })
    expect(line[2]!.detail.replaceAll('\u00A0', ' ')).toBe('10.5 V; varnished')
    expect(missingEntries(plan)).toEqual(['a baseline', 'the check after the first hour'])
    expect(missingEntries(box())).toEqual(['a baseline'])
  })
})
