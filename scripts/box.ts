/**
 * npm run box: the stand-in bench box as a device of its own. It takes a job's equipment from the server, warms up by
 * physics, and sends bench lines over HTTP as a real board would. What the server has not confirmed is sent again.
 */
import { randomUUID } from 'node:crypto'
import { parseArgs } from 'node:util'
import { writeBench, type BenchRow } from '#core/measure'
import { boxOf, makeBox } from '../server/simulator/bench-box'
import type { Receipt } from '#shared/api'
import { seenFrom, type Fan, type PlanDocument } from '#core/document'

const { values } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:3000' },
    token: { type: 'string' },
    job: { type: 'string' },
    which: { type: 'string', default: 'as-planned' },
    volts: { type: 'string' },
    rate: { type: 'string', default: '1' },
    speed: { type: 'string', default: '1' },
    minutes: { type: 'string' },
    dropouts: { type: 'string', default: '0.01' },
    noise: { type: 'string', default: '1' },
    seed: { type: 'string', default: '1' },
    json: { type: 'boolean', default: false },
  },
})
if (!values.token || !values.job) {
  console.error(
    'npm run box -- --token TOKEN --job JOB-ID [--url http://127.0.0.1:3000] [--which ' +
      'as-found|as-planned] [--volts 12] [--rate 1] [--speed 1] [--minutes 30] [--dropouts 0.01] ' +
      '[--noise 1] [--seed 1] [--json]',
  )
  process.exit(1)
}
const number = (text: string | undefined, name: string) => {
  const value = Number(text)
  if (!Number.isFinite(value)) {
    console.error(`--${name} is no number: ${text}`)
    process.exit(1)
  }
  return value
}

const answer = await fetch(`${values.url}/api/jobs/${values.job}`)
if (!answer.ok) {
  console.error(`The job ${values.job} cannot be read from ${values.url}.`)
  process.exit(1)
}
const { plan, fans } = (await answer.json()) as { plan: PlanDocument; fans: Fan[] }
const setting = boxOf(seenFrom(plan), fans, values.which === 'as-found' ? 'as-found' : 'as-planned')
const volts = values.volts === undefined ? (setting.fan?.atV ?? 12) : number(values.volts, 'volts')
const box = makeBox(
  setting,
  {
    volts,
    doorOpen: false,
    tachPulled: false,
    dropouts: number(values.dropouts, 'dropouts'),
    noise: number(values.noise, 'noise'),
  },
  number(values.seed, 'seed'),
)
const boot = randomUUID().slice(0, 8)
const [rate, speed] = [number(values.rate, 'rate'), number(values.speed, 'speed')]
const endS = values.minutes === undefined ? Infinity : 60 * number(values.minutes, 'minutes')

/** Most rows in one message. */
const MOST = 2000
const TICK_S = 0.25
let waiting: BenchRow[] = []
let said = ''

const asJson = (rows: BenchRow[]) =>
  JSON.stringify({
    boot,
    rows: rows.map((r) => ({
      seq: r.seq,
      ms: r.ms,
      ...Object.fromEntries(
        Object.entries(r.values).map(([k, v]) => [k, v === null ? null : Number(v.toPrecision(7))]),
      ),
    })),
  })
async function send(): Promise<void> {
  if (!waiting.length) return
  const part = waiting.slice(0, MOST)
  try {
    const response = await fetch(`${values.url}/api/instruments/readings`, {
      method: 'POST',
      headers: {
        authorization: `Bearer ${values.token}`,
        'content-type': values.json ? 'application/json' : 'text/plain',
      },
      body: values.json ? asJson(part) : writeBench(boot, part),
    })
    if (!response.ok)
      throw new Error(
        ((await response.json()) as { error?: { message?: string } }).error?.message ??
          `status ${response.status}`,
      )
    const receipt = (await response.json()) as Receipt
    waiting = waiting.filter((r) => r.seq >= receipt.next)
    said = ''
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    if (message !== said) console.error(`${message}; ${waiting.length} rows wait and are sent again`)
    said = message
  }
}

console.log(
  `sending as ${boot}: ${Object.values(setting.places).join(', ')}; ${volts} V${setting.fan ? '' : ', no fan'}`,
)
while (box.now() < endS || waiting.length) {
  const began = Date.now()
  if (box.now() < endS) waiting.push(...box.advance(Math.min(TICK_S * speed, endS - box.now()), rate))
  await send()
  await new Promise((resolve) => setTimeout(resolve, Math.max(0, 1000 * TICK_S - (Date.now() - began))))
}
console.log(`done after ${Math.round(box.now())} s of its own time`)
