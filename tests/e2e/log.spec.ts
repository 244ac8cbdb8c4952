import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { choose, expect, saved, test, type, type App } from './app'
import { wav } from './wav'

const root = join(import.meta.dirname, '..', '..')
let box: ChildProcess | null = null
test.afterEach(() => {
  box?.kill()
  box = null
})

/** The stand-in as a device of its own: over HTTP, with a token, 60 times as fast as time. */
function startBox(app: App, token: string, job: string, which: string) {
  box = spawn(
    process.execPath,
    [
      '--import',
      'tsx',
      join(root, 'scripts', 'box.ts'),
      '--url',
      app.url,
      '--token',
      token,
      '--job',
      job,
      '--which',
      which,
      '--speed',
      '60',
      '--seed',
      '5',
    ],
    { cwd: root, stdio: 'ignore' },
  )
}
const link = (page: Page, name: string) =>
  page.getByRole('navigation', { name: /^Pages of/ }).getByRole('link', { name })

test('a whole cycle with the stand-in over HTTP: baseline, change, after, verdict', async ({ page, demo }) => {
  test.setTimeout(120_000)
  await page.goto(`${demo.url}/job/job-choir-amplifier/log/live`)
  await page.getByRole('button', { name: '+ Board or port' }).click()
  await type(page, 'Name of the instrument', 'Bench board')
  await page.getByRole('button', { name: 'A board on the network' }).click()
  const token = await page.getByText('shown once').locator('code').innerText()
  // a second one of that name is refused beside the field
  await page.getByRole('button', { name: '+ Board or port' }).click()
  await page.getByLabel('Name of the instrument').fill('bench board')
  await page.getByRole('button', { name: 'A board on the network' }).click()
  await expect(page.getByText('Another instrument has this name')).toBeVisible()
  await page.getByRole('button', { name: '+ Board or port' }).click()
  await page.getByRole('button', { name: 'I have it' }).click()

  async function record(which: string, into: string) {
    const board = page.getByRole('listitem').filter({ hasText: 'Bench board' })
    await expect(board.getByText(/nothing yet|silent for/)).toBeVisible({ timeout: 20_000 })
    startBox(demo, token, 'job-choir-amplifier', which)
    await expect(board.getByText(/a second|every \d/)).toBeVisible({ timeout: 45_000 })
    await board.getByRole('button', { name: '● Record' }).click()
    await expect(page.getByText('● recording,')).toBeVisible()
    const soak = page.getByRole('region', { name: 'Soak' })
    await expect(soak.getByRole('status')).toContainText(/Steady|95 %/, { timeout: 40_000 })
    await expect(soak).toContainText(/\d\s°C to \d/)
    await page.getByRole('button', { name: '■ Stop', exact: true }).click()
    box?.kill()
    await choose(page, 'Take it into', into)
    await page.getByRole('button', { name: 'Take the readings' }).click()
    await page.getByRole('button', { name: 'Open it' }).click()
    await expect(page.getByLabel('Reading in one line')).toBeVisible()
    await choose(page, 'Lid or door', 'closed')
    await type(page, 'Load of the equipment', '45 W')
    await type(page, 'Microphone distance', '1 m')
    await choose(page, 'Sound meter', 'class 2 meter')
    await saved(page)
  }
  await record('as-found', 'a new baseline run')
  await expect(page.getByRole('textbox', { name: 'Temperature at heatsink' })).toHaveValue(/\d/)
  // silent first, so that the next start is a new boot of the same board
  await link(page, 'Instruments and logs').click()
  await record('as-planned', 'a new run after a change')
  await choose(page, 'What was changed', 'the fan')
  await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Verdict' }).click()
  const heatsink = page
    .getByRole('region', { name: 'Before against after' })
    .getByRole('row')
    .filter({ hasText: 'heatsink' })
  await expect(heatsink).toContainText('rise over ambient')
  await expect(
    page.getByRole('region', { name: 'Targets' }).getByRole('row').filter({ hasText: 'front row' }),
  ).toContainText(/met|cannot tell/)
  await expect(page.getByRole('row').filter({ hasText: 'Airflow' }).first()).toContainText(/\d/)
})

