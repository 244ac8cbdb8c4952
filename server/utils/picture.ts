import type { Attachment } from '#shared/api'
import { Refused } from '../db/errors'

/** What a file begins with, by its kind. W3C PNG, ITU T.81 (JPEG), RFC 9649 (WebP), ISO 32000 (PDF); from memory. */
const BEGINS: Record<Attachment['mediaType'], (bytes: Uint8Array) => boolean> = {
  'image/png': (b) => starts(b, [0x89, 0x50, 0x4e, 0x47]),
  'image/jpeg': (b) => starts(b, [0xff, 0xd8, 0xff]),
  'image/webp': (b) => starts(b, [...'RIFF'].map(code)) && starts(b.subarray(8), [...'WEBP'].map(code)),
  'application/pdf': (b) => starts(b, [...'%PDF'].map(code)),
}
const code = (c: string) => c.charCodeAt(0)
const starts = (bytes: Uint8Array, wanted: readonly number[]) => wanted.every((x, i) => bytes[i] === x)

/**
 * A file must be what it says it is: a name and a type are only what somebody typed.
 * @throws Refused where it begins otherwise
 */
export function checkPicture(bytes: Uint8Array, mediaType: Attachment['mediaType']): Uint8Array {
  if (!BEGINS[mediaType](bytes)) throw new Refused('This file is no picture of the kind that its name says.')
  return bytes
}
