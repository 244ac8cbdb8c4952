/**
 * npm run bench: measurements of one run, as ratios wherever two things can be compared. No test depends on them.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { asSheet, makeCurve, pressureAt, stableFlow, type FanCurve, type Resistance } from '#core/fan'
import { computeReport } from '#core/plan'
import { defaultRank, modelShelf, rankShelf } from '#core/selection'
import { diagramOf, feedOf } from '#core/supply'
import { fanArrayOf } from '#core/system'
import {
  addStream,
  feedStreams,
  MAIN_STREAM,
  newElement,
  newFeedPart,
  newPlan,
  type ElementKind,
  type Fan,
  type PathElement,
  type PlanDocument,
} from '#core/document'
import { planUncertainty } from '#core/advice'
import { panelTemplate, templateDxf, templateSvg } from '#core/drawing'
import { demoFans } from '../demo/fans'
import { demoJobs } from '../demo/jobs'
import { seeded } from '#core/numeric'
import { demoData, startServer } from '../tests/api/harness'
import { benchDays } from './days'
import { benchJobs } from './jobs'
import { benchLogs } from './logs'
import { line, time, timePair } from './measure'

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
  const fan = demoFans.filter((f) => f.points.length)[i % 50]!
  const made = makeCurve(fan.points.map((p) => ({ q: p.flowM3s, p: p.pressurePa })))
  if (!made.ok) throw new Error(made.message)
  const q = made.curve.q.at(-1)! * (0.2 + 0.7 * random())
  return { curve: made.curve, path: { a: 0, b: (made.curve.p[0]! * 0.5) / q ** 2 } }
})
let worst = 0
for (const { curve, path } of problems)
  worst = Math.max(worst, Math.abs(stableFlow(curve, path, asSheet) / genericFlow(curve, path) - 1))
const ours = time(() => {
  for (const { curve, path } of problems) stableFlow(curve, path, asSheet)
})
const generic = time(() => {
  for (const { curve, path } of problems) genericFlow(curve, path)
}, 5)
line(
  'operating points: core against a plain root-finder',
  `${(generic / ours).toFixed(0)} x`,
  'at least 20 x',
  generic / ours >= 20,
)
console.log(
  `      ${((problems.length / ours) * 1000).toFixed(0)} operating points a second; largest disagreement ${worst.toExponential(1)}`,
)

/** The same arithmetic bare: for each problem the cubic pieces of fan minus path in typed arrays, one Newton root in the bracket. */
function bareLoop(flat: Float64Array, starts: Int32Array, b: Float64Array, out: Float64Array) {
  for (let i = 0; i < b.length; i++) {
    for (let k = starts[i]!; k < starts[i + 1]! - 3; k += 3) {
      const q0 = flat[k]!
      const h = flat[k + 3]! - q0
      const p0 = flat[k + 1]!
      const p1 = flat[k + 4]!
      const f0 = p0 - b[i]! * q0 * q0
      const q1 = q0 + h
      const f1 = p1 - b[i]! * q1 * q1
      if (f0 < 0 || f1 >= 0) continue
      const m0 = h * flat[k + 2]!
      const m1 = h * flat[k + 5]!
      const c1 = m0 - 2 * b[i]! * q0 * h
      const c2 = 3 * (p1 - p0) - 2 * m0 - m1 - b[i]! * h * h
      const c3 = m0 + m1 - 2 * (p1 - p0)
      let low = 0
      let high = 1
      let t = 0.5
      for (let n = 0; n < 60; n++) {
        const f = f0 + t * (c1 + t * (c2 + t * c3))
        if (f > 0) low = t
        else high = t
        let next = t - f / (c1 + t * (2 * c2 + 3 * t * c3))
        if (!(next > low && next < high)) next = (low + high) / 2
        if (Math.abs(next - t) < 1e-13) break
        t = next
      }
      out[i] = q0 + t * h
      break
    }
  }
}
const starts = new Int32Array(problems.length + 1)
problems.forEach(({ curve }, i) => {
  starts[i + 1] = starts[i]! + 3 * curve.q.length
})
const flat = new Float64Array(starts[problems.length]!)
problems.forEach(({ curve }, i) =>
  curve.q.forEach((q, k) => flat.set([q, curve.p[k]!, curve.m[k]!], starts[i]! + 3 * k)),
)
const found = new Float64Array(problems.length)
const steep = Float64Array.from(problems, (x) => x.path.b)
const bare = time(() => bareLoop(flat, starts, steep, found), 41)
line(
  'operating points: core against a bare typed-array loop',
  `${(ours / bare).toFixed(1)} x`,
  'within 3 x',
  ours / bare <= 3,
)

