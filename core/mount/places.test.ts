import { describe, expect, test } from 'vitest'
import { facePlace, planSchema, type StreamPlan, wholePlan } from '#core/document'
import { computeReport } from '#core/plan'
import { demoFans } from '../../demo/fans'
import { demoPlan } from '../../demo/jobs'
import { countPiece, piecesOf } from './index'

/** Fans at two places of one path: each place has its panel, its screws and its findings. */

const rack = () => structuredClone(demoPlan('job-tape-rack'))
function reportOf(plan: StreamPlan) {
  const r = computeReport({ plan, fans: demoFans, shown: null })
  if (!r.ok) throw new Error(r.reason)
  return r.report
}

describe('the second place', () => {
  test('is turned to the front and back without a loss', () => {
    const plan = rack()
    const back = facePlace(plan, 1)
    expect(back.job).toMatchObject({ direction: 'out', holeM: 0.086, name: plan.job.name })
    expect(facePlace(back, 0)).toEqual({ ...plan, place: undefined })
    expect(planSchema.parse(wholePlan(plan)).streams[0]!.secondPlace).toEqual(plan.secondPlace)
  })
  test('of which nothing is told lets the air out that the first one lets in', () => {
    const bare = { ...rack(), secondPlace: null }
    expect(facePlace(bare, 1)).toMatchObject({ fit: null, job: { direction: 'out', holeM: null } })
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
    plan.secondPlace!.job.fitDepthM = 0.02
    const told = reportOf(plan).findings.findings.filter((f) => f.id === 'fit-too-thick')
    expect(told.map((f) => [f.subject?.name, f.at.place, f.severity])).toEqual([['Back', 1, 'stop']])
    // the same wrong at both is told for each
    plan.job.fitDepthM = 0.02
    const both = reportOf(plan).findings.findings.filter((f) => f.id === 'fit-too-thick')
    expect(both.map((f) => f.subject?.name).toSorted()).toEqual(['Back', 'Floor'])
  })
  test('counts its gap beside its own fans', () => {
    const plan = rack()
    const face = facePlace(plan, 1)
    const gap = piecesOf(face, reportOf(plan).mounts[1]!).find((p) => p.key === 'gap')!
    countPiece(face, gap)
    const ids = face.path.map((e) => e.id)
    expect(ids.indexOf('fit2-gap')).toBe(ids.indexOf('back-fans') - 1)
    expect(piecesOf(face, reportOf(facePlace(face, 0)).mounts[1]!).find((p) => p.key === 'gap')).toMatchObject({
      own: true,
      off: false,
    })
  })
})
