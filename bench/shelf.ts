/** A shelf of thousands: searched, ranked for a job, brought in. */
import type { Fan } from '#core/document'
import { seeded } from '#core/numeric'
import { computeReport } from '#core/plan'
import { defaultRank, modelShelf, rankShelf } from '#core/selection'
import { demoFans } from '../demo/fans'
import { demoJobs } from '../demo/jobs'
import { line, time } from './measure'

const MANY = 20_000
/** The demo shelf multiplied: every fan a little different. */
export function multipliedShelf(count: number): Fan[] {
  const random = seeded(11)
  return Array.from({ length: count }, (_, i): Fan => {
    const fan = demoFans[i % demoFans.length]!
    const x = 0.8 + 0.4 * random()
    return {
      ...fan,
      id: `many-${i}`,
      model: `${fan.model} ${i}`,
      points: fan.points.map((p) => ({ flowM3s: p.flowM3s * x, pressurePa: p.pressurePa * x * x })),
      maxFlowM3s: fan.maxFlowM3s! * x,
      maxPressurePa: fan.maxPressurePa! * x * x,
      noiseDbA: fan.noiseDbA === null ? null : fan.noiseDbA + 50 * Math.log10(x),
    }
  })
}

export function benchSearch(): void {
  const shelf = modelShelf(multipliedShelf(MANY))
  for (const job of demoJobs().slice(0, 3)) {
    const made = computeReport({ shown: null, plan: job, fans: demoFans })
    if (!made.ok || !made.report.path.complete) continue
    const counts = Array.from({ length: 16 }, (_, i) => i + 1)
    const options = { ...defaultRank, counts, series: false, rows: 200 }
    const rank = time(() => rankShelf(made.report.selectionContext, shelf, options), 9)
    line(
      `searching ${MANY} fans x 16 counts x 10 levels: ${job.job.name}`,
      `${rank.toFixed(0)} ms`,
      'under 250 ms',
      rank < 250,
    )
  }
}