test('garbage, a wrong token and a torn line are told; what is good is kept', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-wax-bench/log/live`)
  await page.getByRole('button', { name: '+ Board or port' }).click()
  await type(page, 'Name of the instrument', 'Torn board')
  await page.getByRole('button', { name: 'A board on the network' }).click()
  const token = await page.getByText('shown once').locator('code').innerText()
  const post = (text: string, t = token) =>
    fetch(`${demo.url}/api/instruments/readings`, {
      method: 'POST',
      headers: { authorization: `Bearer ${t}` },
      body: text,
    })
  expect((await post('0 0 a_V=1', 'nonsense')).status).toBe(401)
  expect((await post('# boot=q\n0 0 plate_degC=24 fan_rpm=2400 fan_V=24\n###!!\nx y z\n')).status).toBe(200)
  await expect(page.getByText(/(One line|\d+ lines) could not be read/)).toBeVisible()
  await post('# boot=q\n1 1000 fan_rpm=0 fan_V=24\n2 5000 fan_rpm=0 fan_V=24\n')
  await expect(page.getByText('tach lost')).toBeVisible()
})

test('the serial port: lines are numbered here, an unplugged board is told, nothing is lost', async ({
  page,
  demo,
}) => {
  await page.addInitScript(() => {
    let push: ((text: string) => void) | null = null
    let fail: (() => void) | null = null
    const readable = new ReadableStream<Uint8Array>({
      start(controller) {
        push = (text) => controller.enqueue(new TextEncoder().encode(text))
        fail = () => controller.error(new DOMException('gone', 'NetworkError'))
      },
    })
    const port = { open: async () => {}, close: async () => {}, readable }
    Object.defineProperty(navigator, 'serial', { value: { requestPort: async () => port } })
    Object.assign(window, { pushLine: (text: string) => push!(text), unplug: () => fail!() })
  })
  await page.goto(`${demo.url}/job/job-cheese-box/log/live`)
  await page.getByRole('button', { name: '+ Board or port' }).click()
  await page.getByLabel('Name of the instrument').fill('USB board')
  await page.getByRole('button', { name: 'On a serial port here' }).click()
  const mine = page.getByRole('listitem').filter({ hasText: 'USB board' })
  await mine.getByRole('button', { name: '● Record' }).click()
  await mine.getByRole('button', { name: 'Connect' }).click()
  const push = (text: string) =>
    page.evaluate((t) => (window as unknown as { pushLine: (x: string) => void }).pushLine(t), text)
  await push('box_degC=8.5 fan_rpm=900\nbox_de')
  await push('gC=8.4 fan_rpm=905\n')
  await expect(mine.getByText(/8\.4\s°C/)).toBeVisible()
  await page.evaluate(() => (window as unknown as { unplug: () => void }).unplug())
  await expect(mine.getByText('is the board unplugged?')).toBeVisible()
  await page.getByRole('button', { name: '■ Stop', exact: true }).click()
  await expect(page.getByText('2 rows,')).toBeVisible()
})

test('a messy logger file: guessed, mended, taken; broken rows are shown', async ({ page, demo }) => {
  const two = (n: number) => String(n).padStart(2, '0')
  const rows = Array.from({ length: 400 }, (_, i) => {
    if (i % 20 === 9) return `${i};torn`
    const clock = `${two(10 + Math.floor(i / 60))}:${two(i % 60)}:00`
    const plate = (24 + 20 * (1 - Math.exp(-i / 90))).toFixed(2).replace('.', ',')
    return `13.05.2026 ${clock};${plate};22,1;${1500 + (i % 5)};-127`
  })
  const text = `Logger 9;v2\r\n\r\nDatum;Plate (°C);Raum (°C);Tach;T4 (°C)\r\n${rows.join('\r\n')}\r\n`
  await page.goto(`${demo.url}/job/job-wax-bench/log/import`)
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'bench 13 May.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await expect(page.getByText('380 rows read')).toBeVisible()
  await expect(page.getByText('20 rows cannot be read and are left out')).toBeVisible()
  await expect(page.locator('.field', { has: page.getByLabel('Written as') })).toContainText('date, day first')
  await choose(page, 'Meaning of T4 (°C)', 'leave out')
  await expect(page.getByText('values are missing')).toHaveCount(0)
  await page.getByLabel('Name of Raum (°C)').fill('room')
  await page.getByRole('button', { name: 'Take 380 rows' }).click()
  await expect(page.getByText(/380 rows, 6\.[67]\sh/)).toBeVisible()
  await expect(page.getByText('20 rows of the file could not be read, the first in line 13')).toBeVisible()
  // the soak of the plate over the room is predicted from it
  await expect(page.getByRole('region', { name: 'Soak' }).getByRole('status')).toContainText(/Steady|95 %/)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('time_s,Plate_degC,room_degC,Tach_rpm')
})

test('an unfair comparison is refused with its reasons', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-hydroponic-tank/verdict/compare`)
  await expect(page.getByText('Temperature reservoir is not compared:')).toBeVisible()
  for (const words of [
    'Lid open before, closed after',
    'The other openings were not alike',
    '2 things changed at once',
    'Soaked 4',
  ])
    await expect(page.getByText(words).first()).toBeVisible()
  await page.getByLabel('Fan on the lid, after an hour counts as before').check()
  await expect(page.getByText('A run cannot stand on both sides.')).toBeVisible()
})

