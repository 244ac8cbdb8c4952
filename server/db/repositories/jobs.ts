import {
  fanIdsOf,
  mergePlans,
  newPlan,
  planSchema,
  type Fan,
  type PlanDocument,
  type Goal,
} from '#core/document'
import type { SavedPlan, StoredPlan } from '#shared/api'
import { baseOf, rememberBase } from '../bases'
import type { Database, Queryable } from '../database'
import { Conflict, NotFound, Refused } from '../errors'
import { addUnknownFans } from './fans'
import { JOB } from '../owners'
import { ownColumns, ownFields, ownRow, partStore } from '../parts'

const PARTS = partStore(JOB)
const COLUMNS = ownColumns(JOB)
const SELECT_ALL = `SELECT ${ownFields(JOB)}, o.revision, o.created_at, o.updated_at, o.deleted_at,
  ${PARTS.select}
  FROM job o`
const SELECT_PLANS = `${SELECT_ALL} WHERE o.deleted_at IS NULL`
const INSERT_JOB = `INSERT INTO job (${COLUMNS}) SELECT ${COLUMNS} FROM jsonb_populate_record(NULL::job, $1::jsonb)`
const UPDATE_JOB = `UPDATE job SET (${COLUMNS}) = (SELECT ${COLUMNS} FROM jsonb_populate_record(NULL::job, $2::jsonb)),
  revision = revision + 1, updated_at = now()
  WHERE id = $1 AND revision = $3 RETURNING revision, updated_at`
/** How often a save begins anew because somebody else was faster: the second time it holds the job. */
const TRIES = 3

const held = (plan: PlanDocument) => ({ id: plan.job.id, document: plan })

const UNKNOWN_FANS = `SELECT id FROM jsonb_array_elements_text($1::jsonb) AS asked (id) WHERE id NOT IN (SELECT id FROM fan)`
/** Fans a plan speaks of must exist: a clear message before the database's own refusal. */
async function checkFans(tx: Queryable, plan: PlanDocument): Promise<void> {
  const [unknown] = await tx.query<{ id: string }>(UNKNOWN_FANS, [JSON.stringify(fanIdsOf(plan))])
  if (!unknown) return
  const named = plan.streams.flatMap(
    ({ job, places, calibration }, i) =>
      [
        ...places.flatMap(({ fans }, k) =>
          fans.map(({ fanId }) => [`plan.streams.${i}.places.${k}.fans`, fanId] as const),
        ),
        [`plan.streams.${i}.job.existingFanId`, job.existingFanId],
        [`plan.streams.${i}.calibration.fanId`, calibration?.fanId],
      ] as const,
  )
  const field = named.find(([, id]) => id === unknown.id)?.[0] ?? 'plan.feed'
  throw new Refused('This fan is not on the shelf.', field)
}

interface PlanRow extends Record<string, unknown> {
  revision: number
  created_at: Date
  updated_at: Date
  deleted_at: Date | null
}
const documentOf = ({ revision: _, created_at: __, updated_at: ___, deleted_at: ____, ...row }: PlanRow) => ({
  ...row,
  wiring: row.wiring ?? undefined,
  job: row,
})
const stored = (row: PlanRow, plan: PlanDocument): StoredPlan => ({
  plan,
  revision: row.revision,
  updatedAt: row.updated_at.toISOString(),
})
const storedPlan = (row: PlanRow): StoredPlan => stored(row, planSchema.parse(documentOf(row)))

/** A job whose rows no longer make a plan: named, so that it can be looked after, and in nobody's way. */
export interface UnreadablePlan {
  id: string
  name: string
  revision: number
  updatedAt: string
  problem: string
}
export type ListedPlan = StoredPlan | UnreadablePlan

const readRow = (row: PlanRow): ListedPlan => {
  const read = planSchema.safeParse(documentOf(row))
  if (read.success) return stored(row, read.data)
  const [issue] = read.error.issues
  return {
    id: String(row.id),
    name: String(row.name),
    revision: row.revision,
    updatedAt: row.updated_at.toISOString(),
    problem: `${issue!.path.join('.')}: ${issue!.message}`,
  }
}

/** A job with its whole plan, or why it cannot be read; null where it is not there. */
export async function readPlan(db: Queryable, id: string): Promise<ListedPlan | null> {
  const [row] = await db.query<PlanRow>(`${SELECT_PLANS} AND o.id = $1`, [id])
  return row ? readRow(row) : null
}

