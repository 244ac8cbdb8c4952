import type { Page } from '@playwright/test'
import { addElement, beginEmpty, choose, expect, goTo, pick, pickFan, press, saved, test, type } from './app'

const ribbon = (page: Page) => page.getByRole('region', { name: /^Air path from/ })
/** Adds an element and names it. */
async function element(page: Page, kind: string, name: string) {
  await addElement(page, kind)
  await type(page, 'Name', name)
}

test('a cabinet with fans at both ends, and a thermal switch in their lead', async ({ page, demo }) => {
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', '80 W')
  await type(page, 'Highest temperature inside', '40 C')
  await goTo(page, 'Air path')
  await element(page, 'Opening', 'Floor slots')
  await type(page, 'Free area', '120 cm2')
  await element(page, 'Fan', 'Floor')
  await element(page, 'Chamber', 'Inside')
  await element(page, 'Fan', 'Back')
  await type(page, 'Largest frame here', '80 mm')
  await element(page, 'Opening', 'Back slots')
  await type(page, 'Free area', '90 cm2')

  // alike at both places first, then other ones for the back alone
  await goTo(page, 'Line-up')
  await expect(page.getByText(/(one|\d) at each place/).first()).toBeVisible()
  await pickFan(page, /^Pick [24] × /)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
  const back = page.getByRole('radio', { name: 'Back' })
  await back.focus()
  await page.keyboard.press('Space')
  await expect(page.locator('.ranks')).toContainText(' and ')
  await pickFan(page, /^Pick [^0-9]*2 × .* and /)
  await expect(page.locator('.ranks tr.picked')).toContainText(' and ')
  await expect(ribbon(page)).toContainText(/Pa (under|over)/)
  await saved(page)

  await goTo(page, 'Power')
  await choose(page, 'Kind of source', 'Wall adapter, regulated')
  await type(page, 'Nominal voltage', '12 V')
  await type(page, 'It can give', '2 A')
  await press(page, '+ Switch')
  await choose(page, 'Kind', 'thermal switch, closes when warm')
  await type(page, 'Closes at', '30 C')
  // opening above where it closes is told beside the field, and nothing is taken
  await type(page, 'Opens at', '35 C')
  await expect(page.getByText(/opens lower than it closes/)).toBeVisible()
  await type(page, 'Opens at', '25 C')
  await expect(page.getByText(/opens lower than it closes/)).toHaveCount(0)
  await expect(page.getByRole('region', { name: 'Wiring diagram' })).toContainText('closes at 30 °C')
  await page.getByRole('radio', { name: 'Connection order' }).press('Space')
  await expect(page.getByText(/the fan stands still: that is no fault/)).toBeVisible()
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('four outlets alike with fans in each', async ({ page, demo }) => {
  const id = await beginEmpty(page, demo.url)
  await page.getByRole('radio', { name: 'Ventilate' }).check()
  await goTo(page, 'Need')
  await type(page, 'Free air volume', '30 m3')
  await type(page, 'Air changes per hour', '4')
  await goTo(page, 'Air path')
  await element(page, 'Slot', 'Eaves')
  await type(page, 'Length of the slot', '3 m')
  await type(page, 'Width of the slot', '10 mm')
  await addElement(page, 'Openings alike')
  await type(page, 'How many', '4')
  await press(page, 'Add elements to One of them')
  await element(page, 'Fan', 'Fan')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '90 cm2')
  await expect(page.getByText('4 × One of them').first()).toBeVisible()
  await goTo(page, 'Line-up')
  // as many in every one of them
  await pickFan(page, /^Pick (4|8|12|16) × /)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
  await goTo(page, 'Air path')
  // an unlike way beside openings with fans would be a loop
  await page.locator('.pick', { hasText: 'Openings alike' }).press('Enter')
  await expect(page.getByRole('button', { name: '+ Another way' })).toBeDisabled()
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('judged by two temperatures, a clear-out time and a number of one’s own, to the verdict', async ({
  page,
  demo,
}) => {
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Need')
  for (const [name, limit] of [
    ['top shelf', '45 C'],
    ['bottom shelf', '40 C'],
  ] as const) {
    await press(page, '+ Temperature')
    const target = page.locator('.target').last()
    await target.getByLabel('Temperature, at most').fill(limit)
    await target.getByLabel('Where').fill(name)
    await target.getByLabel('Where').blur()
  }
  await press(page, '+ Time it takes')
  await page.locator('.target').last().getByLabel('Time it takes, at most').fill('5 min')
  await press(page, 'Another')
  await page.getByRole('menuitem', { name: 'Something else' }).press('Enter')
  const own = page.locator('.target').last()
  await own.getByLabel('What is counted').fill('Clock rate')
  await own.getByLabel('Its unit').fill('MHz')
  await own.getByLabel('Its unit').blur()
  await own.getByLabel(/^Clock rate in MHz/).fill('800')
  await own.getByLabel(/^Clock rate in MHz/).blur()
  // between two limits: the wrong way round is told beside the field
  await own.getByRole('button', { name: 'More of the clock rate target' }).press('Enter')
  await choose(page, 'Wanted', 'between two')
  await page.keyboard.press('Escape')
  await own.getByLabel('to', { exact: true }).fill('700')
  await own.getByLabel('to', { exact: true }).blur()
  await expect(page.getByText(/does not lie above the lower one/)).toBeVisible()
  await own.getByLabel('to', { exact: true }).fill('1000')
  await own.getByLabel('to', { exact: true }).blur()
  await saved(page)

  await goTo(page, 'Log')
  await press(page, /After a change/)
  const line = page.getByLabel(/^Say it in a line|^Readings in a line|^Reading/).first()
  await line.fill('41 C top shelf; 43 C bottom shelf; 4 min clear-out')
  await line.press('Enter')
  await press(page, 'By fields, or worked out from an instrument')
  await pick(page, page.getByLabel('Reading', { exact: true }), 'Another number')
  await type(page, 'At', 'Clock rate')
  await type(page, 'Values read', '900 901 899')
  await press(page, 'Add reading')
  await saved(page)
  await goTo(page, 'Verdict')
  const rows = page.getByRole('region', { name: 'Targets' }).getByRole('row')
  await expect(rows.filter({ hasText: 'bottom shelf' })).toContainText('not met')
  await expect(rows.filter({ hasText: 'Clock rate' })).toContainText('800 MHz to 1000 MHz')
  await expect(rows.filter({ hasText: 'Clock rate' })).toContainText('MHz')
  await expect(rows.filter({ hasText: 'Clock rate' }).getByText('met', { exact: true })).toBeVisible()
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})
