import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { describe, expect, test } from 'vitest'
import { completePlan, planSchema, type PlanDocument } from '#core/document'
import { demoFans } from '../../demo/fans'
import { computeReport } from '#core/plan'
import { seenFrom } from '#core/document'
import { migrate } from '../../server/db/migrate'
import { getPlan } from '../../server/db/repositories/jobs'
import { bareDatabase, migrations } from './harness'

/**
 * What every earlier version of the tables and of plan files held opens today. `tests/data/steps` has one file for each
 * migration: a few jobs of the invented workshop as plan files of that time had them, and the rows of the tables.
 */

interface Step {
  /** name of the newest migration of that time */
  migration: string
  plans: { job: { id: string } }[]
  rows: Record<string, Record<string, unknown>[]>
}
const folder = join(import.meta.dirname, '..', 'data', 'steps')
const steps = readdirSync(folder).map((name): [string, Step] => [
  name.slice(0, 3),
  JSON.parse(gunzipSync(readFileSync(join(folder, name))).toString()) as Step,
])
const opened = (raw: unknown): PlanDocument => planSchema.parse(completePlan(raw))

describe('plan files', () => {
  test.each(steps)('of step %s open, and give a report', (_, { plans }) => {
    for (const raw of plans) {
      const plan = opened(raw)
      expect(plan.streams.some((s) => s.path.length > 0)).toBe(true)
      expect(opened(plan)).toEqual(plan)
      expect(computeReport({ plan: seenFrom(plan), fans: demoFans, shown: null }).ok).toBe(true)
    }
  })
})

describe('tables', () => {
  test.each(steps)(
    'of step %s are brought up to date: the jobs are those of its plan files',
    async (_, step) => {
      const at = migrations.findIndex((m) => m.name === step.migration)
      expect(at).toBeGreaterThan(0)
      const db = await bareDatabase(migrations.slice(0, at + 1))
      await db.script("SET session_replication_role = 'replica'")
      for (const [table, rows] of Object.entries(step.rows)) {
        const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))].map((c) => `"${c}"`).join(', ')
        await db.query(
          `INSERT INTO ${table} (${columns}) SELECT ${columns} FROM jsonb_populate_recordset(NULL::${table}, $1)`,
          [JSON.stringify(rows)],
        )
      }
      await db.script("SET session_replication_role = 'origin'")
      for (const migration of migrations.slice(at + 1))
        await db.transaction((tx) => migrate(tx, migration, () => {}))
      for (const raw of step.plans) expect((await getPlan(db, raw.job.id)).plan).toEqual(opened(raw))
      await db.close()
    },
  )
})