/** A job without its plan. */
export interface JobHead {
  id: string
  name: string
  goal: Goal
  equipment: string
  variantOf: string | null
  revision: number
  updatedAt: string
}
/** All jobs that are not deleted, newest change first, without their plans. */
export async function listHeads(db: Queryable): Promise<JobHead[]> {
  const rows = await db.query<Omit<JobHead, 'updatedAt'> & { updated_at: Date }>(
    `SELECT id, name, (SELECT job ->> 'goal' FROM air_stream WHERE job_id = o.id AND position = 0) AS goal,
        equipment, variant_of AS "variantOf", revision, updated_at
      FROM job o
      WHERE deleted_at IS NULL
      ORDER BY updated_at DESC, name`,
  )
  return rows.map(({ updated_at, ...head }) => ({ ...head, updatedAt: updated_at.toISOString() }))
}

/** @throws NotFound */
export async function getPlan(db: Queryable, id: string): Promise<StoredPlan> {
  const [row] = await db.query<PlanRow>(`${SELECT_PLANS} AND o.id = $1`, [id])
  if (!row) throw new NotFound('job')
  return storedPlan(row)
}

/** Makes a job from nothing, or stores a whole plan (demo, copies). */
export const createPlan = (db: Database, plan: PlanDocument): Promise<StoredPlan> =>
  db.transaction((tx) => insertPlan(tx, plan))

async function layPlan(tx: Queryable, plan: PlanDocument): Promise<void> {
  await checkFans(tx, plan)
  await tx.query(INSERT_JOB, [ownRow(JOB, plan.job)])
  await PARTS.write(tx, [], [held(plan)])
}
async function insertPlan(tx: Queryable, plan: PlanDocument): Promise<StoredPlan> {
  await layPlan(tx, plan)
  return getPlan(tx, plan.job.id)
}

/**
 * Takes a job from a file under an id of its own, with the fans it speaks of, in one transaction. Its pictures stay where
 * they are: they do not travel in the file.
 */
export const importPlan = (
  db: Database,
  id: string,
  { plan, fans }: { plan: PlanDocument; fans: readonly Fan[] },
): Promise<StoredPlan> =>
  db.transaction(async (tx) => {
    const spoken = new Set(fanIdsOf(plan))
    await addUnknownFans(
      tx,
      fans.filter((f) => spoken.has(f.id)),
    )
    return insertPlan(tx, {
      ...plan,
      job: { ...plan.job, id, variantOf: null },
      runs: plan.runs.map((run) => ({ ...run, photoId: null })),
    })
  })

/** All jobs, archived ones too, those first that variants belong to. */
export const jobIds = async (db: Queryable): Promise<string[]> =>
  (await db.query<{ id: string }>('SELECT id FROM job ORDER BY variant_of IS NOT NULL, created_at, id')).map(
    (r) => r.id,
  )

/** A job as it is kept, with its plan or, where that cannot be read, its rows. */
export interface KeptJob {
  plan: PlanDocument | null
  rows: object
  revision: number
  archived: boolean
  createdAt: string
  updatedAt: string
}
export async function keptJob(db: Queryable, id: string): Promise<KeptJob | null> {
  const [row] = await db.query<PlanRow>(`${SELECT_ALL} WHERE o.id = $1`, [id])
  if (!row) return null
  const rows = documentOf(row)
  const read = planSchema.safeParse(rows)
  return {
    plan: read.success ? read.data : null,
    rows,
    revision: row.revision,
    archived: row.deleted_at !== null,
    createdAt: row.created_at.toISOString(),
    updatedAt: row.updated_at.toISOString(),
  }
}
/** Writes a job as it was kept, over the one of its id where there is one; its revision moves on. */
export async function putJob(
  db: Database,
  {
    plan,
    archived,
    createdAt,
    updatedAt,
  }: Pick<KeptJob, 'archived' | 'createdAt' | 'updatedAt'> & { plan: PlanDocument },
): Promise<void> {
  const { id } = plan.job
  const [there] = await db.query<{ revision: number }>('SELECT revision FROM job WHERE id = $1', [id])
  if (there) {
    await db.query('UPDATE job SET deleted_at = NULL WHERE id = $1', [id])
    await savePlan(db, plan, there.revision)
  } else await layPlan(db, plan)
  await db.query(
    `UPDATE job SET created_at = $2, updated_at = $3, deleted_at = CASE WHEN $4::boolean THEN now() END WHERE id = $1`,
    [id, createdAt, there ? new Date().toISOString() : updatedAt, archived],
  )
}

export const createJob = (db: Database, id: string, name: string) => createPlan(db, newPlan(id, name))

