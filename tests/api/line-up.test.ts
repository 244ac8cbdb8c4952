import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { seenFrom, wholePlan, type Fan, type Trust, newPlace } from '#core/document'
import { computeReport } from '#core/plan'
import { defaultRank, modelShelf, shelfShown, trustedFans, type Ranking } from '#core/selection'
import { rankShelf } from '../ranked'
import { demoFans } from '../../demo/fans'
import { fillWithDemo } from '../../demo/fill'
import { demoJobs, demoPlan } from '../../demo/jobs'
import type { Database } from '../../server/db/database'
import {
  deleteFan,
  getFan,
  importFans,
  fanIds,
  keptFans,
  restoreFan,
  saveFan,
} from '../../server/db/repositories/fans'
import { heldShelf, takeUpWritten } from '../../server/utils/held-shelf'
import { demoData, memoryDatabase, startServer, type TestServer } from './harness'

/** The shelf is ranked where it is kept: as it is now, and as the core ranks it. */

const plan = demoPlan('job-film-cabinet')
const made = computeReport({ plan, fans: demoFans, shown: null })
if (!made.ok) throw new Error(made.reason)
const context = made.report.selectionContext

describe('the shelf that is held', () => {
  let db: Database
  beforeAll(async () => {
    db = await memoryDatabase()
    await fillWithDemo(db)
  })
  afterAll(() => db.close())
  const namesOf = async (trust: Trust = 'claims') =>
    (await heldShelf(db, trust)).models.map((m) => m.fan.model).sort()
  const stored = async () => (await keptFans(db, await fanIds(db))).filter((k) => !k.archived).map((k) => k.fan)
  const many = (count: number): Fan[] =>
    Array.from({ length: count }, (_, i) => ({ ...demoFans[i % 40]!, id: `many-${i}`, model: `Many ${i}` }))

  test.each(['claims', 'own', 'discounted'] as Trust[])(
    'believed by %s as the core believes it',
    async (trust) => {
      const fans = await stored()
      const shelf = await heldShelf(db, trust)
      const plain = modelShelf(trustedFans(fans, trust, shelfShown(fans)))
      expect(rankShelf(context, shelf).rows).toEqual(rankShelf(context, plain).rows)
      // what has not changed is not made ready again
      expect(await heldShelf(db, trust)).toBe(shelf)
    },
  )
  test('follows what is saved, put aside, brought back and brought in', async () => {
    const before = await namesOf()
    const { fan, revision } = await getFan(db, demoFans[0]!.id)
    await saveFan(db, { ...fan, model: 'Renamed' }, revision)
    expect(await namesOf()).toContain('Renamed')
    await saveFan(db, fan, revision + 1)
    expect(await namesOf()).toEqual(before)
    await deleteFan(db, fan.id)
    expect(await namesOf()).toEqual(before.filter((n) => n !== fan.model))
    await restoreFan(db, fan.id)
    expect(await namesOf()).toEqual(before)
    await importFans(db, many(600).slice(0, 500))
    expect((await namesOf()).length).toBe(before.length + 500)
    // what this server wrote itself need not be read back
    const more = many(600).slice(500)
    const { revisions } = await importFans(db, more)
    takeUpWritten(db, more, revisions)
    const shelf = await heldShelf(db, 'claims')
    expect(shelf.models.length + shelf.skipped.length).toBe((await stored()).length)
    expect(shelf.models.find((m) => m.fan.id === 'many-599')!.fan).toBe(more.at(-1))
  })
  test('asked by many at once while it changes, it is that of now for each', async () => {
    const { fan, revision } = await getFan(db, 'many-3')
    const asked = [heldShelf(db, 'claims'), heldShelf(db, 'own'), heldShelf(db, 'claims')]
    await saveFan(db, { ...fan, model: 'Meanwhile' }, revision)
    asked.push(heldShelf(db, 'claims'), heldShelf(db, 'own'))
    for (const shelf of (await Promise.all(asked)).slice(3))
      expect(shelf.models.filter((m) => m.fan.model === 'Meanwhile').length).toBe(1)
  })
})

