// No unused file, export, dependency or undeclared import; and what only tests run is on the list of core/coming.json,
// with the station that is to need it. A kernel that the product calls must leave the list.
import { readFileSync } from 'node:fs'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { root } from './lib.mjs'

const knip = (...args) =>
  spawnSync('npx', ['knip', '--no-config-hints', ...args], {
    cwd: root,
    encoding: 'utf8',
    shell: process.platform === 'win32',
  })

const whole = knip()
if (whole.status !== 0) {
  console.error(whole.stdout || whole.stderr)
  process.exit(1)
}

const coming = JSON.parse(readFileSync(join(root, 'core', 'coming.json'), 'utf8'))
const listed = new Set(Object.values(coming).flat())
const { issues } = JSON.parse(knip('--production', '--include', 'exports,types', '--reporter', 'json').stdout)
const waiting = new Map(
  issues
    // a room's index may offer to tests what the room itself uses
    .filter(({ file }) => !file.endsWith('/index.ts'))
    .flatMap(({ file, exports = [], types = [] }) => [...exports, ...types].map(({ name }) => [name, file])),
)
const unlisted = [...waiting].filter(([name]) => !listed.has(name))
const needless = [...listed].filter((name) => !waiting.has(name))
for (const [name, file] of unlisted)
  console.error(`${file}: only tests run ${name}: call it, take it out, or list it in core/coming.json`)
for (const name of needless)
  console.error(`core/coming.json: ${name} runs in the product now, or is gone: take it off the list`)
process.exit(unlisted.length || needless.length ? 1 : 0)