/**
 * Saves a whole document in one transaction. Where it was saved elsewhere in the meantime, what only one side touched is
 * kept from both.
 * @param revision the one the document was read at
 * @throws NotFound, Conflict (the same thing was changed elsewhere), Refused (unknown fan)
 */
export async function savePlan(db: Database, plan: PlanDocument, revision: number): Promise<SavedPlan> {
  const { id } = plan.job
  if (plan.job.variantOf === id) throw new Refused('A job cannot be its own variant.', 'plan.job.variantOf')
  const base = baseOf(db, id, revision)
  const saved = await db.transaction(async (tx): Promise<SavedPlan> => {
    for (let tried = 1; ; tried++) {
      // locked before it is read, and only once somebody was faster: one statement that waits would see the job as it is
      // after the wait, and its parts as they were before
      if (tried > 1) await tx.query('SELECT 1 FROM job WHERE id = $1 FOR UPDATE', [id])
      const [row] = await tx.query<PlanRow>(`${SELECT_PLANS} AND o.id = $1`, [id])
      if (!row) throw new NotFound('job')
      const stored = storedPlan(row)
      const together = stored.revision === revision ? null : putTogether(base, plan, stored)
      const next = together?.plan ?? plan
      if (fanIdsOf(next).join() !== fanIdsOf(stored.plan).join()) await checkFans(tx, next)
      const [written] = await tx.query<{ revision: number; updated_at: Date }>(UPDATE_JOB, [
        id,
        ownRow(JOB, next.job),
        stored.revision,
      ])
      if (written) {
        await PARTS.write(tx, [held(stored.plan)], [held(next)])
        const { revision: at, updated_at } = written
        return { revision: at, updatedAt: updated_at.toISOString(), ...together }
      }
      if (tried >= TRIES) throw new Conflict(stored.revision)
    }
  })
  rememberBase(db, saved.plan ?? plan, saved.revision)
  return saved
}
/** What both sides made of a job. @throws Conflict where they changed the same thing, or nobody knows from what */
function putTogether(
  base: PlanDocument | null,
  mine: PlanDocument,
  stored: StoredPlan,
): { plan: PlanDocument; twice: string[] } {
  const both = base && mergePlans(base, mine, stored.plan)
  const checked = both && planSchema.safeParse(both.plan)
  if (!checked?.success) throw new Conflict(stored.revision)
  return { plan: checked.data, twice: both!.twice }
}

/** The job a variant belongs to, or itself. @throws NotFound */
async function rootOf(db: Queryable, id: string): Promise<string> {
  const [row] = await db.query<{ root: string }>(
    'SELECT coalesce(variant_of, id) AS root FROM job WHERE id = $1 AND deleted_at IS NULL',
    [id],
  )
  if (!row) throw new NotFound('job')
  return row.root
}

/** Keeps a plan beside the job it came from. @throws NotFound */
export async function createVariant(
  db: Database,
  from: string,
  id: string,
  name: string,
  plan: PlanDocument,
): Promise<StoredPlan> {
  const variantOf = await rootOf(db, from)
  return createPlan(db, { ...plan, job: { ...plan.job, id, name, variantOf } })
}

/** A job and all its variants, the first one first. @throws NotFound */
export async function listVariants(db: Database, id: string): Promise<StoredPlan[]> {
  const root = await rootOf(db, id)
  const rows = await db.query<PlanRow>(
    `${SELECT_PLANS} AND (o.id = $1 OR o.variant_of = $1) ORDER BY o.created_at, o.id`,
    [root],
  )
  return rows.map(storedPlan)
}

/** Puts a job aside, and ends what is recorded for it; `restoreJob` brings it back. @throws NotFound */
export async function deleteJob(db: Database, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const rows = await tx.query(
      'UPDATE job SET deleted_at = now(), updated_at = now() WHERE id = $1 AND deleted_at IS NULL RETURNING id',
      [id],
    )
    if (!rows.length) throw new NotFound('job')
    await tx.query(
      'UPDATE log SET open = false, updated_at = now(), revision = revision + 1 WHERE job_id = $1 AND open',
      [id],
    )
  })
}

/** @throws NotFound */
export async function restoreJob(db: Database, id: string): Promise<void> {
  const rows = await db.query(
    'UPDATE job SET deleted_at = NULL, updated_at = now() WHERE id = $1 AND deleted_at IS NOT NULL RETURNING id',
    [id],
  )
  if (!rows.length) throw new NotFound('job')
}
