/** npm run restore: a backup into a workshop, empty or in use; says first what it would do. */
import { randomUUID } from 'node:crypto'
import { existsSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { backupKinds } from '#shared/schemas/backup'
import { openBackup } from '../server/backup/read'
import { besideJobs, restoreBackup } from '../server/backup/restore'
import { previewOf } from '../server/backup/standing'
import { openWorkshop } from './workshop'

const usage =
  'npm run restore -- FILE.zip [--data DIR] [--conflicts keep|take] [--write]\n' +
  '  without --write it only says what it would do'
const { values, positionals } = parseArgs({
  options: {
    data: { type: 'string', default: '.data' },
    conflicts: { type: 'string', default: 'keep' },
    write: { type: 'boolean', default: false },
    help: { type: 'boolean', default: false },
  },
  allowPositionals: true,
})
const [file] = positionals
const { conflicts } = values
if (values.help || !file || positionals.length > 1 || (conflicts !== 'keep' && conflicts !== 'take')) {
  console.log(usage)
  process.exit(values.help ? 0 : 2)
}
if (!existsSync(file)) {
  console.error(`There is no file ${file}.`)
  process.exit(1)
}
const db = await openWorkshop(values.data)
try {
  const backup = await openBackup(file)
  const { counts, items, warnings } = await previewOf(db, backup, '')
  for (const kind of backupKinds) {
    const c = counts[kind]
    if (c.new + c.same + c.conflict > 0)
      console.log(`  ${kind.padEnd(10)} ${c.new} new, ${c.same} the same, ${c.conflict} different here`)
  }
  for (const item of items.filter((i) => i.state === 'conflict'))
    console.log(`  different: ${item.kind} “${item.name}”${item.detail && `, ${item.detail}`}`)
  for (const warning of warnings) console.log(`  ${warning}`)
  if (values.write) {
    const order = { others: conflicts, choices: {} } as const
    const beside = new Set(await besideJobs(db, backup, order))
    const done = await restoreBackup(db, backup, order, randomUUID(), beside)
    console.log(`[redpoll] ${done.written} written, ${done.kept} left as they were`)
  } else console.log('[redpoll] nothing was written: say --write')
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exitCode = 1
} finally {
  await db.close()
}
