import psychrolib from 'psychrolib'
import { addElement, choose, expect, saved, test, type } from './app'

/**
 * The operating point found without the core: the typed curve is a straight line and the path is a Q + b Q^2,
 * so that one quadratic equation answers. Air from psychrolib.
 */
function expectedFlow(volts: number, ratedVolts: number): number {
  psychrolib.SetUnitSystem(psychrolib.SI)
  const pressure = psychrolib.GetStandardAtmPressure(300)
  const rho = psychrolib.GetMoistAirDensity(28, psychrolib.GetHumRatioFromRelHum(28, 0.4, pressure), pressure)
  const mu = (1.458e-6 * 301.15 ** 1.5) / (301.15 + 110.4)
  const s = volts / ratedVolts
  // the line from 40 Pa at no flow to 0 Pa at 80 m3/h, at 1.2 kg/m3
  const shutOff = (40 * s * s * rho) / 1.2
  const slope = shutOff / ((80 / 3600) * s)
  // intake grille 60 cm2, s 0.5; foam c1 7.7, c2 8.5 on 150 cm2; outlet: sharp hole 45 cm2, Cd 0.61
  const grille = (((1.707 - 0.5) / 0.5) ** 2 * rho) / (2 * 0.006 ** 2)
  const hole = rho / (2 * (0.61 * 0.0045) ** 2)
  const a = ((7.7 / 0.015) * mu) / 1.81e-5
  const b = grille + hole + ((8.5 / 0.015 ** 2) * rho) / 1.2
  return ((-(a + slope) + Math.sqrt((a + slope) ** 2 + 4 * b * shutOff)) / (2 * b)) * 3600
}

