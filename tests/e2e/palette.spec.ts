import { expect, test, violations } from './app'

test('one palette finds stations, jobs, fans, sums, findings and actions by keyboard', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-mushroom-tent/need`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  const box = page.getByRole('combobox', { name: 'Find or do' })
  const find = async (text: string, entry: RegExp) => {
    await page.keyboard.press('Control+k')
    await expect(box).toBeFocused()
    await page.keyboard.type(text)
    await expect(page.getByRole('option').filter({ hasText: entry }).first()).toBeVisible()
    await page.keyboard.press('Enter')
    await expect(box).toBeHidden()
  }
  await find('line', /^Line-up/)
  await expect(page).toHaveURL(/line-up$/)
  await find('finding hose', /Hose to the window/)
  await expect(page).toHaveURL(/air-path/)
  await find('dew', /^Dew point/)
  await expect(page).toHaveURL(/sum=dew-point/)
  await find('job kiln', /Kiln/)
  await expect(page).toHaveURL(/job-kiln-controller/)
  await find('sedge 80', /Sedge 80/)
  await expect(page).toHaveURL(/\/shelf\/fan-sedge-80/)
  // an action does what its key does; Escape only closes
  await find('metric', /Switch between metric and imperial/)
  await expect(page.getByRole('button', { name: /CFM/ })).toBeVisible()
  await page.getByRole('button', { name: 'Find or do anything' }).click()
  await expect(box).toBeFocused()
  expect(await violations(page)).toEqual([])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(box).toBeHidden()
  // units belong to the workshop: the next test finds them as they were
  await find('metric', /Switch between metric and imperial/)
  await expect(page.getByRole('button', { name: /m³\/h/ })).toBeVisible()
})
