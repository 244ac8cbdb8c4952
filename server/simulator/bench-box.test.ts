import { describe, expect, test } from 'vitest'
import { soakOf } from '#core/heat'
import { demoFans } from '../../demo/fans'
import { demoPlan } from '../../demo/jobs'
import { boxOf, makeBox, type BoxControls, type BoxFault } from './bench-box'

const job = (id: string) => demoPlan(id)
const quiet: BoxControls = {
  volts: 24,
  doorOpen: false,
  tachPulled: false,
  dropouts: 0,
  noise: 0,
  controlled: false,
}
const column = (rows: ReturnType<ReturnType<typeof makeBox>['advance']>, name: string) =>
  rows.map((r) => r.values[name] as number)

describe('the stand-in bench box', () => {
  test('puts on the old fan as found, the picked one as planned, none where none is', () => {
    const choir = job('job-choir-amplifier')
    expect(boxOf(choir, demoFans, 'as-found').fan!.atV).toBe(24)
    expect(boxOf(choir, demoFans, 'as-planned').fan!.atV).toBe(18)
    expect(boxOf(job('job-kiln-controller'), demoFans, 'as-found').fan).toBeNull()
    expect(boxOf(choir, demoFans, 'as-planned').places).toMatchObject({ hot: 'heatsink', level: 'front row' })
  })
  test('settles where its heat balance says: P over the conductances', () => {
    const setting = boxOf(job('job-kiln-controller'), demoFans, 'as-found')
    const box = makeBox(setting, { ...quiet, volts: 0 }, 1)
    box.advance(3 * 3600, 0.1)
    const [end] = column(box.advance(10, 1), 'beside_the_relays_degC')
    expect(end!).toBeCloseTo(
      setting.ambientC + setting.heatW / setting.wallWK + setting.heatW * setting.partKW,
      0,
    )
  })
  test('follows its voltage: speed in proportion, pressure with the square, level with the fifth power', () => {
    const setting = boxOf(job('job-choir-amplifier'), demoFans, 'as-planned')
    const box = makeBox({ ...setting, backgroundDbA: -50 }, { ...quiet, volts: 18 }, 1)
    const full = box.advance(60, 1).at(-1)!.values
    box.controls.volts = 12
    const slow = box.advance(60, 1).at(-1)!.values
    expect(slow.fan_rpm! / full.fan_rpm!).toBeCloseTo(2 / 3, 3)
    expect(slow.box_Pa! / full.box_Pa!).toBeCloseTo(4 / 9, 3)
    expect(slow.front_row_dBA! - full.front_row_dBA!).toBeCloseTo(50 * Math.log10(2 / 3), 1)
    box.controls.volts = 1
    expect(box.advance(30, 1).at(-1)!.values.fan_rpm!).toBeLessThan(1)
  })
  test('shows what is wrong with it as a meter would', () => {
    const setting = boxOf(job('job-choir-amplifier'), demoFans, 'as-planned')
    const box = makeBox(setting, { ...quiet, volts: 18 }, 1)
    const right = box.advance(60, 1).at(-1)!.values
    const with_ = (fault: BoxFault, unplugged = false) => {
      Object.assign(box.controls, { fault, unplugged })
      return box.advance(60, 1).at(-1)!.values
    }
    const swapped = with_('swapped')
    expect([swapped.fan_V, swapped.fan_A]).toEqual([-18, expect.closeTo(0, 3)])
    expect(swapped.fan_rpm!).toBeLessThan(1)
    const starved = with_('starved')
    expect(starved.fan_V! / 18).toBeCloseTo(0.618, 2)
    expect(starved.fan_rpm! / right.fan_rpm!).toBeCloseTo(0.618, 2)
    expect(with_('starved', true)).toMatchObject({ fan_V: 18, fan_A: 0 })
    const stuck = with_('stuck')
    expect(stuck.fan_A!).toBeGreaterThan(2 * right.fan_A!)
    expect(stuck.fan_V).toBe(18)
    const covered = with_('covered')
    expect(covered.fan_rpm! / right.fan_rpm!).toBeCloseTo(1, 2)
    expect(covered.outlet_m3h! / right.outlet_m3h!).toBeCloseTo(0.25, 2)
  })
  test('an open door cools, a pulled wire is a gap, lost rows leave their numbers', () => {
    const box = makeBox(boxOf(job('job-kiln-controller'), demoFans, 'as-found'), { ...quiet, volts: 0 }, 2)
    box.advance(3600, 0.1)
    const warm = column(box.advance(20, 1), 'beside_the_relays_degC').at(-1)!
    box.controls.doorOpen = true
    expect(column(box.advance(900, 1), 'beside_the_relays_degC').at(-1)!).toBeLessThan(warm - 5)
    box.controls.tachPulled = true
    expect(box.advance(2, 1)[0]!.values.fan_rpm).toBeNull()
    box.controls.dropouts = 0.4
    const rows = box.advance(500, 1)
    expect(rows.length).toBeLessThan(450)
    expect(rows.at(-1)!.seq - rows[0]!.seq).toBeGreaterThan(rows.length)
    expect(rows.some((r) => r.values.room_degC === -127)).toBe(true)
  })
  test('same seed, same rows; its warm-up is predicted from its first minutes', () => {
    const make = (seed: number) =>
      makeBox(
        boxOf(job('job-kiln-controller'), demoFans, 'as-found'),
        { ...quiet, volts: 0, noise: 1 },
        seed,
      ).advance(900, 0.5)
    expect(make(7)).toEqual(make(7))
    expect(make(7)).not.toEqual(make(8))
    const rows = make(7)
    const soak = soakOf(
      rows.map((r) => r.ms / 1000),
      column(rows, 'beside_the_relays_degC'),
    )
    expect(soak.state).toBe('predicted')
    expect(soak.final!).toBeCloseTo(30 + 60 / 1.4 + 6, -0.3)
  })
  test.each([0.1, 0.5, 10, 50])('%s rows a second', (rate) => {
    const rows = makeBox(boxOf(job('job-kiln-controller'), demoFans, 'as-found'), quiet, 1).advance(100, rate)
    expect(Math.abs(rows.length - 100 * rate)).toBeLessThanOrEqual(1)
    expect(rows.map((r) => r.seq)).toEqual(rows.map((_, i) => i))
  })
  test('obeys the planned control, and its alarm sounds when the tach wire is pulled', () => {
    const shelf = job('job-recorder-shelf')
    const box = makeBox(boxOf(shelf, demoFans, 'as-planned'), { ...quiet, volts: 12, controlled: true }, 1)
    const cool = box.advance(20, 1).at(-1)!.values
    expect(cool.fan_pct!).toBeGreaterThan(24)
    expect(cool.fan_pct!).toBeLessThan(50)
    const warm = box.advance(2 * 3600, 1).at(-1)!.values
    expect(warm.fan_pct!).toBeGreaterThan(cool.fan_pct!)
    expect(box.steering()).toMatchObject({ alarm: false })
    box.controls.tachPulled = true
    // five seconds of holding
    expect(column(box.advance(4, 1), 'alarm').at(-1)).toBe(0)
    expect(column(box.advance(4, 1), 'alarm').at(-1)).toBe(1)
    box.controls.tachPulled = false
    expect(column(box.advance(2, 1), 'alarm').at(-1)).toBe(0)
    box.controls.controlled = false
    expect(box.steering()).toBeNull()
  })
})
