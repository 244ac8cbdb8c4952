import { wholePlan, type StreamPlan, newPlace } from '#core/document'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { boxOf, makeBox } from '../../server/simulator/bench-box'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'
import { writeBench } from '#core/measure'
import { checkBlock, encodeBlock, joinBlocks, readBlocks, type Block } from '#shared/log-blocks'
import type { Database } from '../../server/db/database'
import {
  createInstrument,
  getInstrument,
  instrumentByToken,
  listInstruments,
  archiveInstrument,
  renewToken,
  restoreInstrument,
  type Instrument,
} from '../../server/db/repositories/instruments'
import { createPlan, deleteJob, getPlan, restoreJob } from '../../server/db/repositories/jobs'
import { addAttachment, listAttachments } from '../../server/db/repositories/attachments'
import {
  closeLog,
  createLog,
  dropLog,
  finishLog,
  getLog,
  listLogs,
  putBlock,
  archiveLog,
  readLogBlocks,
  renameLog,
  restoreLog,
} from '../../server/db/repositories/logs'
import { forgetLive, liveState, takeMessage } from '../../server/devices/intake'
import { memoryDatabase } from './harness'

let db: Database
const plan = {
  ...demoPlans()[3]!,
  places: [newPlace('bare')],
  calibration: null,
  feed: [],
} satisfies StreamPlan
const jobId = plan.job.id
const start = Date.parse('2026-03-01T10:00:00.000Z')
beforeAll(async () => {
  db = await memoryDatabase()
  await createPlan(db, wholePlan({ ...plan, job: { ...plan.job, existingFanId: null } }))
})
afterAll(() => db.close())

let made = 0
async function board(record = true): Promise<{ instrument: Instrument; token: string; log: string }> {
  const n = made++
  const { instrument, token } = await createInstrument(db, `i${n}`, `Board ${n}`, 'board')
  if (record)
    await createLog(db, jobId, {
      id: `log${n}`,
      name: `Log ${n}`,
      origin: 'recorded',
      startedAt: new Date(start).toISOString(),
      instrumentId: instrument.id,
      channels: [],
      remarks: '',
    })
  return { instrument: await getInstrument(db, instrument.id), token, log: `log${n}` }
}
const lines = (boot: string, rows: [number, number, string][]) =>
  `# boot=${boot}\n${rows.map((r) => r.join(' ')).join('\n')}\n`
async function samples(id: string) {
  const { blocks } = await readLogBlocks(db, id, -1, 1e9)
  return readBlocks(joinBlocks(blocks).buffer as ArrayBuffer, (await getLog(db, id)).channels).log
}

describe('blocks', () => {
  test('a channel that joined later has gaps before; more blocks continue the log', () => {
    const block = (seq: number, times: number[], columns: number[][]): Block => ({
      seq,
      rows: times.length,
      channels: columns.length,
      data: encodeBlock(times, columns),
    })
    const channels = [
      { name: 'a', quantity: 'temperature' as const },
      { name: 'b', quantity: 'voltage' as const },
    ]
    const first = readBlocks(
      joinBlocks([block(0, [0, 1], [[10, 11]]), block(1, [2], [[12], [5]])]).buffer as ArrayBuffer,
      channels,
    )
    expect([...first.log.times]).toEqual([0, 1, 2])
    expect([...first.log.channels[1]!.values]).toEqual([NaN, NaN, 5])
    expect(first.last).toBe(1)
    const more = readBlocks(joinBlocks([block(2, [3], [[13], [6]])]).buffer as ArrayBuffer, channels, first)
    expect([...more.log.times]).toEqual([0, 1, 2, 3])
    expect([...more.log.channels[0]!.values]).toEqual([10, 11, 12, 13])
    expect(readBlocks(new ArrayBuffer(0), channels, more)).toBe(more)
  })
  test('what is no block is refused in words', () => {
    expect(checkBlock(encodeBlock([0, 1], [[1, 2]]), 1)).toBe(2)
    expect(checkBlock(encodeBlock([0, 1], [[1, 2]]), 2)).toContain('whole rows')
    expect(checkBlock(encodeBlock([1, 0], [[1, 2]]), 1)).toContain('rise')
    expect(checkBlock(encodeBlock([0, NaN], [[1, 2]]), 1)).toContain('missing')
    expect(checkBlock(new Uint8Array(0), 1)).toContain('whole rows')
  })
})

