import { trustedFans, modelShelf, type ModelShelf, shelfShown } from '#core/selection'
import type { Fan, ShelfShown, Trust } from '#core/document'
import { modelFan, type FanModelResult } from '#core/system'
import type { StoredFan } from '#shared/api'
import { inPieces } from '#shared/pieces'
import type { Database } from '../db/database'
import { changesOf } from '../db/repositories/changes'
import { fansTouchedSince, someFans } from '../db/repositories/fans'
import { breathe } from './breathe'

/**
 * The shelf as rankings want it, kept in memory: read once, then brought up to date by what was touched since. Reading and
 * modelling thousands of fans goes on in short pieces, with other requests in between.
 */

interface Held {
  /** mark of the shelf that this is, and by which what changes behind it is asked for */
  mark: string
  at: string
  fans: Map<string, StoredFan>
  /** fans made ready; one whose sheet has not changed is not made ready again */
  made: WeakMap<Fan, FanModelResult>
  /** what tests have shown, and shelves by what is believed; null after a change */
  shown: ShelfShown | null
  ready: Map<Trust, ModelShelf>
  reading: Promise<void> | null
}
const shelves = new WeakMap<Database, Held>()
const EVER = '0'
function heldOf(db: Database): Held {
  const known = shelves.get(db)
  if (known) return known
  const fresh: Held = {
    mark: '',
    at: EVER,
    fans: new Map(),
    made: new WeakMap(),
    shown: null,
    ready: new Map(),
    reading: null,
  }
  shelves.set(db, fresh)
  return fresh
}

/** Fans read at once. */
const PART = 250

async function bringUp(db: Database, held: Held): Promise<void> {
  const { shelf: mark, at } = await changesOf(db, '')
  if (mark === held.mark) return
  const touched = await fansTouchedSince(db, held.at)
  const missing = touched.filter((t) => !t.gone && held.fans.get(t.id)?.revision !== t.revision)
  for (const { id } of touched.filter((t) => t.gone)) held.fans.delete(id)
  for (let from = 0; from < missing.length; from += PART) {
    const ids = missing.slice(from, from + PART).map((m) => m.id)
    for (const one of await someFans(db, ids)) held.fans.set(one.fan.id, one)
    await breathe()
  }
  held.mark = mark
  held.at = at
  held.shown = null
  held.ready.clear()
}

function* makeReady({ fans, made }: Held, trust: Trust, shown: ShelfShown): Generator<void, ModelShelf> {
  const sorted = [...fans.values()].map((s) => s.fan).sort((a, b) => (a.id < b.id ? -1 : 1))
  yield
  const believed = trustedFans(sorted, trust, shown)
  for (const fan of believed) {
    if (made.has(fan)) continue
    made.set(fan, modelFan(fan))
    yield
  }
  return modelShelf(believed, (fan) => made.get(fan)!)
}

/** The shelf as it is now, believed as a plan wants it. */
export async function heldShelf(db: Database, trust: Trust): Promise<ModelShelf> {
  const held = heldOf(db)
  // one reads at a time; who comes meanwhile looks again afterwards, since more may have changed
  await held.reading
  held.reading ??= bringUp(db, held).finally(() => {
    held.reading = null
  })
  await held.reading
  const known = held.ready.get(trust)
  if (known) return known
  const { mark } = held
  const shown = (held.shown ??= shelfShown([...held.fans.values()].map((s) => s.fan)))
  const shelf = await inPieces(makeReady(held, trust, shown), breathe)
  if (held.mark === mark) held.ready.set(trust, shelf)
  return shelf
}

/** Takes fans up that were just written here, so that they need not be read back. */
export function takeUpWritten(db: Database, fans: readonly Fan[], revisions: Record<string, number>): void {
  const held = shelves.get(db)
  if (!held || held.mark === '') return
  for (const fan of fans) {
    const revision = revisions[fan.id]
    if (revision !== undefined) held.fans.set(fan.id, { fan, revision })
  }
}
