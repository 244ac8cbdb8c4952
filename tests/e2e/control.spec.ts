import { readFileSync } from 'node:fs'
import { choose, expect, goTo, saved, test, type, variantOf } from './app'

/** The station Control: the day before it is built, through the real interface. Each test works on a variant of its own. */

const inFront = (page: import('@playwright/test').Page, name: string) =>
  page.getByRole('radio', { name, exact: true }).press('Space')

test('a thermostat that chatters is told so, and the band that stops it is one press away', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-hall-cupboard')
  await page.goto(`${demo.url}/job/${id}/control`)
  await expect(page.getByRole('button', { name: /On 40 °C, off 39 °C/ })).toBeVisible()
  const cycles = page.getByText(/starts an hour, on/)
  await expect(cycles).toContainText('34 starts an hour')
  await page.getByRole('button', { name: /^Off at/ }).press('Enter')
  await expect(page.getByRole('button', { name: /On 40 °C, off 39 °C/ })).toHaveCount(0)
  await expect(cycles).toContainText(/^At the most load: [1-6](\.\d)? starts an hour/)
  await saved(page)
  // off above on is told beside the drawing, and where it is
  await type(page, 'Off at', '45')
  await expect(page.getByText(/It would never switch|would never switch/).first()).toBeVisible()
})

test('a curve is moved by the keyboard, written as a file and read back unchanged', async ({ page, demo }) => {
  const id = await variantOf(demo.url, 'job-recorder-shelf')
  await page.goto(`${demo.url}/job/${id}/control`)
  await inFront(page, 'The curve')
  const second = page.getByRole('button', { name: /^Point 2: 38 °C, 40 %/ })
  await second.focus()
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowUp', 'Shift+ArrowUp']) await page.keyboard.press(key)
  await expect(page.getByRole('button', { name: /^Point 2: 39 °C, 51 %/ })).toBeVisible()
  await saved(page)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Write the curve' }).press('Enter')
  await page.getByRole('menuitem', { name: /JSON/ }).press('Enter')
  const path = await (await download).path()
  const file = JSON.parse(readFileSync(path, 'utf8')) as { points: number[][]; minDuty: number }
  expect(file.points).toEqual([
    [30, 0.25],
    [39, 0.51],
    [47, 1],
  ])
  await page.getByRole('button', { name: /^Point 2: 39 °C/ }).focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('button', { name: /^Point 3/ })).toHaveCount(0)
  await page.getByLabel('File of a curve').setInputFiles({
    name: 'curve.json',
    mimeType: 'application/json',
    buffer: readFileSync(path),
  })
  await expect(page.getByRole('button', { name: /^Point 2: 39 °C, 51 %/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Point 3: 47 °C, 100 %/ })).toBeVisible()
  // a file that falls is refused with its line
  await page.getByLabel('File of a curve').setInputFiles({
    name: 'curve.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('temp_degC,duty\n30,0.5\n40,0.3\n'),
  })
  await expect(page.getByText('Line 3: The duty never falls as it gets warmer.')).toBeVisible()
})

test('the quietest curve is found with its margin, or refused with the reason', async ({ page, demo }) => {
  const id = await variantOf(demo.url, 'job-recorder-shelf')
  await page.goto(`${demo.url}/job/${id}/control`)
  await inFront(page, 'The curve')
  await page.getByRole('button', { name: 'Find the quietest that holds' }).press('Enter')
  await expect(page.getByText(/below every limit on the hottest day/)).toBeVisible({ timeout: 40_000 })
  await inFront(page, 'Heat')
  await page.getByLabel('Never above').first().fill('33 °C')
  await page.getByLabel('Never above').first().blur()
  await expect(page.getByText(/below every limit on the hottest day/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Find the quietest that holds' }).press('Enter')
  await expect(page.getByText(/No curve can: even at 100 % all day/)).toBeVisible({ timeout: 40_000 })
})

test('a school is taken from the table, and the rail follows', async ({ page, demo }) => {
  const id = await variantOf(demo.url, 'job-choir-amplifier')
  await page.goto(`${demo.url}/job/${id}/control`)
  await expect(page.getByText('Nothing is planned yet: the fans are always on.')).toBeVisible()
  await page.getByRole('button', { name: 'Take By the clock' }).press('Enter')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('by the clock')
  await expect(page.getByLabel('The fans run')).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('navigation', { name: 'Stations' })).toContainText('by the clock')
})

test('sun and battery through grey days: the charge is drawn, and an empty battery is told', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-battery-locker')
  await page.goto(`${demo.url}/job/${id}/control`)
  await inFront(page, 'Week')
  const day = page.getByRole('slider', { name: 'Time of the day' })
  await expect(day).toHaveAttribute('aria-valuetext', /Charge 9\d/)
  await inFront(page, 'Day')
  await type(page, 'A grey day brings', '0')
  await type(page, 'Charge at first', '4 %')
  await page.getByRole('button', { name: 'The week' }).press('Enter')
  await choose(page, 'Day 1', 'cold')
  await expect(page.getByRole('button', { name: /The battery is empty before the week is over/ })).toBeVisible()
  await day.focus()
  await page.keyboard.press('End')
  await expect(day).toHaveAttribute('aria-valuetext', /^day 7, 23:/)
})

test('the stand-in box obeys the planned control; its alarm sounds when the tach wire is pulled', async ({
  page,
  demo,
}) => {
  const id = await variantOf(demo.url, 'job-recorder-shelf')
  await page.goto(`${demo.url}/job/${id}/log/live`)
  await choose(page, 'On it', 'as planned: the picked fan')
  await page.getByRole('checkbox', { name: 'obeys the planned control' }).check({ force: true })
  await page.getByRole('button', { name: 'Start it' }).press('Enter')
  const box = page.getByRole('region', { name: 'Stand-in bench box' })
  await expect(box.getByText(/Its control asks for \d+/)).toBeVisible({ timeout: 15_000 })
  await expect(box.getByText(/^Alarm/)).toHaveCount(0)
  await page.getByRole('checkbox', { name: 'tach wire pulled' }).check({ force: true })
  await expect(box.getByText(/^Alarm: the tach tells no speed/)).toBeVisible({ timeout: 15_000 })
  await page.getByRole('button', { name: 'Stop it' }).press('Enter')
  await goTo(page, 'Control')
  await expect(page).toHaveURL(/control/)
})

test('how sure the day is, with progress and a way to stop', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-hall-cupboard/control`)
  await page.getByRole('button', { name: 'How sure?' }).press('Enter')
  await page.getByRole('button', { name: 'Stop', exact: true }).press('Enter')
  await expect(page.getByRole('button', { name: 'How sure?' })).toBeVisible()
  await page.getByRole('button', { name: 'How sure?' }).press('Enter')
  await expect(page.getByText(/95 of 100 such days: Network box/)).toBeVisible({ timeout: 60_000 })
})
