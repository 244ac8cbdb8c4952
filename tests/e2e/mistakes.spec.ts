import { startServer } from '../api/harness'
import { addElement, choose, expect, saved, test, type, variantOf } from './app'

test('what cannot be read or cannot be is said beside the field, and the last good plan stays', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/air-path?element=outlet-grille`)
  const need = page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Line-up' })
  const before = await need.innerText()
  const field = page.getByLabel('Gross area', { exact: true })
  for (const [text, message] of [
    ['wide', 'does not begin with a number'],
    ['0', 'must be above zero'],
    ['-5 cm2', 'must be above zero'],
    ['31 dB', 'is the unit of a sound level'],
    ['900 m2', 'Not above'],
    ['1,200 cm2', 'may mean'],
  ] as const) {
    await field.fill(text)
    await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible()
    await expect(field).toHaveAttribute('aria-invalid', 'true')
    expect(await need.innerText()).toBe(before)
  }
  await field.press('Escape')
  await expect(field).toHaveValue('250 cm²')
  // letter by letter, as a person types: the first digits of what cannot be read are no value
  await field.fill('')
  await field.pressSequentially('31 dB')
  await expect(page.getByRole('alert').filter({ hasText: 'is the unit of a sound level' })).toBeVisible()
  await expect.poll(() => need.innerText()).toBe(before)
  await field.press('Escape')
  await expect(field).toHaveValue('250 cm²')
  await page.reload()
  await expect(page.getByLabel('Gross area', { exact: true })).toHaveValue('250 cm²')
})

test('a target out of all limits is refused beside its field', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/need`)
  await page.getByLabel('Sound level, at most', { exact: true }).fill('900 dB')
  await expect(page.getByRole('alert').filter({ hasText: /Not above 130\sdB/ })).toBeVisible()
  await page.getByLabel('Airflow, at least', { exact: true }).fill('-3')
  await expect(page.getByRole('alert').filter({ hasText: 'Cannot be negative.' })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Sound level, at most', { exact: true })).toHaveValue('32 dB(A)')
})

test('a curve that falls back in flow or has one point is refused with the reason', async ({ page, demo }) => {
  await page.goto(`${demo.url}/shelf/new`)
  await type(page, 'Model', 'Odd one')
  await page.getByRole('button', { name: '+ Point' }).click()
  await type(page, 'Flow of point 1', '10')
  await type(page, 'Pressure of point 1', '20')
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await expect(page.getByText('One point is no curve')).toBeVisible()
  await page.getByRole('button', { name: '+ Point' }).click()
  await type(page, 'Flow of point 2', '8')
  await type(page, 'Pressure of point 2', '25')
  await expect(page.getByText('Each flow must be larger than the one before.').first()).toBeVisible()
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await expect(page).toHaveURL(/shelf\/new/)
})

test('deletions come back: an element, a fan, a job', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/air-path`)
  await page.getByRole('button', { name: 'Remove Pleated filter' }).click()
  await expect(page.getByRole('button', { name: 'Remove Pleated filter' })).toHaveCount(0)
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: 'Remove Pleated filter' })).toBeVisible()
  await saved(page)
  await page.goto(`${demo.url}/shelf`)
  await page.getByLabel('Search').fill('Sedge 120 S')
  await page.getByRole('button', { name: 'Delete Sedge 120 S' }).click()
  await expect(page.getByText('No fan matches')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: 'Fenholm Sedge 120 S' })).toBeVisible()
  await page.goto(demo.url)
  await page.getByRole('button', { name: 'Delete Kiln-controller box' }).click()
  await expect(page.getByRole('link', { name: 'Kiln-controller box' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('link', { name: 'Kiln-controller box' })).toBeVisible()
})

test('an unknown job or fan has a proper page', async ({ page, demo, quiet }) => {
  for (const path of ['/job/none/brief', '/shelf/none', '/nowhere']) {
    await page.goto(demo.url + path)
    await expect(page.getByRole('heading', { name: 'This page is not here' })).toBeVisible()
  }
  await page.getByRole('button', { name: 'Go to the bench' }).click()
  await expect(page.getByRole('link', { name: 'Film-drying cabinet' })).toBeVisible()
  // the browser itself reports the 404 answers
  expect(quiet.filter((m) => !m.includes('404'))).toEqual([])
  quiet.length = 0
})

test('a server that goes away: unsaved is said, the text stays, and it is saved when the server is back', async ({
  page,
  demo,
  quiet,
}) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/brief`)
  await saved(page)
  await demo.server.stop()
  await type(page, 'Equipment', 'Typed while the server was away')
  await expect(page.getByText('unsaved', { exact: true })).toBeVisible()
  await expect(page.getByLabel('Equipment', { exact: true })).toHaveValue('Typed while the server was away')
  const trouble = page.getByRole('alert').filter({ hasText: 'What you change is kept in this browser' })
  await expect(trouble).toBeVisible()
  demo.server = await startServer(demo.data, { port: Number(new URL(demo.url).port) })
  await saved(page)
  await expect(trouble).toHaveCount(0)
  await page.reload()
  await expect(page.getByLabel('Equipment', { exact: true })).toHaveValue('Typed while the server was away')
  expect(quiet.filter((m) => !/ERR_CONNECTION_REFUSED|Failed to load resource/.test(m))).toEqual([])
  quiet.length = 0
})

