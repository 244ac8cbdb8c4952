import { describe, expect, test } from 'vitest'
import { newReading, newRun, type FanState, type Reading, type Run } from '#core/document'
import { compareRuns } from './comparison'

/** Runs of several stages: load, soak and the fans of every air stream belong to the stage. */

const names = new Map([
  ['main', 'Supply'],
  ['board', 'Board'],
])
const fans = (stage: string, streamId: string, state: Partial<FanState>): FanState => ({
  id: `${stage}-${streamId}`,
  stage,
  streamId,
  off: false,
  volts: null,
  duty: null,
  ...state,
})
const read = (quantity: Reading['quantity'], value: number, stage: string): Reading => ({
  ...newReading(`${quantity}-${stage}`, quantity, 'chair', value),
  stage,
})
const run = (kind: Run['kind'], parts: Partial<Run>): Run => ({
  ...newRun(kind, kind, kind === 'baseline' ? '2026-01-01T10:00:00Z' : '2026-01-02T10:00:00Z'),
  stage: 'working',
  ambientC: 20,
  ...parts,
})
const compared = (before: Partial<Run>, after: Partial<Run>, quietens = false) =>
  compareRuns([run('baseline', before)], [run('after', after)], quietens, names).comparisons[0]!

describe('load and soak of a stage', () => {
  const idle = (heatW: number | null, value: number, soakS: number | null = 1800): Partial<Run> => ({
    // the run's own stage carries another load, which must not touch a reading of "idle"
    heatW: 400,
    stages: [{ id: 'i', stage: 'idle', heatW, soakS }],
    readings: [read('temperature', value, 'idle')],
  })
  test('a rise is scaled to the load of its own stage', () => {
    // by hand: 10 K at 50 W before; 12 K at 40 W after is 15 K at 50 W
    const c = compared(idle(50, 30), idle(40, 32))
    expect(c.before).toBeCloseTo(10, 9)
    expect(c.after).toBeCloseTo(15, 9)
    expect(c.refused).toBe('')
  })
  test('without a load of the stage nothing is scaled', () => {
    expect(compared(idle(null, 30), idle(40, 32)).after).toBeCloseTo(12, 9)
  })
  test('soaks of the stage are held against each other', () => {
    expect(compared(idle(50, 30, 1800), idle(50, 28, 600)).refused).toMatch(/soaks differ/)
    expect(compared(idle(50, 30, 1800), idle(50, 28, 1790)).refused).toBe('')
  })
})

describe('what the fans did', () => {
  const level = (list: FanState[], changed: Run['changed'] = null): Partial<Run> => ({
    fans: list,
    changed,
    readings: [read('level', 40, 'idle')],
  })
  const onOff = (off: boolean) => fans('idle', 'board', { off, volts: off ? null : 12 })
  test('a fan that stood before and ran after refuses the stage, by its name', () => {
    const { refused } = compared(level([onOff(true)]), level([onOff(false)], 'path'))
    expect(refused).toBe('the fans of Board were off before and at 12 V after')
  })
  test('where the fan was the change, one stream may differ, two may not', () => {
    const main = (volts: number) => fans('idle', 'main', { volts })
    expect(compared(level([onOff(true)]), level([onOff(false)], 'fan')).refused).toBe('')
    expect(compared(level([main(24), onOff(true)]), level([main(12), onOff(false)], 'fan')).refused).toMatch(
      /not the only ones/,
    )
  })
  test('alike within two per cent, or not noted, says nothing', () => {
    const at = (volts: number | null, duty: number | null = null) =>
      level([fans('idle', 'board', { volts, duty })])
    expect(compared(at(12), at(12.2)).refused).toBe('')
    expect(compared(at(12), at(12.5)).refused).not.toBe('')
    expect(compared(at(12, 0.5), at(12, 0.6)).refused).toContain('at 12 V, 60 % after')
    expect(compared(at(12), level([])).refused).toBe('')
    expect(compared(at(null), at(7)).refused).toBe('')
  })
  test('another stage’s fans do not touch this one', () => {
    const other = (off: boolean) => level([fans('everything on', 'board', { off })])
    expect(compared(other(true), other(false)).refused).toBe('')
  })
  test('the run’s own stage is told without its name', () => {
    const own = (off: boolean): Partial<Run> => ({
      fans: [fans('', 'board', { off })],
      readings: [read('level', 40, 'working')],
    })
    expect(compared(own(true), own(false)).refused).toContain('Board')
  })
})
