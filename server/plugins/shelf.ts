import { defineNitroPlugin } from 'nitropack/runtime'
import { heldShelf } from '../utils/held-shelf'
import { database } from '../utils/store'

/** Reads the shelf ahead of the first line-up, once the first page has been served. */
const AFTER_MS = 3000

export default defineNitroPlugin((nitro) => {
  const timer = setTimeout(() => {
    void database()
      .then((db) => heldShelf(db, 'claims'))
      .catch(() => {
        // who asks for a line-up reads it then, and is told what is wrong
      })
  }, AFTER_MS)
  timer.unref()
  nitro.hooks.hook('close', () => clearTimeout(timer))
})
