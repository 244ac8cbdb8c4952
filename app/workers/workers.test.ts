import { proxy, wrap, type Remote } from 'comlink'
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest'
import { planUncertainty } from '#core/advice'
import { newControlOf, newStreamPlan, type StreamPlan } from '#core/document'
import { joinBlocks } from '#shared/log-blocks'
import { writeCsv } from '#shared/exchange/shelf-file'
import type { LogTable } from '#shared/exchange/log-file'
import { demoFans } from '../../demo/fans'
import { demoPlan, demoPlans } from '../../demo/jobs'
import type { DayWorker } from './day.worker'
import type { LogWorker } from './log.worker'
import type { PlanWorker } from './plan.worker'
import type { ShelfWorker } from './shelf.worker'
import type { TraceWorker } from './trace.worker'

// each worker answers at the far end of a channel, so that all that goes through is copied as between threads
const far = vi.hoisted(() => ({ port: null as MessagePort | null }))
vi.mock('comlink', async (original) => {
  const comlink = await original<typeof import('comlink')>()
  return { ...comlink, expose: (worker: unknown) => comlink.expose(worker, far.port!) }
})
const ports: MessagePort[] = []
async function started<T>(load: () => Promise<unknown>): Promise<Remote<T>> {
  const { port1, port2 } = new MessageChannel()
  ports.push(port1, port2)
  far.port = port2
  await load()
  return wrap<T>(port1)
}
afterAll(() => {
  for (const port of ports) port.close()
})

const plan = demoPlans()[0]!
const input = { plan, fans: demoFans, shown: null }

describe('plan', () => {
  let worker: Remote<PlanWorker>
  beforeAll(async () => {
    worker = await started<PlanWorker>(() => import('./plan.worker'))
  })
  test('samples the plan as the core does', async () => {
    expect(await worker.sample(input)).toEqual(planUncertainty(input))
  })
  test('offers improvements, each once', async () => {
    const { improvements } = await worker.improvements(input)
    expect(improvements.length).toBeGreaterThan(2)
    expect(new Set(improvements.map((x) => x.key)).size).toBe(improvements.length)
  })
  test('a plan without anything gets no improvements and no failure', async () => {
    const empty = { plan: newStreamPlan('empty', 'Empty'), fans: [], shown: null }
    expect(await worker.improvements(empty)).toMatchObject({ improvements: [] })
  })
})

describe('shelf', () => {
  const known = demoFans.slice(0, 3)
  const fresh = demoFans.slice(3, 8)
  const text = writeCsv([...known, ...fresh])
  let worker: Remote<ShelfWorker>
  beforeAll(async () => {
    worker = await started<ShelfWorker>(() => import('./shelf.worker'))
    await worker.setShelf(known)
  })
  test('reads a table, knows what is new and tells how far it is', async () => {
    const told: number[] = []
    const { problem, counts } = await worker.open(
      text,
      proxy((share: number) => void told.push(share)),
    )
    expect(problem).toBe('')
    expect(counts).toMatchObject({ new: fresh.length, same: known.length, wrong: 0 })
    await vi.waitFor(() => expect(told.at(-1)).toBe(1))
  })
  test('only what is new or changed is handed on to be written', async () => {
    expect((await worker.part(0, 10)).map((f) => f.id)).toEqual(fresh.map((f) => f.id))
    expect(await worker.part(fresh.length, 10)).toEqual([])
  })
  test('a heading that loses its meaning is no longer read', async () => {
    const { headings } = await worker.open(
      text,
      proxy(() => {}),
    )
    const volts = headings.findIndex((h) => h.key === 'ratedV')
    const { headings: after, counts } = await worker.remap(
      volts,
      null,
      null,
      proxy(() => {}),
    )
    expect(after[volts]!.key).toBeNull()
    expect(counts.wrong + counts.changed + counts.new).toBeGreaterThan(0)
  })
  test('what is no table is refused in words', async () => {
    const { problem, counts } = await worker.open(
      '',
      proxy(() => {}),
    )
    expect(problem).not.toBe('')
    expect(counts.new).toBe(0)
  })
})

describe('log', () => {
  const ROWS = 900
  const text = ['time_s,box_degC', ...Array.from({ length: ROWS }, (_, i) => `${i * 10},${rise(i * 10)}`)].join(
    '\n',
  )
  let worker: Remote<LogWorker>
  let table: LogTable
  beforeAll(async () => {
    worker = await started<LogWorker>(() => import('./log.worker'))
    table = (await worker.sniff(new Blob([text]))) as LogTable
  })
  function rise(t: number) {
    return (20 + 25 * (1 - Math.exp(-t / 1500))).toFixed(3)
  }
  test('a file is read, cut into blocks, held and fitted', async () => {
    const read = (await worker.read(
      table,
      proxy(() => {}),
    ))!
    expect(read).toMatchObject({ problem: '', rows: ROWS })
    const block = (await worker.block(0))!
    expect(block.more).toBe(false)
    expect(await worker.block(1)).toBeNull()

    const sent = joinBlocks([{ seq: 0, rows: ROWS, channels: read.channels.length, data: block.data }])
    expect(await worker.append(sent.buffer as ArrayBuffer, read.channels)).toMatchObject({
      rows: ROWS,
      end: 10 * (ROWS - 1),
    })
    const soak = (await worker.soak(0, null, 0, Infinity))!
    expect(soak.final).toBeCloseTo(45, 1)
  })
  test('without a log there is nothing to see, and nothing fails', async () => {
    await worker.clear()
    expect(await worker.view(0, 10, 100)).toEqual({ channels: [], rows: 0, first: 0, last: 0 })
    expect(await worker.soak(0, null, 0, 10)).toBeNull()
    expect(await worker.summary(0, 10)).toEqual([])
  })
  test('a forgotten file has no blocks', async () => {
    await worker.forget()
    expect(await worker.block(0)).toBeNull()
  })
})

