import { getQuery, type H3Event } from 'h3'
import type { Attachment } from '#shared/api'
import { attachmentSchema, MAX_ATTACHED } from '#shared/schemas/fan'
import { Refused } from '../db/errors'
import { addAttachment, type Owner } from '../db/repositories/attachments'
import { unkept } from '../db/writes'
import { checked, emptyFile, mostWords, partsOf } from './body'
import { database } from './store'

/** What a file begins with, by its kind. W3C PNG, ITU T.81 (JPEG), RFC 9649 (WebP), ISO 32000 (PDF); from memory. */
const BEGINS: Record<Attachment['mediaType'], (bytes: Uint8Array) => boolean> = {
  'image/png': (b) => starts(b, [0x89, 0x50, 0x4e, 0x47]),
  'image/jpeg': (b) => starts(b, [0xff, 0xd8, 0xff]),
  'image/webp': (b) => starts(b, [...'RIFF'].map(code)) && starts(b.subarray(8), [...'WEBP'].map(code)),
  'application/pdf': (b) => starts(b, [...'%PDF'].map(code)),
}
const code = (c: string) => c.charCodeAt(0)
const starts = (bytes: Uint8Array, wanted: readonly number[]) => wanted.every((x, i) => bytes[i] === x)
/** Bytes by which every kind is told. */
const TELLING = 12

/**
 * A file must be what it says it is: a name and a type are only what somebody typed. Its bytes go on as they come in.
 * @throws Refused where it begins otherwise
 */
export async function* checkedPicture(
  bytes: AsyncIterable<Uint8Array>,
  mediaType: Attachment['mediaType'],
): AsyncGenerator<Uint8Array> {
  let first: Buffer | null = Buffer.alloc(0)
  const check = () => {
    if (!first!.length) throw emptyFile()
    if (!BEGINS[mediaType](first!)) throw new Refused('This file is no picture of the kind that its name says.')
  }
  for await (const part of bytes) {
    if (!first) yield part
    else {
      first = Buffer.concat([first, part])
      if (first.length < TELLING) continue
      check()
      yield first
      first = null
    }
  }
  if (!first) return
  check()
  yield first
}

/** Keeps the picture that a request brings: it is the body; its id, name and type stand in the query. */
export async function takePicture(event: H3Event, owner: Owner): Promise<Attachment> {
  const { id, name, mediaType } = checked(getQuery(event), attachmentSchema)
  const bytes = checkedPicture(partsOf(event, MAX_ATTACHED, mostWords(MAX_ATTACHED)), mediaType)
  const db = await database()
  return unkept(() => addAttachment(db, owner, id, name, mediaType, bytes))
}
