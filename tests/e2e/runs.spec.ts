import { readFileSync } from 'node:fs'
import { choose, expect, saved, test, type, undo } from './app'

test('replicates by keyboard: a run after the change, measured again, gives a real interval', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/log`)
  const conditions = async (inside: string, ambient: string) => {
    // the key steps into the line
    await page.getByRole('heading', { level: 1 }).click()
    await page.keyboard.press('r')
    await expect(page.getByLabel('Reading in one line')).toBeFocused()
    await page.keyboard.type(inside)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('Reading in one line')).toHaveValue('')
    await type(page, 'Ambient, at the intake', ambient)
    await type(page, 'Load of the equipment', '60 W')
    await choose(page, 'No longer changing', 'yes')
    await choose(page, 'Lid or door', 'closed')
  }
  await expect(page.getByLabel('Name of the run')).toHaveValue('Closed box, one firing')
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('n')
  await expect(page.getByLabel('Name of the run')).toHaveValue('After change 1')
  await conditions('41.2 41.6 41.3 °C', '24 °C')
  await expect(page.getByText(/mean 41\.4\s°C/)).toBeVisible()
  await page.getByRole('button', { name: '+ Measure “after change 1” again' }).click()
  await conditions('41.9 °C', '24.2 °C')
  await page.getByRole('button', { name: '+ Measure “after change 1” again' }).click()
  await conditions('40.9 °C', '23.8 °C')
  await expect(page.getByText('after change 1 3 runs')).toBeVisible()
  await page.getByRole('button', { name: '+ Measure “baseline” again' }).click()
  await conditions('61.9 °C', '24.3 °C')
  await saved(page)
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Verdict' }).click()
  const row = page
    .getByRole('region', { name: 'Before against after' })
    .getByRole('row')
    .filter({ hasText: 'beside the relays' })
  await expect(row).toContainText('n = 2')
  await expect(row).toContainText('n = 3')
  await expect(row).toContainText(/of the rise/)
  await row.getByRole('button', { name: /Show working/ }).click()
  await expect(page.getByText('95 % interval over the replicates, unlike spreads (Welch).')).toBeVisible()
  await page.keyboard.press('Escape')
  // a change told from the wrong base is found out
  await page.getByText('Check what you would tell others').click()
  await type(page, 'I would report a change of', '-20 %')
  await choose(page, 'of the', 'temperature')
  await expect(page.getByText('Per cent of a celsius reading')).toBeVisible()
  await choose(page, 'Fans were ranked by', 'air per decibel')
  await expect(page.getByText('Ranking by flow per decibel')).toBeVisible()
})

test('values that cannot be are refused beside the field, and a removed run comes back', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-telescope-mirror/log`)
  await page.getByRole('button', { name: '+ Baseline' }).click()
  await page.getByText('By fields, or worked out from an instrument').click()
  await page.getByRole('button', { name: 'Add reading' }).click()
  await expect(page.getByText('Type a temperature first')).toBeVisible()
  await choose(page, 'Reading', 'Sound level')
  await expect(page.getByLabel('At', { exact: true })).toHaveValue('eyepiece')
  await page.getByLabel('Values read').fill('300 dB')
  await expect(page.getByRole('alert').filter({ hasText: /130|Not above/ })).toBeVisible()
  await page.getByLabel('Values read').fill('28.4 28.9 dB')
  await page.getByLabel('Only source running').last().fill('fan')
  await page.getByRole('button', { name: 'Add reading' }).click()
  await expect(page.getByRole('textbox', { name: 'Sound level at eyepiece' })).toHaveValue(/28\.4\s+28\.9/)
  await page.getByRole('button', { name: 'Remove the run Baseline' }).click()
  await expect(page.getByText('Measure before you change anything')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(page.getByRole('textbox', { name: 'Sound level at eyepiece' })).toBeVisible()
  await undo(page, 2)
})

