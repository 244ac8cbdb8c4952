import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { choose, expect, saved, test, variantOf } from './app'

/** After the build: trouble found on the stand-in box, labels, care, the log book, print and PDF. */

const trouble = async (page: Page, url: string, what: string) => {
  await page.goto(`${url}/job/job-choir-amplifier/build/trouble?what=${what}`)
  await expect(page.getByRole('heading', { name: 'Likely causes' })).toBeVisible()
}
/** Puts the planned fan on the stand-in box, with something wrong. */
async function onBox(page: Page, url: string, more: Record<string, unknown>) {
  const response = await page.request.post(`${url}/api/jobs/job-choir-amplifier/box`, {
    data: {
      which: 'as-planned',
      volts: 18,
      rateHz: 5,
      speed: 60,
      doorOpen: false,
      tachPulled: false,
      dropouts: 0,
      noise: 0.2,
      ...more,
    },
  })
  expect(response.ok()).toBe(true)
}
/** Volts at the plug, as the box says now. */
const plugVolts = async (page: Page, url: string) => {
  const all = (await (await page.request.get(`${url}/api/instruments`)).json()) as {
    live: { values: { quantity: string; value: number | null }[] } | null
  }[]
  return all.flatMap((i) => i.live?.values ?? []).find((c) => c.quantity === 'voltage')?.value ?? 0
}

test('a swapped pair and a starved converter are found on the stand-in box', async ({ page, demo }) => {
  await onBox(page, demo.url, { fault: 'swapped' })
  await trouble(page, demo.url, 'still')
  await expect(page.getByRole('heading', { name: /^First: Voltage at the fan’s plug/ })).toBeVisible()
  await page.getByRole('button', { name: /^Take −18.* from the bench/ }).press('Enter')
  await expect(page.getByRole('heading', { name: '+ and − are swapped', level: 3 })).toBeVisible()
  await expect(page.getByText(/red on \+ must show \+/)).toBeVisible()

  await onBox(page, demo.url, { fault: 'starved' })
  await expect.poll(async () => Math.abs((await plugVolts(page, demo.url)) - 11.1)).toBeLessThan(0.5)
  await trouble(page, demo.url, 'slow')
  const asked: string[] = []
  for (let i = 0; i < 4; i++) {
    const form = page.locator('form.ask')
    if (!(await form.count())) break
    const title = (await form.getByRole('heading').textContent())!
    asked.push(title)
    if (/unplugged/.test(title)) {
      await onBox(page, demo.url, { fault: 'starved', unplugged: true })
      await expect.poll(() => plugVolts(page, demo.url)).toBeGreaterThan(17)
      await form.getByRole('button', { name: /^Take 1[78].* from the bench/ }).press('Enter')
      await onBox(page, demo.url, { fault: 'starved' })
    } else if (/plugged in and switched on/.test(title))
      await form.getByRole('button', { name: /^Take 11.* from the bench/ }).press('Enter')
    else await form.getByRole('button', { name: 'I cannot tell that here' }).press('Enter')
  }
  expect(asked.some((t) => /unplugged/.test(t))).toBe(true)
  await expect(page.locator('.found').getByRole('heading')).toContainText('cannot give the current')
  // it is written down in one action, and taken back in one
  await page.getByRole('button', { name: 'Write it into the log book' }).press('Enter')
  await expect(page.getByText('Written into the log book.')).toBeVisible()
  await saved(page)
  await page.getByRole('link', { name: 'Log book' }).press('Enter')
  await expect(page.getByText(/It turns slowly: The converter or source cannot give/).first()).toBeVisible()
  await page.request.delete(`${demo.url}/api/box`)
})

test('an answer that the plan cannot hold, and one taken back', async ({ page, demo }) => {
  await trouble(page, demo.url, 'still')
  await page.getByRole('button', { name: 'Next', exact: true }).press('Enter')
  await expect(
    page.getByText('Type what the meter shows, or say that it cannot be measured here.'),
  ).toBeVisible()
  await page.getByLabel('Reading', { exact: true }).fill('12 A')
  await page.getByRole('button', { name: 'Next', exact: true }).press('Enter')
  await expect(page.locator('form.ask')).toContainText('Voltage at the fan’s plug')
  await page.getByLabel('Reading', { exact: true }).fill('30')
  await page.getByRole('button', { name: 'Next', exact: true }).press('Enter')
  await expect(page.getByText(/None of these causes shows such a reading/)).toBeVisible()
  await page.getByRole('button', { name: /^Again ?: Voltage at the fan’s plug/ }).press('Enter')
  await expect(page.getByText(/None of these causes/)).toHaveCount(0)
  await choose(page, 'What is wrong', 'It whines or hums')
  await expect(page.locator('.causes')).toContainText('Blades beat on what stands close before them')
})

