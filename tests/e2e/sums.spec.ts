import { expect, test } from './app'

test('a sum is found, worked out, copied, and its address leads back to it', async ({
  page,
  demo,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.goto(demo.url)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('q')
  await expect(page.getByRole('heading', { level: 1, name: 'Quick sums' })).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('slower')
  await page.getByRole('link', { name: 'Resistor for a slower fan' }).click()
  await expect(page).toHaveURL(/sum=resistor/)
  await expect(page.getByText('Wanted: Fan current at that voltage.')).toBeVisible()
  await page.getByLabel('Fan current at that voltage').fill('90 mA')
  // (12 − 7) / 0.09 = 55.6 Ω, next of E24 56 Ω
  await expect(page.getByRole('button', { name: /^Resistor: 55\.6 Ω/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Next of E24: 56 Ω/ })).toBeVisible()
  await page.getByRole('button', { name: 'Copy the result' }).click()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('55.6\u00a0Ω')
  // a value that cannot be: told, no number
  await page.getByLabel('Wanted at the fan').fill('14 V')
  await expect(page.getByText('A resistor only takes voltage away')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Resistor for a slower fan' })).toBeVisible()
  await page.goto(`${demo.url}/sums?sum=units`)
  await page.getByLabel('Value with its unit').fill('28.25 CFM')
  await expect(page.getByRole('row', { name: /48 m³\/h/ })).toBeVisible()
})