test('the noise ladder of a machine with two fans in three stages', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-choir-amplifier/verdict/ladder`)
  const table = page.getByRole('region', { name: 'Levels of the sources by stage' })
  await expect(table.getByRole('row').filter({ hasText: 'Fix next' })).toContainText('rear fan')
  await expect(table.getByRole('row').filter({ hasText: 'All together' })).toContainText('they agree')
  await page.getByLabel('Only source running').fill('front grille')
  await page.getByLabel('In stage').fill('working')
  await page.getByLabel('Level read').fill('44 dB')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(table.getByRole('row').filter({ hasText: 'Fix next' })).toContainText('front grille')
  await expect(table.getByRole('row').filter({ hasText: 'All together' })).toContainText(
    'less than its sources',
  )
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('z')
  await expect(table).not.toContainText('front grille')
})

test('two recordings: the difference, and the whine traced to its fan', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/log/listen`)
  await page.getByLabel('Open a WAV: Before').setInputFiles({
    name: 'note.wav',
    mimeType: 'audio/wav',
    buffer: Buffer.from('not a sound at all, whatever the name says: too bad'),
  })
  await expect(page.getByText('This is no WAV file.')).toBeVisible()
  await type(page, 'Speed of Sedge 92', '1600')
  await type(page, 'Blades of Sedge 92', '9')
  await page
    .getByLabel('Open a WAV: Before')
    .setInputFiles({ name: 'before.wav', mimeType: 'audio/wav', buffer: wav([240], 0.2, 0.02) })
  await expect(page.getByRole('row').filter({ hasText: '240 Hz' })).toContainText('Sedge 92: blade pass')
  // what was typed stays when the shelf comes in anew
  const sheet = `${demo.url}/api/fans/fan-sedge-92x25-12v`
  const { fan, revision } = (await (await fetch(sheet)).json()) as { fan: object; revision: number }
  await fetch(sheet, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ fan, revision }),
  })
  await page.waitForResponse((r) => r.url().includes('/api/fans/changed'))
  await expect(page.getByLabel('Speed of Sedge 92')).toHaveValue(/1600/)
  await page
    .getByLabel('Open a WAV: After')
    .setInputFiles({ name: 'after.wav', mimeType: 'audio/wav', buffer: wav([240], 0.02, 0.002) })
  // a tenth of the amplitude everywhere: 20 dB, four times quieter to the ear (common practice)
  await expect(page.getByText(/^\s*−20(\.0)?\sdB\s*$/)).toBeVisible()
  await expect(page.getByText('About 4.0 times quieter to the ear, A-weighted.')).toBeVisible()
  await page.getByRole('radio', { name: 'Fine lines' }).click()
  await expect(page.getByRole('img', { name: /Fine spectrum/ })).toBeVisible()
})

test('verdict and report leave the app: PDF, Markdown, calendar', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/verdict/report`)
  await expect(page.getByRole('article', { name: 'Report' })).toContainText('a change of +58 % of before')
  const save = async (name: string) => {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name, exact: true }).click()
    return readFileSync(await (await download).path())
  }
  const pdf = await save('PDF')
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  expect(pdf.length).toBeGreaterThan(10_000)
  const markdown = (await save('Markdown')).toString('utf8')
  expect(markdown).toContain('| Target | wanted | measured | verdict |')
  expect(markdown).toContain('data:image/svg+xml,')
  expect(markdown).toMatch(/^- \w/m)
  expect(markdown).not.toContain('[object')
  await page.goto(`${demo.url}/job/job-film-cabinet/build/care`)
  await expect(page.getByRole('link', { name: 'Calendar file' })).toBeVisible()
  const calendar = await (await page.request.get(`${demo.url}/api/jobs/job-film-cabinet/care.ics`)).text()
  expect(calendar).toContain('BEGIN:VCALENDAR')
  expect(calendar).toContain('Clean the filter')
})

test('the path is scaled by what was measured, in a variant', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/verdict`)
  await page.getByRole('button', { name: 'Scale the path to the measured flow, as a variant' }).click()
  await page.getByRole('button', { name: 'Open it' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Film-drying cabinet, path as measured')
  // the bench is shared by the tests of this server: it is left as it was
  const id = new URL(page.url()).pathname.split('/')[2]
  expect((await page.request.delete(`${demo.url}/api/jobs/${id}`)).ok()).toBe(true)
})

test('working out a reading: an anemometer over an opening becomes an airflow', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-cheese-box/log`)
  await page.getByRole('button', { name: '+ Baseline' }).click()
  await page.getByText('By fields, or worked out from an instrument').click()
  await page.getByRole('button', { name: 'Work it out' }).click()
  await choose(page, 'Work out', 'Anemometer over a round opening')
  await expect(page.getByText('Wanted: Diameter.')).toBeVisible()
  await type(page, 'Diameter', '100 mm')
  await type(page, 'Speeds read, one after the other', '2.1 2.3 fast')
  await expect(page.getByText('fast” cannot be read.')).toBeVisible()
  await type(page, 'Speeds read, one after the other', '2.1 2.3 1.9 2.0 2.2 2.1')
  await page.getByRole('button', { name: /as the reading/ }).click()
  await expect(page.getByLabel('Values read')).toHaveValue(/59\.[34]/)
  await page.getByRole('button', { name: 'Add reading' }).click()
  await expect(page.getByRole('row').filter({ hasText: 'points over the opening, 6 points' })).toBeVisible()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('z')
  await page.keyboard.press('z')
  await saved(page)
})
