import { defineNitroPlugin } from 'nitropack/runtime'

/** Shows the start script that this process is alive: a server that hangs shows nothing, one whose database is away does. */
const BEAT_MS = 300

export default defineNitroPlugin((nitro) => {
  if (process.env.REDPOLL_STARTER !== '1' || !process.send) return
  const beat = setInterval(() => {
    // a starter that is gone is seen by this process's input
    if (process.connected) process.send!('alive', () => {})
  }, BEAT_MS)
  beat.unref()
  nitro.hooks.hook('close', () => clearInterval(beat))
})
