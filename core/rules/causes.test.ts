import { describe, expect, test } from 'vitest'
import { byCause } from './causes'
import type { Severity } from './rule'

interface Rest {
  severity?: Severity
  subject?: string
  elements?: string[]
  facts?: object
}
const raised = (id: string, rest: Rest = {}) => ({
  id,
  severity: rest.severity ?? ('fix' as const),
  message: id,
  facts: rest.facts ?? { id },
  subject: rest.subject ? { id: rest.subject } : null,
  elements: rest.elements ?? [],
})
const told = (...list: ReturnType<typeof raised>[]) =>
  byCause(list).told.map((t) => [t.finding.id, ...t.also.map((a) => a.id)])

describe('one cause, one message', () => {
  test('of too much voltage the clearest is told, the others below it', () => {
    expect(told(raised('power-over-voltage'), raised('power-direct-too-high'))).toEqual([
      ['power-direct-too-high', 'power-over-voltage'],
    ])
  })
  test('two fans on too much voltage are two causes', () => {
    expect(
      told(
        raised('power-over-voltage', { subject: 'a', facts: { v: 14 } }),
        raised('power-over-voltage', { subject: 'b', facts: { v: 25 } }),
      ),
    ).toHaveLength(2)
  })
  test('the same of two bends of one hose is one', () => {
    const narrow = { facts: { d: 60 } }
    expect(
      told(
        raised('air-duct-narrow', { subject: 'hose', elements: ['hose'], ...narrow }),
        raised('air-duct-narrow', { subject: 'bends', elements: ['bends'], ...narrow }),
      ),
    ).toEqual([['air-duct-narrow', 'air-duct-narrow']])
  })
  test('a narrow outlet and its own grille are one, another grille is not', () => {
    const outlet = raised('air-outlet-small', { elements: ['out'] })
    expect(
      told(outlet, raised('air-grille-closed', { subject: 'out', elements: ['out'] })).map((t) => t[0]),
    ).toEqual(['air-outlet-small'])
    expect(told(outlet, raised('air-grille-closed', { subject: 'in', elements: ['in'] }))).toHaveLength(2)
  })
  test('too little air leads what takes it and what comes of it', () => {
    expect(
      told(raised('air-outlet-small'), raised('need-flow-short'), raised('target-hotter', { subject: 't' })),
    ).toEqual([['need-flow-short', 'air-outlet-small', 'target-hotter']])
  })
  test('a note hides nothing that is to be fixed', () => {
    const eased = raised('air-inlet-small', { severity: 'note' })
    expect(told(eased, raised('port-intake-starved'))).toHaveLength(2)
    expect(told(eased, raised('air-grille-closed', { severity: 'note' }))).toEqual([
      ['air-inlet-small', 'air-grille-closed'],
    ])
  })
  test('with enough air two restrictions stay two', () => {
    expect(
      told(raised('air-inlet-small', { elements: ['in'] }), raised('air-outlet-small', { elements: ['out'] })),
    ).toHaveLength(2)
  })
  test('after a stop what cannot be believed rests, named after the message that is told', () => {
    const { told: list, rests } = byCause([
      raised('power-over-voltage'),
      raised('power-direct-too-high'),
      raised('need-margin-thin'),
      raised('noise-target-missed'),
      raised('wire-no-strain-relief'),
    ])
    expect(list.map((t) => t.finding.id)).toEqual(['power-direct-too-high', 'wire-no-strain-relief'])
    expect(rests.map((r) => [r.finding.id, r.after.id])).toEqual([
      ['need-margin-thin', 'power-direct-too-high'],
      ['noise-target-missed', 'power-direct-too-high'],
    ])
  })
})
