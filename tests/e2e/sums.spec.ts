import { choose, expect, test, type, violations } from './app'

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

test('the answer is followed as one field changes, as a curve and as a table, in the units of the workshop', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/sums?sum=fan-laws`)
  await expect(page.getByText('Wanted: Speed now.')).toBeVisible()
  await type(page, 'Speed now', '2000')
  await type(page, 'Speed wanted', '1000')
  await expect(page.getByText(/at least one of airflow, pressure, power or level/)).toBeVisible()
  await type(page, 'Static pressure now', '40 Pa')
  await type(page, 'Level now', '40')
  // a quarter of the pressure; 15 dB less, between 13.5 and 18
  await expect(page.getByRole('button', { name: /^Static pressure: 10 Pa/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Level: 24\.9 dB\(A\), range 21\.9/ })).toBeVisible()
  // the speed wanted decides by its square: at twice of it, full pressure
  await choose(page, 'How it follows', 'Speed wanted')
  await page.getByRole('button', { name: 'The same as a table' }).press('Enter')
  await expect(page.getByRole('row', { name: /^2000 40\.0$/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /^500 2\.5$/ })).toBeVisible()
  await choose(page, 'How it follows', 'Speed now')
  await expect(page.getByRole('row', { name: /^4000 2\.5$/ })).toBeVisible()
  // where there is no answer a row says so
  await page.goto(`${demo.url}/sums?sum=resistor`)
  await type(page, 'Fan current at that voltage', '90 mA')
  await choose(page, 'How it follows', 'Wanted at the fan')
  await page.getByRole('button', { name: 'The same as a table' }).press('Enter')
  await expect(page.getByRole('row', { name: /^14(\.0+)? no answer$/ })).toBeVisible()
  expect(await violations(page, { least: 'any' })).toEqual([])
})
