import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { dataDirectory } from './place'

/**
 * The workshop's one password, shared by those who may come in. Of it only a salted hash is kept (scrypt, RFC 7914), in
 * the data directory; a visitor who gave it holds a signed ticket, which ends when it is old or the password is changed.
 */
interface Kept {
  salt: string
  hash: string
}
const derive = promisify(scrypt) as (password: string, salt: Buffer, bytes: number) => Promise<Buffer>
const BYTES = 32
/** How long a ticket serves, ms: a month, so that a bench tablet is not asked every week. */
export const TICKET_MS = 30 * 86400_000

export const passwordFile = () => join(dataDirectory(), 'password.json')
let seen = { changed: -1, kept: null as Kept | null }

/** As it is on the disk now: it may be set or taken away while the server runs. */
function kept(): Kept | null {
  let changed: number
  try {
    changed = statSync(passwordFile()).mtimeMs
  } catch {
    return null
  }
  if (changed !== seen.changed)
    seen = { changed, kept: JSON.parse(readFileSync(passwordFile(), 'utf8')) as Kept }
  return seen.kept
}
export const isLocked = (): boolean => kept() !== null

const same = (a: Buffer, b: Buffer) => a.length === b.length && timingSafeEqual(a, b)
/** One hash at a time: whoever guesses in parallel waits in line and leaves the server its processor. */
let line: Promise<unknown> = Promise.resolve()

export async function isPassword(typed: string): Promise<boolean> {
  const now = kept()
  if (!now) return false
  const turn = line.then(() => derive(typed, Buffer.from(now.salt, 'base64'), BYTES))
  line = turn.catch(() => {})
  return same(await turn, Buffer.from(now.hash, 'base64'))
}

const sign = (text: string, { hash }: Kept) => createHmac('sha256', hash).update(text).digest('base64url')

/** @returns a ticket: until when it serves, something unique, and the signature over both */
export function newTicket(now = Date.now()): string {
  const text = `${now + TICKET_MS}.${randomBytes(9).toString('base64url')}`
  return `${text}.${sign(text, kept()!)}`
}
export function isTicket(ticket: string | undefined, now = Date.now()): boolean {
  const by = kept()
  const [until = '', unique = '', signature = ''] = ticket?.split('.') ?? []
  if (!by || !(Number(until) > now)) return false
  return same(Buffer.from(signature), Buffer.from(sign(`${until}.${unique}`, by)))
}
