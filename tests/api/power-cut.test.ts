import {
  copyFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { newPlan } from '#core/document'
import { seeded } from '#core/numeric'
import { openDatabase } from '../../server/db/database'
import { createPlan, getPlan } from '../../server/db/repositories/jobs'
import { migrations, temporaryDir } from './harness'

/**
 * The power goes off: what the disk then has is only what was flushed to it. A second directory takes the place of the
 * disk: it gets the content of a file when that file is flushed, and the entries of a directory when that directory is.
 * What was written and not flushed may be there or not, page by page: the harder case, drawn at random.
 */

const CUTS = 20
const PAGE = 8192
const made: string[] = []
const place = () => {
  const dir = temporaryDir()
  made.push(dir)
  return dir
}
afterAll(() => {
  for (const dir of made) rmSync(dir, { recursive: true, force: true })
})

/** What a disk has of a directory, flush by flush. */
class Disk {
  constructor(
    readonly real: string,
    readonly shadow: string,
  ) {
    cpSync(real, shadow, { recursive: true })
  }
  private at = (path: string) => join(this.shadow, relative(this.real, path))
  flushed(path: string): void {
    const kept = this.at(path)
    if (!statSync(path).isDirectory()) {
      mkdirSync(dirname(kept), { recursive: true })
      copyFileSync(path, kept)
      return
    }
    // its entries: what is gone is gone, what is new is there without its content
    mkdirSync(kept, { recursive: true })
    const names = new Set(readdirSync(path))
    for (const name of readdirSync(kept)) if (!names.has(name)) rmSync(join(kept, name), { recursive: true })
    for (const name of names) {
      if (existsSync(join(kept, name))) continue
      if (statSync(join(path, name)).isDirectory()) mkdirSync(join(kept, name))
      else writeFileSync(join(kept, name), '')
    }
  }
  /** The disk as it is when the power goes; some pages that nobody flushed reached it all the same. */
  cut(to: string, random: () => number): void {
    cpSync(this.shadow, to, { recursive: true })
    const spill = (from: string) => {
      for (const entry of readdirSync(from, { withFileTypes: true })) {
        const path = join(from, entry.name)
        const kept = join(to, relative(this.real, path))
        if (entry.isDirectory()) {
          if (existsSync(kept)) spill(path)
          continue
        }
        if (!existsSync(kept) || random() < 0.5) continue
        const [now, old] = [readFileSync(path), readFileSync(kept)]
        if (now.equals(old)) continue
        const mixed = Buffer.alloc(Math.max(now.length, old.length))
        old.copy(mixed)
        for (let i = 0; i < now.length; i += PAGE)
          if (random() < 0.5) now.copy(mixed, i, i, Math.min(i + PAGE, now.length))
        writeFileSync(kept, mixed)
      }
    }
    spill(this.real)
  }
}

test(
  `${CUTS} power cuts while jobs are written: each starts again, and has every job that was acknowledged`,
  { timeout: 600_000 },
  async () => {
    const random = seeded(20)
    const directory = place()
    let disk: Disk | null = null
    const db = await openDatabase(
      directory,
      migrations,
      () => {},
      (path) => disk?.flushed(path),
    )
    disk = new Disk(join(directory, 'pg'), join(place(), 'pg'))
    const acknowledged: string[] = []
    const cuts: { dir: string; had: number }[] = []
    for (let i = 0; i < CUTS; i++) {
      for (let n = 1 + Math.floor(6 * random()); n > 0; n--) {
        const id = `job-${acknowledged.length}`
        await createPlan(db, newPlan(id, `Job ${acknowledged.length}`))
        acknowledged.push(id)
        if (random() < 0.15) await db.query('CHECKPOINT')
      }
      // one more is under way when the power goes
      const under = createPlan(db, newPlan(`under-${i}`, 'Under way'))
      const dir = place()
      cpSync(join(directory, 'cluster.json'), join(dir, 'cluster.json'))
      disk.cut(join(dir, 'pg'), random)
      cuts.push({ dir, had: acknowledged.length })
      await under
    }
    await db.close()
    for (const { dir, had } of cuts) {
      const again = await openDatabase(dir, migrations)
      const there = new Set((await again.query<{ id: string }>('SELECT id FROM job')).map((r) => r.id))
      expect(acknowledged.slice(0, had).filter((id) => !there.has(id))).toEqual([])
      expect((await getPlan(again, acknowledged[had - 1]!)).plan.job.name).toBe(`Job ${had - 1}`)
      await again.close()
      rmSync(dir, { recursive: true, force: true })
    }
  },
)
