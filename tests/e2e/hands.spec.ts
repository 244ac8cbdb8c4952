import type { Page } from '@playwright/test'
import { expect, saved, test, violations } from './app'

/** After an action the focus stands somewhere in the page's own matter, never on the page itself. */
async function landed(page: Page) {
  await expect
    .poll(() => page.evaluate(() => document.activeElement?.tagName ?? 'BODY'), {
      message: 'where the focus is',
    })
    .not.toBe('BODY')
}

test('a cupboard with two fans, hub, targets and two runs by keyboard, in at most forty entries', async ({
  page,
  demo,
}) => {
  test.setTimeout(180_000)
  let entries = 0
  /** A text in a field, left with Tab. */
  const write = async (label: string, text: string) => {
    entries++
    const field = page.getByLabel(label, { exact: true })
    await field.focus()
    await page.keyboard.press('Control+a')
    await page.keyboard.type(text)
    await page.keyboard.press('Tab')
    await landed(page)
  }
  const press = async (role: 'button' | 'radio' | 'checkbox', name: string | RegExp) => {
    entries++
    await page.getByRole(role, { name }).first().focus()
    await page.keyboard.press(role === 'button' ? 'Enter' : 'Space')
    await landed(page)
  }
  const take = async (label: string, option: string) => {
    entries++
    await page.getByLabel(label, { exact: true }).focus()
    await page.keyboard.press('Enter')
    await expect(
      page.getByRole('option', { name: option, exact: true }).filter({ visible: true }),
    ).toBeVisible()
    // walked to by its letters or arrows, as a person does
    for (let i = 0; i < 40; i++) {
      const marked = await page
        .locator('.el-select-dropdown__item.is-hovering')
        .filter({ visible: true })
        .allInnerTexts()
      if (marked[0]?.trim() === option) break
      await page.keyboard.press('ArrowDown')
    }
    await page.keyboard.press('Enter')
    await landed(page)
  }
  /** Number keys go from station to station, out of any field. */
  const station = async (key: string, heading: RegExp) => {
    await page.keyboard.press('Escape')
    await page.keyboard.press(key)
    await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible()
  }

  await page.goto(demo.url)
  await expect(page.getByRole('link', { name: 'Film-drying cabinet' })).toBeVisible()
  await page.keyboard.press('n')
  entries++
  await write('Name of the job', 'Charger cupboard')
  await press('button', 'Begin with an empty plan')
  await expect(page.getByRole('heading', { name: 'Charger cupboard' })).toBeVisible()
  await write('Air at its intake', '24')
  await press('button', 'None of the others applies')

  await station('2', /Where does the heat|How much|heat/i)
  await write('Heat released inside', '60 W')
  await write('Highest temperature inside', '40')
  await press('button', '+ Temperature')
  await expect(page.getByLabel('Temperature, at most')).toBeFocused()
  await press('button', '+ Sound level')
  await write('Sound level, at most', '40')

  await station('3', /What the air has to get through/)
  await press('button', 'Box, grille in and out')
  // the first size that is wanted has the focus
  await expect(page.getByLabel('Gross area')).toBeFocused()
  await write('Gross area', '12 x 8 cm')
  await press('button', 'Box chamber')
  await write('Cross-section', '30 x 25 cm')
  await press('button', /^Outlet .*grille/)
  await write('Gross area', 'Ø 11 cm')

  await station('4', /Line-up/)
  await press('button', /^Pick 2 ×/)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeFocused()

  await station('6', /What feeds it/)
  await take('Kind of source', 'Fan header of a board')
  await press('radio', 'Lead to the fans')
  await take('Gauge', '24 AWG, 0.20 mm²')
  await write('Length, one way', '0.4 m')
  await press('button', 'Tach and PWM wires')
  await take('Splitter or hub', 'powered hub')
  await expect(page.getByRole('button', { name: /^Share of the source: / })).toBeVisible()

  await station('9', /Runs/)
  for (const [button, line] of [
    ['+ Baseline', '47 C; 38 dB(A); ambient 24 C; fan off 28 dB; soaked 2 h'],
    ['+ After a change', '37 C; 33 dB(A); ambient 24 C; fan off 28 dB; soaked 2 h'],
  ] as const) {
    await press('button', button)
    await expect(page.getByLabel('Reading in one line')).toBeFocused()
    entries++
    await page.keyboard.type(line)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('Reading in one line')).toHaveValue('')
    await write('Load of the equipment', '60 W')
  }
  await saved(page)
  await station('0', /Did it work/)
  await expect(page.getByRole('region', { name: 'Targets' }).getByText('37 °C').first()).toBeVisible()
  expect(entries).toBeLessThanOrEqual(40)
})