describe('over the wire', () => {
  let server: TestServer
  beforeAll(async () => {
    server = await startServer(await demoData())
  })
  afterAll(() => server.stop())
  /** The demo's shelf in the order in which the server holds it. */
  const coreShelf = (trust: Trust) =>
    modelShelf(
      trustedFans(
        demoFans.toSorted((a, b) => (a.id < b.id ? -1 : 1)),
        trust,
        shelfShown(demoFans),
      ),
    )
  const ask = async (path: string, body: unknown) => {
    const response = await fetch(`${server.url}/api/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    return { status: response.status, json: (await response.json()) as Record<string, unknown> }
  }
  test('a plan as it stands on the page, saved or not, is ranked', async () => {
    const { json } = await ask('fans/rank', { plan: wholePlan(plan), options: defaultRank })
    const { rows, arrays } = json.ranking as Ranking
    expect(arrays).toBe(rows.length)
    const shelf = coreShelf(plan.job.trust)
    expect(rows.map((c) => [c.fans, c.count, c.driveV, c.verdict])).toEqual(
      rankShelf(context, shelf).rows.map((c) => [c.fans, c.count, c.driveV, c.verdict]),
    )
    const hotter = wholePlan({ ...plan, job: { ...plan.job, margin: (plan.job.margin ?? 0) + 1 } })
    const other = (await ask('fans/rank', { plan: hotter, options: { ...defaultRank, rows: 5 } })).json
    expect((other.ranking as Ranking).rows.length).toBe(5)
  })
  test('of several streams the one that is meant', async () => {
    const press = demoJobs().find((p) => p.job.id === 'job-stencil-press')!
    for (const { id: stream } of press.streams) {
      const faced = computeReport({ plan: seenFrom(press, stream), fans: demoFans, shown: null })
      if (!faced.ok || !faced.report.path.complete) continue
      const { json } = await ask('fans/rank', { plan: press, stream, options: defaultRank })
      const flows = (list: Ranking) => list.rows.map((c) => [c.fans, c.count, c.flow])
      expect(flows(json.ranking as Ranking)).toEqual(
        flows(rankShelf(faced.report.selectionContext, coreShelf(press.job.trust))),
      )
    }
  })
  test('nothing is ranked for a path that is not complete', async () => {
    const bare = wholePlan({ ...plan, path: [], branches: [], places: [newPlace('bare')] })
    expect(await ask('fans/rank', { plan: bare, options: defaultRank })).toMatchObject({
      status: 200,
      json: { ranking: null },
    })
  })
  test.each([
    ['no plan', { options: defaultRank }],
    ['a number of fans that cannot be', { plan, options: { ...defaultRank, counts: [0] } }],
    ['another objective', { plan, options: { ...defaultRank, objective: 'best' } }],
    ['more rows than anybody reads', { plan, options: { ...defaultRank, rows: 1e6 } }],
  ])('%s is refused', async (_, body) => {
    const { status, json } = await ask('fans/rank', body)
    expect(status).toBe(400)
    expect((json.error as { message: string }).message).not.toBe('')
  })
  test('names of the whole shelf, and sheets of those that are asked for', async () => {
    const names = (await (await fetch(`${server.url}/api/fans/names`)).json()) as {
      id: string
      model: string
    }[]
    expect(names.map((n) => n.id).sort()).toEqual(demoFans.map((f) => f.id).sort())
    const ids = [names[0]!.id, names[5]!.id]
    const { json } = await ask('fans/some', { ids: [...ids, 'nobody'] })
    expect((json as unknown as { fan: Fan }[]).map((s) => s.fan.id).sort()).toEqual([...ids].sort())
    expect((await ask('fans/some', { ids: Array(501).fill('x') })).status).toBe(400)
  })
})
