import { createPinia, defineStore, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import * as vue from 'vue'
import { newPlan, newTarget, seenFrom, wholePlan, type MachinePlan, type PlanDocument } from '#core/document'
import { SAVE_AFTER_MS } from './saving'
import { pick, selectionOf } from '../../tests/plans'

/** A server that holds jobs, and can be slow, gone, or changed by somebody else. */
const server = {
  jobs: new Map<string, { plan: PlanDocument; revision: number }>(),
  puts: [] as string[],
  offline: false,
  /** answers of saves wait for this */
  gate: Promise.resolve(),
  /** how many of the next saves are written and never answered; what was written is known again */
  loses: 0,
  known: new Map<string, object>(),
  /** somebody else’s change that the server puts together with the next save */
  joins: null as ((d: PlanDocument) => void) | null,
}
async function answer(
  path: string,
  { method, body }: { method?: string; body?: { plan: PlanDocument; revision: number } } = {},
) {
  const id = path.split('/')[1]!
  if (server.offline) return { ok: false, kind: 'offline', message: 'The server does not answer.' }
  const stored = server.jobs.get(id)
  if (!stored) return { ok: false, kind: 'missing', message: 'There is no such job.' }
  if (method !== 'PUT' || !body)
    return { ok: true, data: { ...structuredClone(stored), fans: [], shown: null } }
  server.puts.push(`${id} ${body.plan.job.name}`)
  await server.gate
  const what = JSON.stringify(body)
  const before = server.known.get(what)
  if (before) return before
  if (body.revision !== stored.revision) return { ok: false, kind: 'conflict', message: 'Changed elsewhere.' }
  const plan = structuredClone(body.plan)
  server.joins?.(plan)
  server.jobs.set(id, { plan, revision: stored.revision + 1 })
  const data = { revision: stored.revision + 1, ...(server.joins ? { plan: structuredClone(plan) } : {}) }
  server.joins = null
  server.known.set(what, { ok: true, data })
  if (server.loses > 0) {
    server.loses--
    return { ok: false, kind: 'offline', message: 'The server does not answer.' }
  }
  return { ok: true, data }
}

const drafts = new Map<string, string>()
const storage = {
  getItem: (key: string) => drafts.get(key) ?? null,
  setItem: (key: string, value: string) => drafts.set(key, value),
  removeItem: (key: string) => drafts.delete(key),
}
const toasts: string[] = []
/** fans that the shelf was asked to have here */
let pinned: string[] = []
/** What the store wants to be told of changes elsewhere. */
let follower: { open: () => string; told: (now: { revision: number | null }, before: null, id: string) => void }
/** Another device saves a job, and this page hears of its revision. */
async function elsewhere(id: string, mutate: (d: PlanDocument) => void) {
  const stored = server.jobs.get(id)!
  const plan = structuredClone(stored.plan)
  mutate(plan)
  server.jobs.set(id, { plan, revision: stored.revision + 1 })
  follower.told({ revision: stored.revision + 1 }, null, id)
  await rest(0)
}

let useJobStore: typeof import('./job').useJobStore
beforeEach(async () => {
  vi.useFakeTimers()
  Object.assign(server, {
    jobs: new Map(),
    puts: [],
    offline: false,
    gate: Promise.resolve(),
    loses: 0,
    known: new Map(),
    joins: null,
  })
  drafts.clear()
  toasts.length = 0
  for (const [id, name] of [
    ['a', 'First'],
    ['b', 'Second'],
  ] as const)
    server.jobs.set(id, { plan: newPlan(id, name), revision: 1 })
  // what the framework brings into scope without an import
  for (const name of ['ref', 'shallowRef', 'computed', 'watch', 'watchEffect', 'toRaw', 'markRaw'] as const)
    vi.stubGlobal(name, vue[name])
  vi.stubGlobal('defineStore', defineStore)
  vi.stubGlobal('localStorage', storage)
  vi.stubGlobal('api', answer)
  vi.stubGlobal('useShelfStore', () => ({
    known: [],
    shown: null,
    load: () => undefined,
    remember: () => undefined,
    pin: (ids: string[]) => {
      pinned = ids
    },
  }))
  vi.stubGlobal('window', { location: { pathname: '/job/a/brief' } })
  vi.stubGlobal('followChanges', (one: typeof follower) => {
    follower = one
  })
  vi.stubGlobal('useToast', () => ({ show: (text: string) => toasts.push(text) }))
  setActivePinia(createPinia())
  vi.resetModules()
  useJobStore = (await import('./job')).useJobStore
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

const rename = (name: string) => (d: Pick<MachinePlan, 'job'>) => {
  d.job.name = name
}
const rest = (ms = SAVE_AFTER_MS) => vi.advanceTimersByTimeAsync(ms)

describe('changes elsewhere', () => {
  test('are shown where nothing is unsaved here; undo names them', async () => {
    const job = useJobStore()
    await job.open('a')
    expect(follower.open()).toBe('a')
    await elsewhere('a', rename('From afar'))
    expect(job.plan!.job.name).toBe('From afar')
    expect(job.undoWhat).toBe('what another device changed')
    expect(toasts).toHaveLength(1)
    // and saving goes on from there
    job.change((d) => (d.job.complaint = 'hot'))
    await rest()
    expect(server.jobs.get('a')).toMatchObject({
      revision: 3,
      plan: { job: { name: 'From afar', complaint: 'hot' } },
    })
  })
  test('wait for what is typed here, and are put together with it', async () => {
    const job = useJobStore()
    await job.open('a')
    job.change((d) => (d.job.complaint = 'typed here'))
    await elsewhere('a', rename('From afar'))
    expect(job.plan!.job).toMatchObject({ name: 'First', complaint: 'typed here' })
    await rest(3 * SAVE_AFTER_MS)
    expect(job.plan!.job).toMatchObject({ name: 'From afar', complaint: 'typed here' })
    expect(job.saveState).toBe('saved')
  })
  test('of this page itself, of before, and of another job are no news', async () => {
    const job = useJobStore()
    await job.open('a')
    job.change(rename('Mine'))
    await rest()
    follower.told({ revision: 2 }, null, 'a')
    follower.told({ revision: 1 }, null, 'a')
    follower.told({ revision: 9 }, null, 'b')
    await rest(0)
    expect(job.plan!.job.name).toBe('Mine')
    expect(toasts).toEqual([])
  })
  test('a job that goes while its page is open is told once', async () => {
    const job = useJobStore()
    await job.open('a')
    for (let i = 0; i < 3; i++) follower.told({ revision: null }, null, 'a')
    expect(toasts).toEqual(['This job was taken off the bench.'])
  })
})

describe('saving', () => {
  test('a change is kept in the browser at once, saved a moment later, then forgotten there', async () => {
    const job = useJobStore()
    await job.open('a')
    job.change(rename('Oven'))
    expect(job.saveState).toBe('saving')
    expect(drafts.get('redpoll-draft-a')).toContain('Oven')
    await rest()
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')).toMatchObject({ revision: 2, plan: { job: { name: 'Oven' } } })
    expect(drafts.size).toBe(0)
  })
  test('a save whose answer was lost goes once more as it was, and is no conflict with itself', async () => {
    const job = useJobStore()
    await job.open('a')
    server.loses = 1
    job.change(rename('One'))
    await rest()
    expect(job.saveState).toBe('unsaved')
    job.change(rename('Two'))
    await rest(10_000)
    expect(server.puts).toEqual(['a One', 'a One', 'a Two'])
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')).toMatchObject({ revision: 3, plan: { job: { name: 'Two' } } })
  })
  test('nor after the page was opened anew', async () => {
    const first = useJobStore()
    await first.open('a')
    server.loses = 1
    first.change(rename('One'))
    await rest()
    server.offline = true
    first.change(rename('Two'))
    await rest()
    server.offline = false
    setActivePinia(createPinia())
    const job = useJobStore()
    await job.open('a')
    await rest()
    expect(job.plan!.job.name).toBe('Two')
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')!.plan.job.name).toBe('Two')
  })
  test('what the server put together with somebody else’s change is shown, also under what is typed meanwhile', async () => {
    const job = useJobStore()
    await job.open('a')
    server.joins = (d) => (d.job.complaint = 'by another')
    job.change(rename('Mine'))
    await rest()
    expect(job.plan!.job).toMatchObject({ name: 'Mine', complaint: 'by another' })
    expect(toasts).toHaveLength(1)
    let open!: () => void
    server.gate = new Promise((done) => (open = done))
    server.joins = (d) => (d.job.complaint = 'by another again')
    job.change(rename('Mine again'))
    await rest()
    job.change((d) => (d.job.equipment = 'an oven'))
    open()
    await rest(2 * SAVE_AFTER_MS)
    const both = { name: 'Mine again', complaint: 'by another again', equipment: 'an oven' }
    expect(job.plan!.job).toMatchObject(both)
    expect(server.jobs.get('a')!.plan.job).toMatchObject(both)
    expect(job.saveState).toBe('saved')
  })
  test('what changes while a save is under way goes behind it', async () => {
    const job = useJobStore()
    await job.open('a')
    let open!: () => void
    server.gate = new Promise((done) => (open = done))
    job.change(rename('One'))
    await rest()
    job.change(rename('Two'))
    await rest()
    open()
    await rest()
    expect(server.puts).toEqual(['a One', 'a Two'])
    expect(job.saveState).toBe('saved')
  })
  test('another job is opened while a save is under way: nothing dropped, no false conflict', async () => {
    const job = useJobStore()
    await job.open('a')
    let open!: () => void
    server.gate = new Promise((done) => (open = done))
    job.change(rename('Sent'))
    await rest()
    job.change(rename('Sent and changed'))
    const opening = job.open('b')
    open()
    await opening
    job.change(rename('Second, renamed'))
    await rest(2 * SAVE_AFTER_MS)
    expect(server.jobs.get('a')).toMatchObject({ revision: 3, plan: { job: { name: 'Sent and changed' } } })
    expect(server.jobs.get('b')).toMatchObject({ revision: 2, plan: { job: { name: 'Second, renamed' } } })
    expect(drafts.size).toBe(0)
    await job.open('a')
    expect(job.saveState).toBe('saved')
    expect(job.plan!.job.name).toBe('Sent and changed')
  })
  test('a change that was not sent yet is sent when another job is opened, and opened again it is there', async () => {
    const job = useJobStore()
    await job.open('a')
    job.change(rename('Typed quickly'))
    await job.open('b')
    await job.open('a')
    expect(job.plan!.job.name).toBe('Typed quickly')
    expect(job.saveState).toBe('saved')
  })
  test('a server that is gone: unsaved, kept, and saved when it is back', async () => {
    const job = useJobStore()
    await job.open('a')
    server.offline = true
    job.change(rename('Offline'))
    await rest()
    expect(job.saveState).toBe('unsaved')
    server.offline = false
    await rest(3000)
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')!.plan.job.name).toBe('Offline')
  })
  test('two jobs asked for at once: the last one is shown', async () => {
    const job = useJobStore()
    await Promise.all([job.open('a'), job.open('b')])
    expect(job.plan!.job.id).toBe('b')
  })
})

describe('a conflict', () => {
  const elsewhere = (id: string) => {
    const { plan, revision } = server.jobs.get(id)!
    server.jobs.set(id, { plan: { ...plan, job: { ...plan.job, name: 'Theirs' } }, revision: revision + 1 })
  }
  test('is told, and my version goes on top when I keep it', async () => {
    const job = useJobStore()
    await job.open('a')
    elsewhere('a')
    job.change(rename('Mine'))
    await rest()
    expect(job.saveState).toBe('conflict')
    await job.resolveConflict('mine')
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')!.plan.job.name).toBe('Mine')
  })
  test('what only one side touched is kept from both, without a question', async () => {
    const job = useJobStore()
    await job.open('a')
    elsewhere('a')
    job.change((d) => {
      d.job.heatW = 40
    })
    await rest()
    expect(job.saveState).toBe('saved')
    expect(job.plan!.job).toMatchObject({ name: 'Theirs', heatW: 40 })
    expect(seenFrom(server.jobs.get('a')!.plan).job).toMatchObject({ name: 'Theirs', heatW: 40 })
    expect(toasts.join()).toContain('both changes were kept')
  })
  test('theirs is taken, mine stays one undo away', async () => {
    const job = useJobStore()
    await job.open('a')
    elsewhere('a')
    job.change(rename('Mine'))
    await rest()
    await job.resolveConflict('theirs')
    expect(job.plan!.job.name).toBe('Theirs')
    job.undo()
    await rest()
    expect(server.jobs.get('a')!.plan.job.name).toBe('Mine')
  })
  test('a draft of a closed window stands beside what was changed elsewhere since', async () => {
    const draft = newPlan('a', 'From yesterday')
    drafts.set('redpoll-draft-a', JSON.stringify({ plan: draft, revision: 1 }))
    elsewhere('a')
    const job = useJobStore()
    await job.open('a')
    expect(job.saveState).toBe('conflict')
    expect(job.plan!.job.name).toBe('From yesterday')
    job.undo()
    expect(job.plan!.job.name).toBe('Theirs')
  })
  test('a draft on the same revision is simply saved', async () => {
    drafts.set('redpoll-draft-a', JSON.stringify({ plan: newPlan('a', 'From yesterday'), revision: 1 }))
    const job = useJobStore()
    await job.open('a')
    await rest()
    expect(job.saveState).toBe('saved')
    expect(server.jobs.get('a')!.plan.job.name).toBe('From yesterday')
  })
})

describe('several air streams', () => {
  test('a new one is shown at once, what is typed is its own, undo takes it away again', async () => {
    const job = useJobStore()
    await job.open('a')
    job.newAirStream('Board')
    expect([job.plan!.stream, job.plan!.job.streamName, job.undoWhat]).toEqual([
      job.chosen,
      'Board',
      'Board added',
    ])
    job.change((d) => (d.job.heatW = 7), 'job.heatW')
    expect(job.plan!.job.heatW).toBe(7)
    // a page of the whole machine sees it from the first stream
    job.ofStream = false
    expect([job.plan!.stream, job.plan!.job.heatW]).toEqual(['main', null])
    job.ofStream = true
    job.undo()
    job.undo()
    expect([job.plan!.beside, job.plan!.stream]).toEqual([[], 'main'])
    job.redo()
    expect(job.plan!.job.streamName).toBe('Board')
  })
  test('a whole document is taken over, whichever stream either is seen from', async () => {
    const job = useJobStore()
    await job.open('a')
    job.newAirStream('Board')
    const other = structuredClone(wholePlan(vue.toRaw(job.plan!)))
    other.streams[0]!.job.heatW = 11
    other.streams[1]!.job.heatW = 3
    job.replace(seenFrom(other))
    expect(job.plan!.job).toMatchObject({ streamName: 'Board', heatW: 3 })
    job.ofStream = false
    expect(job.plan!.job.heatW).toBe(11)
    expect([...server.jobs.keys()]).toContain('a')
  })
  test('its fan gets a lead in the feed; both go with it, and come back by undo', async () => {
    const job = useJobStore()
    await job.open('a')
    job.newAirStream('Board')
    const id = job.chosen
    job.change((d) => {
      pick(d, selectionOf('f'), 12)
    })
    expect(job.plan!.feed).toMatchObject([{ streamId: id, name: 'Board', parentId: null }])
    job.removeAirStream()
    expect(job.plan).toMatchObject({ beside: [], feed: [] })
    job.undo()
    expect(job.plan!.feed).toMatchObject([{ streamId: id }])
  })
})

test('the fans that a plan speaks of are asked for, also one that was chosen from a list of names', async () => {
  const job = useJobStore()
  await job.open('a')
  job.change((d) => (d.job.existingFanId = 'fan-old'), 'job.existingFanId')
  await vue.nextTick()
  expect(pinned).toContain('fan-old')
})

describe('undo', () => {
  test('typing in one field is one step; redo brings all of it back', async () => {
    const job = useJobStore()
    await job.open('a')
    expect(job.canUndo).toBe(false)
    for (const name of ['O', 'Ov', 'Oven']) job.change(rename(name), 'job.name')
    job.undo()
    expect(job.plan!.job.name).toBe('First')
    job.redo()
    expect(job.plan!.job.name).toBe('Oven')
    await rest()
    expect(server.jobs.get('a')!.plan.job.name).toBe('Oven')
  })
  test('another field, or a while later, is another step', async () => {
    const job = useJobStore()
    await job.open('a')
    job.change(rename('Oven'), 'job.name')
    job.change((d) => (d.job.heatW = 5), 'job.heatW')
    await rest(5000)
    job.change((d) => (d.job.heatW = 6), 'job.heatW')
    job.undo()
    expect(job.plan!.job.heatW).toBe(5)
    job.undo()
    expect(job.plan!.job).toMatchObject({ name: 'Oven', heatW: null })
  })
  test('a change that the schema refuses is not taken, and says why', async () => {
    const job = useJobStore()
    await job.open('a')
    expect(job.change((d) => (d.job.humidity = 4))).toBe('Not above 1.')
    expect(toasts).toEqual(['Not taken: Not above 1.'])
    expect(job.plan!.job.humidity).toBe(0.5)
    expect(job.canUndo).toBe(false)
  })
  test('undo and redo say what they take back', async () => {
    const job = useJobStore()
    await job.open('a')
    expect([job.undoWhat, job.redoWhat]).toEqual(['', ''])
    job.change((d) => (d.job.heatW = 5), 'job.heatW', 'Heat released inside')
    job.change((d) => d.targets.push(newTarget({ id: 't', kind: 'level', limit: 30 }, 'main')))
    expect(job.undoWhat).toBe('target added')
    job.undo()
    expect([job.undoWhat, job.redoWhat]).toEqual(['Heat released inside', 'target added'])
    job.undo()
    expect([job.undoWhat, job.redoWhat]).toEqual(['', 'Heat released inside'])
    expect([job.canUndo, job.canRedo]).toEqual([false, true])
  })
  test('a removal offers its undo', async () => {
    const job = useJobStore()
    await job.open('a')
    job.removeWithUndo('Gone.', rename('Without'))
    expect(toasts).toEqual(['Gone.'])
    job.undo()
    expect(job.plan!.job.name).toBe('First')
  })
})
