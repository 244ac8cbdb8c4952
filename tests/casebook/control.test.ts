import { describe, expect, test } from 'vitest'
import { careTasks } from '#core/care'
import { printMarkdown, printReportOf } from '#core/print'
import { caseReport, casePlan, raised, type Changes } from './casebook'

/** What a control does to the rest of a plan: one chain. The ordinary plan of the casebook, numbers invented. */

const control = (more: Changes = {}): Changes => ({ control: more })
const always: Changes = { control: { school: 'always', actuator: null } }
const days = { loads: [{ id: 'w', name: 'working', fromS: 8 * 3600, toS: 16 * 3600, watts: 100 }], idleW: 5 }

describe('the rail and its findings', () => {
  test('say when the fans run, and lead to the field', () => {
    const report = caseReport({ day: days }, control())
    const station = report.stations.find((s) => s.key === 'control')!
    expect(station.headline[0]).toBe('on when warm, ')
    const late = caseReport({ day: days }, control({ onC: 70, offC: 50 })).findings.findings
    expect(late.find((f) => f.id === 'ctl-on-too-late')!.at).toMatchObject({
      station: 'control',
      part: 'ctl',
      field: 'onC',
    })
  })
  test('one cause is told once: thresholds that are swapped', () => {
    const { findings } = caseReport(control({ onC: 42, offC: 50 })).findings
    const told = findings.filter((f) => f.station === 'control')
    expect(told.map((f) => f.id)).toEqual(['ctl-thresholds-swapped'])
  })
  test('a plan without a control keeps what was judged before there were any', () => {
    expect(raised(caseReport({ 'lead.duty': 0.8 }))).toContain('ctl-no-pwm-wire')
    expect(caseReport().day).toBeNull()
    expect(caseReport().stations.find((s) => s.key === 'control')!.state).toBe('not-begun')
  })
})

describe('a guess proves nothing', () => {
  // no part told: the box's own balance stands in, with a time constant that nobody saw
  const guessed: Changes = { day: { parts: [] }, 'job.wallLossWK': 2 }
  const own = (changes: Changes) => {
    const input = casePlan(control({ sensorLagS: 300, onC: 38, offC: 34 }), changes)
    input.plan.day!.parts = []
    return input
  }
  test('nothing that needs the heat capacity is judged, and what is missing is named', () => {
    const report = caseReport(control({ sensorLagS: 300, onC: 38, offC: 34 }), guessed)
    expect(raised(report)).not.toContain('ctl-overshoot')
    expect(raised(report)).not.toContain('ctl-cycles')
    expect(report.findings.open.map((o) => o.name)).toEqual(expect.arrayContaining(['ctl.limitTemp']))
    expect(own({}).plan.day!.parts).toEqual([])
  })
  test('the limit of the air inside is not held against a sensor that sits who knows where', () => {
    const hotSink = control({ onC: 55, offC: 48 })
    expect(raised(caseReport(hotSink, guessed))).not.toContain('ctl-on-too-late')
    expect(raised(caseReport(control({ onC: 55, offC: 48, sensorKind: 'in-air' }), guessed))).toContain(
      'ctl-on-too-late',
    )
  })
  test('a board steers the voltage of a three-wire fan: no PWM is missed', () => {
    const curve = {
      school: 'curve',
      points: [
        { temperatureC: 40, duty: 0.5 },
        { temperatureC: 60, duty: 1 },
      ],
      onFault: 'full',
    }
    expect(raised(caseReport(control({ ...curve, actuator: 'board' })))).not.toContain('ctl-no-pwm-wire')
    expect(raised(caseReport(control({ ...curve, actuator: 'pwm-wire' })))).toContain('ctl-no-pwm-wire')
  })
})

describe('the night', () => {
  const night: Changes = { targets: [{ id: 'n', limit: 20, stage: 'night' }], 'job.roomDbA': 12 }
  test('a level at night is held against the night, not against full speed', () => {
    const loud = caseReport({ day: { ...days, idleW: 100, loads: [] } }, always, night)
    const quiet = caseReport({ day: { ...days, idleW: 0 } }, control({ school: 'tool' }), night)
    expect(loud.predictions.n!.value!).toBeGreaterThan(20)
    expect(quiet.predictions.n!.value).toBe(0)
    expect(raised(loud)).toContain('noise-target-missed')
    expect(raised(quiet)).not.toContain('noise-target-missed')
  })
  test('without a planned control nothing is said of it', () => {
    const report = caseReport(night)
    expect(report.predictions.n).toBeUndefined()
    expect(raised(report)).not.toContain('noise-target-missed')
  })
})

describe('energy and hours', () => {
  const pack: Changes = {
    source: { kind: 'pack' },
    battery: { chargeCoulomb: 36_000, cells: 3, protectedPack: true, chargedCold: false, maxA: 5 },
  }
  test('a pack lasts longer behind a thermostat than always on, by what the day draws', () => {
    const on = caseReport(pack, { day: days }, always).runtime
    const warm = caseReport(pack, { day: days }, control({ actuator: 'relay' })).runtime
    expect(on.pack!.share).toBeCloseTo(1, 2)
    expect(warm.pack!.share).toBeLessThan(0.6)
    expect(warm.runtimeS!).toBeGreaterThan(on.runtimeS!)
    // a share that was typed stands
    const typed = caseReport(pack, { 'battery.dutyShare': 0.3, day: days }, always).runtime
    expect(typed.pack!.share).toBe(0.3)
  })
  test('care counts the hours of the planned day', () => {
    const plan = (changes: Changes) => casePlan({ 'fan.lifeH': 6_000, day: days }, changes)
    const every = (changes: Changes) =>
      careTasks(plan(changes).plan, caseReport({ 'fan.lifeH': 6_000, day: days }, changes), '2026-01-01').find(
        (t) => t.key === 'spare',
      )!.everyDays!
    expect(every(always)).toBeLessThan(every(control()))
  })
  test('the printed report says when it runs', () => {
    const { plan } = casePlan({ day: days }, control())
    const text = printMarkdown(
      printReportOf(plan, caseReport({ day: days }, control()), {}, '2026-01-01'),
      () => '',
    )
    expect(text).toContain('## When it runs')
    expect(text).toMatch(/on when warm, on from 50\s°C, off at 42\s°C; on .* of a usual day/)
    expect(text).not.toMatch(/NaN|undefined/)
  })
})
