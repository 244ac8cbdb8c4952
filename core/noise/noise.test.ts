import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { afterReduction, allowedTime, dose, leq, maxDrop, nextToFix, reductionForTarget } from './budget'
import {
  atDistance,
  atSpeed,
  aWeighting,
  backgroundClass,
  bladePass,
  criticalDistance,
  exactBand,
  identicalLevels,
  loudnessRatio,
  minusBackground,
  phonToSone,
  powerToPressure,
  readingClass,
  roomLevel,
  soneToDbA,
  spectrumToDbA,
  sumLevels,
} from './levels'
import { isolatorFrequency, transmissibility } from './mounts'

const level = fc.double({ min: 0, max: 100, noNaN: true })

describe('sums', () => {
  test('a sum is never below the loudest, and the order does not matter', () => {
    fc.assert(
      fc.property(fc.array(level, { minLength: 1, maxLength: 6 }), (levels) => {
        const sum = sumLevels(levels)!
        expect(sum).toBeGreaterThanOrEqual(Math.max(...levels) - 1e-9)
        expect(sum).toBeLessThanOrEqual(Math.max(...levels) + 10 * Math.log10(levels.length) + 1e-9)
        expect(sumLevels([...levels].reverse())).toBeCloseTo(sum, 9)
      }),
    )
    expect(sumLevels([])).toBeNull()
    expect(identicalLevels(30, 2)).toBeCloseTo(sumLevels([30, 30])!, 12)
  })
  test('taking the background off again', () => {
    fc.assert(
      fc.property(level, fc.double({ min: 3.1, max: 14, noNaN: true }), (background, over) => {
        expect(sumLevels([minusBackground(background + over, background)!, background])).toBeCloseTo(
          background + over,
          8,
        )
      }),
    )
  })
  test('what cannot be told apart from the background has no value', () => {
    expect(minusBackground(32, 30)).toBeNull()
    expect(minusBackground(29, 30)).toBeNull()
    expect([16, 10, 4, 2].map((d) => backgroundClass(30 + d, 30))).toEqual([
      'no-correction',
      'corrected',
      'survey',
      'invalid',
    ])
  })
})

describe('distance, speed, room', () => {
  test('6 dB per doubling, 15 dB at half speed', () => {
    expect(atDistance(40, 1, 2)).toBeCloseTo(33.98, 2)
    expect(atSpeed(40, 2000, 1000)).toBeCloseTo(24.95, 2)
    expect(atSpeed(40, 2000, 0)).toBeNull()
  })
  test('a source on the floor is 3 dB louder than in free space; far away in a room only the room counts', () => {
    expect(powerToPressure(50, 1, 'hemisphere') - powerToPressure(50, 1, 'sphere')).toBeCloseTo(3.01, 2)
    expect(roomLevel(50, 50, 1, 60, 0.2) - roomLevel(50, 100, 1, 60, 0.2)).toBeLessThan(0.05)
    const r = criticalDistance(1, 60, 0.2)
    expect(roomLevel(50, r, 1, 60, 0.2) - powerToPressure(50, r, 'sphere')).toBeCloseTo(3.01, 2)
  })
  test('10 dB sounds about twice as loud (common practice, no source); 40 phon is one sone', () => {
    expect(loudnessRatio(10)).toBe(2)
    expect(phonToSone(40)).toBe(1)
    expect(phonToSone(39.999)).toBeCloseTo(1, 3)
    expect(soneToDbA(1)).toBe(28)
  })
  test('A-weighting is 0 at 1 kHz, and nominal bands stand for exact ones', () => {
    expect(aWeighting(1000)).toBeCloseTo(0, 2)
    expect(exactBand(63)).toBeCloseTo(63.096, 3)
    expect(spectrumToDbA([1000, 1000], [40, 40])).toBeCloseTo(43.01, 1)
  })
  test('blade-pass line and soft mounts', () => {
    expect(bladePass(1200, 7)).toBe(140)
    expect(isolatorFrequency(0.001)).toBeCloseTo(15.76, 2)
    // three times above the mount's own frequency an eighth passes
    expect(transmissibility(60 * 3 * 5, 5)).toBeCloseTo(0.125, 9)
    expect(transmissibility(300, 5)).toBeNull()
  })
})

describe('the budget', () => {
  const sources = [38, 35, 28]
  test('the loudest is next; without it the others remain', () => {
    expect(nextToFix(sources)).toBe(0)
    expect(sumLevels(sources)! - maxDrop(sources)!).toBeCloseTo(sumLevels([35, 28])!, 9)
    expect(maxDrop([30])).toBeNull()
    expect(afterReduction(sources, 0, 100)).toBeCloseTo(sumLevels([35, 28])!, 6)
  })
  test('the reduction asked for reaches the target; the rest may make it impossible', () => {
    const d = reductionForTarget(sources, 0, 37)!
    expect(afterReduction(sources, 0, d)).toBeCloseTo(37, 9)
    expect(reductionForTarget(sources, 0, 34)).toBeNull()
    expect(reductionForTarget(sources, 0, 45)!).toBeLessThan(0)
  })
  test('time averages and the daily dose (NIOSH: 85 dB(A) for 8 h)', () => {
    expect(leq([40, 40], [1, 5])).toBeCloseTo(40, 9)
    expect(leq([40], [0])).toBeNull()
    expect(allowedTime(88) / 60).toBe(240)
    expect(dose([85, 88], [4 * 3600, 2 * 3600])).toBeCloseTo(1, 9)
  })
  test('readings at the floor of a meter are upper bounds', () => {
    expect([28, 31, 34].map((x) => readingClass(x, 30))).toEqual(['implausible', 'at-floor', 'usable'])
  })
})