const demoShelf = modelShelf(demoFans)
const plan = demoJobs()[0]!
const result = computeReport({ shown: null, plan, fans: demoFans })
if (!result.ok) throw new Error(result.reason)
const report = time(() => computeReport({ shown: null, plan, fans: demoFans }), 40)
line('one whole report', `${report.toFixed(2)} ms`, '', true)
for (const job of demoJobs()) {
  const made = computeReport({ shown: null, plan: job, fans: demoFans })
  if (!made.ok || !made.report.path.complete) continue
  const options = { ...defaultRank, series: false }
  const rank = time(() => rankShelf(made.report.selectionContext, demoShelf, options), 9)
  line(
    `ranking ${demoFans.length} fans x 4 counts x 10 levels: ${job.job.name}`,
    `${rank.toFixed(1)} ms`,
    'under 50 ms',
    rank < 50,
  )
}

/** The demo shelf multiplied: every fan a little different. */
const manyFans = Array.from({ length: 2000 }, (_, i): Fan => {
  const fan = demoFans[i % demoFans.length]!
  const x = 0.8 + 0.4 * random()
  return {
    ...fan,
    id: `many-${i}`,
    points: fan.points.map((p) => ({ flowM3s: p.flowM3s * x, pressurePa: p.pressurePa * x * x })),
    maxFlowM3s: fan.maxFlowM3s! * x,
    maxPressurePa: fan.maxPressurePa! * x * x,
    noiseDbA: fan.noiseDbA === null ? null : fan.noiseDbA + 50 * Math.log10(x),
  }
})
const manyShelf = modelShelf(manyFans)
for (const job of demoJobs().slice(0, 3)) {
  const made = computeReport({ shown: null, plan: job, fans: demoFans })
  if (!made.ok || !made.report.path.complete) continue
  const options = { ...defaultRank, series: false, rows: 200 }
  const rank = time(() => rankShelf(made.report.selectionContext, manyShelf, options), 7)
  line(
    `searching 2000 fans x 4 counts x 10 levels: ${job.job.name}`,
    `${rank.toFixed(0)} ms`,
    'under 100 ms',
    rank < 100,
  )
}

/** A long path with four ways side by side, one of them a leak. */
function longPath(): PlanDocument {
  const big = newPlan('bench', 'Long path')
  const kinds: ElementKind[] = ['opening', 'grille', 'filter', 'duct', 'bend', 'custom']
  const sized = (id: string, kind: ElementKind, branchId: string | null): PathElement => ({
    ...newElement(id, kind, branchId),
    areaM2: 0.02,
    freeAreaRatio: 0.7,
    diameterM: kind === 'duct' || kind === 'bend' ? 0.12 : null,
    lengthM: kind === 'duct' ? 0.5 : null,
    surface: 'hose',
    a: 50,
    b: 2000,
  })
  Object.assign(big.job, { goal: 'cool', heatW: 120, insideMaxC: 45 })
  big.path = [
    newElement('split', 'split'),
    ...Array.from({ length: 18 }, (_, i) => sized(`m${i}`, kinds[i % 6]!, null)),
  ]
  for (let k = 0; k < 4; k++) {
    big.branches.push({ id: `w${k}`, splitId: 'split', name: `Way ${k}`, leak: k === 3, times: 1 })
    for (let i = 0; i < 3; i++) big.path.push(sized(`b${k}${i}`, kinds[(i + k) % 6]!, `w${k}`))
  }
  big.selection = {
    id: 'p',
    fanId: 'fan-teasel-120x38-24v-hp',
    count: 1,
    arrangement: 'single',
    driveV: 24,
    secondFanId: null,
    secondCount: null,
    duty: null,
  }
  return big
}
const long = longPath()
const uncertain = time(() => planUncertainty({ shown: null, plan: long, fans: demoFans }), 41)
line(
  `report and 200 sampled cases: ${long.path.length - 1} elements, 4 branches`,
  `${uncertain.toFixed(1)} ms`,
  'under 20 ms',
  uncertain < 20,
)
console.log(
  `      the report alone ${time(() => computeReport({ shown: null, plan: long, fans: demoFans }), 41).toFixed(1)} ms`,
)

/** A source with six converters and sixty loads on their own leads. */
function bigFeed(): PlanDocument {
  const big = structuredClone(plan)
  big.feed = Array.from({ length: 6 }, (_, i) => ({
    ...newFeedPart(`c${i}`, 'converter', null),
    outV: 5 + i,
    iMaxA: 5,
    setFirst: true,
    wireAwg: 18,
    wireLengthM: 0.5,
  }))
  for (let i = 0; i < 60; i++)
    big.feed.push({
      ...newFeedPart(`l${i}`, 'load', `c${i % 6}`),
      loadKind: (['led', 'module', 'board', 'other'] as const)[i % 4]!,
      currentA: 0.02 + 0.001 * i,
      ratedV: 5 + (i % 6),
      wireAwg: 24,
      wireLengthM: 0.3 + 0.02 * i,
    })
  return big
}
const fed = bigFeed()

