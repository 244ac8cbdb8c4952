import type { IncomingMessage } from 'node:http'
import { getRequestHeader, readRawBody, type H3Event } from 'h3'
import type { z } from 'zod'
import { isTooDeep } from './depth'

/** What a request brings along: bounded in size and depth before anything is made of it, then checked by its schema. */

/** What is wrong with a request, and in which field. */
export class BadInput extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly field?: string,
  ) {
    super(message)
  }
}

/** Largest body a save may have, bytes: a plan with all its readings stays far below. */
const MAX_BODY = 2_000_000
/** What is refused is read to its end, so that the answer arrives; but not for ever: bytes, ms. */
const FAR_TOO_MUCH = 1_000_000_000
const LINGER_MS = 20_000

/** Throws away what still comes in. */
function passOver(req: IncomingMessage): void {
  let size = 0
  const timer = setTimeout(() => req.destroy(), LINGER_MS)
  timer.unref()
  const done = () => clearTimeout(timer)
  req.once('end', done).once('close', done).once('error', done)
  req.on('data', (part: Buffer) => {
    size += part.length
    if (size > FAR_TOO_MUCH) req.destroy()
  })
}

/** The parts of a body as they come in; of more than is taken nothing further. */
export async function* partsOf(event: H3Event, most: number, refused: string): AsyncGenerator<Buffer> {
  const tooLarge = new BadInput('too-large', refused)
  const { req } = event.node
  // what this program asks itself has its body at hand
  if (!req.socket?.remoteAddress || 'body' in req) {
    const held = (await readRawBody(event, false)) ?? Buffer.alloc(0)
    if (held.length > most) throw tooLarge
    yield held
    return
  }
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > most) {
    passOver(req)
    throw tooLarge
  }
  let size = 0
  for await (const part of req.iterator({ destroyOnReturn: false })) {
    size += (part as Buffer).length
    if (size > most) {
      passOver(req)
      throw tooLarge
    }
    yield part as Buffer
  }
}

async function rawOf(event: H3Event, most: number, refused: string): Promise<Buffer> {
  const parts: Buffer[] = []
  for await (const part of partsOf(event, most, refused)) parts.push(part)
  return Buffer.concat(parts)
}

/** The body as text, as a board sends it. */
export async function textOf(event: H3Event): Promise<string> {
  return (await rawOf(event, MAX_BODY, 'At most 2 MB in one message.')).toString('utf8')
}

/** The body, checked by its schema. */
export async function bodyOf<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  const bytes = await rawOf(event, MAX_BODY, 'This is larger than a plan can be.')
  if (isTooDeep(bytes)) throw new BadInput('too-deep', 'The body is nested deeper than anything here can be.')
  let json: unknown
  try {
    json = JSON.parse(bytes.toString('utf8'))
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

export const mostWords = (most: number) => `At most ${Math.round(most / 1e6)} MB.`
export const emptyFile = () => new BadInput('empty', 'The file is empty.')

/** The body as it is: a picture or a page. */
export async function bytesOf(event: H3Event, most: number): Promise<Uint8Array> {
  const bytes = await rawOf(event, most, mostWords(most))
  if (!bytes.length) throw emptyFile()
  return bytes
}
