import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { acquireLock, DataDirectoryBusy } from '../../server/db/lock'
import { openDatabase } from '../../server/db/database'
import { migrations, temporaryDir } from './harness'

let dir: string
beforeEach(() => {
  dir = temporaryDir()
})
afterEach(() => rmSync(dir, { recursive: true, force: true }))
const file = () => join(dir, 'redpoll.lock')

describe('the lock', () => {
  test('is taken once and freed by its holder', () => {
    const lock = acquireLock(dir)
    expect(() => acquireLock(dir)).toThrow(DataDirectoryBusy)
    expect(JSON.parse(readFileSync(file(), 'utf8'))).toMatchObject({ pid: process.pid })
    lock.release()
    expect(existsSync(file())).toBe(false)
    acquireLock(dir).release()
    expect(readdirSync(dir)).toEqual([])
  })
  test('makes missing folders', () => {
    const deep = join(dir, 'a', 'b')
    acquireLock(deep).release()
    expect(existsSync(deep)).toBe(true)
  })
  test.each([
    ['of a dead process', JSON.stringify({ pid: 4194301, started: '5', token: 'x' })],
    [
      'of a process whose number was given away again',
      JSON.stringify({ pid: process.pid, started: '1', token: 'x' }),
    ],
    ['that is no lock at all', 'garbage'],
    ['that is empty', ''],
  ])('one %s is taken over', (_, content) => {
    writeFileSync(file(), content)
    const lock = acquireLock(dir)
    expect(JSON.parse(readFileSync(file(), 'utf8'))).toMatchObject({ pid: process.pid })
    lock.release()
    expect(readdirSync(dir)).toEqual([])
  })
  test('releasing does not free a lock that is no longer one’s own', () => {
    const lock = acquireLock(dir)
    writeFileSync(file(), JSON.stringify({ pid: 1, started: '', token: 'other' }))
    lock.release()
    expect(existsSync(file())).toBe(true)
  })
  test('a database that cannot be opened leaves no lock behind', async () => {
    await expect(
      openDatabase(dir, [...migrations, { name: '999_broken.sql', sql: 'CREATE TABLE broken (' }]),
    ).rejects.toThrow()
    expect(existsSync(file())).toBe(false)
    // the good migrations stayed, the broken one left nothing: the next start goes on
    const db = await openDatabase(dir, migrations)
    expect((await db.query('SELECT name FROM schema_migration')).length).toBe(migrations.length)
    await db.close()
  })
  test('data of a newer program are refused', async () => {
    const db = await openDatabase(dir, [
      ...migrations,
      { name: '998_later.sql', sql: 'CREATE TABLE later (x integer)' },
    ])
    await db.close()
    await expect(openDatabase(dir, migrations)).rejects.toThrow('newer Redpoll')
  })
})
