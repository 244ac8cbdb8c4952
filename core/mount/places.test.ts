import { tell } from '../../tests/plans'
import { describe, expect, test } from 'vitest'
import { placesInUse, planSchema, seenAt, type StreamPlan, wholePlan } from '#core/document'
import { computeReport } from '#core/plan'
import { demoFans } from '../../demo/fans'
import { demoPlan } from '../../demo/jobs'
import { countPiece, piecesOf } from './index'

/** Fans at two places of one path: each place has its panel, its screws and its findings. */

const rack = () => structuredClone(demoPlan('job-tape-rack'))
const backOf = (plan: StreamPlan) => placesInUse(plan)[1]!
function reportOf(plan: StreamPlan) {
  const r = computeReport({ plan, fans: demoFans, shown: null })
  if (!r.ok) throw new Error(r.reason)
  return r.report
}

describe('the second place', () => {
  test('is seen by itself, and nothing is lost on the way back', () => {
    const plan = rack()
    const back = seenAt(plan, backOf(plan).id)
    expect(back.place).toMatchObject({ direction: 'out', holeM: 0.086 })
    expect(planSchema.parse(wholePlan(back))).toEqual(wholePlan(plan))
  })
  test('has its own fans, stack and screws', () => {
    const [floor, back] = reportOf(rack()).mounts
    expect([floor!.fan.model, floor!.count, back!.fan.model, back!.count]).toEqual([
      'Sedge 120',
      2,
      'Sedge 92',
      2,
    ])
    // each is told the depth of its own place: 50 and 45 mm for 25 mm of frame
    expect([floor!.leftM, back!.leftM]).toEqual([expect.closeTo(0.025, 9), expect.closeTo(0.02, 9)])
    expect([floor!.gapSide, back!.gapSide]).toEqual(['exhaust', 'intake'])
  })
  test('is judged by itself, by name, and says where it is mended', () => {
    const plan = rack()
    backOf(plan).fitDepthM = 0.02
    const told = reportOf(plan).findings.findings.filter((f) => f.id === 'fit-too-thick')
    expect(told.map((f) => [f.subject?.name, f.at.place, f.severity])).toEqual([
      ['Back', backOf(plan).id, 'stop'],
    ])
    // the same wrong at both is told for each
    tell(plan, { fitDepthM: 0.02 })
    const both = reportOf(plan).findings.findings.filter((f) => f.id === 'fit-too-thick')
    expect(both.map((f) => f.subject?.name).toSorted()).toEqual(['Back', 'Floor'])
  })
  test('counts its gap beside its own fans', () => {
    const plan = rack()
    const face = seenAt(plan, backOf(plan).id)
    const gap = piecesOf(face, reportOf(plan).mounts[1]!).find((p) => p.key === 'gap')!
    countPiece(face, gap)
    const ids = face.path.map((e) => e.id)
    expect(ids.indexOf(`fit-gap-${face.place.id}`)).toBe(ids.indexOf('back-fans') - 1)
    expect(piecesOf(face, reportOf(face).mounts[1]!).find((p) => p.key === 'gap')).toMatchObject({
      own: true,
      off: false,
    })
  })
})