test('three readings join a run in no more than six actions; focus stays on the line', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/log`)
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('r')
  const rows = page.getByRole('region', { name: 'Readings of this run' }).getByRole('row')
  const before = await rows.count()
  for (const line of ['58.1 C', '31 dB(A) bench, idle', '0.21 A']) {
    await page.keyboard.type(line)
    await page.keyboard.press('Enter')
  }
  await expect(rows).toHaveCount(before + 3)
  await expect(page.getByLabel('Reading in one line')).toBeFocused()
})

test('removing, moving and picking: the focus stays at the work; the skip link and Escape', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-mushroom-tent/air-path`)
  const rows = page.locator('.path-row')
  await expect(rows.first()).toBeVisible()
  await rows
    .nth(1)
    .getByRole('button', { name: /towards the outlet/ })
    .focus()
  await page.keyboard.press('Enter')
  await landed(page)
  await rows
    .nth(1)
    .getByRole('button', { name: /^Remove/ })
    .focus()
  await page.keyboard.press('Enter')
  await landed(page)
  await page.keyboard.press('z')
  await page.keyboard.press('z')
  await saved(page)
  // out of a field with Escape: the keys work again
  await page.keyboard.press('1')
  await page.getByLabel('Altitude').focus()
  await page.keyboard.press('Escape')
  await page.keyboard.press('3')
  await expect(page).toHaveURL(/air-path/)
  await page.goto(demo.url)
  await expect(page.getByRole('link', { name: 'Film-drying cabinet' })).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('link', { name: 'Skip to the page' })).toBeFocused()
})

test('axe finds nothing serious in open lists, drawers, dialogs and pop-overs', async ({ page, demo }) => {
  test.setTimeout(180_000)
  const check = async (what: string) => {
    await page.waitForTimeout(350)
    // a long list is walked from its field with the arrow keys: that its part scrolls needs no focus of its own
    const without = what.startsWith('the menu') ? ['scrollable-region-focusable'] : []
    expect(await violations(page, { without }), what).toEqual([])
  }
  const job = `${demo.url}/job/job-mushroom-tent`
  await page.goto(`${job}/brief`)
  await page.getByRole('combobox', { name: 'Used in' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('option', { name: 'medical' })).toBeVisible()
  await check('an open list')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Findings:/ }).click()
  await check('the findings')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Units and theme/ }).click()
  await check('units')
  await page.keyboard.press('Escape')
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Help and keys' })).toBeVisible()
  await check('the keys')
  await page.goto(`${job}/need`)
  await page.getByRole('button', { name: 'Usual air changes' }).click()
  await check('a helper')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Airflow needed:/ }).click()
  await check('a working')
  await page.goto(`${job}/line-up`)
  await page.getByRole('button', { name: 'Columns' }).click()
  await check('columns of the line-up')
  await page.goto(`${job}/air-path`)
  await page.getByRole('combobox', { name: /^Add / }).focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('option', { name: 'Straight duct' })).toBeVisible()
  await check('the menu of elements')
})

test('at a phone’s width every value and button of bench work is reached without going sideways', async ({
  page,
  demo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  for (const path of ['log', 'power', 'line-up', 'verdict', 'verdict/compare', 'brief', 'air-path']) {
    await page.goto(`${demo.url}/job/job-film-cabinet/${path}`)
    await expect(page.locator('#main h2').first()).toBeAttached()
    if (path === 'line-up') await expect(page.getByRole('button', { name: /^Pick/ }).first()).toBeVisible()
    const outside = await page.locator('#main').evaluate((main) => {
      const seen = (e: Element) => (e as HTMLElement).offsetParent !== null || e.tagName === 'svg'
      return Array.from(main.querySelectorAll('button, a, input, textarea, td, [role="combobox"]'))
        .filter(seen)
        .filter((e) => {
          const { left, right, width } = e.getBoundingClientRect()
          return width > 1 && (right > 391 || left < -1)
        })
        .map((e) => `${e.tagName} ${(e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40)}`)
    })
    expect(outside, path).toEqual([])
  }
  // the ribbon is a line that opens
  await page.getByRole('button', { name: /Room air.* → 2 × Sedge 92 → Room/ }).click()
  await expect(page.getByRole('group', { name: 'Cross-section of the air path' })).toBeVisible()
})
