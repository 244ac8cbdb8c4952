// npm run password: sets the password of a workshop, or takes it away. Only its hash is kept.
import { randomBytes, scryptSync } from 'node:crypto'
import { mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { Writable } from 'node:stream'
import { parseArgs } from 'node:util'
import { root, say } from './lib.mjs'

const LEAST = 8
const usage = 'npm run password -- [--data DIR] [--none]'
let options
try {
  options = parseArgs({
    options: { data: { type: 'string', default: '.data' }, none: { type: 'boolean', default: false } },
  }).values
} catch (error) {
  console.error(`${error.message}\n${usage}`)
  process.exit(2)
}
const data = resolve(root, options.data)
const file = join(data, 'password.json')
if (options.none) {
  rmSync(file, { force: true })
  say(
    'no password from the next start on: what runs now stays locked; a --host that others reach asks for --open',
  )
  process.exit(0)
}

/** What is typed is not shown. */
const hidden = new Writable({ write: (_chunk, _encoding, done) => done() })
const terminal = process.stdin.isTTY
if (terminal) process.stdout.write(`New password of the workshop (at least ${LEAST} characters): `)
const lines = createInterface({ input: process.stdin, output: hidden, terminal })
const password = await lines.question('')
lines.close()
if (terminal) process.stdout.write('\n')
if (password.length < LEAST) {
  console.error(
    `At least ${LEAST} characters are wanted: a few words that nobody would guess. Nothing was changed.`,
  )
  process.exit(2)
}
const salt = randomBytes(16)
const hash = scryptSync(password, salt, 32)
mkdirSync(data, { recursive: true, mode: 0o700 })
const draft = `${file}.${process.pid}`
writeFileSync(draft, JSON.stringify({ salt: salt.toString('base64'), hash: hash.toString('base64') }), {
  mode: 0o600,
})
renameSync(draft, file)
say('the password is set; whoever was in is asked for it again')
