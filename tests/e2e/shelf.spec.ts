import { choose, expect, saved, test, type, undo } from './app'

test('from the search to a pick that ripples through ribbon, power and verdict', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/line-up`)
  const rows = page.locator('table.ranks tbody tr')
  await expect(page.getByText(/choices would do the job/)).toBeVisible()
  // a filter narrows, a refusal tells why
  await page.getByText('More filters').click()
  await type(page, 'Maker, model or note', 'bracken')
  await expect(rows.nth(1)).toContainText('Bracken')
  await page.getByRole('button', { name: /^Why \d+ fail$/ }).click()
  await expect(page.locator('.why .reason').filter({ hasText: 'lacks' }).first()).toBeVisible()
  await page.getByRole('button', { name: 'The ones that meet the need' }).click()
  await type(page, 'Maker, model or note', 'alder 120')
  await expect(rows.nth(1)).toContainText('Alder 120')
  // only the voltages that are there
  await choose(page, 'How the fans may be driven', 'voltages that are there')
  for (const i of [1, 2]) await expect(rows.nth(i).locator('.drive').first()).toHaveText(/^(5|10\.5|12|24)\sV/)
  await expect(page.getByText('searching…')).toHaveCount(0)
  // compared by hand: the chart keeps these and the pick
  await rows.nth(1).getByRole('checkbox').check()
  await rows.nth(2).getByRole('checkbox').check()
  await expect(page.getByText('Comparing 2 of at most 6')).toBeVisible()

  await page
    .getByRole('button', { name: /^Pick 1 × Larkbeck Alder 120 24 V/ })
    .first()
    .click()
  await saved(page)
  await expect(page.locator('.ribbon').getByRole('link', { name: /^1 × Alder 120 24 V/ })).toBeVisible()
  await page.getByRole('link', { name: /Power/ }).first().click()
  await expect(page.getByRole('heading', { name: /Power|From the source/ }).first()).toBeVisible()
  await expect(page.locator('main, .page').first()).toContainText('Alder 120 24 V')
  await page
    .getByRole('link', { name: /Verdict/ })
    .first()
    .click()
  await expect(page.locator('.page')).toContainText(/Money|Sound level|Thickness/)
  await undo(page, 3)
})

test('own weights, unlike pairs and the pairs’ construction', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-mushroom-tent/line-up`)
  await choose(page, 'Rank by something else', 'Own weights')
  await expect(page.getByLabel('little power')).toBeVisible()
  await page.getByLabel('mixed pairs').check()
  const pair = page.locator('table.ranks tbody tr').filter({ hasText: ' + ' }).first()
  await expect(pair).toBeVisible()
  await pair.getByRole('button', { name: /^Pick/ }).click()
  await saved(page)
  await page.getByLabel(/show how the pick/).check()
  await expect(page.getByText('members alone')).toBeVisible()
  await undo(page, 1)
})

test('a fan on the bench: claims held against what was read, and the plan believes it', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/shelf/new?like=fan-sedge-92x25-12v`)
  await type(page, 'Model', 'Bench 92')
  await page.getByRole('button', { name: 'Add a test' }).click()
  await type(page, 'Specimen', 'with the dot')
  await page
    .locator('section')
    .filter({ hasText: 'On your own bench' })
    .getByLabel('Speed', { exact: true })
    .fill('1200 rpm')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('row').filter({ hasText: /with the dot at 12\sV/ })).toBeVisible()
  const row = page
    .getByRole('region', { name: 'Claimed against measured' })
    .getByRole('row')
    .filter({ hasText: /^Speed/ })
  await expect(row).toContainText('73 %')
  await expect(row).toContainText('far under the claim')
  // as read and at equal speed, each named
  await expect(row).toContainText('1200 rpm')
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await page.getByLabel('Search').fill('bench 92')
  await expect(page.getByRole('link', { name: 'Fenholm Bench 92' })).toBeVisible()
  await page.getByRole('link', { name: 'Fenholm Bench 92' }).click()
  // a page of the sheet stays with it; what is no picture is refused
  const file = page.locator('section').filter({ hasText: 'Pages and pictures' }).locator('input[type=file]')
  await file.setInputFiles({ name: 'sheet.txt', mimeType: 'text/plain', buffer: Buffer.from('words') })
  await expect(page.getByRole('alert').filter({ hasText: 'PNG, JPEG or WebP' })).toBeVisible()
  await file.setInputFiles({
    name: 'sheet.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==',
      'base64',
    ),
  })
  await expect(page.getByRole('img', { name: 'sheet.png' })).toBeVisible()
  await page.getByRole('button', { name: 'Put sheet.png aside' }).click()
  await expect(page.getByRole('img', { name: 'sheet.png' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('img', { name: 'sheet.png' })).toBeVisible()

  await page.goto(`${demo.url}/job/job-film-cabinet/line-up`)
  await page.getByText('More filters').click()
  await type(page, 'Maker, model or note', 'bench 92')
  const ranked = page.locator('table.ranks tbody tr').filter({ hasText: '4 × Bench 92' })
  const flow = async () => Number.parseFloat(await ranked.locator('td.num').first().innerText())
  await choose(page, 'How the fans may be driven', 'rated voltage')
  await expect(ranked.locator('.drive').first()).toContainText('12')
  const own = await flow()
  await choose(page, 'The plan believes', 'what the sheets claim')
  await expect.poll(flow).toBeGreaterThan(own)
  await undo(page, 1)
})

test('PWM on a 4-wire fan slows it, and the level follows', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/line-up`)
  const level = () => page.locator('dl.figures div').filter({ hasText: 'Level at the listener' }).innerText()
  await expect(page.locator('dl.figures')).toBeVisible()
  await page.getByRole('checkbox', { name: /PWM/ }).check()
  const before = await page
    .locator('dl.figures div')
    .filter({ hasText: 'Airflow at the operating point' })
    .innerText()
  await page.getByRole('slider', { name: 'Duty on the PWM wire' }).focus()
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowLeft')
  await expect
    .poll(() =>
      page.locator('dl.figures div').filter({ hasText: 'Airflow at the operating point' }).innerText(),
    )
    .not.toBe(before)
  expect(await level()).toContain('dB(A)')
  await undo(page, 2)
})
