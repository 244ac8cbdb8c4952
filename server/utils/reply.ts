import type { Readable } from 'node:stream'
import {
  defineEventHandler,
  getRequestHeader,
  getRequestIP,
  getRouterParam,
  readRawBody,
  sendStream,
  setResponseHeader,
  setResponseStatus,
  type EventHandlerRequest,
  type H3Event,
} from 'h3'
import type { z } from 'zod'
import { idSchema } from '#core/document'
import { Conflict, DatabaseAway, NotFound, Refused } from '../db/errors'
import type { ApiError } from '#shared/api'
import { checkRoom } from './room'

const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE']
/** Largest body a save may have, bytes: a plan with all its readings stays far below. */
const MAX_BODY = 2_000_000

function failure(event: H3Event, status: number, code: string, message: string, field?: string): ApiError {
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/json')
  return { error: { code, message, ...(field ? { field } : {}) } }
}

type Handler<T> = (event: H3Event<EventHandlerRequest>) => Promise<T>
/** A thin route: its errors become JSON with code, message and field; never a stack trace. */
export const route = <T>(handler: Handler<T>) => answering(handler, (method) => WRITES.includes(method))
/** A question that is too long for an address: it is sent as a body, and writes nothing. */
export const question = <T>(handler: Handler<T>) => answering(handler, () => false)

function answering<T>(handler: Handler<T>, writes: (method: string) => boolean) {
  return defineEventHandler(async (event) => {
    try {
      if (writes(event.method)) checkRoom()
      return await handler(event)
    } catch (error) {
      // the answer has begun: it breaks off, and nothing can be said in it any more
      if (event.node.res.headersSent) return undefined
      if (error instanceof BadInput) return failure(event, 400, error.code, error.message, error.field)
      if (error instanceof WrongToken) return failure(event, 401, 'wrong-token', error.message)
      if (error instanceof WrongPassword)
        return failure(event, 401, 'wrong-password', error.message, 'password')
      if (error instanceof TooOften) {
        setResponseHeader(event, 'retry-after', error.waitS)
        return failure(event, 429, 'too-often', error.message)
      }
      if (error instanceof NotFound) return failure(event, 404, 'not-found', error.message)
      if (error instanceof Conflict) return failure(event, 409, 'changed-elsewhere', error.message)
      if (error instanceof Refused) return failure(event, 422, 'refused', error.message, error.field)
      if (error instanceof DatabaseAway) return failure(event, 503, 'database-away', error.message)
      const refused = databaseWords(error)
      if (refused) return failure(event, 422, 'refused', refused, fieldOf(error))
      console.error(error)
      return failure(event, 500, 'internal', 'Something went wrong on the server; nothing was changed.')
    }
  })
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

class BadInput extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly field?: string,
  ) {
    super(message)
  }
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

/** The body as text, as a board sends it. */
export async function textOf(event: H3Event): Promise<string> {
  return (await rawOf(event, MAX_BODY, 'At most 2 MB in one message.')).toString('utf8')
}

/**
 * The body's bytes, refused while they come in: what is too large is never held whole.
 * @param most bytes @param refused what is said of more
 */
async function rawOf(event: H3Event, most: number, refused: string): Promise<Buffer> {
  const tooLarge = new BadInput('too-large', refused)
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > most) throw tooLarge
  const { req } = event.node
  // what this program asks itself has its body at hand
  if (!req.socket?.remoteAddress || 'body' in req) {
    const held = (await readRawBody(event, false)) ?? Buffer.alloc(0)
    if (held.length > most) throw tooLarge
    return held
  }
  const parts: Buffer[] = []
  let size = 0
  for await (const part of req) {
    size += (part as Buffer).length
    if (size > most) throw tooLarge
    parts.push(part as Buffer)
  }
  return Buffer.concat(parts)
}

/** The body, checked by its schema. */
export async function bodyOf<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  const text = (await rawOf(event, MAX_BODY, 'This is larger than a plan can be.')).toString('utf8')
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new BadInput('not-json', 'The body is not JSON.')
  }
  return checked(json, schema)
}
/** As JSON writes them: the null character, and halves of characters. */
const UNSTORABLE = /(?<!\\)(?:\\\\)*\\u(?:0000|d[89a-f][0-9a-f]{2})/

/** A value that came from outside, checked by its schema. */
export function checked<S extends z.ZodType>(value: unknown, schema: S): z.infer<S> {
  if (UNSTORABLE.test(JSON.stringify(value) ?? ''))
    throw new BadInput('bad-text', 'A text here holds a character that cannot be stored.')
  const result = schema.safeParse(value)
  if (result.success) return result.data
  const issue = result.error.issues[0]!
  throw new BadInput('invalid', issue.message, issue.path.join('.'))
}

/** The body as it is: a picture or a page. */
export async function bytesOf(event: H3Event, most: number): Promise<Uint8Array> {
  const bytes = await rawOf(event, most, `At most ${Math.round(most / 1e6)} MB.`)
  if (!bytes.length) throw new BadInput('empty', 'The file is empty.')
  return bytes
}

/** Sends a file while it is made. One that cannot be finished breaks off: nobody shall take its first half for the whole. */
export function sendMade(event: H3Event, file: Readable): Promise<void> {
  file.once('error', (error) => {
    console.error(error)
    event.node.res.destroy()
  })
  return sendStream(event, file)
}

/** The id in the path. @throws NotFound where it can be nothing's */
export function idOf(event: H3Event): string {
  const id = idSchema.safeParse(getRouterParam(event, 'id'))
  if (!id.success) throw new NotFound('address')
  return id.data
}
