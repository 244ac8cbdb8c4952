import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { getCookie, getRequestHeader, type H3Event } from 'h3'
import {
  addTicket,
  endTicket,
  listTickets,
  markTicketSeen,
  ticketBy,
  type KeptTicket,
} from '../db/repositories/tickets'
import { unkept } from '../db/writes'
import { doorOf, isLocked } from './password'
import { database } from './store'

/**
 * Who gave the password holds a ticket: a secret of which the database keeps the fingerprint. It serves for a month, until
 * it is ended, or until there is another password.
 */

/** The cookie that holds it. */
export const TICKET = 'redpoll-ticket'
/** How long it serves, days: so that a bench tablet is not asked every week. */
export const TICKET_DAYS = 30
const SECRET_BYTES = 24
const MAX_AGENT = 400

/** A ticket that was good is not looked up again for so long, ms: another server of the same workshop may have ended it. */
const FRESH_MS = 5000
/** How exactly "last seen" is kept, ms. */
const SEEN_MS = 600_000
const MOST_HELD = 1000
interface Held {
  id: string
  door: string
  at: number
}
const held = new Map<string, Held>()

const fingerprint = (secret: string) => createHash('sha256').update(secret).digest('hex')

/** @returns the secret, which is told once: to this browser */
export async function newTicket(event: H3Event): Promise<string> {
  const secret = randomBytes(SECRET_BYTES).toString('base64url')
  const agent = (getRequestHeader(event, 'user-agent') ?? '').slice(0, MAX_AGENT)
  const db = await database()
  await unkept(() => addTicket(db, fingerprint(secret), randomUUID(), agent, doorOf(), TICKET_DAYS))
  return secret
}

/** The ticket that this request comes with; null where it has none that serves. */
export async function ticketOf(event: H3Event): Promise<{ id: string } | null> {
  const secret = getCookie(event, TICKET)
  if (!secret) return null
  const hash = fingerprint(secret)
  const door = doorOf()
  const now = performance.now()
  const known = held.get(hash)
  if (known?.door === door && now - known.at < FRESH_MS) return known
  const db = await database()
  const ticket = await ticketBy(db, door, hash)
  held.delete(hash)
  if (!ticket) return null
  if (held.size >= MOST_HELD) held.delete(held.keys().next().value!)
  const found = { id: ticket.id, door, at: now }
  held.set(hash, found)
  if (Date.now() - ticket.seenAt.getTime() > SEEN_MS) await markTicketSeen(db, ticket.id)
  return found
}

/** Whether a request comes from somebody who may read and change the workshop. */
export const isInside = async (event: H3Event): Promise<boolean> =>
  !isLocked() || (await ticketOf(event)) !== null

export const tickets = async (): Promise<KeptTicket[]> => listTickets(await database(), doorOf())
/** Ends a ticket at once. @throws NotFound */
export async function endOf(id: string): Promise<void> {
  for (const [hash, one] of held) if (one.id === id) held.delete(hash)
  await endTicket(await database(), id)
}