describe('what a board sends', () => {
  let b: Awaited<ReturnType<typeof board>>
  beforeEach(async () => {
    b = await board()
  })
  const send = (text: string, afterS = 0) => takeMessage(db, b.instrument, text, start + afterS * 1000)
  test('is stored before the answer, and sent again it is stored once', async () => {
    const rows: [number, number, string][] = [
      [0, 0, 'sink_degC=40'],
      [1, 1000, 'sink_degC=41'],
      [2, 2000, 'sink_degC=42'],
    ]
    expect(await send(lines('x', rows))).toEqual({
      accepted: 3,
      repeated: 0,
      late: 0,
      held: 0,
      refused: [],
      log: b.log,
      next: 3,
    })
    // no answer reached the board: it sends the last two again and one more
    expect(await send(lines('x', [...rows.slice(1), [3, 3000, 'sink_degC=43']]))).toMatchObject({
      accepted: 1,
      repeated: 2,
      next: 4,
    })
    const log = await samples(b.log)
    expect([...log.times]).toEqual([0, 1, 2, 3])
    expect([...log.channels[0]!.values]).toEqual([40, 41, 42, 43])
    expect(await getLog(db, b.log)).toMatchObject({ rows: 4, repeated: 2, lost: 0 })
  })
  test('messages that overtake each other are stored once and stand in order; what is held is not said to be safe', async () => {
    const at = (...seqs: number[]) =>
      lines(
        'x',
        seqs.map((seq): [number, number, string] => [seq, 1000 * seq, `a_degC=${20 + seq}`]),
      )
    await send(at(0, 1))
    expect(await send(at(4, 5))).toMatchObject({ accepted: 2, next: 6 })
    expect(await send(at(2, 3))).toMatchObject({ accepted: 2, late: 2, repeated: 0, next: 6 })
    // garbled on the way: held, and what follows is none of it
    expect(await send(at(900_000))).toMatchObject({ accepted: 0, held: 1, next: 6 })
    expect(await send(at(6))).toMatchObject({ accepted: 1, held: 0, next: 7, refused: [{ line: 0 }] })
    // a board that was away: held, then confirmed, both stored
    expect(await send(at(5000))).toMatchObject({ accepted: 0, held: 1, next: 7 })
    expect(await send(at(5001))).toMatchObject({ accepted: 2, held: 0, next: 5002 })
    const log = await samples(b.log)
    expect([...log.times]).toEqual([0, 1, 2, 3, 4, 5, 6, 5000, 5001])
    expect([...log.channels[0]!.values].slice(0, 7)).toEqual([20, 21, 22, 23, 24, 25, 26])
    expect(await getLog(db, b.log)).toMatchObject({ rows: 9, late: 2, repeated: 0, lost: 4993 })
  })
  test('a clock of thirty digits is refused by its line; a log has at most 32 channels over its life', async () => {
    expect(await send(`${lines('x', [[0, 0, 'a_V=1']])}1 ${'9'.repeat(30)} a_V=1\n`)).toMatchObject({
      accepted: 1,
      refused: [{ line: 3, why: 'its milliseconds cannot be read' }],
    })
    const many = (from: number, to: number) =>
      Array.from({ length: to - from }, (_, i) => `c${from + i}_V=${i}`).join(' ')
    await send(lines('x', [[1, 1000, many(0, 20)]]))
    const full = await send(lines('x', [[2, 2000, many(20, 40)]]))
    expect(full.accepted).toBe(1)
    expect(full.refused[0]!.why).toMatch(/^a log has at most 32 channels: c31_V, c32_V, /)
    const log = await getLog(db, b.log)
    expect(log.channels).toHaveLength(32)
    // thousands of new names do not hold it up: they find no room
    const names = Array.from({ length: 1000 }, (_, row): [number, number, string] => [
      3 + row,
      3000 + row,
      Array.from({ length: 32 }, (__, i) => `n${row}x${i}_V=1`).join(' '),
    ])
    expect(await send(lines('x', names))).toMatchObject({ accepted: 1000 })
    expect((await getLog(db, b.log)).channels).toHaveLength(32)
  })
  test('a message of more rows than a block holds is taken in part, and says where to go on', async () => {
    const long = Array.from({ length: 20_010 }, (_, i) => `${i} ${i} a_V=1`).join('\n')
    const answer = await send(`# boot=x\n${long}\n`)
    expect(answer).toMatchObject({ accepted: 20_000, next: 20_000 })
    expect(answer.refused[0]!.why).toContain('more than 20000 rows')
  })
  test('what comes at once is written together; one that cannot be written harms no other', async () => {
    const boards = [b, await board(), await board()]
    let transactions = 0
    const counting: Database = {
      ...db,
      transaction: (work) => {
        transactions++
        return db.transaction(work)
      },
    }
    const send3 = (seq: number) =>
      boards.map((one) => takeMessage(counting, one.instrument, lines('x', [[seq, 20 * seq, 'a_V=1']]), start))
    // the third one's log is closed meanwhile
    await closeLog(db, boards[2]!.log)
    const answers = await Promise.allSettled(Array.from({ length: 60 }, (_, seq) => send3(seq)).flat())
    expect(answers.filter((a) => a.status === 'rejected')).toHaveLength(60)
    for (const one of boards.slice(0, 2)) expect((await getLog(db, one.log)).rows).toBe(60)
    // and where all can be written, a few transactions serve for all
    transactions = 0
    await Promise.all(
      Array.from({ length: 100 }, (_, seq) =>
        takeMessage(counting, b.instrument, lines('y', [[seq, 20 * seq, 'a_V=1']]), start),
      ),
    )
    expect(transactions).toBeLessThanOrEqual(3)
    expect((await getLog(db, b.log)).rows).toBe(160)
  })
  test('rows that never came are counted, garbage is told, the rest is taken', async () => {
    const answer = await send(
      `${lines('x', [
        [0, 0, 'a_V=12'],
        [5, 5000, 'a_V=12'],
      ])}%%% garbage\n`,
    )
    expect(answer).toMatchObject({ accepted: 2, refused: [{ line: 4 }] })
    expect((await getLog(db, b.log)).lost).toBe(4)
    expect(liveState(b.instrument, start).live).toMatchObject({
      refused: 1,
      lastRefusal: expect.stringContaining('running number'),
    })
  })
  test('units of the name, sentinels and what cannot be become gaps, not zeros', async () => {
    await send(
      lines('x', [
        [0, 0, 't_degC=85'],
        [1, 1000, 't_degC=-127'],
        [2, 2000, 't_degC=85 n_rpm=99999 f_degF=212'],
        [3, 3000, 't_degC='],
      ]),
    )
    const { channels } = await samples(b.log)
    expect([...channels.find((c) => c.name === 't')!.values]).toEqual([NaN, NaN, 85, NaN])
    expect([...channels.find((c) => c.name === 'n')!.values].every(Number.isNaN)).toBe(true)
    expect(channels.find((c) => c.name === 'f')!.values[2]).toBeCloseTo(100, 9)
  })
  test('a board that starts anew goes on behind, a clock that jumps back as well', async () => {
    await send(
      lines('x', [
        [0, 0, 'a_V=1'],
        [1, 1000, 'a_V=1'],
      ]),
    )
    await send(
      lines('y', [
        [0, 50, 'a_V=2'],
        [1, 1050, 'a_V=2'],
      ]),
      60,
    )
    await send(
      lines('y', [
        [2, 10, 'a_V=3'],
        [3, 20, 'a_V=3'],
      ]),
      62,
    )
    const { times } = await samples(b.log)
    expect([...times].every((t, i) => i === 0 || t >= times[i - 1]!)).toBe(true)
    expect(times[2]).toBeCloseTo(60, 6)
    expect(await getLog(db, b.log)).toMatchObject({ boots: 2, clockJumps: 1, rows: 6 })
  })
  test('two boards with one token are found out, and what is refused is not said to be safe', async () => {
    await send(lines('x', [[0, 0, 'a_V=1']]))
    await send(lines('y', [[0, 0, 'a_V=2']]))
    await expect(send(lines('x', [[1, 1000, 'a_V=1']]))).rejects.toThrow('Two boards send with this token')
    expect(liveState(b.instrument, start).live!.problem).toContain('Two boards')
  })
  test('the loss of the tach is an alarm while the fan is fed', async () => {
    await send(
      lines('x', [
        [0, 0, 'fan_rpm=1500 fan_V=12'],
        [1, 1000, 'fan_rpm=0 fan_V=12'],
      ]),
    )
    expect(liveState(b.instrument).live!.tachLost).toBe(false)
    await send(lines('x', [[2, 4500, 'fan_rpm=0 fan_V=12']]))
    expect(liveState(b.instrument).live).toMatchObject({ tachLost: true, rateHz: expect.any(Number) })
    await send(lines('x', [[3, 5000, 'fan_rpm=0 fan_V=0']]))
    expect(liveState(b.instrument).live!.tachLost).toBe(false)
  })
  test('without an open log nothing is stored, and the answer says so', async () => {
    await closeLog(db, b.log)
    b.instrument = await getInstrument(db, b.instrument.id)
    expect(await send(lines('x', [[0, 0, 'a_V=1']]))).toMatchObject({ accepted: 0, log: null })
    expect((await getLog(db, b.log)).rows).toBe(0)
  })
  test('the stand-in speaks the same lines: fifteen minutes of it, with drop-outs, nothing doubled', async () => {
    const setting = boxOf(demoPlans()[0]!, demoFans, 'as-planned')
    const box = makeBox(
      setting,
      { volts: setting.fan!.atV, doorOpen: false, tachPulled: false, dropouts: 0.05, noise: 1 },
      3,
    )
    for (let i = 0; i < 15; i++) {
      const rows = box.advance(60, 1)
      await send(writeBench('s', rows))
      if (i % 5 === 0) await send(writeBench('s', rows))
    }
    const log = await getLog(db, b.log)
    expect(log.rows + log.lost).toBeGreaterThan(895)
    expect(log.lost).toBeGreaterThan(5)
    expect(log.repeated).toBeGreaterThan(150)
    const { channels } = await samples(b.log)
    expect(channels.map((c) => c.quantity).sort()).toEqual([
      'current',
      'flow',
      'level',
      'pressure',
      'rotation',
      'temperature',
      'temperature',
      'voltage',
    ])
    const flow = channels
      .find((c) => c.quantity === 'flow')!
      .values.filter((v) => !Number.isNaN(v))
      .slice(-100)
    expect(flow.reduce((a, v) => a + v, 0) / flow.length).toBeCloseTo(setting.fan!.flowM3s, 3)
  })
})

