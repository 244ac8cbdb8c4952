import { createHash } from 'node:crypto'
import { defineNitroPlugin } from 'nitropack/runtime'
import { policyOf } from '../utils/guard'

/** Pages say which scripts they brought along: those that stand in them by their hash, all others only as files from here. */

const INLINE = /<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g
/** of the last page that was sent: all of them are the same shell */
let last = { body: '', policy: '' }

export default defineNitroPlugin((nitro) => {
  // the development server puts scripts of its own into the page
  if (import.meta.dev) return
  nitro.hooks.hook('render:response', (response) => {
    const { body } = response
    if (typeof body !== 'string') return
    if (body !== last.body) {
      const hashes = [...body.matchAll(INLINE)].map(([, script]) =>
        createHash('sha256').update(script!).digest('base64'),
      )
      last = { body, policy: policyOf(hashes) }
    }
    response.headers = { ...response.headers, 'content-security-policy': last.policy }
  })
})
