import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { choose, expect, saved, test, type, undo } from './app'

const diagram = (page: Page) => page.getByRole('img', { name: /^Wiring\./ })
/** Opens the form of one piece of the feed. */
const piece = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click()
const figure = (page: Page, label: string) => page.getByRole('button', { name: new RegExp(`^${label}:`) })

test('a 24 V machine with a 12 V and a 5 V fan through two converters: planned, then taken away on paper', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-telescope-mirror/power`)
  await choose(page, 'Kind of source', 'Rail of the equipment')
  await type(page, 'Nominal voltage', '24 V')
  await type(page, 'Lowest', '23 V')
  await type(page, 'Highest', '25 V')
  await type(page, 'It can give', '1 A')
  // straight on 24 V is a stop, at the fan in the diagram and in the list
  await expect(page.getByText(/12\sV fan straight on 24\sV/)).toBeVisible()
  await piece(page, 'Converter')
  await choose(page, 'Kind of converter', 'step-down (buck)')
  await type(page, 'Set to', '12 V')
  await page.getByLabel('set with a meter before the fan was connected').check()
  await page.getByRole('button', { name: '+ Converter' }).click()
  // the new part's own form stands beside the diagram
  await type(page, 'Name', 'Step-down 5 V')
  await type(page, 'Set to', '5 V')
  await page.getByLabel('set with a meter before the fan was connected').check()
  await page.getByRole('button', { name: '+ Load' }).click()
  await choose(page, 'What', 'another fan')
  await choose(page, 'Which fan', 'Larkbeck Alder 40 5 V')
  await choose(page, 'Gauge', '26 AWG, 0.13 mm²')
  await page.getByLabel('Length, one way').fill('0.4 m')
  await page.keyboard.press('Tab')
  await saved(page)
  await expect(diagram(page)).toHaveAttribute('aria-label', /Step-down 5 V: 24\sV → 5\sV.*1 × Alder 40 5 V/)
  await expect(diagram(page)).not.toHaveAttribute('aria-label', /undefined|NaN/)

  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ])
  const drawing = readFileSync(await svg.path(), 'utf8')
  expect(drawing).toContain('Step-down 5 V')
  expect(drawing).toContain('26 AWG')
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PNG' }).click(),
  ])
  expect(
    readFileSync(await png.path())
      .subarray(1, 4)
      .toString(),
  ).toBe('PNG')

  await page.getByRole('radio', { name: 'Wire list' }).click()
  await expect(
    page.getByRole('region', { name: 'Wire list' }).getByRole('row').filter({ hasText: '26 AWG' }),
  ).toHaveCount(2)
  const [wires] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save CSV' }).click(),
  ])
  const rows = readFileSync(await wires.path(), 'utf8')
    .trim()
    .split(/\r?\n/)
  expect(rows[0]).toContain('from,from pin,to,to pin,pole,AWG')
  expect(rows.some((r) => r.includes('26') && r.includes('0.4') && r.includes('red'))).toBe(true)

  await page.getByRole('radio', { name: 'Connection order' }).click()
  await expect(
    page.getByText(/Step-down 5 V: power it without its load, turn the screw until the meter reads 5\.0 V/),
  ).toBeVisible()
  await page.getByRole('radio', { name: 'Parts' }).click()
  const [list] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save CSV' }).click(),
  ])
  const bought = readFileSync(await list.path(), 'utf8')
  expect(bought).toContain('Larkbeck Alder 40 5 V')
  expect(bought).toContain('Wire 26 AWG')
  expect(bought).toMatch(/total,,,,,,\d/)
})

test('a battery job with a wished running time: too short, then the pack is made big enough', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-cheese-box/power`)
  await expect(figure(page, 'It lasts')).toBeVisible()
  await type(page, 'Wished running time', '400 h')
  await expect(page.getByText(/runs, 400\sh|wanted/).first()).toBeVisible()
  const needed = Number(
    /wished time, Ah: ~?([\d.]*\d)/.exec(
      (await figure(page, 'Capacity for the wished time, Ah').getAttribute('aria-label')) ?? '',
    )![1],
  )
  await type(page, 'Capacity', `${Math.ceil(1.05 * needed)} Ah`)
  await expect(page.getByText('empty early')).toHaveCount(0)
  await expect(page.getByText(/larger pack/i)).toHaveCount(0)
  await type(page, 'Switches off below', '0.5 A')
  await expect(page.getByText(/keep-alive resistor/)).toBeVisible()
  await saved(page)
})

test('a four-fan hub on one header is overloaded; a powered hub mends it', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/line-up`)
  await page.getByText('More filters').click()
  await type(page, 'Maker, model or note', 'teasel 140')
  await choose(page, 'How the fans may be driven', 'rated voltage')
  await page.getByRole('button', { name: /^Pick 4 × Fenholm Teasel 140 HP at 12\sV/ }).click()
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Power' }).click()
  await choose(page, 'Kind of source', 'Fan header of a board')
  await expect(page.getByText(/on a header for 1\sA/)).toBeVisible()
  await expect(diagram(page)).toHaveAttribute('aria-label', /overloaded/)
  await piece(page, 'Lead to the fans')
  await page.getByText('Tach and PWM wires').click()
  await type(page, 'Tach leads tied together', '4')
  await expect(page.getByText(/Tach leads joined: \d/)).toBeVisible()
  await type(page, 'Tach leads tied together', '1')
  await choose(page, 'Splitter or hub', 'powered hub')
  await expect(page.getByText(/on a header for 1\sA/)).toHaveCount(0)
  await expect(page.getByText(/Tach leads joined: \d/)).toHaveCount(0)
  await undo(page, 12)
})

test('a vehicle charges at 14.4 V: the ways to slow down are compared and one is taken', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-hydroponic-tank/power`)
  await choose(page, 'Kind of source', 'Vehicle, 12 V')
  await expect(page.getByText(/Charging reaches 14\.4\sV/)).toBeVisible()
  await expect(page.getByText(/nothing near pedals, airbags or exhaust/)).toBeVisible()
  await type(page, 'Speed wished, of full', '70 %')
  const ways = page.locator('table.ways')
  await expect(ways.locator('tbody').filter({ hasText: 'Switched supply' })).toContainText('on a fan for')
  await expect(ways.locator('tbody').filter({ hasText: 'Divider' })).toContainText('burns')
  await expect(ways.locator('tbody').filter({ hasText: 'Step-down converter' })).toContainText(
    /until the meter reads [\d.]+ V/,
  )
  await page.getByRole('button', { name: 'Take Step-down converter' }).click()
  await expect(page.getByText(/Charging reaches 14\.4\sV/)).toHaveCount(0)
  await expect(page.getByText('Set the converter before connecting the fan.')).toBeVisible()
  await undo(page, 3)
})

test('mistakes: a wire of no length, a part on a load, the wiring at a phone’s width', async ({
  page,
  demo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`${demo.url}/job/job-choir-amplifier/power`)
  await expect(diagram(page)).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await piece(page, 'Lead to the fans')
  await page.getByLabel('Length, one way', { exact: true }).fill('0 m')
  await page.keyboard.press('Tab')
  await expect(page.getByText('A wire has a length above zero.')).toBeVisible()
  await expect(diagram(page)).not.toHaveAttribute('aria-label', /undefined|NaN/)
})
