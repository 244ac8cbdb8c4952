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
    plan: { converter: { measuredV: number }; build: { ticks: { id: string; value: number | null }[] } }
  }
  expect(stored.plan.converter.measuredV).toBe(10.52)
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
    plan: { converter: { outV: number }; selection: { driveV: number } }
    revision: number
  }
  plan.converter.outV = 9
  plan.selection.driveV = 9
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
  await expect(page.getByRole('button', { name: /Before you cut/ })).toContainText('1 of')
  // nothing is asked of the server while it is stopped
  await page.goto('about:blank')
  quiet.splice(0)
})
