import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { runCase, type CheckFile } from './adapter'

/** The project's own copy of the handbook's cases for the chapters that are built: a calculation without an entry fails. */
const dir = join(import.meta.dirname, 'cases')
for (const name of readdirSync(dir).sort()) {
  const file = JSON.parse(readFileSync(join(dir, name), 'utf8')) as CheckFile
  describe(`${name}: ${file.about}`, () => {
    test.each(file.cases.map((c) => [`${c.id} ${c.what} [${c.kind}: ${c.source}]`, c] as const))(
      '%s',
      (_, c) => {
        expect(runCase(c)).toEqual({ state: 'passed' })
      },
    )
  })
}
