import { isMainThread } from 'node:worker_threads'
import { defineNitroPlugin, useStorage } from 'nitropack/runtime'
import type { Database } from '../db/database'
import { DataDirectoryBusy } from '../db/lock'
import type { Migration } from '../db/migrate'
import { startDatabase, stopDatabase } from '../utils/store'
import { dataDirectory } from '../utils/place'

async function bundledMigrations(): Promise<Migration[]> {
  const storage = useStorage('assets:migrations')
  const names = (await storage.getKeys()).filter((name) => name.endsWith('.sql'))
  return Promise.all(
    names.map(async (name) => {
      const raw = await storage.getItemRaw(name)
      return { name, sql: typeof raw === 'string' ? raw : Buffer.from(raw as Uint8Array).toString('utf8') }
    }),
  )
}

declare module 'nitropack' {
  interface NitroRuntimeHooks {
    /** A data directory without fans, jobs and settings was opened: the demo lays out its workshop. */
    'redpoll:untouched': (db: Database) => void | Promise<void>
  }
}

const OWNER_ONLY = 0o077
/** Exit code by which the start script knows that another process holds the data directory. */
const EXIT_BUSY = 3

export default defineNitroPlugin((nitro) => {
  // what is made here is for its owner only; in the development server's worker its starter has said so already
  if (isMainThread) process.umask(OWNER_ONLY)
  const directory = dataDirectory()
  const fill = async (db: Database) => {
    await nitro.hooks.callHook('redpoll:untouched', db)
  }
  const progress = (text: string) => console.log(`[redpoll] ${text}`)
  startDatabase(
    { directory, address: process.env.DATABASE_URL ?? '' },
    bundledMigrations(),
    process.env.REDPOLL_EMPTY === '1' ? null : fill,
    progress,
  )
    .then(() => progress('ready'))
    .catch((error: unknown) => {
      console.error(`[redpoll] ${error instanceof Error ? error.message : String(error)}`)
      process.exit(error instanceof DataDirectoryBusy ? EXIT_BUSY : 1)
    })
  const stop = () => void stopDatabase().finally(() => process.exit(0))
  process.once('SIGTERM', stop)
  process.once('SIGINT', stop)
  if (process.env.REDPOLL_STARTER === '1') {
    // its starter is gone, whichever way: nobody would stop this one
    process.stdin.once('end', stop)
    process.stdin.resume()
  }
  nitro.hooks.hook('close', stopDatabase)
})
