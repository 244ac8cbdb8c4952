import { describe, expect, test } from 'vitest'
import { airState, CP_AIR } from '#core/air'
import { newElement, newStreamPlan } from '#core/document'
import { modelPath, pathDrop } from '#core/system'
import { passiveFigure } from './passive-figures'

const air = airState(20, 0, 0.5)!
const plan = newStreamPlan('j', 'Box')
plan.path = [
  { ...newElement('in', 'opening'), areaM2: 0.01 },
  { ...newElement('out', 'opening'), areaM2: 0.01 },
]
const path = modelPath(plan, air)
const job = { ...plan.job, ambientC: 20 }
const at = (rest: Partial<typeof job>, inside: number | null = 35) =>
  passiveFigure({ ...job, ...rest }, air, path, inside)

describe('without any fan', () => {
  test('walls alone: the wall loss times the rise', () => {
    expect(at({ wallLossWK: 2 }).value).toBeCloseTo(30, 9)
    expect(at({ wallLossWK: 2 }).note).toContain('heights')
  })
  test('the air that rises meets the path at the pressure of the stack effect', () => {
    const { value, inputs } = at({ intakeHeightM: 0.1, outletHeightM: 1.1 })
    const flow = inputs.find((i) => i.symbol === 'Q_rises')!.value!
    // 1 m of air 15 K warmer, by hand: 1.199·9.807·1·15/308.15 = 0.572 Pa
    expect(pathDrop(path, flow)).toBeCloseTo((air.density * 9.80665 * 15) / 308.15, 6)
    expect(value).toBeCloseTo(air.density * CP_AIR * flow * 15, 6)
  })
  test('two equal openings by the orifice law: as the handbooks’ natural ventilation within their 0.6 to 0.65', () => {
    const flow = at({ intakeHeightM: 0, outletHeightM: 1 }).inputs.find((i) => i.symbol === 'Q_rises')!.value!
    const law = (cd: number) => cd * 0.01 * Math.sqrt((2 * 9.80665 * 1 * 15) / 308.15) * Math.SQRT1_2
    expect(flow).toBeGreaterThan(law(0.55))
    expect(flow).toBeLessThan(law(0.7))
  })
  test('an outlet no higher than the intake carries nothing; nothing known says what it needs', () => {
    expect(at({ wallLossWK: 1, intakeHeightM: 1, outletHeightM: 0.5 }).value).toBeCloseTo(15, 9)
    expect(at({})).toMatchObject({ value: null })
    expect(at({}).note).toContain('wall loss')
    expect(at({ wallLossWK: 2 }, 18).value).toBeNull()
    expect(at({ wallLossWK: 2 }, null).value).toBeNull()
  })
})
