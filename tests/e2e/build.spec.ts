import { readFileSync } from 'node:fs'
import { expect, saved, test, variantOf } from './app'

/** The station Build: ticked with what was measured, held by a caution, on a phone one step at a time. */

test('a value is judged: refused with what it means, accepted, and back in the plan', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-film-cabinet')
  await page.goto(`${demo.url}/job/${id}/build`)
  await page.getByRole('button', { name: /Wiring on the bench/ }).press('Enter')
  const set = page.getByRole('article', { name: /^Set .*nothing connected behind it/ })
  await expect(set).toContainText('To 10.5 V, accept 10.3 V to 10.7 V')
  await expect(set.getByRole('checkbox')).toBeChecked()
  const value = set.getByRole('textbox')
  await value.fill('12.9')
  await value.press('Enter')
  await expect(set.getByRole('alert')).toContainText(
    /Too much: do not connect the fan\. .*turn|Turn the screw back/,
  )
  await value.fill('10.52')
  await value.press('Enter')
  await expect(set.getByRole('alert')).toHaveCount(0)
  await expect(set).toContainText('10.5 V')
  await saved(page)
  const stored = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: {
      feed: { kind: string; measuredV: number }[]
      build: { ticks: { id: string; value: number | null }[] }
    }
  }
  expect(stored.plan.feed.find((f) => f.kind === 'converter')!.measuredV).toBe(10.52)
  expect(stored.plan.build.ticks.find((t) => t.id.startsWith('converter-'))!.value).toBe(10.52)
})

test('a caution holds every sitting until somebody answers for it, or the plan changes', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-seed-store')
  await page.goto(`${demo.url}/job/${id}/build`)
  await expect(page.getByText('nobody said whether a stove or boiler takes its air from it')).toBeVisible()
  const first = page.getByRole('article').first()
  await expect(first.getByRole('checkbox')).toBeDisabled()
  await page.getByRole('button', { name: 'It may go on, because' }).press('Enter')
  await page.getByRole('button', { name: 'Go on', exact: true }).press('Enter')
  await expect(page.getByText('Say why it may go on.')).toBeVisible()
  await page.getByLabel('Reason', { exact: true }).fill('No burner in the building')
  await page.getByLabel('Who answers for it', { exact: true }).fill('Mara, gas fitter')
  await page.getByRole('button', { name: 'Go on', exact: true }).press('Enter')
  await expect(page.getByText('Mara, gas fitter answers for it: No burner in the building')).toBeVisible()
  await first.getByRole('checkbox').press('Space')
  await expect(first.getByRole('checkbox')).toBeChecked()
  await saved(page)
  // what was answered holds again; then the plan itself says it
  await page.getByRole('button', { name: 'Let it hold again' }).press('Enter')
  await expect(page.getByText(/Nothing is ticked here/)).toBeVisible()
  await page.goto(`${demo.url}/job/${id}/brief`)
  await page
    .getByRole('checkbox', { name: /None of the others applies/ })
    .or(page.getByRole('button', { name: /None of the others applies/ }))
    .first()
    .press('Enter')
  await saved(page)
  await page.goto(`${demo.url}/job/${id}/build`)
  await expect(page.getByText(/Nothing is ticked here/)).toHaveCount(0)
})

test('a step that the plan changed under is asked for again; the sheet is kept as Markdown', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-film-cabinet')
  const { plan, revision } = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: { feed: { kind: string; outV: number }[] }
    revision: number
  }
  plan.feed.find((f) => f.kind === 'converter')!.outV = 9
  const put = await page.request.put(`${demo.url}/api/jobs/${id}`, { data: { plan, revision } })
  expect(put.ok()).toBe(true)
  await page.goto(`${demo.url}/job/${id}/build`)
  await expect(page.getByText('Again: the plan has changed since it was ticked.').first()).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Markdown' }).press('Enter')
  const text = readFileSync(await (await download).path(), 'utf8')
  expect(text).toContain('# Build: ')
  expect(text.trimEnd().endsWith('If you are not sure, stop and ask someone licensed for it.')).toBe(true)
})

