// Runs a tool of the project after installing what is missing: node scripts/with-deps.mjs tsx FILE ...
import { checkNode, ensurePackages, run } from './lib.mjs'

checkNode()
await ensurePackages()
process.exit(run('npx', process.argv.slice(2), { mayFail: true }))
