import { readFileSync } from 'node:fs'
import { expect, test, pick } from './app'

const mixed = `Manufacturer;Model;Size (mm);Depth (in);Voltage;Air delivery;Static pressure (mmH2O);Noise
Testmoor;Gorse 80;80;0,984;12 V;47,1 CFM;4,08;30 dB
Testmoor;Gorse 92;92;25 mm;12;66 m3/h;3,2;27 dB
Testmoor;Gorse 120;120;1;24;huge;3;31 dB
`

test('a table of mixed units: looked at, mapped, written in part, taken back', async ({ page, demo }) => {
  await page.goto(`${demo.url}/shelf`)
  await page.getByRole('link', { name: 'Import' }).click()
  await page.getByLabel('Or paste a table').fill(mixed)
  await page.getByRole('button', { name: 'Read the pasted table' }).click()
  await expect(page.getByText('3 new')).toBeVisible()
  // the heading nobody knows is given its meaning; now the wrong cell shows
  await pick(page, page.getByLabel('Meaning of Air delivery'), 'free delivery')
  await expect(page.getByText('2 new, 1 cannot be taken')).toBeVisible()
  await expect(page.getByRole('row').filter({ hasText: 'Gorse 120' })).toContainText(
    '“huge” does not begin with a number',
  )
  await page.getByRole('button', { name: 'Write 2 fans' }).click()
  await expect(page.getByText('2 fans written.')).toBeVisible()
  await page.getByLabel('Search').fill('gorse')
  await expect(page.getByRole('link', { name: 'Testmoor Gorse 92' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Testmoor Gorse 120' })).toHaveCount(0)
  await page.getByRole('link', { name: 'Testmoor Gorse 80' }).click()
  await expect(page.getByLabel('Free delivery (largest airflow)')).toHaveValue('80.023 m³/h')
  await page.getByRole('link', { name: 'Shelf' }).first().click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: 'Testmoor Gorse 92' })).toHaveCount(0)
})

test('what was exported changes nothing when it comes back', async ({ page, demo }) => {
  for (const kind of ['CSV', 'JSON']) {
    await page.goto(`${demo.url}/shelf`)
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Export ${kind}` }).click(),
    ])
    const text = readFileSync(await file.path(), 'utf8')
    await page.getByRole('link', { name: 'Import' }).click()
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: file.suggestedFilename(), mimeType: 'text/plain', buffer: Buffer.from(text) })
    await expect(page.getByText(/^\d+ as it stands$/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Nothing to write' })).toBeDisabled()
  }
})

test('what is no table is said, and nothing is written', async ({ page, demo }) => {
  await page.goto(`${demo.url}/shelf/import`)
  for (const [text, message] of [
    ['just words', 'This is no table'],
    ['{"format": "other"}', 'A shelf file says'],
    ['model,frame\n"open,80', 'never closed'],
  ] as const) {
    await page.getByLabel('Or paste a table').fill(text)
    await page.getByRole('button', { name: 'Read the pasted table' }).click()
    await expect(page.getByRole('alert')).toContainText(message)
  }
})
