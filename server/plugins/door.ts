import { defineNitroPlugin } from 'nitropack/runtime'
import { isAlone } from '../utils/guard'
import { isLocked } from '../utils/password'
import { undeclared } from '../utils/reply'

/** Exit code by which the start script knows that nobody set a password. */
const EXIT_OPEN = 4

/** Who comes in at all: elsewhere than on this computer nobody without a password, and no route that says nothing of it. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('beforeResponse', (event, response) => {
    const refusal = undeclared(event)
    if (refusal) response.body = refusal
  })
  // the development server listens by itself
  if (import.meta.dev) return
  const host = process.env.NITRO_HOST ?? process.env.HOST ?? ''
  // looked at from the start on: what is locked then stays locked
  if (isLocked() || isAlone(host) || process.env.REDPOLL_OPEN === '1') return
  console.error(
    `[redpoll] Listening on ${host || 'every address'} lets everybody on that network read and change this workshop, and it ` +
      'has no password. Set one with "npm run password", or say --open.',
  )
  process.exit(EXIT_OPEN)
})
