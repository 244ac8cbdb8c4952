// npm run check:mutants [-- ROOM] [-- SEED]: a seeded sample of mutants of the core, one operator or value changed each,
// against the unit tests: at least 90 % must be noticed. What survives is printed with its line.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { checkNode, ensurePackages, root, run, say } from './lib.mjs'

checkNode()
await ensurePackages()
run('npx', ['nuxt', 'prepare', '--logLevel', 'silent'])

const args = process.argv.slice(2)
const room = args.find((a) => /^[a-z]+$/.test(a)) ?? ''
const seed = Number(args.find((a) => /^\d+$/.test(a)) ?? 1)
/** Lines that are drawn: about four hundred mutants. */
const LINES = 330
const KILLED = 90

/** Evenly drawn, the same for a seed. Mulberry32, T. Ettinger, public domain. */
function seeded(n) {
  let a = n >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const files = readdirSync(join(root, 'core', room), { recursive: true, withFileTypes: true })
  .filter((e) => e.isFile() && e.name.endsWith('.ts') && !e.name.endsWith('.test.ts') && e.name !== 'index.ts')
  .map((e) => join(e.parentPath, e.name).slice(root.length + 1))
  .toSorted()
/** Lines that compute or decide something: no imports, no comments, no words alone. */
const lines = files.flatMap((file) =>
  readFileSync(join(root, file), 'utf8')
    .split('\n')
    .flatMap((text, i) =>
      /[-+*/<>]|&&|\|\||\?|Math\.|===|!==|return/.test(text) &&
      !/^\s*(\/?\*|\/\/|import|export \{|')/.test(text)
        ? [`${file}:${i + 1}-${i + 1}`]
        : [],
    ),
)
const draw = seeded(seed)
const mutate = new Set()
while (mutate.size < Math.min(LINES, lines.length)) mutate.add(lines[Math.floor(draw() * lines.length)])
say(`${mutate.size} of ${lines.length} lines of ${files.length} files, seed ${seed}`)

const made = join(root, '.cache', 'mutants')
mkdirSync(made, { recursive: true })
const config = join(made, 'stryker.config.json')
writeFileSync(
  config,
  JSON.stringify({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'vitest.mutants.config.ts' },
    mutate: [...mutate],
    // words are not what is tested here
    mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral', 'ArrayDeclaration'] },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    concurrency: 2,
    timeoutMS: 20_000,
    disableTypeChecks: false,
    ignorePatterns: ['.output', '.cache', '.data', 'test-results', 'docs/screenshots'],
    tempDirName: join(made, 'sandbox'),
    cleanTempDir: 'always',
    reporters: ['clear-text', 'json'],
    clearTextReporter: { allowColor: false, reportTests: false, reportScoreTable: false },
    jsonReporter: { fileName: join(made, 'mutants.json') },
    thresholds: { high: KILLED, low: KILLED, break: KILLED },
  }),
)
process.exit(run('npx', ['stryker', 'run', config], { mayFail: true }))