describe('trace', () => {
  test('follows the line of a picture, and says so where there is none', async () => {
    const worker = await started<TraceWorker>(() => import('./trace.worker'))
    const limit = { left: 0, right: 99 }
    expect(await worker.follow({ x: 5, y: 30 }, 40, 10, limit)).toBe('There is no picture yet.')
    const data = new Uint8ClampedArray(100 * 60 * 4).fill(255)
    for (let x = 0; x < 100; x++) for (let y = 29; y <= 31; y++) data.set([200, 0, 0, 255], (y * 100 + x) * 4)
    await worker.setPicture(100, 60, data)
    const line = await worker.follow({ x: 50, y: 30 }, 40, 10, limit)
    if (typeof line === 'string') throw new Error(line)
    for (const { y } of line.points) expect(y).toBeCloseTo(30, 0)
  })
})

describe('day', () => {
  let worker: Remote<DayWorker>
  const shelf = demoPlan('job-recorder-shelf')
  const of = (day: StreamPlan) => ({ plan: day, fans: demoFans, shown: null })
  beforeAll(async () => {
    worker = await started<DayWorker>(() => import('./day.worker'))
  })
  test('one day, the three kinds side by side, a week; peaks are kept in the columns', async () => {
    const hot = (await worker.day(of(shelf), 'hot', 300))!
    expect([hot.columns, hot.seconds, hot.kinds]).toEqual([300, 86_400, ['hot']])
    const peak = Math.max(...hot.parts[0]!.lane.high)
    expect(peak).toBeCloseTo(hot.summaries[0]!.peakC[0]!, 2)
    const three = (await worker.day(of(shelf), 'three', 300))!
    expect([three.together, three.kinds]).toEqual(['kinds', ['cold', 'usual', 'hot']])
    expect(Math.max(...three.parts[0]!.lane.high)).toBeCloseTo(peak, 2)
    const week = (await worker.day(of(shelf), 'week', 350))!
    expect([week.together, week.summaries.length]).toEqual(['week', 7])
  })
  test('model with its advice, the schools, drawn days and the search with their progress', async () => {
    const { model, advice } = (await worker.model(of(shelf), 0))!
    expect(model.parts.map((p) => p.name)).toEqual(['Disks', 'Supply'])
    expect(advice!.failures.map((f) => f.part)).toEqual(['sensor', 'controller', 'fan', 'supply'])
    const rows = await worker.schools(of(shelf), 0)
    expect(rows.filter((r) => r.taken).map((r) => r.school)).toEqual(['curve'])
    const shares: number[] = []
    const onDone = proxy((share: number) => {
      shares.push(share)
    })
    const drawn = (await worker.drawn(of(shelf), 'hot', onDone))!
    expect(drawn.peakC[0]!.low).toBeLessThan(drawn.peakC[0]!.high)
    const found = (await worker.quietest(of(shelf), 0, onDone))!
    expect(found.ok).toBe(true)
    await vi.waitFor(() => expect(shares.length).toBeGreaterThan(10))
    expect(Math.max(...shares)).toBeLessThanOrEqual(1)
  }, 60_000)
  test('a machine of several streams: two controls, and the rest always on', async () => {
    const press = demoPlan('job-stencil-press')
    press.controls = [
      { ...newControlOf('c1', 'thermostat', ['main']), onC: 40, offC: 34 },
      { ...newControlOf('c2', 'timer', ['stream-board']), timerOnS: 600, timerEveryS: 1800 },
    ]
    const view = (await worker.day(of(press), 'usual', 200))!
    expect(view.groups.length).toBe(4)
    const [, board, drum] = view.summaries[0]!.groups
    expect(board!.onS).toBeCloseTo(8 * 3600, -3)
    expect(drum!.onS).toBe(86_400)
    const loudest = (lane: Float32Array) => Math.max(...lane.filter((x) => Number.isFinite(x)))
    expect(loudest(view.level.high)).toBeGreaterThan(25)
  })
  test('no fan, no day', async () => {
    const none = newStreamPlan('x', 'X')
    expect([await worker.day(of(none), 'hot', 100), await worker.model(of(none), 0)]).toEqual([null, null])
    expect(await worker.schools(of(none), 0)).toEqual([])
  })
})
