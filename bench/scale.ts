import { newPlan, seenFrom } from '#core/document'
/** What grows with what: jobs, fans, rows and people, each measured at two or three sizes: npm run bench:scale. */
import { BLOCK_ROWS, encodeBlock } from '#shared/log-blocks'
import { fanQuerySchema, IMPORT_PART } from '#shared/schemas/fan'
import { normal, seeded } from '#core/numeric'
import { computeReport } from '#core/plan'
import { defaultRank, rankSteps } from '#core/selection'
import { demoFans } from '../demo/fans'
import { demoJobs } from '../demo/jobs'
import { writeBackup } from '../server/backup/write'
import type { Database } from '../server/db/database'
import { importFans, pageOfFans } from '../server/db/repositories/fans'
import { createPlan, getPlan, savePlan } from '../server/db/repositories/jobs'
import { createLog, putBlock, readLogBlocks } from '../server/db/repositories/logs'
import { breathe } from '../server/utils/breathe'
import { heldShelf } from '../server/utils/held-shelf'
import { inPieces } from '#shared/pieces'
import { summaries } from '../server/utils/summaries'
import { memoryDatabase } from '../tests/api/harness'

const took = async (work: () => Promise<unknown>) => {
  const from = performance.now()
  await work()
  return performance.now() - from
}
const median = async (work: () => Promise<unknown>, repeats = 7) => {
  const times: number[] = []
  for (let i = 0; i < repeats; i++) times.push(await took(work))
  return times.sort((a, b) => a - b)[repeats >> 1]!
}
const ms = (x: number) => `${x < 10 ? x.toFixed(1) : x.toFixed(0)} ms`
const row = (...cells: (string | number)[]) => console.log(`| ${cells.join(' | ')} |`)

async function jobsOf(db: Database, from: number, to: number) {
  const plans = demoJobs()
  for (let i = from; i < to; i++) {
    const { job, ...plan } = plans[i % plans.length]!
    await createPlan(db, { ...plan, job: { ...job, id: `job-${i}`, variantOf: null } })
  }
}
async function jobs() {
  console.log('\njobs | known list | one opened | one saved | whole backup')
  const db = await memoryDatabase()
  await importFans(db, demoFans)
  let there = 0
  for (const n of [20, 200, 1000]) {
    await jobsOf(db, there, n)
    there = n
    await summaries(db, false)
    let margin = 0
    const save = async () => {
      const { plan, revision } = await getPlan(db, 'job-3')
      plan.streams[0]!.job.margin = margin += 0.001
      await savePlan(db, plan, revision)
    }
    let bytes = 0
    const backup = await took(async () => {
      for await (const part of writeBackup(db, null, '2026-01-01T00:00:00Z')) bytes += part.length
    })
    row(
      n,
      ms(await median(() => summaries(db, true))),
      ms(await median(() => getPlan(db, 'job-3'))),
      ms(await median(save)),
      `${(backup / 1000).toFixed(1)} s, ${(bytes / 1e6).toFixed(2)} MB`,
    )
  }
  await db.close()
}
async function fans() {
  console.log('\nfans | import of 500 more | a page of 100 | a search in words | read ahead | a line-up')
  const made = computeReport({ plan: seenFrom(demoJobs()[0]!), fans: demoFans, shown: null })
  if (!made.ok) throw new Error(made.reason)
  const { selectionContext } = made.report
  const db = await memoryDatabase()
  const page = (text: string) => pageOfFans(db, fanQuerySchema.parse({ text }))
  let there = 0
  const part = () =>
    Array.from({ length: IMPORT_PART }, () => {
      const fan = demoFans[there % demoFans.length]!
      return { ...fan, id: `fan-${there}`, model: `${fan.model} ${there++}` }
    })
  for (const n of [500, 5000, 20_000]) {
    while (there < n - IMPORT_PART) await importFans(db, part())
    const one = await took(() => importFans(db, part()))
    const ahead = await took(() => heldShelf(db, 'claims'))
    const rank = async () =>
      inPieces(rankSteps(selectionContext, await heldShelf(db, 'claims'), defaultRank), breathe)
    row(
      n,
      ms(one),
      ms(await median(() => page(''))),
      ms(await median(() => page('sedge'))),
      `${ms(ahead)} (what is new)`,
      ms(await median(rank)),
    )
  }
  await db.close()
}
async function rows() {
  console.log('\nrows of 8 channels | stored | read | on the disk')
  const db = await memoryDatabase()
  await createPlan(db, newPlan('job-rows', 'Rows'))
  for (const n of [20_000, 200_000, 2_000_000]) {
    const [{ id: jobId }] = (await db.query<{ id: string }>('SELECT id FROM job LIMIT 1')) as [{ id: string }]
    const id = `log-${n}`
    const channels = Array.from({ length: 8 }, (_, i) => ({ name: `c${i}`, quantity: 'temperature' as const }))
    await createLog(db, jobId, {
      id,
      name: id,
      origin: 'imported',
      startedAt: '2026-01-01T00:00:00Z',
      instrumentId: null,
      channels,
      remarks: '',
    })
    const gauss = normal(seeded(7))
    const data = encodeBlock(
      Array.from({ length: BLOCK_ROWS }, (_, i) => i),
      channels.map(() => Array.from({ length: BLOCK_ROWS }, () => Number((40 + 0.1 * gauss()).toFixed(2)))),
    )
    const count = Math.max(1, Math.round(n / BLOCK_ROWS))
    const store = await took(async () => {
      for (let seq = 0; seq < count; seq++) await putBlock(db, id, { seq, rows: BLOCK_ROWS, channels: 8, data })
    })
    const read = await took(async () => {
      for (let after = -1, more = true; more;) {
        const got = await readLogBlocks(db, id, after, 8e6)
        more = got.more
        after = got.blocks.at(-1)!.seq
      }
    })
    row(count * BLOCK_ROWS, ms(store), ms(read), `${((count * data.length) / 1e6).toFixed(1)} MB`)
  }
  await db.close()
}
async function people() {
  console.log('\npeople, each saving a job of their own at once | each waits')
  const db = await memoryDatabase()
  await importFans(db, demoFans)
  await jobsOf(db, 0, 100)
  for (const n of [1, 10, 100]) {
    const read = await Promise.all(Array.from({ length: n }, (_, i) => getPlan(db, `job-${i}`)))
    const waits: number[] = []
    await Promise.all(
      read.map(async ({ plan, revision }) => {
        waits.push(await took(() => savePlan(db, { ...plan, job: { ...plan.job, complaint: 'x' } }, revision)))
      }),
    )
    row(n, ms(waits.sort((a, b) => a - b)[n >> 1]!))
  }
  await db.close()
}
await jobs()
await fans()
await rows()
await people()
