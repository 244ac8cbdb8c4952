/** npm run check:handbook -- DIR: every case of every file in DIR through the core. Exit code 1 when a case fails. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { runCase, type CheckFile } from './adapter'

const dir = process.argv[2] ?? join(import.meta.dirname, 'cases')
let failed = 0
for (const name of readdirSync(dir)
  .filter((f) => f.endsWith('.json'))
  .sort()) {
  const file = JSON.parse(readFileSync(join(dir, name), 'utf8')) as CheckFile
  const results = file.cases.map((c) => ({ c, r: runCase(c) }))
  const count = (state: string) => results.filter((x) => x.r.state === state).length
  const wrong = results.filter((x) => x.r.state === 'failed')
  failed += wrong.length
  console.log(
    `${name.padEnd(28)} ${count('passed')} passed / ${wrong.length} failed / ${count('not-covered')} not yet covered`,
  )
  for (const { c, r } of wrong)
    console.log(
      `    ${c.id}  ${c.calc}  wanted ${JSON.stringify(c.expected.value)} ${c.expected.unit}, got ` +
        `${JSON.stringify('got' in r ? r.got : null)}`,
    )
}
process.exitCode = failed ? 1 : 0
