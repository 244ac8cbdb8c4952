import { createHash, scrypt, timingSafeEqual } from 'node:crypto'
import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { z } from 'zod'
import { dataDirectory } from './place'

/**
 * The workshop's one password, shared by those who may come in. Of it only a salted hash is kept (scrypt, RFC 7914), in
 * the data directory. A server that has seen a password stays locked until it ends, whatever becomes of the file: what is
 * gone or torn opens nothing.
 */
const keptSchema = z.object({ salt: z.string().min(1), hash: z.string().min(1) })
type Kept = z.infer<typeof keptSchema>
const derive = promisify(scrypt) as (password: string, salt: Buffer, bytes: number) => Promise<Buffer>
const BYTES = 32

export const passwordFile = () => join(dataDirectory(), 'password.json')

/** The password's file is there and cannot be read: nobody comes in by it. */
export class PasswordUnreadable extends Error {
  constructor() {
    super(
      'The file of the workshop’s password cannot be read. Set the password again where Redpoll runs: npm run password',
    )
  }
}
/** More wait for their password to be checked than is sensible. */
export class Crowded extends Error {}

/** When the file was last changed, and what it held. */
let seen: { changed: number; kept: Kept | null } = { changed: -1, kept: null }
/** The last password that could be read. */
let last: Kept | null = null

function read(): Kept | null {
  const parsed = keptSchema.safeParse(JSON.parse(readFileSync(passwordFile(), 'utf8')))
  return parsed.success ? parsed.data : null
}

/** As it is on the disk now: it may be set while the server runs. */
function kept(): Kept | 'none' | 'unreadable' {
  try {
    const changed = statSync(passwordFile()).mtimeMs
    if (changed !== seen.changed || !seen.kept) seen = { changed, kept: read() }
    last = seen.kept ?? last
    return last ?? 'unreadable'
  } catch (error) {
    const gone = (error as NodeJS.ErrnoException).code === 'ENOENT'
    return last ?? (gone ? 'none' : 'unreadable')
  }
}
export const isLocked = (): boolean => kept() !== 'none'

/** What tells one password from the next: tickets hold to it. '' where none can be read */
export function doorOf(): string {
  const now = kept()
  return typeof now === 'string' ? '' : createHash('sha256').update(now.hash).digest('hex').slice(0, 16)
}

/** One hash at a time: whoever guesses in parallel waits in line and leaves the server its processor. */
let line: Promise<unknown> = Promise.resolve()
/** How long that line may become: about a second. */
const MOST_IN_LINE = 8
let inLine = 0

/** @throws PasswordUnreadable @throws Crowded where too many are being checked already */
export async function isPassword(typed: string): Promise<boolean> {
  const now = kept()
  if (now === 'none') return false
  if (now === 'unreadable') throw new PasswordUnreadable()
  if (inLine >= MOST_IN_LINE) throw new Crowded()
  inLine++
  const turn = line.then(() => derive(typed, Buffer.from(now.salt, 'base64'), BYTES))
  line = turn.catch(() => {}).finally(() => inLine--)
  const wanted = Buffer.from(now.hash, 'base64')
  const hash = await turn
  return hash.length === wanted.length && timingSafeEqual(hash, wanted)
}
