import type { BenchRow } from '#core/measure'

/**
 * What a log knows of one start of a board, and where a row belongs: behind the others, into a gap, or nowhere because it
 * is there. Pure: rows in, places out.
 */
export interface Boot {
  /** running number of the newest row, and its clock, ms */
  lastSeq: number
  lastMs: number
  /** seconds of the log at the board's zero */
  offsetS: number
  lost: number
  repeated: number
  late: number
  clockJumps: number
  gaps: Gap[]
  /** a row whose running number leaps: taken when the next one confirms it */
  held: BenchRow | null
}
/** Running numbers that have not come, both ends included; not counted as lost where they are before the first row. */
export type Gap = [from: number, to: number, counted: boolean]

export interface Booked {
  boot: Boot
  /** rows to be stored, with their time, s from the start of the log */
  kept: { t: number; row: BenchRow }[]
  repeated: number
  late: number
  /** rows whose running number nothing confirmed */
  stray: number
}

/** More missing rows than this are a leap: a garbled number, or a board that was away; the next row tells. A choice of ours. */
const LEAP = 100
/** Gaps that are remembered: a late row is seconds late, not days. */
const MOST_GAPS = 200
/** After a jump of the board's clock the log goes on this much later, s. */
export const AFTER_JUMP_S = 0.001
/** A step of more than this between two rows is a jump of the clock, not a pause, ms. A choice of ours. */
const LONGEST_PAUSE_MS = 7 * 86400_000

/** A board that is heard for the first time. @param startS its first row's time, s from the start of the log */
export const newBoot = (first: BenchRow, startS: number): Boot => ({
  lastSeq: first.seq - 1,
  lastMs: first.ms,
  offsetS: startS - first.ms / 1000,
  lost: 0,
  repeated: 0,
  late: 0,
  clockJumps: 0,
  gaps: first.seq > 0 ? [[0, first.seq - 1, false]] : [],
  held: null,
})

/** Takes a running number out of the gaps. @returns whether it was in one, and whether it had been counted as lost */
function fill(gaps: Gap[], seq: number): { there: boolean; counted: boolean } {
  const at = gaps.findIndex(([from, to]) => seq >= from && seq <= to)
  if (at < 0) return { there: false, counted: false }
  const [from, to, counted] = gaps[at]!
  const left: Gap[] = []
  if (seq > from) left.push([from, seq - 1, counted])
  if (seq < to) left.push([seq + 1, to, counted])
  gaps.splice(at, 1, ...left)
  return { there: true, counted }
}

/** Books the rows of a message, in the order in which they came. */
export function book(known: Boot, rows: readonly BenchRow[]): Booked {
  const boot: Boot = { ...known, gaps: known.gaps.map((g) => [...g] as Gap), held: null }
  const kept: Booked['kept'] = []
  let [repeated, late, stray] = [0, 0, 0]
  const all = known.held ? [known.held, ...rows] : rows

  function append(row: BenchRow) {
    const step = row.ms - boot.lastMs
    if (step < 0 || step > LONGEST_PAUSE_MS) {
      boot.clockJumps++
      boot.offsetS = boot.lastMs / 1000 + boot.offsetS + AFTER_JUMP_S - row.ms / 1000
    }
    const missing = row.seq - boot.lastSeq - 1
    if (missing > 0) boot.gaps.push([boot.lastSeq + 1, row.seq - 1, true])
    boot.lost += missing
    boot.lastSeq = row.seq
    boot.lastMs = row.ms
    kept.push({ t: row.ms / 1000 + boot.offsetS, row })
  }
  for (const [i, row] of all.entries()) {
    if (row.seq <= boot.lastSeq) {
      const { there, counted } = fill(boot.gaps, row.seq)
      if (there) {
        late++
        if (counted) boot.lost--
        kept.push({ t: row.ms / 1000 + boot.offsetS, row })
      } else repeated++
      continue
    }
    if (row.seq - boot.lastSeq - 1 <= LEAP) {
      append(row)
      continue
    }
    // the same row sent again confirms nothing
    const next = all.slice(i + 1).find((r) => r.seq !== row.seq)
    if (!next) {
      boot.held = row
      break
    }
    if (next.seq > row.seq && next.seq - row.seq - 1 <= LEAP) append(row)
    else stray++
  }
  boot.gaps = boot.gaps.slice(-MOST_GAPS)
  boot.repeated += repeated
  boot.late += late
  return { boot, kept, repeated, late, stray }
}
