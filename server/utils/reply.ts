import { createHash } from 'node:crypto'
import type { Readable } from 'node:stream'
import {
  defineEventHandler,
  getRequestHeader,
  getRequestIP,
  getRouterParam,
  sendStream,
  setResponseHeader,
  setResponseStatus,
  type EventHandlerRequest,
  type H3Event,
} from 'h3'
import { idSchema } from '#core/document'
import { Conflict, DatabaseAway, NotFound, NotKnown, Refused } from '../db/errors'
import { asWrite } from '../db/writes'
import { fileTrouble } from '../db/cluster'
import type { ApiError } from '#shared/api'
import { BadInput } from './body'
import { OUTSIDE, unknownKind, WRITES, type Refusal } from './guard'
import { PasswordUnreadable } from './password'
import { checkRoom } from './room'
import { isInside } from './tickets'

export { bodyOf, bytesOf, checked, textOf } from './body'

function failure(event: H3Event, status: number, code: string, message: string, field?: string): ApiError {
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/json')
  return { error: { code, message, ...(field ? { field } : {}) } }
}
export const refuse = (event: H3Event, { status, code, message }: Refusal): ApiError =>
  failure(event, status, code, message)

/**
 * Who may call a route: `anyone`; those `inside` the workshop, which is everybody where it has no password; a `board` with
 * a token, which its route looks at itself.
 */
export type Caller = 'anyone' | 'inside' | 'board'
const CALLERS: readonly unknown[] = ['anyone', 'inside', 'board']
const UNDECLARED: Refusal = {
  status: 403,
  code: 'undeclared',
  message: 'Nobody said who may ask for this: it is refused.',
}
/** Requests whose route said who may call it. */
const admitted = new WeakSet<object>()
/** The last word before an answer goes out: what matched a route that says nothing of its callers is not told. */
export const undeclared = (event: H3Event): ApiError | null =>
  event.context.matchedRoute?.path.startsWith('/api') && !admitted.has(event) ? refuse(event, UNDECLARED) : null

type Handler<T> = (event: H3Event<EventHandlerRequest>) => Promise<T>
/**
 * A thin route: its callers are looked at where it stands, whatever the address looked like; its errors become JSON with
 * code, message and field, never a stack trace.
 */
export const route = <T>(caller: Caller, handler: Handler<T>) =>
  answering(caller, handler, (method) => WRITES.includes(method))
/** The same where lines of text are taken, as boards write them. */
export const linesRoute = <T>(caller: Caller, handler: Handler<T>) =>
  answering(caller, handler, (method) => WRITES.includes(method), true)
/** A question that is too long for an address: it is sent as a body, and writes nothing. */
export const question = <T>(caller: Caller, handler: Handler<T>) => answering(caller, handler, () => false)

async function refusalAt(event: H3Event, caller: Caller, lines: boolean): Promise<Refusal | null> {
  if (!CALLERS.includes(caller)) return UNDECLARED
  const kind = unknownKind(event.method, getRequestHeader(event, 'content-type'), lines)
  if (kind) return kind
  return caller !== 'inside' || (await isInside(event)) ? null : OUTSIDE
}

function answering<T>(caller: Caller, handler: Handler<T>, writes: (method: string) => boolean, lines = false) {
  return defineEventHandler(async (event) => {
    admitted.add(event)
    try {
      const refusal = await refusalAt(event, caller, lines)
      if (refusal) return refuse(event, refusal)
      if (!writes(event.method)) return await handler(event)
      checkRoom()
      return await asWrite(keyOf(event), () => handler(event))
    } catch (error) {
      const { req, res } = event.node
      // the answer has begun, or nobody waits for it: nothing can be said any more
      if (res.headersSent || res.destroyed || (req.destroyed && !req.complete)) return undefined
      return answerTo(event, error)
    }
  })
}

/** Header by which a request that writes can be told from its repeat. */
const WRITE_ID = 'x-redpoll-write'
/** What tells one write from all others; null where it does not say. */
function keyOf(event: H3Event): string | null {
  const id = getRequestHeader(event, WRITE_ID)
  if (!id || !/^[\w-]{8,64}$/.test(id)) return null
  return createHash('sha256').update(`${event.method} ${event.path} ${id}`).digest('base64url')
}

