import { defineNitroPlugin } from 'nitropack/runtime'
import { dailyCopy, proveCopy } from '../backup/copies'
import { goOn } from '../backup/incoming'
import { dropHalfPictures } from '../db/repositories/attachments'
import { forgetWritten } from '../db/writes'
import { dataDirectory } from '../utils/place'
import { database } from '../utils/store'

/** Goes on with a restore that was cut short; makes the day's copy, a while after the start and then looks every hour. */
const FIRST_MS = 60_000
const EVERY_MS = 3600_000

export default defineNitroPlugin((nitro) => {
  const look = async () => {
    try {
      const db = await database()
      await dropHalfPictures(db)
      await forgetWritten(db)
      await dailyCopy(db, dataDirectory(), new Date().toISOString())
      await proveCopy(dataDirectory(), new Date().toISOString())
    } catch (error) {
      // the database is away: the next look makes up for it
      console.error(`[redpoll] no copy was made: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  const resume = async () => {
    try {
      await goOn(await database(), dataDirectory(), (text) => console.log(`[redpoll] ${text}`))
    } catch (error) {
      console.error(
        `[redpoll] a restore could not go on: ${error instanceof Error ? error.message : String(error)}`,
      )
    }
  }
  // once the database is being opened
  setTimeout(() => void resume())
  const first = Number(process.env.REDPOLL_COPY_AFTER_MS ?? FIRST_MS)
  const timers = [setTimeout(() => void look(), first), setInterval(() => void look(), EVERY_MS)]
  for (const timer of timers) timer.unref()
  nitro.hooks.hook('close', () => timers.forEach((timer) => clearTimeout(timer)))
})
