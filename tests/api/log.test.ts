import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { boxOf, makeBox } from '../../server/simulator/bench-box'
import { demoFans } from '../../demo/fans'
import { demoJobs } from '../../demo/jobs'
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
import { createPlan, getPlan } from '../../server/db/repositories/jobs'
import { addAttachment, listAttachments } from '../../server/db/repositories/attachments'
import {
  closeLog,
  createLog,
  dropLog,
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
const plan = { ...demoJobs()[3]!, selection: null, calibration: null, feed: [] }
const jobId = plan.job.id
const start = Date.parse('2026-03-01T10:00:00.000Z')
beforeAll(async () => {
  db = await memoryDatabase()
  await createPlan(db, { ...plan, job: { ...plan.job, existingFanId: null } })
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
    expect(await send(lines('x', rows))).toEqual({ accepted: 3, repeated: 0, refused: [], log: b.log, next: 3 })
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
    const setting = boxOf(demoJobs()[0]!, demoFans, 'as-planned')
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
        [new Float64Array(100)],
      ),
    })
  const first = await readLogBlocks(db, 'long', -1, 3000)
  expect([first.blocks.map((b) => b.seq), first.more]).toEqual([[0, 1], true])
  const rest = await readLogBlocks(db, 'long', 1, 1e9)
  expect([rest.blocks.map((b) => b.seq), rest.more]).toEqual([[2, 3, 4], false])
})

test('pictures belong to a job or a fan, and to nothing else', async () => {
  await addAttachment(db, { jobId }, 'photo', 'bench.jpg', 'image/jpeg', Uint8Array.of(1, 2, 3))
  expect(await listAttachments(db, { jobId })).toEqual([
    { id: 'photo', name: 'bench.jpg', mediaType: 'image/jpeg', size: 3 },
  ])
  expect(await listAttachments(db, { fanId: jobId })).toEqual([])
  await expect(addAttachment(db, { jobId: 'none' }, 'p2', 'x', 'image/png', Uint8Array.of(1))).rejects.toThrow(
    'job',
  )
})

test('a run with everything that it may hold comes back as it was', async () => {
  const { plan: stored } = await getPlan(db, jobId)
  expect(stored.runs[0]).toEqual(plan.runs[0])
})