describe('instruments', () => {
  test('a token is shown once, kept as a fingerprint, and can be renewed', async () => {
    const { instrument, token } = await board(false)
    expect(await instrumentByToken(db, token)).toMatchObject({ id: instrument.id })
    expect(await instrumentByToken(db, `${token}x`)).toBeNull()
    const [row] = await db.query<{ token_hash: string }>('SELECT token_hash FROM instrument WHERE id = $1', [
      instrument.id,
    ])
    expect(row!.token_hash).not.toContain(token)
    const fresh = await renewToken(db, instrument.id)
    expect(await instrumentByToken(db, token)).toBeNull()
    expect(await instrumentByToken(db, fresh)).not.toBeNull()
    await expect(renewToken(db, 'none')).rejects.toThrow('does not exist')
  })
  test('two instruments of one name are refused; one that is put aside no longer records', async () => {
    const { instrument, log } = await board()
    await expect(createInstrument(db, 'again', instrument.name.toUpperCase(), 'board')).rejects.toThrow(
      'Another instrument has this name',
    )
    await expect(
      createLog(db, jobId, {
        id: 'second',
        name: 'Second',
        origin: 'recorded',
        startedAt: new Date().toISOString(),
        instrumentId: instrument.id,
        channels: [],
        remarks: '',
      }),
    ).rejects.toThrow('records “Log')
    await archiveInstrument(db, instrument.id)
    expect((await getLog(db, log)).open).toBe(false)
    expect((await listInstruments(db)).some((i) => i.id === instrument.id)).toBe(false)
    await restoreInstrument(db, instrument.id)
    expect(await getInstrument(db, instrument.id)).toMatchObject({ logId: null })
    forgetLive(instrument.id)
    expect(liveState(instrument).live).toBeNull()
  })
})

