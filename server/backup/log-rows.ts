import { Refused } from '../db/errors'

/** Rows of a log as a backup has them: a head, then numbers parted by commas, nothing between two where there is a gap. */

export interface Rows {
  times: Float64Array
  columns: Float64Array[]
}
/** Rows that come at once: a block of a log. */
const AT_ONCE = 10_000
/** Longer than any row of 33 numbers, characters. */
const LONGEST = 4000

/**
 * @param falling whether times may fall: rows of a board may have come late
 * @throws Refused where a row is none
 */
export async function* rowsIn(
  parts: AsyncIterable<Buffer>,
  name: string,
  channels: number,
  falling: boolean,
): AsyncGenerator<Rows> {
  const bad = (row: number, why: string) =>
    new Refused(`This backup cannot be read: ${name}, row ${row}: ${why}. Nothing was changed.`)
  const empty = (): Rows => ({
    times: new Float64Array(AT_ONCE),
    columns: Array.from({ length: channels }, () => new Float64Array(AT_ONCE)),
  })
  const cut = ({ times, columns }: Rows, n: number): Rows => ({
    times: times.subarray(0, n),
    columns: columns.map((c) => c.subarray(0, n)),
  })
  let rows = empty()
  let [n, row, last] = [0, 0, -Infinity]
  let rest = ''
  for await (const part of parts) {
    const lines = (rest + part.toString('latin1')).split('\n')
    rest = lines.pop()!
    if (rest.length > LONGEST) throw bad(row + 1, 'it is too long')
    for (const line of lines) {
      // the head names the channels, which are known
      if (row++ === 0) continue
      const cells = line.split(',')
      const time = cells[0] ? Number(cells[0]) : NaN
      if (!Number.isFinite(time)) throw bad(row - 1, 'its time is missing')
      if (!falling && time < last) throw bad(row - 1, 'the times do not rise')
      if (cells.length !== channels + 1) throw bad(row - 1, `${channels} values are wanted`)
      last = time
      rows.times[n] = time
      for (let c = 0; c < channels; c++) {
        const value = cells[c + 1] ? Number(cells[c + 1]) : NaN
        if (cells[c + 1] && !Number.isFinite(value)) throw bad(row - 1, 'a value is no number')
        rows.columns[c]![n] = value
      }
      if (++n < AT_ONCE) continue
      yield rows
      rows = empty()
      n = 0
    }
  }
  // lines of a head alone end without one
  if (rest && row > 0) throw bad(row, 'it was cut short')
  if (n) yield cut(rows, n)
}
