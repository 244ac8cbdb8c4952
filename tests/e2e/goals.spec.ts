import type { Page } from '@playwright/test'
import { addElement, choose, expect, saved, test, type } from './app'

/** Begins a job from nothing and chooses its goal. */
async function begin(page: Page, url: string, name: string, goal: string) {
  await page.goto(url)
  await page.getByRole('button', { name: 'New job' }).first().click()
  await page.getByLabel('Name of the job').fill(name)
  await page.getByRole('button', { name: 'Begin with an empty plan' }).click()
  await expect(page.getByRole('heading', { name })).toBeVisible()
  await page.getByRole('radio', { name: goal, exact: true }).check()
  await type(page, 'Air at its intake', '20 °C')
  await type(page, 'Altitude', '0 m')
  await station(page, 'Need').click()
}
const station = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stations' })
    .getByRole('link', { name: new RegExp(`(settled|not begun|something to fix|stop) ${name}\\b`) })
/** The shown value of a figure, in its shown unit. */
async function shown(page: Page, label: string): Promise<number> {
  const figure = page.getByRole('button', { name: new RegExp(`^${label}: `) }).first()
  await expect(figure).toBeVisible()
  return Number(/: ~?([−\d.]+)/.exec((await figure.getAttribute('aria-label')) ?? '')![1]!.replace('−', '-'))
}
/** A short air path: opening in, fan, box, opening out. */
async function simplePath(page: Page) {
  await station(page, 'Air path').click()
  await addElement(page, 'Opening')
  await type(page, 'Free area', '80 cm²')
  await addElement(page, 'Fan')
  await addElement(page, 'Chamber')
  await addElement(page, 'Grille')
  await type(page, 'Gross area', '90 cm²')
  await expect(page.getByText('size?')).toHaveCount(0)
  await expect(page.getByRole('region', { name: 'How the path answers' })).toBeVisible()
}
/** Heat capacity of a cubic metre of the air here (20 °C, 50 %, sea level: 1.199 kg/m3), J/(m3 K). */
const AIR = 1.199 * 1006

test('cool a box: heat worked out from a wall meter, walls from their material', async ({ page, demo }) => {
  await begin(page, demo.url, 'Cupboard of chargers', 'Cool a box')
  await page.getByRole('button', { name: 'Work the heat out' }).click()
  await type(page, 'The meter shows', '80 W')
  await type(page, 'Share that stays inside as heat', '75 %')
  await page.getByRole('button', { name: 'Use 60 W' }).click()
  await expect(page.getByLabel('Heat released inside', { exact: true })).toHaveValue('60 W')
  await expect(
    page.locator('.field', { has: page.getByLabel('Where this heat figure comes from') }),
  ).toContainText('measured')
  await type(page, 'Highest temperature inside', '35 °C')
  expect(await shown(page, 'Airflow needed')).toBeCloseTo((60 / (AIR * 15)) * 3600, 0)
  await page.getByRole('button', { name: 'Work the wall loss out' }).click()
  for (const side of ['height', 'width', 'depth']) await type(page, `Outer ${side}`, '0.5 m')
  await page.getByRole('button', { name: /^Use 7\.5/ }).click()
  await expect(page.getByLabel('Lost through the walls', { exact: true })).toHaveValue(/ to /)
  expect(await shown(page, 'Airflow needed')).toBe(0)
  await simplePath(page)
  await saved(page)
})

test('cool a part: two points of its resistance', async ({ page, demo }) => {
  await begin(page, demo.url, 'Voltage regulator', 'Cool a part')
  await type(page, 'Heat of the part', '30 W')
  await choose(page, 'Where this heat figure comes from', 'measured (wall meter, V × I)')
  await type(page, 'Part at most', '56 °C')
  await type(page, 'Airflow 1', '10 m³/h')
  await type(page, 'Resistance 1', '1.5 K/W')
  // 36 K over 30 W is 1.2 K/W: by the root law (1.5/1.2)² times the air
  expect(await shown(page, 'Airflow needed over the part')).toBeCloseTo(15.6, 1)
  await page.getByRole('button', { name: '+ Point' }).click()
  await type(page, 'Airflow 2', '5 m³/h')
  await type(page, 'Resistance 2', '1 K/W')
  await expect(page.getByRole('alert')).toContainText('rising flows')
  await type(page, 'Airflow 2', '40 m³/h')
  await type(page, 'Resistance 2', '0.75 K/W')
  expect(await shown(page, 'Airflow needed over the part')).toBeCloseTo(15.6, 1)
  await simplePath(page)
  await saved(page)
  await page.reload()
  await station(page, 'Need').click()
  await expect(page.getByLabel('Resistance 2')).toHaveValue('0.75 K/W')
})

