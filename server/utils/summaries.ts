import { fanIdsOf } from '#core/document'
import type { JobSummary, StoredPlan } from '#shared/api'
import type { Database } from '../db/database'
import { changesOf } from '../db/repositories/changes'
import { fanRevisions } from '../db/repositories/fans'
import { listHeads, readPlan, type JobHead } from '../db/repositories/jobs'
import { breathe } from './breathe'
import { reportOf } from './plan-input'

/**
 * The bench's list. How a job stands takes a whole report; it is kept as long as nothing that it rests on was changed, and
 * worked out one job after the other, with other requests in between.
 */

/** What a summary rests on, in words that are compared. */
interface Kept {
  revision: number
  /** fans that its plan speaks of, and their revisions */
  fanIds: string[]
  fans: string
  /** mark of the whole shelf where its tests count for the plan; '' where they do not */
  shelf: string
  summary: JobSummary
}
interface Bench {
  kept: Map<string, Kept>
  /** jobs that wait to be worked out, and the work on them; null where nobody works */
  waiting: Map<string, JobHead>
  working: Promise<void> | null
}
const benches = new WeakMap<Database, Bench>()
function benchOf(db: Database): Bench {
  const known = benches.get(db)
  if (known) return known
  const fresh: Bench = { kept: new Map(), waiting: new Map(), working: null }
  benches.set(db, fresh)
  return fresh
}

/** Which station a job waits for: the first that stops it, then the first to mend, then the first not begun. */
function waitsFor(stations: JobSummary['stations']): string {
  const first = (state: string) => stations.find((s) => s.state === state)
  return (first('stop') ?? first('fix') ?? first('not-begun'))?.title ?? ''
}
const headSummary = (head: JobHead): JobSummary => ({
  ...head,
  stations: [],
  stops: 0,
  fixes: 0,
  waitsFor: '',
  problem: '',
  pending: true,
})

async function summaryOf(db: Database, head: JobHead, { plan }: StoredPlan): Promise<JobSummary> {
  const result = await reportOf(db, plan)
  const stations = result.ok ? result.report.stations : []
  const findings = result.ok ? result.report.findings.findings : []
  const count = (severity: string) => findings.filter((f) => f.severity === severity).length
  return {
    ...headSummary(head),
    stations,
    stops: count('stop'),
    fixes: count('fix'),
    waitsFor: waitsFor(stations),
    pending: false,
  }
}

const marksOf = (ids: readonly string[], revisions: ReadonlyMap<string, number>) =>
  ids.map((id) => `${id} ${revisions.get(id) ?? ''}`).join('|')

/** Works one job out; one that cannot be is named, and stands in nobody's way. */
async function workOut(db: Database, bench: Bench, head: JobHead): Promise<void> {
  const read = await readPlan(db, head.id)
  if (!read) return
  const keep = (kept: Omit<Kept, 'revision'>) => bench.kept.set(head.id, { revision: head.revision, ...kept })
  const named = (problem: string) => ({ ...headSummary(head), pending: false, problem })
  if (!('plan' in read)) {
    keep({ fanIds: [], fans: '', shelf: '', summary: named(read.problem) })
    return
  }
  const fanIds = [...new Set(fanIdsOf(read.plan))]
  // what it rests on is looked at before it is worked out: what is changed meanwhile makes it stale, not wrong
  const fans = marksOf(fanIds, await fanRevisions(db, fanIds))
  const shelf = read.plan.job.trust === 'discounted' ? (await changesOf(db, '')).shelf : ''
  const summary = await summaryOf(db, head, read).catch((error: unknown) => {
    console.error(error)
    return named('its report cannot be worked out')
  })
  keep({ fanIds, fans, shelf, summary })
}
async function workAll(db: Database, bench: Bench): Promise<void> {
  for (const [id, head] of bench.waiting) {
    bench.waiting.delete(id)
    await workOut(db, bench, head)
    await breathe()
  }
}
function begin(db: Database, bench: Bench, heads: readonly JobHead[]) {
  for (const head of heads) bench.waiting.set(head.id, head)
  bench.working ??= workAll(db, bench)
    // the database went away: who asks next is told so, and begins anew
    .catch(() => bench.waiting.clear())
    .finally(() => {
      bench.working = null
    })
}

/** The jobs there are, and which of them need not be worked out anew. */
async function look(db: Database, bench: Bench) {
  const heads = await listHeads(db)
  const there = new Set(heads.map((h) => h.id))
  for (const id of bench.kept.keys()) if (!there.has(id)) bench.kept.delete(id)
  const spoken = [...new Set([...bench.kept.values()].flatMap((k) => k.fanIds))]
  const revisions = await fanRevisions(db, spoken)
  const { shelf } = await changesOf(db, '')
  const standing = (head: JobHead): JobSummary | null => {
    const kept = bench.kept.get(head.id)
    const good =
      kept?.revision === head.revision &&
      kept.fans === marksOf(kept.fanIds, revisions) &&
      (kept.shelf === '' || kept.shelf === shelf)
    return good ? { ...kept.summary, ...head } : null
  }
  return { heads, standing }
}

/**
 * All jobs of the bench with how they stand.
 * @param soon do not wait for what has to be worked out: it is `pending`, as it stood before, and comes the next time
 */
export async function summaries(db: Database, soon: boolean): Promise<JobSummary[]> {
  const bench = benchOf(db)
  for (;;) {
    const { heads, standing } = await look(db, bench)
    const stale = heads.filter((h) => !standing(h))
    if (stale.length) begin(db, bench, stale)
    if (soon || !stale.length)
      return heads.map(
        (head) =>
          standing(head) ?? {
            ...(bench.kept.get(head.id)?.summary ?? headSummary(head)),
            ...head,
            pending: true,
          },
      )
    await bench.working
  }
}
