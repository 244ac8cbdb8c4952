/** A shelf of thousands: searched, ranked for a job, brought in. */
import type { Fan } from '#core/document'
import { seeded } from '#core/numeric'
import { computeReport } from '#core/plan'
import { defaultRank, modelShelf, rankSteps } from '#core/selection'
import { rankShelf } from '../tests/ranked'
import { readTable, tableReader, writeCsv } from '#shared/exchange/shelf-file'
import { IMPORT_PART, importSchema } from '#shared/schemas/fan'
import { demoFans } from '../demo/fans'
import { demoPlans } from '../demo/jobs'
import { importFans } from '../server/db/repositories/fans'
import { breathe } from '../server/utils/breathe'
import { heldShelf } from '../server/utils/held-shelf'
import { inPieces } from '#shared/pieces'
import { memoryDatabase } from '../tests/api/harness'
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
  for (const job of demoPlans().slice(0, 3)) {
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

const timed = async (work: () => unknown): Promise<number> => {
  const from = performance.now()
  await work()
  return performance.now() - from
}
const TABLES = ['fan', 'fan_point', 'fan_curve', 'fan_curve_point', 'fan_source', 'fan_test']

/** A long shelf comes in from a table, and is ranked for a job where it is kept. */
export async function benchShelf(): Promise<void> {
  const text = writeCsv(multipliedShelf(MANY))
  const fans: Fan[] = []
  const parsing = await timed(() => {
    const table = readTable(text)
    if (typeof table === 'string') throw new Error(table)
    for (const { fan } of tableReader(table, () => undefined)(0, table.rows.length)) if (fan) fans.push(fan)
  })
  const [db, other] = [await memoryDatabase(), await memoryDatabase()]
  const writing = await timed(async () => {
    for (let from = 0; from < fans.length; from += IMPORT_PART) {
      const body = JSON.stringify({ fans: fans.slice(from, from + IMPORT_PART) })
      await importFans(db, importSchema.parse(JSON.parse(body)).fans)
    }
  })
  const bulk: number[] = []
  for (const table of TABLES) {
    const [row] = await db.query<{ rows: string }>(
      `SELECT coalesce(jsonb_agg(to_jsonb(t)), '[]')::text AS rows FROM ${table} t`,
    )
    const insert = `INSERT INTO ${table} SELECT * FROM jsonb_populate_recordset(NULL::${table}, $1::jsonb)`
    bulk.push(await timed(() => other.query(insert, [row!.rows])))
  }
  const least = parsing + bulk.reduce((a, b) => a + b, 0)
  line(
    `importing ${fans.length} fans over parsing and one bulk insert`,
    `${((parsing + writing) / least).toFixed(1)} x`,
    'within 3 x',
    parsing + writing <= 3 * least,
  )
  const job = demoPlans()[0]!
  const made = computeReport({ shown: null, plan: job, fans: demoFans })
  if (!made.ok) throw new Error(made.reason)
  const context = made.report.selectionContext
  const first = await timed(() => heldShelf(db, 'claims'))
  const rank = async () => inPieces(rankSteps(context, await heldShelf(db, 'claims'), defaultRank), breathe)
  await rank()
  const again = await timed(rank)
  line(
    `line-up of ${fans.length} fans, asked of the server`,
    `${again.toFixed(0)} ms`,
    'under 1000 ms',
    again < 1000,
  )
  console.log(`      the shelf read and made ready once, ahead of the first: ${(first / 1000).toFixed(1)} s`)
  await Promise.all([db.close(), other.close()])
}
