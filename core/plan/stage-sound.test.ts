import { expect, test } from 'vitest'
import { newReading, newRun, type FanState, type Reading } from '#core/document'
import { sumLevels } from '#core/noise'
import { rankNoiseSources } from '#core/verification'
import { demoFans } from '../../demo/fans'
import { demoPlan } from '../../demo/jobs'
import { predictionsOf } from '#core/advice'
import { computeReport } from './report'
import { soundByStage } from './stage-sound'

/** The planned fans by stage beside the readings, on the demo's machine of four streams. */

const plan = demoPlan('job-stencil-press')
const result = computeReport({ plan, fans: demoFans, shown: null })
if (!result.ok) throw new Error(result.reason)
const { report } = result
const planned = (id: string) => report.sound.sources.find((s) => s.id === id)!.level!
const reading = (stage: string, source: string, value: number): Reading => ({
  ...newReading(`${stage}-${source}`, 'level', 'chair', value),
  stage,
  source,
})
const fan = (stage: string, streamId: string, parts: Partial<FanState>): FanState => ({
  id: `${stage}-${streamId}`,
  stage,
  streamId,
  off: false,
  volts: null,
  duty: null,
  ...parts,
})
const run = {
  ...newRun('r', 'after' as const, '2026-01-01T10:00:00Z'),
  readings: [reading('idle', 'Gearbox', 30), reading('idle', 'Board', 20), reading('working', '', 40)],
  fans: [
    fan('idle', 'main', { volts: 12 }),
    fan('idle', 'stream-drum', { off: true }),
    fan('idle', 'stream-tray', { off: true }),
  ],
}
const stages = soundByStage(report, [run], rankNoiseSources([run], '', null).stages)
const idle = stages.find((s) => s.stage === 'idle')!
const working = stages.find((s) => s.stage === 'working')!

test('a fan at another voltage follows the sound law, one that is off is silent', () => {
  const supply = idle.fans.find((f) => f.id === 'main')!
  const { fanArray, volts } = report.streams[0]!
  // by hand: speed of a fan of this kind grows from its intercept: less than half of 24 V gives less than half the speed
  expect(fanArray).not.toBeNull()
  expect(volts).toBeCloseTo(24, 0)
  expect(planned('main') - supply.level!).toBeGreaterThan(50 * Math.log10(2) - 0.5)
  expect(planned('main') - supply.level!).toBeLessThan(50 * Math.log10(3))
  expect(idle.fans.find((f) => f.id === 'stream-drum')).toMatchObject({ off: true, level: null })
})

test('the sum is the fans that run with every other source as read, no source twice', () => {
  const supply = idle.fans.find((f) => f.id === 'main')!.level!
  // Board is a stream: its prediction counts, not its reading; the gearbox counts as read
  expect(idle.total).toBeCloseTo(sumLevels([supply, planned('stream-board'), 30])!, 9)
  expect(idle.unknown).toEqual([])
})

test('a stage that notes nothing runs as planned', () => {
  expect(working.fans.every((f) => !f.noted)).toBe(true)
  expect(working.total).toBeCloseTo(report.sound.total!, 9)
})

test('a level of everything is held against all fans, not against those of one stream', () => {
  const level = predictionsOf(report).find((p) => p.quantity === 'level')!
  expect(level.label).toBe('Sound level, all fans')
  expect(level.predicted).toBeCloseTo(report.sound.total!, 9)
  expect(level.low).toBeLessThan(level.predicted)
})