test('ventilate: a roof space, moisture and CO₂, the strongest rules', async ({ page, demo }) => {
  await begin(page, demo.url, 'Shed loft', 'Ventilate')
  await page.getByRole('button', { name: 'Work the volume out' }).click()
  await choose(page, 'It is', 'a space under a gable roof')
  await type(page, 'Inside length', '4 m')
  await type(page, 'Width at the floor', '3 m')
  await type(page, 'Height to the ridge', '1.5 m')
  await page.getByRole('button', { name: 'Use 9 m³' }).click()
  await page.getByRole('button', { name: 'Usual air changes' }).click()
  await page
    .getByRole('button', { name: 'Use 11 air changes per hour for: space under a roof, in summer' })
    .click()
  expect(await shown(page, 'Airflow needed')).toBe(99)
  await page.getByText('CO₂', { exact: true }).click()
  await type(page, 'CO₂ released', '1.5 L/min')
  await type(page, 'Inside at most', '1000 ppm')
  // 1.5 L/min over 580 ppm
  expect(await shown(page, 'Airflow needed')).toBeCloseTo(0.09 / 580e-6, 0)
  await expect(page.getByRole('button', { name: /^For the air changes: 99/ })).toBeVisible()
  await simplePath(page)
  await saved(page)
})

test('carry off fumes: a range for the distance, a finding where it is too slow', async ({ page, demo }) => {
  await begin(page, demo.url, 'Soldering corner', 'Carry off fumes')
  await page.getByRole('button', { name: 'Capture speeds' }).click()
  await page.getByRole('button', { name: /^Use 0\.75 metres per second/ }).click()
  await type(page, 'Opening of the nozzle', '80 cm²')
  await type(page, 'Source to opening', '3 to 5 cm')
  await expect(page.getByLabel('Source to opening', { exact: true })).toHaveValue('0.03 to 0.05 m')
  const flow = await shown(page, 'Airflow needed')
  expect(flow).toBeCloseTo(0.75 * (10 * 0.04 ** 2 + 0.008) * 3600, 0)
  await expect(page.getByText(/Likely need \(9 in 10\)/)).toBeVisible()
  await page.getByText('How sure are these numbers?').click()
  await choose(page, 'How sure: Air speed wanted at the source', 'good guess')
  await choose(page, 'Its rim', 'with a flange as wide as the opening')
  expect((await shown(page, 'Airflow needed')) / flow).toBeCloseTo(0.75, 2)
  await simplePath(page)
  await station(page, 'Line-up').click()
  await page
    .getByRole('button', { name: /^Pick / })
    .first()
    .click()
  await station(page, 'Need').click()
  await expect(page.getByText(/at the source, 0\.75\sm\/s wanted/)).toHaveCount(0)
  await type(page, 'Source to opening', '0.4 m')
  // too little air is one message; what comes of it stands below it
  await page.getByRole('button', { name: /^Only .* of .*m³\/h/ }).click()
  await expect(page.getByText(/at the source, 0\.75\sm\/s wanted/)).toBeVisible()
  await saved(page)
})

test('stir: turnovers, and what the fan’s heat costs', async ({ page, demo }) => {
  await begin(page, demo.url, 'Seed fridge', 'Stir')
  await type(page, 'Free air volume', '150 L')
  await type(page, 'Turnovers per hour', '40')
  expect(await shown(page, 'Airflow needed')).toBe(6)
  await page.getByText('Back to temperature after the door').click()
  await type(page, 'Cooling power of the box', '40 W')
  await type(page, 'Heat capacity of air and contents', '20 kJ/K')
  await type(page, 'Warmed by', '5 K')
  // 20 kJ/K x 4 K at 40 W, no wall: 2000 s
  expect(await shown(page, 'Back to temperature after the door')).toBeCloseTo(33.3, 0)
  await simplePath(page)
  await saved(page)
})

test('chill water: three lids side by side, a day’s water', async ({ page, demo }) => {
  await begin(page, demo.url, 'Axolotl tank', 'Chill water')
  await type(page, 'Water surface', '0.3 m²')
  await type(page, 'Temperature of the water', '20 °C')
  await type(page, 'Cross-section the air crosses', '200 cm²')
  await type(page, 'Air speed over the water', '0.3 m/s')
  expect(await shown(page, 'Airflow needed')).toBeCloseTo(21.6, 1)
  const open = await shown(page, 'Water lost, open \\(this job\\)')
  const mesh = await shown(page, 'Water lost, mesh lid')
  const still = await shown(page, 'Water lost, closed lid')
  expect(open).toBeGreaterThan(mesh)
  expect(mesh).toBeGreaterThan(still)
  // 50 % at 20 °C: the wet bulb stands near 13.8 °C (psychrometric charts)
  expect(await shown(page, 'The water cannot get below')).toBeCloseTo(13.8, 0)
  await simplePath(page)
  await saved(page)
})

