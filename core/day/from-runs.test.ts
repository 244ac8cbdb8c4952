import { expect, test } from 'vitest'
import { newReading, newRun } from '#core/document'
import { measuredPart, placesRead, soakedAt } from './from-runs'

const run = (id: string, warm: number, more: object) => ({
  ...newRun(id, 'after', '2026-01-01T10:00:00Z'),
  heatW: 60,
  ambientC: 22,
  readings: [newReading(`${id}-r`, 'temperature', 'sink', warm)],
  ...more,
})
test('two runs, fans on and off, tell all three numbers of a part', () => {
  const runs = [run('off', 72, { fanV: 0 }), run('on', 37, { fanV: 12, tauS: 400 })]
  expect(placesRead(runs)).toEqual(['sink'])
  const told = measuredPart(soakedAt(runs, 'Sink', 1))
  // 60 W over 15 K and over 50 K; 400 s · 4 W/K
  expect(told).toEqual({
    movedWK: 4,
    stillWK: 1.2,
    capacityJK: 1600,
    massKg: null,
    material: null,
    basis: 'measured',
  })
})
test('a run without load, ambient or rise tells nothing', () => {
  const runs = [run('a', 37, { heatW: null }), run('b', 37, { ambientC: null }), run('c', 22, {})]
  expect(soakedAt(runs, 'sink', 1)).toEqual([])
  expect(measuredPart([])).toEqual({})
})