function answerTo(event: H3Event, error: unknown): ApiError {
  if (error instanceof BadInput) return failure(event, 400, error.code, error.message, error.field)
  if (error instanceof WrongToken) return failure(event, 401, 'wrong-token', error.message)
  if (error instanceof WrongPassword) return failure(event, 401, 'wrong-password', error.message, 'password')
  if (error instanceof PasswordUnreadable) return failure(event, 503, 'password-file', error.message)
  if (error instanceof TooOften) {
    setResponseHeader(event, 'retry-after', error.waitS)
    return failure(event, 429, 'too-often', error.message)
  }
  if (error instanceof NotFound) return failure(event, 404, 'not-found', error.message)
  if (error instanceof Conflict) return failure(event, 409, 'changed-elsewhere', error.message)
  if (error instanceof Refused) return failure(event, 422, 'refused', error.message, error.field)
  if (error instanceof DatabaseAway) return failure(event, 503, 'database-away', error.message)
  if (error instanceof NotKnown) return failure(event, 503, 'not-known', error.message)
  const refused = databaseWords(error)
  if (refused) return failure(event, 422, 'refused', refused, fieldOf(error))
  console.error(error)
  const damage = fileTrouble(error)
  if (damage)
    return failure(
      event,
      503,
      'damaged',
      `The database cannot read or write a part of its files: ${damage}. What needs it not can still be read; bring the ` +
        'newest copy back from the page “Backup”, or with "npm run restore".',
    )
  return failure(
    event,
    500,
    'internal',
    'Something went wrong on the server. Look whether it was saved before you try again.',
  )
}

/** What the database says of a value, in words: classes 22 (data) and 23 (constraints) of SQLSTATE. PostgreSQL, appendix A. */
function databaseWords(error: unknown): string | null {
  const code = (error as { code?: unknown } | null)?.code
  if (typeof code !== 'string') return null
  // 21000: one statement would write one row twice
  if (code === '23505' || code === '21000') return 'Two things here have the same id, or one that is taken.'
  if (code === '23503') return 'This speaks of something that is not there.'
  return /^2[23]\w{3}$/.test(code) ? 'A value here cannot be stored.' : null
}

/** The field that a refused value stands in: of the column, or of the limit that it breaks. */
function fieldOf(error: unknown): string | undefined {
  const { column, constraint } = error as { column?: unknown; constraint?: unknown }
  const limit = typeof constraint === 'string' ? /^limit_(\w+)$/.exec(constraint)?.[1] : undefined
  const name = limit ?? (typeof column === 'string' ? column : undefined)
  return name?.replaceAll(/_(\w)/g, (_, c: string) => c.toUpperCase())
}

/** A board that cannot show whose it is. */
export class WrongToken extends Error {
  constructor() {
    super('This token is not known: take a new one on the instruments page.')
  }
}

/** What is not the workshop's password. */
export class WrongPassword extends Error {
  constructor() {
    super('This is not the password.')
  }
}
/** Guessed too often. */
export class TooOften extends Error {
  constructor(readonly waitS: number) {
    super(`Tried too often: wait ${waitS} s, then try again.`)
  }
}

/** Where a request comes from; what the door of the boards passes on says so itself. */
export const addressOf = (event: H3Event): string =>
  getRequestIP(event) ?? getRequestHeader(event, PASSED_ON) ?? ''
/** Header in which that door says where a board is; from outside it is not believed. */
export const PASSED_ON = 'x-redpoll-from'

/** Sends a file while it is made. One that cannot be finished breaks off: nobody shall take its first half for the whole. */
export function sendMade(event: H3Event, file: Readable): Promise<void> {
  const { res } = event.node
  // who went away has no need of the rest
  res.once('close', () => file.destroy())
  file.once('error', (error) => {
    if (!res.destroyed) console.error(error)
    res.destroy()
  })
  return sendStream(event, file)
}

/** The id in the path. @throws NotFound where it can be nothing's */
export function idOf(event: H3Event): string {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  if (!id.success) throw new NotFound('address')
  return id.data
}