test('quieten: the airflow of the fan that is in it, on its own path', async ({ page, demo }) => {
  await begin(page, demo.url, 'Noisy switch', 'Quieten')
  await expect(page.getByText('To work this out, give the present fan.')).toBeVisible()
  const fans = page.getByLabel('Fan in it now', { exact: true })
  await fans.focus()
  await page.keyboard.press('ArrowDown')
  await page
    .getByRole('option', { name: /Burnet 80/ })
    .filter({ visible: true })
    .first()
    .click()
  await expect(page.getByText('To work this out, give the air path.')).toBeVisible()
  await simplePath(page)
  await station(page, 'Need').click()
  const flow = await shown(page, 'Airflow to keep')
  expect(flow).toBeGreaterThan(20)
  expect(flow).toBeLessThan(50)
  await saved(page)
})

test('ways side by side: a leak is added, dragged order and keys, and a measurement scales the path', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/air-path`)
  const before = await shown(page, 'Whole path at the planned flow')
  await addElement(page, 'Ways side by side')
  await expect(page.getByText('It lacks an element in “First way”.')).toBeVisible()
  for (const name of ['First way', 'Second way']) {
    await page.getByRole('button', { name: `Add elements to ${name}` }).click()
    await addElement(page, 'Opening')
    await type(page, 'Free area', '60 cm²')
  }
  await page.getByRole('button', { name: 'Ways side by side ways side by side' }).click()
  await page.getByRole('checkbox', { name: 'a leak' }).nth(1).check()
  await expect(page.getByRole('button', { name: /^Air that does the job: ~50\s%/ })).toBeVisible()
  expect(await shown(page, 'Whole path at the planned flow')).toBeGreaterThan(before)
  await expect(page.getByText(/50\s% of the air leaks past the job/)).toBeVisible()

  // with the keyboard: the chosen element goes towards the intake
  await page.getByRole('button', { name: 'Move Top grille towards the intake' }).focus()
  await page.keyboard.press('Enter')
  const names = await page.locator('.rows[data-list=main] > .path-row .pick strong').allInnerTexts()
  expect(names.indexOf('Top grille')).toBeLessThan(names.indexOf('Fan'))

  // dragged by its handle: the foam comes first
  await page.locator('[data-id=dust-foam] .handle').hover()
  await page.mouse.down()
  const first = (await page.locator('[data-id=bottom-slots]').boundingBox())!
  await page.mouse.move(first.x + 30, first.y + 20, { steps: 6 })
  await page.mouse.move(first.x + 30, first.y + 4, { steps: 6 })
  await page.mouse.up()
  await expect
    .poll(async () => (await page.locator('.rows[data-list=main] > .path-row .pick strong').allInnerTexts())[0])
    .toBe('Dust foam')

  await page.getByText('Calibrate with a measurement').click()
  await page.getByRole('button', { name: 'Type a measurement' }).click()
  await choose(page, 'I measured', 'airflow and pressure over the path')
  await page.getByRole('button', { name: '+ Flow and pressure' }).click()
  await type(page, 'At a flow of (1)', '12 m³/h')
  const guess = await shown(page, 'Whole path at the planned flow')
  await type(page, 'the path loses (1)', '40 Pa')
  await expect(page.getByRole('button', { name: /^Real path over the guess/ })).toBeVisible()
  expect(await shown(page, 'Whole path at the planned flow')).not.toBe(guess)
  await page.getByRole('checkbox', { name: 'the plan uses it' }).uncheck()
  expect(await shown(page, 'Whole path at the planned flow')).toBe(guess)
  await saved(page)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Remove the measurement' })).toBeVisible()
})

test('what if: tried and taken back; the ribbon reads as text and saves as SVG', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/air-path`)
  // the worst offender is open at once
  await expect(page.getByRole('heading', { name: 'Filter', exact: true })).toBeVisible()
  const before = await shown(page, 'Whole path at the operating point')
  await page.getByRole('button', { name: 'Try: half again the area' }).click()
  expect(await shown(page, 'Whole path at the operating point')).toBeLessThan(before)
  await page.getByRole('button', { name: 'Undo' }).last().click()
  expect(await shown(page, 'Whole path at the operating point')).toBe(before)
  await page.getByText('Where practice differs').click()
  await expect(page.getByText('Push: fan before the box')).toBeVisible()

  await page.getByRole('button', { name: 'Ribbon: read as text' }).click()
  await expect(
    page.getByRole('listitem').filter({ hasText: /Pleated filter, free area .* loses/ }),
  ).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Ribbon: save as SVG' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('Film-drying-cabinet-air-path.svg')
  const { readFileSync } = await import('node:fs')
  const svg = readFileSync(await file.path(), 'utf8')
  expect(svg).toContain('Pleated filter')
  expect(svg).not.toMatch(/var\(|color-mix|tabindex|Insert an element/)
  await page.getByRole('link', { name: /^Pleated filter/ }).focus()
  await expect(page.locator('.ribbon .working')).toBeHidden()
  await page.getByRole('button', { name: 'Ribbon: read as text' }).click()
  await page.getByRole('link', { name: /^Pleated filter/ }).focus()
  await expect(page.locator('.ribbon .working')).toContainText('Δp = L · (c₁·Q/A + c₂·(Q/A)²)')
})
