import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { NotFound } from '../db/errors'

/** Backups that wait for somebody to say what is wanted of them. */
const dirOf = (data: string) => join(data, 'restore')
const fileOf = (data: string, id: string) => join(dirOf(data), `${id}.zip`)
/** What nobody asked for any more after so long goes, ms. */
const STALE_MS = 86400_000

/** @returns the id by which it is asked for */
export function holdBackup(data: string, bytes: Uint8Array): string {
  const dir = dirOf(data)
  mkdirSync(dir, { recursive: true, mode: 0o700 })
  for (const name of readdirSync(dir))
    if (Date.now() - statSync(join(dir, name)).mtimeMs > STALE_MS) rmSync(join(dir, name))
  const id = randomUUID()
  writeFileSync(fileOf(data, id), bytes, { mode: 0o600 })
  return id
}
/** @throws NotFound */
export function heldBackup(data: string, id: string): Uint8Array {
  if (!/^[0-9a-f-]{36}$/.test(id) || !existsSync(fileOf(data, id))) throw new NotFound('backup')
  return readFileSync(fileOf(data, id))
}
export const dropBackup = (data: string, id: string) => rmSync(fileOf(data, id), { force: true })