test('a bench run goes into the fan’s own record, and can be taken back', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/log?run=run-bench`)
  await page.getByRole('button', { name: 'Write this into the fan’s own record' }).click()
  await expect(page.getByText('The test stands in the record of Sedge 92')).toBeVisible()
  const { fan } = (await (await page.request.get(`${demo.url}/api/fans/fan-sedge-92x25-12v`)).json()) as {
    fan: { tests: { id: string; rpm: number }[] }
  }
  expect(fan.tests).toMatchObject([{ rpm: 1610 }])
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect
    .poll(
      async () =>
        (
          (await (await page.request.get(`${demo.url}/api/fans/fan-sedge-92x25-12v`)).json()) as {
            fan: { tests: unknown[] }
          }
        ).fan.tests.length,
    )
    .toBe(0)
})

test('a picture of the set-up stays with its run; runs leave as CSV and JSON', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/log`)
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  await page
    .getByLabel(/^(Another photo|Photo) ?: Set-up of/)
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('x') })
  await expect(page.getByText('notes.txt: this is no picture that can be shown here')).toBeVisible()
  await page
    .getByLabel(/^(Another photo|Photo) ?: Set-up of/)
    .setInputFiles({ name: 'bench.png', mimeType: 'image/png', buffer: png })
  await expect(page.getByRole('img', { name: /^Set-up of/ })).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('img', { name: /^Set-up of/ })).toBeVisible()
  await page.getByRole('button', { name: 'Take it off' }).click()
  await expect(page.getByRole('img', { name: /^Set-up of/ })).toHaveCount(0)
  await saved(page)
  const file = async (name: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name, exact: true }).click()
    return readFileSync(await (await download).path(), 'utf8')
  }
  expect(await file('CSV')).toContain('49.2;49.6;48.9')
  expect(JSON.parse(await file('JSON'))).toMatchObject({ format: 'redpoll-runs', job: 'Film-drying cabinet' })
})

test('a log: kinds shown and hidden, the window by key, numbers as a table, into a run, put aside and back', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/log/live`)
  await expect(page.getByText(/539 rows, 18\smin/)).toBeVisible()
  const soak = page.getByRole('region', { name: 'Soak' })
  await expect(soak).toContainText(/~78\.\d\s°C/)
  await choose(page, 'Over the ambient of', 'none: as read')
  await expect(soak).toContainText(/~78\.\d\s°C/)
  await page.getByRole('button', { name: /^fan 0\.00/ }).click()
  await expect(page.getByRole('button', { name: /^fan 0\.00/ })).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('+')
  await expect(page.getByText(/Window of 9\smin/)).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText(/ending 17\smin|ending 1[678](\.\d+)?\smin/)).toBeVisible()
  await page.keyboard.press('w')
  await expect(page.getByText(/Window of 18\smin/)).toBeVisible()
  await page.getByRole('button', { name: 'Table' }).click()
  await expect(
    page
      .getByRole('region', { name: 'The window in numbers' })
      .getByRole('row')
      .filter({ hasText: 'beside the relays' }),
  ).toContainText(/\d/)
  await choose(page, 'Take it into', 'a new baseline run')
  await page.getByLabel('use the predicted end, not the last value').uncheck()
  await page.getByRole('button', { name: 'Take the readings' }).click()
  await expect(page.getByText('readings taken into the run.')).toBeVisible()
  await page.getByRole('button', { name: 'Open it' }).click()
  // the last value is not the end, and the plan says so
  await expect(page.getByText(/From its log: still changing by 0\.\d+ K a minute/)).toBeVisible()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('z')
  await page.goto(`${demo.url}/job/job-kiln-controller/log/live`)
  await expect(page.getByText(/539 rows, 18\smin/)).toBeVisible()
  await page.getByRole('button', { name: 'Put it aside' }).click()
  await expect(page.getByRole('heading', { name: 'No log yet' })).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(page.getByText(/539 rows/)).toBeVisible()
})

test('the stand-in started from the page: recorded, stopped, its tach pulled', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/log/live`)
  await choose(page, 'On it', 'as planned: the picked fan')
  await choose(page, 'Its time runs', '60 times as fast')
  await page.getByRole('button', { name: 'Start it' }).click()
  const mine = page.getByRole('listitem').filter({ hasText: 'Stand-in bench box' })
  await expect(mine.getByText(/a second|every \d/)).toBeVisible()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('r')
  // it has to be seen turning, in this log and not in the one shown before, before its tach can be missed
  await expect(page.getByText(/● recording,.*[1-9]/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: /^fan .*[1-9].*rpm/ })).toBeVisible({ timeout: 20_000 })
  await page.getByLabel('tach wire pulled').check()
  await expect(mine.getByText('tach lost')).toBeVisible({ timeout: 20_000 })
  // the log tells it as well, while it is still being recorded
  await expect(page.getByText(/the fan stood once although it was fed/)).toBeVisible({ timeout: 20_000 })
  await page.getByLabel('tach wire pulled').uncheck()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('s')
  await expect(page.getByText('● recording,')).toHaveCount(0)
  await expect(page.getByText(/the fan stood once although it was fed/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop it' }).click()
  await expect(page.getByRole('button', { name: 'Start it' })).toBeVisible()
})