test('on a phone one step at a time, ticked while the server is away and sent later', async ({
  page,
  empty,
  quiet,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`${empty.url}/begin`)
  await page.getByRole('button', { name: 'Begin with an empty plan' }).press('Enter')
  await page.waitForURL(/brief/)
  const id = page.url().split('/')[4]!
  await page.goto(`${empty.url}/job/${id}/build`)
  await expect(page.getByRole('article')).toHaveCount(1)
  await expect(page.getByRole('article')).toContainText('Photograph it as found')
  await page.getByRole('button', { name: 'Next' }).click()
  await expect(page.getByRole('article')).toContainText('Take the baseline')
  await page.getByRole('button', { name: 'Back' }).click()
  await page.route('**/api/jobs/**', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  )
  const box = page.getByRole('checkbox', { name: 'Done: Photograph it as found' })
  await box.press('Space')
  await expect(box).toBeChecked()
  // the browser tells the request that was cut off
  await expect.poll(() => quiet.length).toBeGreaterThan(0)
  await page.unroute('**/api/jobs/**')
  await saved(page)
  await page.reload()
  await expect(page.getByText(/^Before you cut, 1 of/)).toBeVisible()
  // nothing is asked of the server while it is stopped
  await page.goto('about:blank')
  quiet.splice(0)
})

/** What a meter would show, by the title of the step; the first of two is refused. */
const shows: [RegExp, string[]][] = [
  [/^Measure .* by itself/, ['12.1']],
  [/^\+ to \+/, ['0.2']],
  [/^No short/, ['50000']],
  [/^Set /, ['12.9', '10.52']],
  [/^Polarity/, ['-10.4', '10.4']],
  [/^First power/, ['0.09']],
  [/^Current after an hour/, ['0.09']],
  [/plugs after an hour/i, ['31']],
]

test('a whole build at 390 px: from the first caution to the check after an hour', async ({ page, demo }) => {
  test.setTimeout(120_000)
  const id = await variantOf(demo.url, 'job-film-cabinet')
  const { plan, revision } = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: { build: unknown; runs: { kind: string }[]; logbook: unknown[]; feed: { kind: string }[] }
    revision: number
  }
  Object.assign(plan, { build: null, logbook: [], runs: plan.runs.filter((r) => r.kind === 'baseline') })
  Object.assign(
    plan.feed.find((f) => f.kind === 'converter')!,
    { measuredV: null, setFirst: false },
  )
  expect((await page.request.put(`${demo.url}/api/jobs/${id}`, { data: { plan, revision } })).ok()).toBe(true)
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`${demo.url}/job/${id}/build`)
  const card = page.getByRole('article')
  const done: string[] = []
  let refused = 0
  for (let i = 0; i < 60; i++) {
    await expect(card).toHaveCount(1)
    const title = (await card.getAttribute('aria-label'))!
    if (done.includes(title)) break
    done.push(title)
    // the hole is not cut before the caution of its sitting was read
    if (/^Mark and cut/.test(title))
      await expect(page.getByText('Eye protection and a mask while cutting.')).toBeVisible()
    const box = card.getByRole('checkbox')
    if (!(await box.isChecked())) {
      const values = shows.find(([t]) => t.test(title))?.[1]
      if (values) {
        const field = card.getByRole('textbox', { name: /^Measured/ })
        for (const [n, value] of values.entries()) {
          await field.fill(value)
          await field.press('Enter')
          if (n < values.length - 1) {
            refused++
            await expect(card.getByRole('alert')).toContainText(/do not connect the fan|Swapped/)
            await expect(box).not.toBeChecked()
          }
        }
      } else if (/^Which way/.test(title)) {
        await card.getByRole('button', { name: /^the other way/ }).press('Enter')
        await expect(card.getByRole('alert')).toContainText('never swap + and −')
        await card.getByRole('button', { name: /^as planned/ }).press('Enter')
      } else await box.press('Space')
      await expect(box).toBeChecked()
    }
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    await page.getByRole('button', { name: 'Next', exact: true }).click()
  }
  expect(refused).toBe(2)
  expect(done.length).toBeGreaterThan(15)
  await saved(page)
  const after = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: {
      feed: { kind: string; measuredV: number; setFirst: boolean }[]
      runs: { name: string; readings: { quantity: string; value: number }[] }[]
      build: { ticks: unknown[] }
    }
  }
  expect(after.plan.feed.find((f) => f.kind === 'converter')).toMatchObject({
    measuredV: 10.52,
    setFirst: true,
  })
  // what was measured stands in the log as well
  const checks = after.plan.runs.find((r) => r.name === 'Checks of the build')!
  expect(checks.readings.map((r) => r.quantity)).toEqual(
    expect.arrayContaining(['voltage', 'current', 'temperature']),
  )
})

