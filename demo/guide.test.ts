import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { demoFans } from './fans'
import { demoPlan } from './jobs'
import { computeReport } from '#core/plan'
import { printQuantity } from '#core/units'

/** The guide tells the demo's own job: its numbers are computed here again, its links lead somewhere. */
const text = readFileSync('docs/guide.md', 'utf8').replaceAll('**', '')
const made = computeReport({ plan: demoPlan('job-film-cabinet'), fans: demoFans, shown: null })
if (!made.ok) throw new Error(made.reason)
const { report } = made
const said = (value: number | null | undefined, quantity: Parameters<typeof printQuantity>[1]) =>
  printQuantity(value ?? Number.NaN, quantity).replaceAll('\u00a0', ' ')

describe('the guide', () => {
  test('tells the figures of the demo', () => {
    const { need, selection, power } = report
    const candidate = selection!.candidate
    const numbers = [
      said(need.flow.value, 'flow'),
      said(need.design.value, 'flow'),
      said(selection!.served.value, 'flow'),
      said(candidate.flowLow, 'flow').split(' ')[0]!,
      said(candidate.flowHigh, 'flow'),
      said(candidate.level?.value, 'level'),
      said(
        power.figures.find((f) => f.key.endsWith('drawn') || f.label === 'Drawn from the source')?.value,
        'current',
      ),
    ]
    for (const number of numbers) expect(text).toContain(number)
  })
  test('every link leads to a page or a station', () => {
    const links = [...text.matchAll(/\]\((\/[^)]*)\)/g)].map((m) => m[1]!)
    expect(links.length).toBeGreaterThan(7)
    for (const link of links) {
      const page = link
        .replace('/job/job-film-cabinet', '/job/[id]')
        .replace(/\/shelf\/fan-[^/]+/, '/shelf/[id]')
      expect(existsSync(`app/pages${page}.vue`) || existsSync(`app/pages${page}/index.vue`), link).toBe(true)
    }
  })
  test('no word is explained twice', () => {
    const words = [...readFileSync('docs/words.md', 'utf8').matchAll(/^\| ([^|]+?) \|/gm)].map((m) => m[1]!)
    const own = words.filter((w) => w !== 'In the app' && !w.startsWith('---'))
    expect(own.length).toBeGreaterThan(30)
    expect(new Set(own).size).toBe(own.length)
  })
})
