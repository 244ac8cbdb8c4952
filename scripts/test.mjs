// npm test: format, lint, unused code, types, unit, api and browser tests on a fresh clone with no other step. Ends
// with "N passed, N failed".
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { spawn, spawnSync } from 'node:child_process'
import { startPostgres } from './postgres.mjs'
import { checkNode, ensureBuild, ensurePackages, root, run, say } from './lib.mjs'

checkNode()
await ensurePackages()

/** Installs one of Debian's packages, where this user may. */
function install(name) {
  const quiet = { stdio: 'ignore', mayFail: true }
  const apt = (...args) =>
    process.getuid?.() === 0 ? run('apt-get', args, quiet) : run('sudo', ['-n', 'apt-get', ...args], quiet)
  apt('update', '-qq')
  apt('install', '-y', '-qq', '--no-install-recommends', name)
}
const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium'
function ensureChromium() {
  if (existsSync(CHROMIUM)) return true
  say('installing Chromium from Debian’s packages')
  install('chromium')
  if (existsSync(CHROMIUM)) return true
  console.error(
    'Chromium is missing and could not be installed: run "sudo apt-get install chromium", or set ' +
      'CHROMIUM to an installed Chromium, then run npm test again.',
  )
  return false
}

/** How long each test took, ms. */
const took = []
/** What failed, named again at the end, where it is found. */
const failed = []
const totals = { passed: 0, failed: 0 }
const count = (passed, failed) => {
  totals.passed += passed
  totals.failed += failed
}
/** A check of its own, which others may run beside: what it has to say comes in one piece when it ends. */
async function check(name, command, args) {
  const from = Date.now()
  const child = spawn(command, args, {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    shell: process.platform === 'win32',
  })
  let printed = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (printed += text))
  const ok = (await new Promise((done) => child.once('error', () => done(1)).once('close', done))) === 0
  say(`${name}: ${ok ? 'passed' : 'failed'}, ${Math.round((Date.now() - from) / 1000)} s`)
  if (!ok) {
    console.log(printed)
    failed.push({ name, why: printed })
  }
  count(ok ? 1 : 0, ok ? 0 : 1)
}
/** One after the other. */
async function inOrder(...steps) {
  for (const step of steps) await step()
}
const results = join(root, '.cache', 'results')
rmSync(results, { recursive: true, force: true })

/** What to run: all of it, or one of unit, api, e2e. */
const only = process.argv[2] ?? 'all'
const since = Date.now()
const minutes = () => `${((Date.now() - since) / 60_000).toFixed(1)} min`
const wanted = (part) => only === 'all' || only === part

function vitest(name, folders, { env = {}, args = [] } = {}) {
  say(`${name} tests (after ${minutes()})`)
  const file = join(results, `${name}.json`)
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`]
  run('npx', ['vitest', 'run', ...folders, ...reporters, ...args], {
    mayFail: true,
    env: { ...process.env, ...env },
  })
  if (!existsSync(file)) {
    failed.push({ name: `${name} tests`, why: 'they ended before they could tell' })
    return count(0, 1)
  }
  const json = JSON.parse(readFileSync(file, 'utf8'))
  // a file that fails before its tests counts as one
  const broken = json.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0)
  count(json.numPassedTests, json.numFailedTests + broken.length)
  for (const f of broken) failed.push({ name: `${name}: ${f.name.slice(root.length)}`, why: f.message })
  for (const t of json.testResults.flatMap((f) => f.assertionResults))
    if (t.status === 'failed')
      failed.push({ name: `${name}: ${t.fullName}`, why: t.failureMessages.join('\n') })
  for (const t of json.testResults.flatMap((f) => f.assertionResults))
    took.push({ name: `${name}: ${t.fullName}`, ms: t.duration ?? 0 })
}

/** The routes once more, on a PostgreSQL server of its own instead of the embedded one. */
const ON_SERVER = [
  'server',
  'repositories',
  'log',
  'logging-server',
  'hostile',
  'backup',
  'postgres',
  'summaries',
  'away',
]
async function onPostgres() {
  let pg = await startPostgres()
  if (!pg) {
    say('installing PostgreSQL from Debian’s packages')
    install('postgresql')
    pg = await startPostgres()
  }
  if (!pg) return say('no PostgreSQL server can be had here: the API tests ran on the embedded database only')
  try {
    vitest(
      'api on PostgreSQL',
      ON_SERVER.map((name) => `tests/api/${name}.test.ts`),
      { env: { REDPOLL_TEST_POSTGRES: pg.address } },
    )
  } finally {
    pg.stop()
  }
}

function browser() {
  if (!ensureChromium()) return count(0, 1)
  say(`browser tests (after ${minutes()})`)
  const e2e = join(results, 'e2e.json')
  const status = spawnSync('npx', ['playwright', 'test'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, CHROMIUM },
  }).status
  if (!existsSync(e2e)) return count(0, 1)
  const { stats, suites } = JSON.parse(readFileSync(e2e, 'utf8'))
  const specs = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specs)]
  for (const { title, tests, ok } of suites.flatMap(specs)) {
    if (!ok)
      failed.push({
        name: `browser: ${title}`,
        why: tests.flatMap((t) => t.results.flatMap((r) => r.error?.message ?? [])).join('\n'),
      })
    for (const { duration } of tests.flatMap((t) => t.results))
      took.push({ name: `browser: ${title}`, ms: duration })
  }
  count(stats.expected + stats.flaky, stats.unexpected || (status ? 1 : 0))
}

run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])
// each of these has one processor: two at a time, the build among them
if (only === 'all')
  await Promise.all([
    inOrder(
      () => check('types', 'node', ['scripts/types.mjs']),
      () => check('nothing unused', 'node', ['scripts/unused.mjs']),
    ),
    inOrder(
      () => check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']),
      () => check('lint', 'npx', ['eslint', '.', '--max-warnings', '0']),
      ensureBuild,
    ),
  ])
if (wanted('unit'))
  vitest(
    'unit',
    [
      'core/',
      'demo/',
      'server/',
      'shared/',
      'app/',
      'tests/casebook/',
      'tests/gates/',
      'tests/handbook/',
      'tests/truth/',
    ],
    // what they test is read once, not once a file: they share nothing that changes
    { args: ['--no-isolate'] },
  )
if (wanted('api') || wanted('e2e')) await ensureBuild()
if (wanted('api')) {
  vitest('api', ['tests/api/'])
  await onPostgres()
}
if (wanted('e2e')) browser()

/** Longer ones of the tests that npm test draws from. */
const LONG = {
  hostile: { REDPOLL_HOSTILE: '10000' },
  kills: { REDPOLL_KILLS: '60' },
}
const FILES = { hostile: 'hostile', kills: 'kill' }
if (only in LONG) {
  await ensureBuild()
  vitest(only, [`tests/api/${FILES[only]}.test.ts`], { env: LONG[only] })
}

const LONGEST = 10
say('the longest tests')
for (const { name, ms } of took.toSorted((a, b) => b.ms - a.ms).slice(0, LONGEST))
  console.log(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${name.slice(0, 120)}`)
if (failed.length) say('what failed')
for (const { name, why = '' } of failed) console.log(`  ${name}\n${why.split('\n').slice(0, 12).join('\n')}`)
console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed ? 1 : 0)
