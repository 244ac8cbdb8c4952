import { randomBytes, randomUUID } from 'node:crypto'
import { rmSync } from 'node:fs'
import { expect, test } from 'vitest'
import { newRun, type PlanDocument } from '#core/document'
import { encodeBlock } from '#shared/log-blocks'
import type { Attachment, LogSummary, StoredFan, StoredPlan } from '#shared/api'
import { demoData, startServer, type TestServer } from './harness'

/** Several people write, and the server is killed in the middle, again and again: what was acknowledged is there, once. */

/** `npm run check:kills` does it sixty times. */
const CYCLES = Number(process.env.REDPOLL_KILLS ?? 5)
const JOB = 'job-hall-cupboard'

let server: TestServer
const ask = async <T>(
  method: string,
  path: string,
  body?: unknown,
  id: string = randomUUID(),
): Promise<T | null> => {
  try {
    const binary = body instanceof Uint8Array
    const response = await fetch(`${server.url}/api/${path}`, {
      method,
      ...(body === undefined ? {} : { body: (binary ? body : JSON.stringify(body)) as BodyInit }),
      headers: {
        'content-type': binary ? 'application/octet-stream' : 'application/json',
        ...(method === 'GET' ? {} : { 'x-redpoll-write': id }),
      },
    })
    return response.ok ? ((await response.json()) as T) : null
  } catch {
    return null
  }
}

test(
  `${CYCLES} kills in the middle of writing: nothing lost, nothing twice, nothing torn`,
  { timeout: 900_000 },
  async () => {
    const data = await demoData()
    server = await startServer(data)
    const jobs = new Set<string>()
    const photos = new Map<string, number>()
    const rows = new Map<string, number>()
    let [runs, price, tried] = [0, 0, 0]
    const lost: string[] = []
    const acknowledged = () => [jobs.size, photos.size, rows.size, runs, price]
    let writing = true
    const repeatedly = async (work: () => Promise<unknown>) => {
      while (writing) await work()
    }
    /** What a page does whose answer was lost: the same once more, with the same id, until it is answered. */
    const surely = async <T>(method: string, path: string, body: unknown): Promise<T | null> => {
      const id = randomUUID()
      for (;;) {
        const answer = await ask<T>(method, path, body, id)
        if (answer || !writing) return answer
      }
    }
    let unsure: { plan: PlanDocument; revision: number; id: string; runs: number } | null = null
    const writers = {
      async plan() {
        if (!unsure) {
          const read = await ask<StoredPlan>('GET', `jobs/${JOB}`)
          if (!read) return
          const plan = {
            ...read.plan,
            runs: [
              ...read.plan.runs.slice(-5),
              newRun(`run-${randomUUID().slice(0, 8)}`, 'bench', '2026-05-04T10:00:00.000Z'),
            ],
          }
          plan.job = { ...plan.job, complaint: String(runs + 1) }
          unsure = { plan, revision: read.revision, id: randomUUID(), runs: runs + 1 }
        }
        const { plan, revision, id } = unsure
        if (!(await ask('PUT', `jobs/${JOB}`, { plan, revision }, id))) return
        runs = unsure.runs
        unsure = null
      },
      async job() {
        const made = await surely<StoredPlan>('POST', 'jobs', { name: `Made ${tried++}` })
        if (made) jobs.add(made.plan.job.id)
      },
      async photo() {
        const id = `photo-${randomUUID().slice(0, 8)}`
        const size = 200_000 + Math.floor(50_000 * (photos.size % 5))
        const bytes = Buffer.concat([Buffer.of(0xff, 0xd8, 0xff, 0xe0), randomBytes(size)])
        const kept = await ask<Attachment>(
          'POST',
          `jobs/${JOB}/attachments?id=${id}&name=x&mediaType=image/jpeg`,
          bytes,
        )
        if (kept) photos.set(id, bytes.length)
      },
      async log() {
        const id = `log-${randomUUID().slice(0, 8)}`
        const head = { id, name: 'Kept', origin: 'imported', instrumentId: null, remarks: '' }
        const channels = [{ name: 'box', quantity: 'temperature' }]
        if (!(await ask('POST', `jobs/${JOB}/logs`, { ...head, startedAt: '2026-01-01T00:00:00Z', channels })))
          return
        const times = Float64Array.from({ length: 500 }, (_, i) => i)
        for (let seq = 0; seq < 3 && writing; seq++)
          if (await ask('POST', `logs/${id}/blocks?seq=${seq}`, encodeBlock(times, [times])))
            rows.set(id, 500 * (seq + 1))
          else return
      },
      async fan() {
        const read = await ask<StoredFan>('GET', 'fans/fan-alder-50x15-12v')
        if (!read) return
        const next = price + 1
        if (
          await ask('PUT', `fans/${read.fan.id}`, {
            fan: { ...read.fan, price: next },
            revision: read.revision,
          })
        )
          price = next
      },
    }
    for (let cycle = 0; cycle < CYCLES; cycle++) {
      writing = true
      const busy = Object.values(writers).map((write) => repeatedly(write))
      // each of them has something that was acknowledged, and is in the middle of more
      const before = acknowledged()
      while (acknowledged().some((n, i) => n <= before[i]!)) await new Promise((done) => setTimeout(done, 20))
      await new Promise((done) => setTimeout(done, (cycle * 137) % 300))
      await server.stop('SIGKILL')
      writing = false
      await Promise.all(busy)
      server = await startServer(data)
      const there = (await ask<{ id: string; name: string }[]>('GET', 'jobs?soon=1'))!
      for (const id of jobs) if (!there.some((j) => j.id === id)) lost.push(`job ${id}`)
      const made = there.filter((j) => /^Made \d+$/.test(j.name)).map((j) => j.name)
      // one that was never answered may be there; none is there twice
      if (new Set(made).size !== made.length) lost.push(`made twice: ${made.join(', ')}`)
      const plan = (await ask<StoredPlan>('GET', `jobs/${JOB}`))!.plan
      const at = Number(plan.job.complaint) || 0
      if (runs > 0 && at < runs) lost.push(`plan ${at} of ${runs}`)
      const pictures = (await ask<Attachment[]>('GET', `jobs/${JOB}/attachments`))!
      for (const [id, size] of photos)
        if (pictures.find((p) => p.id === id)?.size !== size) lost.push(`photo ${id}`)
      for (const { id, size } of pictures.filter((p) => p.id.startsWith('photo-'))) {
        const bytes = await (await fetch(`${server.url}/api/attachments/${id}`)).arrayBuffer()
        if (bytes.byteLength !== size) lost.push(`torn photo ${id}`)
      }
      const logs = (await ask<LogSummary[]>('GET', `jobs/${JOB}/logs`))!
      for (const [id, n] of rows) if ((logs.find((l) => l.id === id)?.rows ?? 0) < n) lost.push(`rows of ${id}`)
      const fan = (await ask<StoredFan>('GET', 'fans/fan-alder-50x15-12v'))!.fan
      if (price > 0 && (fan.price ?? 0) < price) lost.push(`fan ${fan.price} of ${price}`)
      price = Math.max(price, fan.price ?? 0)
    }
    await server.stop()
    rmSync(data, { recursive: true, force: true })
    expect(lost.slice(0, 10)).toEqual([])
  },
)
