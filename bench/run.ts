/**
 * npm run bench: measurements of one run, as ratios wherever two things can be compared. No test depends on them.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { asSheet, makeCurve, pressureAt, stableFlow, type FanCurve, type Resistance } from '../core/fan'
import { computeReport, defaultRank, newElement, modelShelf, newPlan, planDoubt, rankShelf, type ElementKind, type PathElement, type PlanDocument } from '../core/plan'
import { demoFans } from '../demo/fans'
import { demoJobs } from '../demo/jobs'
import { seeded } from '../core/plan/random'
import { demoData, startServer } from '../tests/api/harness'

const line = (what: string, value: string, target: string, ok: boolean) => console.log(`${ok ? ' ok ' : 'MISS'}  ${what.padEnd(58)} ${value.padStart(14)}   ${target}`)

/** Median of repeated timings, ms. */
function time(work: () => unknown, repeats = 15): number {
  const times: number[] = []
  for (let i = 0; i < repeats; i++) {
    const start = performance.now()
    work()
    times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[Math.floor(repeats / 2)]!
}

/** The plain way that finds every crossing: sample each interval in 32 parts, bisect each change of sign. */
function genericFlow(curve: FanCurve, path: Resistance): number {
  const f = (q: number) => pressureAt(curve, q)! - path.a * q - path.b * q * q
  for (let k = 0; k < curve.q.length - 1; k++) {
    const h = (curve.q[k + 1]! - curve.q[k]!) / 32
    for (let i = 0; i < 32; i++) {
      let low = curve.q[k]! + i * h
      let high = i === 31 ? curve.q[k + 1]! : low + h
      if (!(f(low) >= 0 && f(high) < 0)) continue
      while (high - low > 1e-9 * curve.q.at(-1)!) {
        const middle = (low + high) / 2
        if (f(middle) >= 0) low = middle
        else high = middle
      }
      return (low + high) / 2
    }
  }
  return curve.q.at(-1)!
}

const random = seeded(11)
const problems = Array.from({ length: 2000 }, (_, i) => {
  const fan = demoFans.filter(f => f.points.length)[i % 50]!
  const made = makeCurve(fan.points.map(p => ({ q: p.flowM3s, p: p.pressurePa })))
  if (!made.ok) throw new Error(made.message)
  const q = made.curve.q.at(-1)! * (0.2 + 0.7 * random())
  return { curve: made.curve, path: { a: 0, b: made.curve.p[0]! * 0.5 / q ** 2 } }
})
let worst = 0
for (const { curve, path } of problems) worst = Math.max(worst, Math.abs(stableFlow(curve, path, asSheet) / genericFlow(curve, path) - 1))
const ours = time(() => { for (const { curve, path } of problems) stableFlow(curve, path, asSheet) })
const generic = time(() => { for (const { curve, path } of problems) genericFlow(curve, path) }, 5)
line('operating points: core against a plain root-finder', `${(generic / ours).toFixed(0)} x`, 'at least 20 x', generic / ours >= 20)
console.log(`      ${(problems.length / ours * 1000).toFixed(0)} operating points a second; largest disagreement ${worst.toExponential(1)}`)

const demoShelf = modelShelf(demoFans)
const plan = demoJobs()[0]!
const result = computeReport({ plan, fans: demoFans })
if (!result.ok) throw new Error(result.reason)
const report = time(() => computeReport({ plan, fans: demoFans }), 40)
line('one whole report', `${report.toFixed(2)} ms`, '', true)
for (const job of demoJobs()) {
  const made = computeReport({ plan: job, fans: demoFans })
  if (!made.ok || !made.report.path.complete) continue
  const options = { ...defaultRank, series: false }
  const rank = time(() => rankShelf(made.report.context, demoShelf, options), 9)
  line(`ranking ${demoFans.length} fans x 4 counts x 10 levels: ${job.job.name}`, `${rank.toFixed(1)} ms`, 'under 50 ms', rank < 50)
}

/** A long path with four ways side by side, one of them a leak. */
function longPath(): PlanDocument {
  const big = newPlan('bench', 'Long path')
  const kinds: ElementKind[] = ['opening', 'grille', 'filter', 'duct', 'bend', 'custom']
  const sized = (id: string, kind: ElementKind, branchId: string | null): PathElement => ({
    ...newElement(id, kind, branchId), areaM2: 0.02, freeAreaRatio: 0.7, diameterM: kind === 'duct' || kind === 'bend' ? 0.12 : null, lengthM: kind === 'duct' ? 0.5 : null, surface: 'hose', a: 50, b: 2000,
  })
  Object.assign(big.job, { goal: 'cool', heatW: 120, insideMaxC: 45 })
  big.path = [newElement('split', 'split'), ...Array.from({ length: 18 }, (_, i) => sized(`m${i}`, kinds[i % 6]!, null))]
  for (let k = 0; k < 4; k++) {
    big.branches.push({ id: `w${k}`, splitId: 'split', name: `Way ${k}`, leak: k === 3 })
    for (let i = 0; i < 3; i++) big.path.push(sized(`b${k}${i}`, kinds[(i + k) % 6]!, `w${k}`))
  }
  big.pick = { id: 'p', fanId: 'fan-teasel-120x38-24v-hp', count: 1, arrangement: 'single', driveV: 24, secondFanId: null, duty: null }
  return big
}
const long = longPath()
const doubted = time(() => planDoubt({ plan: long, fans: demoFans }), 41)
line(`report and 200 sampled cases: ${long.path.length - 1} elements, 4 branches`, `${doubted.toFixed(1)} ms`, 'under 20 ms', doubted < 20)
console.log(`      the report alone ${time(() => computeReport({ plan: long, fans: demoFans }), 41).toFixed(1)} ms`)

if (!existsSync('.output/server/index.mjs')) {
  console.log('The server is not built: run npm start once for its figures.')
}
else {
  const data = await demoData()
  const bare = time(() => spawnSync(process.execPath, ['-e', '0']), 5)
  const starts: number[] = []
  for (let i = 0; i < 3; i++) {
    const from = performance.now()
    const server = await startServer(data)
    starts.push(performance.now() - from)
    if (i === 2 && existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) {
      const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-quic'] })
      const page = await browser.newPage()
      const weights: Promise<number>[] = []
      page.on('response', (r) => {
        if (r.url().endsWith('.js')) weights.push(r.body().then(b => gzipSync(b).length))
      })
      await page.goto(server.url)
      await page.getByRole('heading', { name: 'Bench' }).waitFor()
      await page.waitForTimeout(500)
      const total = (await Promise.all(weights)).reduce((a, b) => a + b, 0) / 1000
      line('JavaScript of the first page, compressed', `${total.toFixed(0)} kB`, 'at most 350 kB', total <= 350)
      await browser.close()
    }
    await server.stop()
  }
  const warm = starts.sort((a, b) => a - b)[1]!
  line('warm start of the built server, against an empty node', `${(warm / bare).toFixed(0)} x`, `${(warm / 1000).toFixed(2)} s in this run`, true)
  rmSync(data, { recursive: true, force: true })
}
