/**
 * One column of a block as bytes, to the last bit: readings with a few decimals as steps between whole multiples, in as
 * many bytes as the widest step needs; anything else as doubles.
 *
 * A column begins with its kind. 0: its doubles follow. 1: decimals (one byte), bytes of a step (one byte: 0, 1, 2 or 4),
 * whether a map of the gaps follows (one byte), first multiple and smallest step (doubles), the map (a bit a row, the
 * lowest first, 1 where there is a value), then for each further value its step less the smallest, unsigned. All of it
 * little-endian.
 */
const PLAIN = 0
const STEPS = 1
const DOUBLE = 8
const HEAD = 4 + 2 * DOUBLE
const MOST_DECIMALS = 9
/** Multiples up to here are exact, and so are their sums. */
const EXACT = 2 ** 52
const WIDTHS = [0, 1, 2, 4] as const
type Width = (typeof WIDTHS)[number]

/** Decimals with which every value is a whole multiple again; −1 where there are too many, or a minus stands before a zero. */
function decimalsOf(values: ArrayLike<number>, from: number, to: number): number {
  let decimals = 0
  let scale = 1
  let largest = 0
  for (let i = from; i < to; i++) {
    const v = values[i]!
    if (Number.isNaN(v)) continue
    if (Object.is(v, -0)) return -1
    while (Math.round(v * scale) / scale !== v) {
      if (++decimals > MOST_DECIMALS) return -1
      scale *= 10
    }
    largest = Math.max(largest, Math.abs(v))
  }
  return largest * scale < EXACT ? decimals : -1
}

function plain(values: ArrayLike<number>, from: number, to: number): Uint8Array {
  const bytes = new Uint8Array(1 + (to - from) * DOUBLE)
  bytes[0] = PLAIN
  const doubles = new Float64Array(to - from)
  for (let i = from; i < to; i++) doubles[i - from] = values[i]!
  bytes.set(new Uint8Array(doubles.buffer), 1)
  return bytes
}

const stepsOfWidth = (width: Width, count: number) =>
  width === 1 ? new Uint8Array(count) : width === 2 ? new Uint16Array(count) : new Uint32Array(count)

/** @param from first row @param to row behind the last */
export function encodeColumn(values: ArrayLike<number>, from: number, to: number): Uint8Array {
  const decimals = decimalsOf(values, from, to)
  if (decimals < 0) return plain(values, from, to)
  const scale = 10 ** decimals
  const multiples = new Float64Array(to - from)
  let count = 0
  let [least, most] = [Infinity, -Infinity]
  for (let i = from; i < to; i++) {
    const v = values[i]!
    if (Number.isNaN(v)) continue
    multiples[count] = Math.round(v * scale)
    if (count > 0) {
      const step = multiples[count]! - multiples[count - 1]!
      if (step < least) least = step
      if (step > most) most = step
    }
    count++
  }
  if (count < 2) [least, most] = [0, 0]
  const width = WIDTHS.find((w) => most - least < 2 ** (8 * w))
  if (width === undefined) return plain(values, from, to)
  const rows = to - from
  const gaps = count < rows
  const mapBytes = gaps ? Math.ceil(rows / 8) : 0
  const steps = stepsOfWidth(width, width === 0 ? 0 : Math.max(0, count - 1))
  for (let i = 0; i < steps.length; i++) steps[i] = multiples[i + 1]! - multiples[i]! - least
  const bytes = new Uint8Array(HEAD + mapBytes + steps.byteLength)
  bytes.set([STEPS, decimals, width, gaps ? 1 : 0])
  bytes.set(new Uint8Array(Float64Array.of(multiples[0] ?? 0, least).buffer), 4)
  if (gaps)
    for (let i = 0; i < rows; i++) if (!Number.isNaN(values[from + i]!)) bytes[HEAD + (i >> 3)]! |= 1 << (i & 7)
  bytes.set(new Uint8Array(steps.buffer), HEAD + mapBytes)
  return bytes
}

/** Bytes that lie as they must: a slice of a server's buffer would not be a copy. */
const copied = (bytes: Uint8Array, from: number, to: number): ArrayBuffer =>
  new Uint8Array(bytes.subarray(from, to)).buffer

/**
 * Reads a column at a place of its block into rows of `out`.
 * @returns the place behind it, or −1 where it cannot be one
 */
export function decodeColumn(bytes: Uint8Array, at: number, out: Float64Array): number {
  const rows = out.length
  if (bytes[at] === PLAIN) {
    const end = at + 1 + rows * DOUBLE
    if (end > bytes.length) return -1
    out.set(new Float64Array(copied(bytes, at + 1, end)))
    return end
  }
  if (bytes[at] !== STEPS || at + HEAD > bytes.length) return -1
  const [, decimals, width, gaps] = bytes.subarray(at, at + 4) as unknown as [number, number, Width, number]
  if (decimals > MOST_DECIMALS || !WIDTHS.includes(width) || gaps > 1) return -1
  const [first, least] = new Float64Array(copied(bytes, at + 4, at + HEAD)) as unknown as [number, number]
  const map = at + HEAD
  const has = (i: number) => !gaps || ((bytes[map + (i >> 3)]! >> (i & 7)) & 1) === 1
  const mapBytes = gaps ? Math.ceil(rows / 8) : 0
  if (map + mapBytes > bytes.length) return -1
  let count = rows
  if (gaps) {
    count = 0
    for (let i = 0; i < rows; i++) if (has(i)) count++
  }
  const begin = map + mapBytes
  const end = begin + width * Math.max(0, count - 1)
  if (end > bytes.length) return -1
  const held = copied(bytes, begin, end)
  const steps = width === 1 ? new Uint8Array(held) : width === 2 ? new Uint16Array(held) : new Uint32Array(held)
  const scale = 10 ** decimals
  let multiple = first
  let next = 0
  for (let i = 0; i < rows; i++) {
    if (!has(i)) {
      out[i] = NaN
      continue
    }
    if (next > 0) multiple += least + (width === 0 ? 0 : steps[next - 1]!)
    next++
    out[i] = multiple / scale
  }
  return end
}
