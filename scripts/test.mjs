// npm test: lint, types, unit, api and browser tests on a fresh clone with no other step. Ends with "N passed, N failed".
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { spawnSync } from 'node:child_process'
import { checkNode, ensureBuild, ensurePackages, root, run, say } from './lib.mjs'

checkNode()
ensurePackages()

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium'
function ensureChromium() {
  if (existsSync(CHROMIUM)) return true
  say('installing Chromium from Debian’s packages')
  const quiet = { stdio: 'ignore', mayFail: true }
  const root_ = process.getuid?.() === 0
  const apt = (...args) =>
    root_ ? run('apt-get', args, quiet) : run('sudo', ['-n', 'apt-get', ...args], quiet)
  apt('update', '-qq')
  apt('install', '-y', '-qq', '--no-install-recommends', 'chromium')
  if (existsSync(CHROMIUM)) return true
  console.error(
    'Chromium is missing and could not be installed: run "sudo apt-get install chromium", or set CHROMIUM to an installed Chromium, then run npm test again.',
  )
  return false
}

const totals = { passed: 0, failed: 0 }
const count = (passed, failed) => {
  totals.passed += passed
  totals.failed += failed
}
function check(name, command, args) {
  say(name)
  const ok = run(command, args, { mayFail: true }) === 0
  count(ok ? 1 : 0, ok ? 0 : 1)
}
const results = join(root, '.cache', 'results')
rmSync(results, { recursive: true, force: true })

run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])
check('lint', 'npx', ['eslint', '.', '--max-warnings', '0'])
check('types', 'node', ['scripts/types.mjs'])

say('unit and api tests')
ensureBuild()
const unit = join(results, 'unit.json')
run('npx', ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`], {
  mayFail: true,
})
if (existsSync(unit)) {
  const json = JSON.parse(readFileSync(unit, 'utf8'))
  count(
    json.numPassedTests,
    json.numFailedTests +
      json.testResults.filter((f) => f.status === 'failed' && f.assertionResults.length === 0).length,
  )
} else count(0, 1)

if (ensureChromium()) {
  say('browser tests')
  const e2e = join(results, 'e2e.json')
  const status = spawnSync('npx', ['playwright', 'test'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: e2e, CHROMIUM },
  }).status
  if (existsSync(e2e)) {
    const { stats } = JSON.parse(readFileSync(e2e, 'utf8'))
    count(stats.expected + stats.flaky, stats.unexpected || (status ? 1 : 0))
  } else count(0, 1)
} else count(0, 1)

console.log(`\n${totals.passed} passed, ${totals.failed} failed`)
process.exit(totals.failed ? 1 : 0)
