import {
  cpSync,
  existsSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { acquireLock, DataDirectoryBusy } from '../../server/db/lock'
import { openDatabase } from '../../server/db/database'
import { emptyData, migrations, temporaryDir } from './harness'

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
  test('a copied directory is another one: its lock is not in use', () => {
    const lock = acquireLock(dir)
    const copy = temporaryDir()
    cpSync(dir, copy, { recursive: true })
    acquireLock(copy).release()
    expect(() => acquireLock(dir)).toThrow(DataDirectoryBusy)
    lock.release()
    rmSync(copy, { recursive: true })
  })
  test('one of another container is respected while it beats, and taken over once it does not', () => {
    const { ino } = statSync(dir)
    writeFileSync(
      file(),
      JSON.stringify({ pid: 1, started: '', token: 'x', host: 'other-box pid:[1]', directory: ino }),
    )
    expect(() => acquireLock(dir)).toThrow('process 1 on other-box')
    const long = new Date(Date.now() - 60_000)
    utimesSync(file(), long, long)
    acquireLock(dir).release()
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
    dir = await emptyData()
    const db = await openDatabase(dir, [
      ...migrations,
      { name: '998_later.sql', sql: 'CREATE TABLE later (x integer)' },
    ])
    await db.close()
    await expect(openDatabase(dir, migrations)).rejects.toThrow('newer Redpoll')
  })
})

describe('the cluster', () => {
  const cluster = (name = '') => join(dir, 'pg', name)
  const opened = async () => {
    await (await openDatabase(dir, migrations)).close()
  }
  const tree = () => readdirSync(cluster(), { recursive: true }).map(String).toSorted()
  test(
    'is marked, for its owner only, and opens again over a pid file that was left',
    { timeout: 60_000 },
    async () => {
      await opened()
      expect(JSON.parse(readFileSync(join(dir, 'cluster.json'), 'utf8'))).toMatchObject({ state: 'made' })
      expect(statSync(cluster()).mode & 0o077).toBe(0)
      writeFileSync(cluster('postmaster.pid'), '42\n')
      await opened()
    },
  )
  test.each([
    ['without its version', () => rmSync(cluster('PG_VERSION')), 'lacks PG_VERSION'],
    ['without its log', () => rmSync(cluster('pg_wal'), { recursive: true }), 'lacks pg_wal'],
    [
      'with half a control file',
      () => writeFileSync(cluster('global/pg_control'), Buffer.alloc(100)),
      'control file has 100 bytes',
    ],
    ['that is gone', () => rmSync(cluster(), { recursive: true }), 'database is gone'],
  ])('one %s is told, and nothing is laid over it', { timeout: 60_000 }, async (_, spoil, words) => {
    dir = await emptyData()
    await opened()
    spoil()
    const before = existsSync(cluster()) ? tree() : null
    await expect(openDatabase(dir, migrations)).rejects.toThrow(words)
    expect(existsSync(cluster()) ? tree() : null).toEqual(before)
    expect(existsSync(file())).toBe(false)
  })
  test('one whose making was cut short is begun again', { timeout: 60_000 }, async () => {
    dir = await emptyData()
    writeFileSync(join(dir, 'cluster.json'), JSON.stringify({ state: 'making', version: '' }))
    rmSync(cluster('global'), { recursive: true })
    await opened()
    expect(JSON.parse(readFileSync(join(dir, 'cluster.json'), 'utf8'))).toMatchObject({ state: 'made' })
  })
})