test('two devices tick: both are kept, and one step that both ticked says so', async ({
  page,
  demo,
  context,
  quiet,
}) => {
  const id = await variantOf(demo.url, 'job-recorder-shelf')
  // it hears of the other one only when it saves
  await page.route('**/api/changes?*', () => {})
  await page.goto(`${demo.url}/job/${id}/build`)
  const other = await context.newPage()
  await other.goto(`${demo.url}/job/${id}/build`)
  const one = (p: typeof page) =>
    p.getByRole('checkbox', { name: 'Done: Turn it into every position of its use' })
  const paper = page.getByRole('checkbox', { name: 'Done: Which way does the air go?' })
  await expect(paper).toBeVisible()
  await one(other).press('Space')
  await expect(one(other)).toBeChecked()
  await saved(other)
  await paper.press('Space')
  await one(page).press('Space')
  await expect(page.getByText(/Another device ticked “Turn it into every position/)).toBeVisible()
  await saved(page)
  const { plan } = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: { build: { ticks: { id: string; note: string }[] } }
  }
  expect(plan.build.ticks.map((t) => t.id)).toEqual(expect.arrayContaining(['direction', 'positions']))
  expect(plan.build.ticks.find((t) => t.id === 'positions')!.note).toContain('Also ticked at')
  expect(quiet.filter((m) => !m.includes('409'))).toEqual([])
  quiet.length = 0
})

test('a photo is evidence: no picture is told at the step, a large one is made smaller, one without network waits', async ({
  page,
  demo,
  quiet,
}) => {
  const id = await variantOf(demo.url, 'job-recorder-shelf')
  await page.goto(`${demo.url}/job/${id}/build`)
  await page.getByRole('button', { name: /Closing/ }).press('Enter')
  const card = page.getByRole('article', { name: /^Strain relief, ties/ })
  const input = card.locator('input[type="file"]')
  await input.setInputFiles({ name: 'shot.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(card.getByRole('alert')).toContainText('shot.png: this is no picture')
  await expect(card.getByRole('checkbox')).not.toBeChecked()
  await input.setInputFiles({ name: 'big.png', mimeType: 'image/png', buffer: Buffer.alloc(30_000_000, 1) })
  await expect(card.getByRole('alert')).toContainText('big.png: this is no picture')
  // drawn here: noise does not compress, so that it is larger than what is kept as it is
  const noise = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(1000, 700)
    const pen = canvas.getContext('2d')!
    const dots = pen.createImageData(1000, 700)
    for (let i = 0; i < dots.data.length; i += 65_536)
      crypto.getRandomValues(dots.data.subarray(i, Math.min(i + 65_536, dots.data.length)))
    pen.putImageData(dots, 0, 0)
    const reader = new FileReader()
    reader.readAsDataURL(await canvas.convertToBlob({ type: 'image/png' }))
    await new Promise((done) => (reader.onload = done))
    return (reader.result as string).split(',')[1]!
  })
  const bytes = Buffer.from(noise, 'base64')
  expect(bytes.length).toBeGreaterThan(1_500_000)
  await page.route('**/attachments?**', (route) => route.abort())
  await input.setInputFiles({ name: 'paper.png', mimeType: 'image/png', buffer: bytes })
  await expect(card.getByText('kept here, sent when the server answers')).toBeVisible()
  await expect(card.getByRole('checkbox')).toBeChecked()
  await saved(page)
  await page.reload()
  await page.getByRole('button', { name: /Closing/ }).press('Enter')
  await expect(card.getByText('kept here, sent when the server answers')).toBeVisible()
  await page.unroute('**/attachments?**')
  await expect(card.getByText('kept here, sent when the server answers')).toHaveCount(0, { timeout: 15_000 })
  const kept = (await (await page.request.get(`${demo.url}/api/jobs/${id}/attachments`)).json()) as {
    name: string
    mediaType: string
    size: number
  }[]
  expect(kept).toHaveLength(1)
  expect(kept[0]).toMatchObject({ name: 'paper.png', mediaType: 'image/jpeg' })
  expect(kept[0]!.size).toBeLessThan(6_000_000)
  expect(quiet.filter((m) => !/ERR_FAILED|Failed to load/.test(m))).toEqual([])
  quiet.length = 0
})
