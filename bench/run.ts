import { pick, selectionOf, hang } from '../tests/plans'
/**
 * npm run bench: measurements of one run, as ratios wherever two things can be compared. No test depends on them.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, rmSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import { computeReport } from '#core/plan'
import { defaultRank, modelShelf } from '#core/selection'
import { rankShelf } from '../tests/ranked'
import { diagramOf, feedOf } from '#core/supply'
import { drivenV, fanArrayOf } from '#core/system'
import {
  addStream,
  settleFeed,
  seenFrom,
  type Stream,
  wholePlan,
  newElement,
  newFeedPart,
  newStreamPlan,
  type ElementKind,
  type PathElement,
  type StreamPlan,
  plannedFans,
  seenAt,
} from '#core/document'
import { planUncertainty } from '#core/advice'
import { panelTemplate, templateDxf, templateSvg } from '#core/drawing'
import { demoFans } from '../demo/fans'
import { demoPlans } from '../demo/jobs'
import { demoData, startServer } from '../tests/api/harness'
import { benchDays } from './days'
import { benchJobs } from './jobs'
import { benchLogs } from './logs'
import { benchPoints } from './points'
import { benchSearch, benchShelf } from './shelf'
import { line, time, timePair } from './measure'

benchPoints()

const demoShelf = modelShelf(demoFans)
const plan = demoPlans()[0]!
const result = computeReport({ shown: null, plan, fans: demoFans })
if (!result.ok) throw new Error(result.reason)
const report = time(() => computeReport({ shown: null, plan, fans: demoFans }), 40)
line('one whole report', `${report.toFixed(2)} ms`, '', true)
for (const job of demoPlans()) {
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

benchSearch()

/** A long path with four ways side by side, one of them a leak. */
function longPath(): StreamPlan {
  const big = newStreamPlan('bench', 'Long path')
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
  pick(big, selectionOf('fan-teasel-120x38-24v-hp'), 24)
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
function bigFeed(): StreamPlan {
  const big = structuredClone(plan)
  const converters = Array.from({ length: 6 }, (_, i) => ({
    ...newFeedPart(`c${i}`, 'converter', null),
    outV: 5 + i,
    iMaxA: 5,
    setFirst: true,
    wireAwg: 18,
    wireLengthM: 0.5,
  }))
  const loads = Array.from({ length: 60 }, (_, i) => ({
    ...newFeedPart(`l${i}`, 'load', `c${i % 6}`),
    loadKind: (['led', 'module', 'board', 'other'] as const)[i % 4]!,
    currentA: 0.02 + 0.001 * i,
    ratedV: 5 + (i % 6),
    wireAwg: 24,
    wireLengthM: 0.3 + 0.02 * i,
  }))
  hang(big, ...converters, ...loads)
  return big
}
const fed = bigFeed()

/** The same with three further streams, their fans among the parts of the feed. */
function bigMachine(): StreamPlan {
  const big = wholePlan(structuredClone(fed))
  const [{ path, branches, places }] = big.streams as [Stream]
  for (let i = 0; i < 3; i++) {
    addStream(big, `further-${i}`, `Further ${i}`)
    Object.assign(big.streams.at(-1)!, { path, branches, places })
  }
  settleFeed(big, null)
  return seenFrom(big)
}
const four = bigMachine()
/** A job of the demo with and without what is told of its place. */
const placed = seenAt(demoPlans()[0]!)
const bareJob = structuredClone(placed)
Object.assign(bareJob.places[0]!, { fit: null, mountKind: null, holeM: null })
const reportOn = (plan: StreamPlan) => () => computeReport({ shown: null, plan, fans: demoFans })
timePair(reportOn(placed), reportOn(bareJob))
const [withFit, withoutFit] = timePair(reportOn(placed), reportOn(bareJob))
line(
  'report with the place of its fans over that without',
  `${(withFit / withoutFit).toFixed(2)} x`,
  'under 1.15 x',
  withFit / withoutFit < 1.15,
)
const cabinet = seenAt(structuredClone(placed))
Object.assign(cabinet.place.fit!, { panelWidthM: 0.4, panelHeightM: 0.4 })
cabinet.place.fans[0]!.count = 4
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
const fedArray = fanArrayOf(plannedFans(fed)!, demoFans)
if (!fedArray.ok) throw new Error(fedArray.reason)
const fedFans = [
  {
    stream: 'main',
    duty: null,
    driveV: drivenV(fed, fedArray.fanArray),
    fanArray: fedArray.fanArray,
  },
]
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
await benchShelf()
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
