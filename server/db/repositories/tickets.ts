import type { Queryable } from '../database'
import { NotFound } from '../errors'

/** Tickets of browsers that gave the password, by the fingerprint of what they hold. */

export interface KeptTicket {
  id: string
  /** what the browser calls itself */
  agent: string
  madeAt: Date
  seenAt: Date
  endsAt: Date
}
const TICKET = 'id, agent, created_at AS "madeAt", seen_at AS "seenAt", ends_at AS "endsAt"'
/** One that was given for another password, or is too old, serves no more. */
const SERVES = 'door = $1 AND ends_at > now()'

export const addTicket = (db: Queryable, hash: string, id: string, agent: string, door: string, days: number) =>
  db.query(
    `WITH old AS (DELETE FROM ticket WHERE ends_at <= now())
      INSERT INTO ticket (hash, id, agent, door, ends_at) VALUES ($1, $2, $3, $4, now() + make_interval(days => $5))`,
    [hash, id, agent, door, days],
  )
export const ticketBy = async (db: Queryable, door: string, hash: string): Promise<KeptTicket | null> =>
  (await db.query<KeptTicket>(`SELECT ${TICKET} FROM ticket WHERE ${SERVES} AND hash = $2`, [door, hash]))[0] ??
  null
export const listTickets = (db: Queryable, door: string): Promise<KeptTicket[]> =>
  db.query<KeptTicket>(`SELECT ${TICKET} FROM ticket WHERE ${SERVES} ORDER BY created_at, id`, [door])
export const markTicketSeen = (db: Queryable, id: string) =>
  db.query('UPDATE ticket SET seen_at = now(), updated_at = now(), revision = revision + 1 WHERE id = $1', [id])
/** @throws NotFound */
export async function endTicket(db: Queryable, id: string): Promise<void> {
  if (!(await db.query('DELETE FROM ticket WHERE id = $1 RETURNING id', [id])).length)
    throw new NotFound('sign-in')
}