test('a log is named, put aside and brought back; a given-up import is gone', async () => {
  const channels = [{ name: 'a', quantity: 'number' as const }]
  await createLog(db, jobId, {
    id: 'file',
    name: 'File',
    origin: 'imported',
    startedAt: new Date(start).toISOString(),
    instrumentId: null,
    channels,
    remarks: 'two rows broken',
  })
  const data = encodeBlock([0, 1], [[1, 2]])
  await putBlock(db, 'file', { seq: 0, rows: 2, channels: 1, data })
  await putBlock(db, 'file', { seq: 0, rows: 2, channels: 1, data })
  await renameLog(db, 'file', 'Renamed')
  expect((await listLogs(db, jobId)).find((l) => l.id === 'file')).toMatchObject({
    name: 'Renamed',
    rows: 2,
    remarks: 'two rows broken',
    channels,
  })
  await archiveLog(db, 'file')
  await expect(getLog(db, 'file')).rejects.toThrow('does not exist')
  await restoreLog(db, 'file')
  await dropLog(db, 'file')
  await expect(getLog(db, 'file')).rejects.toThrow('does not exist')
  await expect(
    createLog(db, 'nowhere', {
      id: 'x',
      name: 'X',
      origin: 'imported',
      startedAt: new Date().toISOString(),
      instrumentId: null,
      channels,
      remarks: '',
    }),
  ).rejects.toThrow('job')
})

