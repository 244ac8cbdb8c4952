/** Looks at JSON before it is read: a parser that goes down as deep as a text says has no room left at some depth. */

/** Deeper than any document here: a plan has some ten levels. */
const DEEPEST = 64
const [QUOTE, BACKSLASH] = [0x22, 0x5c]
const [OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = [0x5b, 0x5d, 0x7b, 0x7d]

/** Whether brackets of a JSON text (UTF-8), outside its strings, stand in each other deeper than that. */
export function isTooDeep(json: Uint8Array, deepest = DEEPEST): boolean {
  let depth = 0
  let inText = false
  for (let i = 0; i < json.length; i++) {
    const byte = json[i]
    if (inText) {
      if (byte === BACKSLASH) i++
      else if (byte === QUOTE) inText = false
    } else if (byte === QUOTE) inText = true
    else if (byte === OPEN_LIST || byte === OPEN_RECORD) {
      if (++depth > deepest) return true
    } else if (byte === CLOSE_LIST || byte === CLOSE_RECORD) depth--
  }
  return false
}
