// No unused file, export, dependency or undeclared import; and what only tests run is on the list of core/only-checked.json,
// with the reason. A kernel that the product calls must leave the list. What the product imports is installed where it only
// runs: a dependency, not one of the tests.
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

const reasons = JSON.parse(readFileSync(join(root, 'core', 'only-checked.json'), 'utf8'))
const listed = new Set(Object.values(reasons).flat())
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
  console.error(`${file}: only tests run ${name}: call it, take it out, or list it in core/only-checked.json`)
for (const name of needless)
  console.error(`core/only-checked.json: ${name} runs in the product now, or is gone: take it off the list`)

/** Left out of the configuration where it is not installed. */
const WHERE_IT_IS = ['@nuxt/eslint']
const imports = JSON.parse(
  knip('--production', '--strict', '--include', 'unlisted', '--reporter', 'json').stdout,
)
const absent = imports.issues.flatMap(({ file, unlisted: names = [] }) =>
  names.filter(({ name }) => !WHERE_IT_IS.includes(name)).map(({ name }) => ({ file, name })),
)
for (const { file, name } of absent)
  console.error(`${file}: the product imports ${name}, which stands among the devDependencies`)

process.exit(unlisted.length || needless.length || absent.length ? 1 : 0)
