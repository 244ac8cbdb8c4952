import { expect, saved, test, undo, violations } from './app'

test('the tour points at the real parts, by keyboard, and the guide leads into the job', async ({
  page,
  demo,
}) => {
  await page.goto(demo.url)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('?')
  await page.getByRole('button', { name: 'Take the tour' }).click()
  const titles: string[] = []
  for (let step = 1; step <= 11; step++) {
    await expect(page.getByText(`${step} of 11`)).toBeVisible()
    titles.push(await page.locator('.el-tour h2').innerText())
    await expect(page.locator('.next-step')).toBeFocused()
    if (step === 5) {
      expect(await violations(page, { within: '.el-tour' })).toEqual([])
    }
    await page.keyboard.press('Enter')
  }
  expect(new Set(titles).size).toBe(11)
  await expect(page.locator('.el-tour h2')).toHaveCount(0)
  await expect(page).toHaveURL(/job-film-cabinet\/verdict/)

  await page.goto(`${demo.url}/guide`)
  await page.getByRole('link', { name: '2. How much air' }).click()
  await expect(page).toHaveURL(/job-film-cabinet\/need/)
  // what the guide says stands there
  await expect(page.getByRole('button', { name: /^Airflow needed: 36\.8\sm³\/h/ }).first()).toBeVisible()
  await page.goto(`${demo.url}/guide`)
  await page.getByRole('link', { name: 'What the words mean' }).first().click()
  await expect(page.getByRole('cell', { name: 'operating point', exact: true })).toBeVisible()
})

test('an empty workshop has no job to be shown round in, and says so', async ({ page, empty }) => {
  await page.goto(`${empty.url}/guide`)
  await page.getByRole('button', { name: 'Take the tour' }).click()
  await expect(page.getByText('begin one first')).toBeVisible()
})

test('undo and redo say what they take back', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-cheese-box/need`)
  const field = page.getByLabel('Free air volume', { exact: true })
  const before = await field.inputValue()
  await field.fill('77 L')
  await field.blur()
  await expect(page.getByTitle('Undo: Free air volume, key z')).toBeVisible()
  await page.getByTitle('Undo: Free air volume, key z').click()
  await expect(field).toHaveValue(before)
  await expect(page.getByTitle('Redo: Free air volume, key y')).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('cell', { name: 'Redo: Free air volume' })).toBeVisible()
  await page.keyboard.press('Escape')
  await saved(page)
})

test('a sum’s result goes into the job that was open, with how it came about', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-cheese-box/need`)
  await expect(page.getByLabel('Free air volume', { exact: true })).toBeVisible()
  await page.keyboard.press('q')
  await page.getByRole('link', { name: 'Airflow for a heat and a rise' }).click()
  await page.getByLabel('Heat', { exact: true }).fill('30 W')
  await page.getByRole('button', { name: /^Put into / }).click()
  await page.getByRole('menuitem', { name: 'A target: airflow at least' }).click()
  await expect(page.getByText(/is in .*: A target: airflow at least/)).toBeVisible()
  await page.goBack()
  await page.goBack()
  await expect(page).toHaveURL(/job-cheese-box\/need/)
  // 30 W / (1.2 · 1006 · 10 K) = 8.95 m³/h
  await expect(page.getByLabel('Airflow, at least').last()).toHaveValue(/^8\.9/)
  await undo(page, 1)
})
