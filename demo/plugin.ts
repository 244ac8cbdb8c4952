/** The demo's door into the server, which knows nothing of it: fills a data directory that nobody has used yet. */
import { defineNitroPlugin } from 'nitropack/runtime'
import { fillWithDemo } from './fill'
import type {} from '../server/plugins/database'

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('redpoll:untouched', fillWithDemo)
})
