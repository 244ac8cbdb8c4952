import { defineNitroPlugin } from 'nitropack/runtime'
import { dailyCopy } from '../backup/copies'
import { dataDirectory } from '../utils/place'
import { database } from '../utils/store'

/** Makes the day's copy, a while after the start and then looks every hour. */
const FIRST_MS = 60_000
const EVERY_MS = 3600_000

export default defineNitroPlugin((nitro) => {
  const look = async () => {
    const db = await database().catch(() => null)
    if (db) await dailyCopy(db, dataDirectory(), new Date().toISOString())
  }
  const first = Number(process.env.REDPOLL_COPY_AFTER_MS ?? FIRST_MS)
  const timers = [setTimeout(() => void look(), first), setInterval(() => void look(), EVERY_MS)]
  for (const timer of timers) timer.unref()
  nitro.hooks.hook('close', () => timers.forEach((timer) => clearTimeout(timer)))
})
