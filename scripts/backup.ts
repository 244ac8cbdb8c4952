/** npm run backup: everything of a workshop into one file. */
import { existsSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { backupTo } from '../server/backup/copies'
import { openWorkshop } from './workshop'

const usage = 'npm run backup -- [FILE.zip] [--data DIR]'
const { values, positionals } = parseArgs({
  options: { data: { type: 'string', default: '.data' }, help: { type: 'boolean', default: false } },
  allowPositionals: true,
})
if (values.help || positionals.length > 1) {
  console.log(usage)
  process.exit(values.help ? 0 : 2)
}
const made = new Date().toISOString()
const file = positionals[0] ?? `redpoll-backup-${made.slice(0, 10)}.zip`
if (existsSync(file)) {
  console.error(`${file} is there already: name another file. Nothing was written.`)
  process.exit(1)
}
if (!process.env.DATABASE_URL && !existsSync(values.data)) {
  console.error(`There is no data directory ${values.data}.\n${usage}`)
  process.exit(1)
}
const db = await openWorkshop(values.data)
try {
  await backupTo(db, file, made)
  console.log(`[redpoll] the workshop is in ${file}; keep it on another disk`)
} finally {
  await db.close()
}
