import type { PlanDocument } from '#core/document'
import type { Database } from './database'

/**
 * Plans as this server has lately given or taken them, by job and revision: what a save was made from. With it two people's
 * changes of one job are put together here, as a page does, instead of one of them being sent back.
 */

const MOST = 300
const bases = new WeakMap<Database, Map<string, string>>()
const keyOf = (id: string, revision: number) => `${id} ${revision}`

/** Remembers a plan as it stands at a revision. */
export function rememberBase(db: Database, plan: PlanDocument, revision: number): void {
  const known = bases.get(db) ?? new Map<string, string>()
  bases.set(db, known)
  const key = keyOf(plan.job.id, revision)
  known.delete(key)
  if (known.size >= MOST) known.delete(known.keys().next().value!)
  known.set(key, JSON.stringify(plan))
}
/** The plan at a revision; null where it is not remembered. */
export function baseOf(db: Database, id: string, revision: number): PlanDocument | null {
  const text = bases.get(db)?.get(keyOf(id, revision))
  return text === undefined ? null : (JSON.parse(text) as PlanDocument)
}