test('two windows on one job: the second is told, and keeps or gives up its version', async ({
  page,
  demo,
  context,
  quiet,
}) => {
  // this window does not hear of the other one before it saves itself
  await page.route('**/api/changes*', (route) => route.abort())
  await page.goto(`${demo.url}/job/job-choir-amplifier/brief`)
  const other = await context.newPage()
  await other.goto(`${demo.url}/job/job-choir-amplifier/brief`)
  await type(other, 'Equipment', 'From the other window')
  await saved(other)
  await type(page, 'Equipment', 'From this window')
  await expect(page.getByText('changed elsewhere', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Take the other' }).click()
  await expect(page.getByLabel('Equipment', { exact: true })).toHaveValue('From the other window')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByLabel('Equipment', { exact: true })).toHaveValue('From this window')
  await saved(page)
  expect(quiet.filter((m) => !m.includes('409'))).toEqual([])
  quiet.length = 0
})

test('units change everywhere at once, and keys go everywhere', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/need`)
  await expect(page.getByRole('button', { name: /^Airflow needed: 36\.8\sm³\/h/ })).toBeVisible()
  await page.getByRole('heading', { level: 1 }).click()
  await page.keyboard.press('u')
  await expect(page.getByRole('button', { name: /^Airflow needed: 21\.7\sCFM/ })).toBeVisible()
  await expect(page.getByLabel('Free air volume', { exact: true })).toHaveValue('16.2 ft³')
  await page.keyboard.press('3')
  await expect(page.getByRole('heading', { name: 'What the air has to get through' })).toBeVisible()
  await expect(page.getByLabel('Face area', { exact: true })).toHaveValue('155 in²')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Switch between metric and imperial')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.keyboard.press('u')
  await page.keyboard.press('b')
  await expect(page.getByRole('heading', { name: 'Bench' })).toBeVisible()
  await page.keyboard.press('f')
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible()
  await page.keyboard.press('/')
  await expect(page.getByLabel('Search')).toBeFocused()
})

test('an element is inserted from the ribbon with the keyboard', async ({ page, demo }) => {
  const id = await variantOf(demo.url, 'job-choir-amplifier')
  await page.goto(`${demo.url}/job/${id}/brief`)
  await page.getByRole('button', { name: 'Insert an element before Fin stack' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('combobox', { name: 'Insert as number 3' })).toBeFocused()
  await addElement(page, 'Bend')
  await expect(page.getByText('It lacks its bore.')).toBeVisible()
  await type(page, 'Bore', '80 mm')
  await choose(page, 'Angle', '45°')
  await expect(page.getByRole('button', { name: 'Move Bend towards the outlet' })).toBeVisible()
  const names = await page.locator('.path-row .pick strong').allInnerTexts()
  expect(names.indexOf('Bend')).toBe(2)
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('a server that still opens its database: the page says so, and goes on by itself', async ({
  page,
  demo,
}) => {
  let opening = true
  await page.route('**/api/startup', (route) =>
    opening ? route.fulfill({ json: { ready: false, doing: 'opening the database' } }) : route.continue(),
  )
  await page.goto(demo.url)
  await expect(page.getByRole('heading', { name: 'Redpoll is starting' })).toBeVisible()
  await expect(page.getByRole('status')).toHaveText('opening the database')
  opening = false
  await expect(page.getByText('Film-drying cabinet').first()).toBeVisible()
})
