import { createHash, randomBytes } from 'node:crypto'
import type { Database, Queryable } from '../database'
import { NotFound, Refused } from '../errors'

export interface Instrument {
  id: string
  name: string
  kind: 'board' | 'serial' | 'stand-in'
  /** the log it writes to */ logId: string | null
}

const SELECT = `SELECT i.id, i.name, i.kind, (SELECT l.id
  FROM log l
  WHERE l.instrument_id = i.id AND l.open AND l.deleted_at IS NULL) AS log_id
  FROM instrument i
  WHERE i.deleted_at IS NULL`
const instrumentOf = (r: Record<string, unknown>): Instrument => ({
  id: r.id as string,
  name: r.name as string,
  kind: r.kind as Instrument['kind'],
  logId: r.log_id as string | null,
})

/** Of a token only its fingerprint is kept: who reads the database cannot send. */
const fingerprint = (token: string) => createHash('sha256').update(token).digest('hex')
const newToken = () => randomBytes(12).toString('base64url')

export async function listInstruments(db: Queryable): Promise<Instrument[]> {
  return (await db.query(`${SELECT} ORDER BY i.created_at, i.id`)).map(instrumentOf)
}
/** @throws NotFound */
export async function getInstrument(db: Queryable, id: string): Promise<Instrument> {
  const [row] = await db.query(`${SELECT} AND i.id = $1`, [id])
  if (!row) throw new NotFound('instrument')
  return instrumentOf(row)
}
/** Whose token this is; null for nobody's. */
export async function instrumentByToken(db: Queryable, token: string): Promise<Instrument | null> {
  const [row] = await db.query(`${SELECT} AND i.token_hash = $1`, [fingerprint(token)])
  return row ? instrumentOf(row) : null
}

/** @returns the instrument and its token, which is shown once @throws Refused (name taken) */
export async function createInstrument(
  db: Database,
  id: string,
  name: string,
  kind: Instrument['kind'],
): Promise<{ instrument: Instrument; token: string }> {
  return db.transaction(async (tx) => {
    if (
      (await tx.query('SELECT 1 FROM instrument WHERE lower(name) = lower($1) AND deleted_at IS NULL', [name]))
        .length
    )
      throw new Refused('Another instrument has this name: give each its own, such as “board 2”.', 'name')
    const token = newToken()
    await tx.query('INSERT INTO instrument (id, name, kind, token_hash) VALUES ($1, $2, $3, $4)', [
      id,
      name,
      kind,
      fingerprint(token),
    ])
    return { instrument: await getInstrument(tx, id), token }
  })
}
/** A new token; the old one no longer serves. @throws NotFound */
export async function renewToken(db: Database, id: string): Promise<string> {
  const token = newToken()
  const rows = await db.query(
    'UPDATE instrument SET token_hash = $2, updated_at = now(), revision = revision + 1 WHERE id = $1 AND deleted_at IS NULL RETURNING id',
    [id, fingerprint(token)],
  )
  if (!rows.length) throw new NotFound('instrument')
  return token
}
/** Puts an instrument aside: its logs stay, what it records is closed. @throws NotFound */
export async function archiveInstrument(db: Database, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const rows = await tx.query(
      `UPDATE instrument
        SET deleted_at = now(), updated_at = now(), revision = revision + 1
        WHERE id = $1 AND deleted_at IS NULL
        RETURNING id`,
      [id],
    )
    if (!rows.length) throw new NotFound('instrument')
    await tx.query(
      'UPDATE log SET open = false, updated_at = now(), revision = revision + 1 WHERE instrument_id = $1 AND open',
      [id],
    )
  })
}
export async function restoreInstrument(db: Database, id: string): Promise<void> {
  if (
    !(
      await db.query(
        `UPDATE instrument
          SET deleted_at = NULL, updated_at = now(), revision = revision + 1
          WHERE id = $1 AND deleted_at IS NOT NULL
          RETURNING id`,
        [id],
      )
    ).length
  )
    throw new NotFound('instrument')
}
