// Types of everything: the pure core on its own, then the app, server and tests.
import { spawnSync } from 'node:child_process'

const run = (command, args) =>
  spawnSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32' }).status ?? 1
const steps = [
  ['npx', ['nuxt', 'prepare']],
  ['npx', ['tsc', '-p', 'core/tsconfig.json']],
  ['npx', ['vue-tsc', '-b', '--noEmit']],
  ['npx', ['tsc', '-p', 'tests/tsconfig.json']],
]
for (const [command, args] of steps) if (run(command, args) !== 0) process.exit(1)