test('a job that is put aside ends its recording', async () => {
  const { instrument, log } = await board()
  await deleteJob(db, jobId)
  await restoreJob(db, jobId)
  expect(await getLog(db, log)).toMatchObject({ open: false })
  const now = await getInstrument(db, instrument.id)
  expect(await takeMessage(db, now, lines('x', [[0, 0, 'a_V=1']]), start)).toMatchObject({ log: null })
})
test('an import is whole when all of its rows are there; another part under one number is refused', async () => {
  const log = {
    id: 'log-cut',
    name: 'Cut',
    origin: 'imported' as const,
    startedAt: new Date(start).toISOString(),
    instrumentId: null,
    channels: [{ name: 'a', quantity: 'voltage' as const }],
    remarks: '',
  }
  expect(await createLog(db, jobId, log)).toMatchObject({ whole: false })
  const part = (value: number): Block => ({ seq: 0, rows: 1, channels: 1, data: encodeBlock([0], [[value]]) })
  await putBlock(db, log.id, part(1))
  await putBlock(db, log.id, part(1))
  await expect(putBlock(db, log.id, part(2))).rejects.toThrow('Another part of this log has this number')
  await expect(finishLog(db, log.id, 2)).rejects.toThrow('1 of 2 rows have arrived')
  expect(await getLog(db, log.id)).toMatchObject({ whole: false, rows: 1 })
  await finishLog(db, log.id, 1)
  expect(await getLog(db, log.id)).toMatchObject({ whole: true })
})

test('answers come in parts of about the bytes asked for', async () => {
  await createLog(db, jobId, {
    id: 'long',
    name: 'Long',
    origin: 'imported',
    startedAt: new Date(start).toISOString(),
    instrumentId: null,
    channels: [{ name: 'a', quantity: 'number' }],
    remarks: '',
  })
  for (let seq = 0; seq < 5; seq++)
    await putBlock(db, 'long', {
      seq,
      rows: 100,
      channels: 1,
      data: encodeBlock(
        Array.from({ length: 100 }, (_, i) => 100 * seq + i),
        // what no step of a few decimals tells
        [Float64Array.from({ length: 100 }, (_, i) => Math.sqrt(i + 0.1))],
      ),
    })
  const first = await readLogBlocks(db, 'long', -1, 1500)
  expect([first.blocks.map((b) => b.seq), first.more]).toEqual([[0, 1], true])
  const rest = await readLogBlocks(db, 'long', 1, 1e9)
  expect([rest.blocks.map((b) => b.seq), rest.more]).toEqual([[2, 3, 4], false])
})

test('pictures belong to a job or a fan, and to nothing else', async () => {
  await addAttachment(db, { jobId }, 'photo', 'bench.jpg', 'image/jpeg', [Uint8Array.of(1, 2, 3)])
  expect(await listAttachments(db, { jobId })).toEqual([
    { id: 'photo', name: 'bench.jpg', mediaType: 'image/jpeg', size: 3 },
  ])
  expect(await listAttachments(db, { fanId: jobId })).toEqual([])
  await expect(
    addAttachment(db, { jobId: 'none' }, 'p2', 'x', 'image/png', [Uint8Array.of(1)]),
  ).rejects.toThrow('job')
})

test('a run with everything that it may hold comes back as it was', async () => {
  const { plan: stored } = await getPlan(db, jobId)
  expect(stored.runs[0]).toEqual(plan.runs[0])
})