test('a job from nothing to the verdict, and all of it is there after a restart', async ({ page, empty }) => {
  await page.goto(empty.url)
  await expect(page.getByText('Nothing on the bench yet')).toBeVisible()

  // a fan from its data sheet, in the sheet's own units
  await page.goto(`${empty.url}/shelf/new`)
  await type(page, 'Maker', 'Testmoor')
  await type(page, 'Model', 'Whin 80')
  await type(page, 'Frame, side', '80')
  await type(page, 'Thickness', '0.984 in')
  await type(page, 'Rated voltage', '12 V')
  await type(page, 'Rated current', '180 mA')
  await type(page, 'Free delivery (largest airflow)', '47.1 CFM')
  await type(page, 'Shut-off pressure (largest)', '4,08 mmH2O')
  await expect(page.getByLabel('Shut-off pressure (largest)')).toHaveValue('40.011 Pa')
  await type(page, 'Noise', '30 dB')
  await type(page, 'at a distance of', '1 m')
  await type(page, 'Starts at', '4,5')
  await type(page, 'Price', '8.50')
  for (const [i, [flow, pressure]] of [
    ['0', '40'],
    ['20', '30'],
    ['40', '20'],
    ['60', '10'],
    ['80', '0'],
  ].entries()) {
    await page.getByRole('button', { name: '+ Point' }).click()
    await type(page, `Flow of point ${i + 1}`, `${flow} m3/h`)
    await type(page, `Pressure of point ${i + 1}`, pressure!)
  }
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await expect(page.getByRole('link', { name: 'Testmoor Whin 80' })).toBeVisible()

  // the job
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.getByRole('button', { name: 'New job' }).first().click()
  await page.getByLabel('Name of the job').fill('Charger cupboard')
  await page.getByRole('button', { name: 'Begin with an empty plan' }).click()
  await expect(page.getByRole('heading', { name: 'Charger cupboard' })).toBeVisible()
  await type(page, 'Equipment', 'Cupboard with three chargers')
  await type(page, 'Air at its intake', '82.4 °F')
  await expect(page.getByLabel('Air at its intake')).toHaveValue('28 °C')
  await type(page, 'Altitude', '300 m')
  await type(page, 'Relative humidity', '40 %')

  await page
    .getByRole('link', { name: /^.*Need/ })
    .first()
    .click()
  await type(page, 'Heat released inside', '90 W')
  await choose(page, 'Where this heat figure comes from', 'measured (wall meter, V × I)')
  await type(page, 'Highest temperature inside', '40 °C')
  // 90 W over 12 K in air of about 1.12 kg/m3: about 24 m3/h
  await expect(page.getByRole('button', { name: /^Airflow needed: 2[34](\.\d)?\sm³\/h/ })).toBeVisible()
  await page.getByRole('button', { name: '+ Temperature' }).click()
  await type(page, 'Temperature, at most', '42 °C')
  await page.getByRole('button', { name: '+ Sound level' }).click()
  await type(page, 'Sound level, at most', '38 dB')

  // four elements and the fan's place
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Air path' }).click()
  await addElement(page, 'Grille')
  await type(page, 'Gross area', '60 cm2')
  await type(page, 'Free-area ratio', '50 %')
  await addElement(page, 'Filter')
  await choose(page, 'Medium', 'Foam 30 ppi, 10 mm')
  await type(page, 'Face area', '150')
  await addElement(page, 'Fan')
  await addElement(page, 'Chamber')
  await type(page, 'Cross-section', '0.12 m2')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '45 cm²')
  await expect(page.getByText('size?')).toHaveCount(0)

  // the line-up: pick, and compare its operating point with the independent answer
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Line-up' }).click()
  const row = page.getByRole('row').filter({ hasText: '1 × Whin 80' })
  await row.getByRole('button', { name: /^Pick/ }).click()
  const figure = page.getByRole('button', { name: /^Airflow at the operating point: / }).first()
  await expect(figure).toBeVisible()
  const shown = Number(/: ([\d.]+)\sm³\/h/.exec((await figure.getAttribute('aria-label')) ?? '')![1])
  const volts = Number(/([\d.]+)\sV/.exec(await row.locator('.drive').first().innerText())![1])
  expect(Math.abs(shown / expectedFlow(volts, 12) - 1)).toBeLessThan(0.01)
  await figure.click()
  await expect(page.getByText('Rests on a data-sheet curve.')).toBeVisible()
  await page.keyboard.press('Escape')

  // power: a 24 V rail through a step-down converter
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Power' }).click()
  await choose(page, 'Kind of source', 'Rail of the equipment')
  await type(page, 'Nominal voltage', '24')
  await type(page, 'Lowest', '23')
  await type(page, 'Highest', '25')
  await page.getByLabel('It can give').first().fill('500 mA')
  // the pick keeps its voltage: what makes it out of the rail is there already
  await page.getByRole('radio', { name: 'Converter', exact: true }).click()
  await choose(page, 'Kind of converter', 'step-down (buck)')
  await expect(page.getByText('Set the converter before connecting the fan.')).toBeVisible()
  await page.getByLabel('set with a meter before the fan was connected').check()
  await expect(page.getByText('Set the converter before connecting the fan.')).toHaveCount(0)
  await page.getByRole('radio', { name: 'Lead to the fans' }).click()
  await choose(page, 'Gauge', '24 AWG, 0.20 mm²')
  await type(page, 'Length, one way', '0,8 m')
  await page.getByRole('radio', { name: 'Source', exact: true }).click()
  await choose(page, 'Polarity metered at the plug', 'yes')
  await expect(page.getByRole('button', { name: /^Share of the source: [1-9]/ })).toBeVisible()

  // baseline, then a run after the change
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Log' }).click()
  for (const [button, inside, level] of [
    ['+ Baseline', '51,5', '44'],
    ['+ After a change', '38', '35.5'],
  ] as const) {
    await page.getByRole('button', { name: button }).click()
    // a new run begins where its readings are typed
    await expect(page.getByLabel('Reading in one line')).toBeFocused()
    await page.keyboard.type(`${inside} °C; ${level} dB(A); ambient 27.5 °C; fan off 30 dB; soaked 30 min`)
    await page.keyboard.press('Enter')
    await type(page, 'Load of the equipment', '90 W')
    await choose(page, 'Sound meter', 'class 2 meter')
    await choose(page, 'Lid or door', 'closed')
    await type(page, 'Microphone distance', '1 m')
  }

  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Verdict' }).click()
  const verdict = async () => {
    await expect(page.getByText('It worked: every target is met.')).toBeVisible()
    // 24 K of rise before, 10.5 K after: -13.5 K, -56 %
    await expect(page.getByRole('row').filter({ hasText: 'rise over ambient' })).toContainText(/−13\.5\sK/)
    await expect(page.getByRole('row').filter({ hasText: 'rise over ambient' })).toContainText('−56 %')
    await expect(page.getByText(/nothing that was noted differs/i)).toBeVisible()
  }
  await verdict()
  await saved(page)

  await empty.restart()
  await page.goto(empty.url)
  await page.getByRole('link', { name: 'Charger cupboard' }).click()
  // the bench leads to the next step: back to the first station
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Brief' }).click()
  await expect(page.getByLabel('Air at its intake')).toHaveValue('28 °C')
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Verdict' }).click()
  await verdict()
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Line-up' }).click()
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
})
