import { Refused } from '../db/errors'
import { isTooDeep } from '../utils/depth'

/** JSON of any length, item by item: a list is never held whole. */

const [OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = [0x5b, 0x5d, 0x7b, 0x7d]
const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c]
const isBlank = (byte: number) => byte === 0x20 || byte === 0x0a || byte === 0x0d || byte === 0x09

/** One JSON text. @throws Refused */
export function jsonOf(bytes: Uint8Array, name: string): unknown {
  try {
    if (isTooDeep(bytes)) throw new Error('too deep')
    return JSON.parse(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8'))
  } catch {
    throw new Refused(`This backup cannot be read: ${name} is no JSON.`)
  }
}

/**
 * The items of a JSON list, as they come in.
 * @param most bytes that one item may have
 * @throws Refused where it is no list, cut short, or an item is larger
 */
export async function* itemsOf(
  parts: AsyncIterable<Buffer>,
  name: string,
  most: number,
): AsyncGenerator<unknown> {
  const bad = (why: string) => new Refused(`This backup cannot be read: ${name} ${why}.`)
  /** brackets open around what is read; -1 before the list, and behind it again */
  let depth = -1
  let [inText, escaped, ended] = [false, false, false]
  let held: Buffer[] = []
  let size = 0
  const item = (last: Buffer) => {
    const bytes = Buffer.concat([...held, last])
    held = []
    size = 0
    return bytes.every(isBlank) ? undefined : jsonOf(bytes, name)
  }
  for await (const part of parts) {
    let from = 0
    for (let i = 0; i < part.length; i++) {
      const byte = part[i]!
      if (inText) {
        if (escaped) escaped = false
        else if (byte === BACKSLASH) escaped = true
        else if (byte === QUOTE) inText = false
        continue
      }
      if (depth < 0) {
        if (!ended && byte === OPEN_LIST) depth = 0
        else if (!isBlank(byte)) throw bad('is no list')
        from = i + 1
      } else if (byte === QUOTE) inText = true
      else if (byte === OPEN_LIST || byte === OPEN_RECORD) depth++
      else if (depth > 0 && (byte === CLOSE_LIST || byte === CLOSE_RECORD)) depth--
      else if (depth === 0 && (byte === COMMA || byte === CLOSE_LIST)) {
        const value = item(part.subarray(from, i))
        if (value !== undefined) yield value
        else if (byte === COMMA) throw bad('is no list')
        from = i + 1
        if (byte === CLOSE_LIST) [depth, ended] = [-1, true]
      }
    }
    if (depth < 0) continue
    held.push(part.subarray(from))
    size += part.length - from
    if (size > most) throw bad('has an item that is larger than it can be')
  }
  if (!ended) throw bad('was cut short')
}
