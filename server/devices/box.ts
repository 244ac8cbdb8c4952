import { randomUUID } from 'node:crypto'
import { boxOf, makeBox, type Box } from '../simulator/bench-box'
import { writeBench } from '#core/measure'
import type { BoxState } from '#shared/api'
import type { BoxOrder } from '#shared/schemas/log'
import type { Database } from '../db/database'
import { createInstrument, getInstrument, listInstruments } from '../db/repositories/instruments'
import { getPlan } from '../db/repositories/jobs'
import { planInput } from '../utils/plan-input'
import { forgetLive, takeMessage } from './intake'

/** The stand-in bench box, run by the server itself: it sends the lines that a board would send. One at a time. */

interface Running {
  jobId: string
  order: BoxOrder
  box: Box
  boot: string
  timer: ReturnType<typeof setInterval>
  busy: boolean
}
let running: Running | null = null

const TICK_MS = 250
const NAME = 'Stand-in bench box'

/** The stand-in as an instrument; made when it is first wanted. */
async function standIn(db: Database): Promise<string> {
  const there = (await listInstruments(db)).find((i) => i.kind === 'stand-in')
  return (
    there?.id ??
    (await createInstrument(db, `instrument-${randomUUID().slice(0, 8)}`, NAME, 'stand-in')).instrument.id
  )
}

/** What the box is doing; null where it rests. */
export const boxState = (): BoxState | null =>
  running && {
    jobId: running.jobId,
    order: running.order,
    simulatedS: running.box.now(),
    steering: running.box.steering(),
  }

export function stopBox(): void {
  if (running) clearInterval(running.timer)
  running = null
}

/** Starts the box with a plan's equipment on it, or tells the running one what else to do. @throws NotFound */
export async function startBox(db: Database, jobId: string, order: BoxOrder): Promise<string> {
  const id = await standIn(db)
  const { which, ...controls } = order
  if (running?.jobId === jobId && running.order.which === which) {
    Object.assign(running.box.controls, controls)
    running.order = order
    return id
  }
  const { plan, fans } = await planInput(db, (await getPlan(db, jobId)).plan)
  stopBox()
  forgetLive(id)
  const mine: Running = {
    jobId,
    order,
    box: makeBox(boxOf(plan, fans, which), controls, Date.now() % 1e9),
    boot: randomUUID().slice(0, 8),
    timer: setInterval(() => void tick(), TICK_MS),
    busy: false,
  }
  async function tick() {
    if (mine.busy || running !== mine) return
    mine.busy = true
    try {
      const rows = mine.box.advance((TICK_MS / 1000) * mine.order.speed, mine.order.rateHz)
      if (rows.length) await takeMessage(db, await getInstrument(db, id), writeBench(mine.boot, rows))
    } catch (error) {
      console.error(error)
      if (running === mine) stopBox()
    } finally {
      mine.busy = false
    }
  }
  running = mine
  return id
}