/** The same with three further streams, their fans among the parts of the feed. */
function bigMachine(): PlanDocument {
  const big = structuredClone(fed)
  for (let i = 0; i < 3; i++) {
    addStream(big, `stream-${i}`, `Stream ${i}`)
    Object.assign(big.streams.at(-1)!, { path: big.path, branches: big.branches, selection: big.selection })
  }
  feedStreams(big)
  return big
}
const four = bigMachine()
/** A job of the demo with and without what is told of its place. */
const placed = demoJobs()[0]!
const bareJob = { ...placed, fit: null, job: { ...placed.job, mountKind: null, holeM: null } }
const reportOn = (plan: PlanDocument) => () => computeReport({ shown: null, plan, fans: demoFans })
timePair(reportOn(placed), reportOn(bareJob))
const [withFit, withoutFit] = timePair(reportOn(placed), reportOn(bareJob))
line(
  'report with the place of its fans over that without',
  `${(withFit / withoutFit).toFixed(2)} x`,
  'under 1.15 x',
  withFit / withoutFit < 1.15,
)
const square = { ...placed.fit!, panelWidthM: 0.4, panelHeightM: 0.4 }
const cabinet = {
  ...placed,
  fit: square,
  selection: { ...placed.selection!, count: 4, arrangement: 'parallel' as const },
}
const mounted = computeReport({ shown: null, plan: cabinet, fans: demoFans })
if (mounted.ok && mounted.report.mount) {
  const { mount } = mounted.report
  const drawn = time(() => {
    const template = panelTemplate(cabinet, mount, 0.086)!
    templateSvg(template)
    templateDxf(template)
  }, 9)
  line('template of a panel of four fans, SVG and DXF', `${drawn.toFixed(1)} ms`, 'under 300 ms', drawn < 300)
}

const [ofOne, ofFour] = [fed, four].map((p) =>
  time(() => computeReport({ shown: null, plan: p, fans: demoFans }), 41),
) as [number, number]
line(
  'report of four streams and 60 feed parts over that of one',
  `${(ofFour / ofOne).toFixed(1)} x`,
  'under 4 x',
  ofFour < 4 * ofOne,
)
const fedArray = fanArrayOf(fed.selection!, demoFans)
if (!fedArray.ok) throw new Error(fedArray.reason)
const fedFans = [{ stream: MAIN_STREAM, selection: fed.selection!, fanArray: fedArray.fanArray }]
const feedTime = time(() => feedOf(fed, fedFans, demoFans), 41)
line(
  'feed of 60 loads behind 6 converters, low, usual, start',
  `${feedTime.toFixed(2)} ms`,
  'under 5 ms',
  feedTime < 5,
)
const drawn = diagramOf(fed, feedOf(fed, fedFans, demoFans))
const { default: ELK } = await import('elkjs/lib/elk.bundled.js')
const elk = new ELK()
const graph = () => ({
  id: 'g',
  layoutOptions: { 'elk.algorithm': 'layered', 'elk.direction': 'RIGHT' },
  children: drawn.nodes.slice(0, 60).map((n) => ({ id: n.id, width: 180, height: 80 })),
  edges: drawn.edges
    .filter((e) => drawn.nodes.slice(0, 60).some((n) => n.id === e.to))
    .map((e) => ({ id: e.id, sources: [e.from], targets: [e.to] })),
})
await elk.layout(graph())
const laid: number[] = []
for (let i = 0; i < 5; i++) {
  const from = performance.now()
  await elk.layout(graph())
  laid.push(performance.now() - from)
}
const layoutTime = laid.sort((x, y) => x - y)[2]!
line('diagram of 60 nodes laid out', `${layoutTime.toFixed(0)} ms`, 'under 500 ms', layoutTime < 500)

await benchJobs()
await benchLogs()
benchDays()

if (!existsSync('.output/server/index.mjs')) {
  console.log('The server is not built: run npm start once for its figures.')
} else {
  const data = await demoData()
  const bare = time(() => spawnSync(process.execPath, ['-e', '0']), 5)
  const starts: number[] = []
  for (let i = 0; i < 3; i++) {
    const from = performance.now()
    const server = await startServer(data)
    starts.push(performance.now() - from)
    if (i === 2 && existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) {
      const browser = await chromium.launch({
        executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
        args: ['--no-sandbox', '--disable-gpu', '--disable-quic'],
      })
      const page = await browser.newPage()
      const weights: Promise<number>[] = []
      page.on('response', (r) => {
        if (r.url().endsWith('.js')) weights.push(r.body().then((b) => gzipSync(b).length))
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
  line(
    'warm start of the built server, against an empty node',
    `${(warm / bare).toFixed(0)} x`,
    `${(warm / 1000).toFixed(2)} s in this run`,
    true,
  )
  rmSync(data, { recursive: true, force: true })
}