test('labels, chosen and as PDF; the sheet of the build as PDF and on paper', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/build/labels`)
  const list = page.getByRole('main').getByRole('listitem')
  await expect(list.filter({ hasText: 'set to 10.5 V' })).toContainText('do not turn')
  await expect(list.filter({ hasText: 'fuse 1 A' })).toHaveCount(1)
  await expect(list.filter({ hasText: 'AIR' })).toContainText('blows in')
  await page.getByRole('checkbox', { name: /^Print: fuse 1 A/ }).press('Space')
  await page.emulateMedia({ media: 'print' })
  await expect(list.filter({ hasText: 'fuse 1 A' })).toBeHidden()
  await expect(list.filter({ hasText: 'set to 10.5 V' })).toBeVisible()
  await page.emulateMedia({ media: 'screen' })
  const labels = page.waitForEvent('download')
  await page.getByRole('button', { name: 'PDF' }).press('Enter')
  expect(
    readFileSync(await (await labels).path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')

  await page.goto(`${demo.url}/job/job-film-cabinet/build`)
  const build = page.waitForEvent('download')
  await page.getByRole('button', { name: 'PDF' }).press('Enter')
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const file = await getDocument({ data: new Uint8Array(readFileSync(await (await build).path())) }).promise
  const pages = await Promise.all(
    Array.from({ length: file.numPages }, async (_, i) => {
      const { items } = await (await file.getPage(i + 1)).getTextContent()
      return items.map((x) => ('str' in x ? x.str : '')).join(' ')
    }),
  )
  const text = pages.join(' ').replaceAll(/\s+/g, ' ')
  for (const words of [
    'Before you cut',
    'First hour, first day',
    'accept 10.3 V to 10.7 V',
    'Wall adapter 12 V 1.5 A',
    'Templates, not to scale',
    'If you are not sure, stop and ask someone licensed for it.',
  ])
    expect(text).toContain(words)
  // the wiring is the drawing itself, with the lead's own label
  expect(text).toContain('22 AWG')
  await page.evaluate(() => {
    window.print = () => document.body.setAttribute('data-printed', 'yes')
  })
  await page.getByRole('button', { name: 'Print', exact: true }).press('Enter')
  await expect(page.locator('body[data-printed]')).toHaveCount(1)
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('.paper-sheet .line')).toHaveCount(
    await page.locator('.paper-sheet .line > .box').count(),
  )
  await expect(page.locator('.paper-sheet')).toContainText('Guards on the open sides')
  await expect(page.locator('.paper-sheet svg[role="img"]').first()).toBeVisible()
})

test('care: dust shortens it, a task that is done is a line in the log book and is counted from then', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-film-cabinet')
  await page.goto(`${demo.url}/job/${id}/build/care`)
  const filter = page.getByRole('row', { name: /Clean the filter|Change the fine filter/ })
  await expect(filter).toContainText('assumed: nobody said')
  const before = await filter.textContent()
  await choose(page, 'Air that it draws in', 'dusty: floor, pets, workshop')
  await expect(filter).toContainText('× 0.4 in dusty air')
  expect(await filter.textContent()).not.toBe(before)
  await filter.getByRole('button', { name: /^Done/ }).press('Enter')
  const today = new Date().toISOString().slice(0, 10)
  await expect(filter).toContainText(`done ${today}`)
  await saved(page)
  await page.getByRole('link', { name: 'Log book' }).press('Enter')
  await expect(
    page.locator('ol.line > li').filter({ hasText: /Clean the filter|Change the fine filter/ }),
  ).toHaveCount(1)
  await page
    .getByRole('button', { name: /^Remove ?: (Clean the filter|Change the fine filter)/ })
    .press('Enter')
  await page.getByRole('button', { name: 'Undo' }).last().press('Enter')
  await saved(page)
})

test('a line of the log book in one action; a changed setting is asked for; the report prints it', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-film-cabinet')
  await page.goto(`${demo.url}/job/${id}/build/book`)
  await page.getByRole('button', { name: 'Write it down' }).press('Enter')
  await expect(page.getByText('Say what happened.')).toBeVisible()
  await page.getByLabel('What happened', { exact: true }).fill('Moved to the other wall')
  await page.getByLabel('What happened', { exact: true }).press('Enter')
  await expect(page.getByRole('main').locator('ol.line > li').first()).toContainText('Moved to the other wall')
  await expect(page.getByText('Changed since the last line of settings')).toHaveCount(0)
  await saved(page)
  const { plan, revision } = (await (await page.request.get(`${demo.url}/api/jobs/${id}`)).json()) as {
    plan: { feed: { kind: string; outV: number }[] }
    revision: number
  }
  plan.feed.find((f) => f.kind === 'converter')!.outV = 9
  expect((await page.request.put(`${demo.url}/api/jobs/${id}`, { data: { plan, revision } })).ok()).toBe(true)
  await page.reload()
  await expect(page.getByText(/Changed since the last line of settings: .*9/)).toBeVisible()
  await page.getByRole('button', { name: 'Write the settings down' }).press('Enter')
  await expect(page.getByText('Changed since the last line of settings')).toHaveCount(0)
  await expect(page.getByRole('main').locator('ol.line > li').first()).toContainText(
    'before Step-down converter: 10.5',
  )
  await saved(page)
  await page.goto(`${demo.url}/job/${id}/verdict/report`)
  await expect(page.getByRole('heading', { name: 'Log book' })).toBeVisible()
  await expect(page.getByRole('cell', { name: 'Note: Moved to the other wall' })).toBeVisible()
})
