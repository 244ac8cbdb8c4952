// npm run lint: what is missing is installed and prepared first, so that it runs in a fresh clone.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { checkNode, ensurePackages, root, run } from './lib.mjs'

checkNode()
await ensurePackages()
if (!existsSync(join(root, '.nuxt', 'eslint.config.mjs')))
  run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])
process.exit(run('npx', ['eslint', '.', '--max-warnings', '0', ...process.argv.slice(2)], { mayFail: true }))
