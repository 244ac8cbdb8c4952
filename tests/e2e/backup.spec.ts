import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, saved, test, type } from './app'

/** Backups taken and restored in the browser, changes of others seen, a workshop with a password. */

const send = (url: string, method: string, body: unknown) =>
  fetch(url, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })

test('a job goes, and comes back from a backup by keyboard; of two that differ both are kept', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/backup`)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Back up the workshop' }).press('Enter'),
  ])
  expect(download.suggestedFilename()).toMatch(/^redpoll-backup-\d{4}-\d{2}-\d{2}\.zip$/)
  const file = await download.path()
  const job = `${demo.url}/api/jobs/job-tape-rack`
  const { plan, revision } = (await (await fetch(job)).json()) as { plan: { job: object }; revision: number }
  await send(job, 'PUT', { plan: { ...plan, job: { ...plan.job, complaint: 'typed since' } }, revision })
  await send(`${demo.url}/api/jobs/job-seed-store`, 'DELETE', {})

  await page.getByLabel('Choose a backup file').locator('input[type=file]').setInputFiles(file)
  await expect(page.getByText('New here: 1 job')).toBeVisible()
  await expect(page.getByText('Different here: 1 job')).toBeVisible()
  const row = page.getByLabel('What is different here').getByRole('row').nth(1)
  await expect(row).toContainText('changed here')
  await row.getByRole('radio', { name: 'Keep mine' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(row.getByRole('radio', { name: 'Both' })).toBeChecked()
  await page.getByRole('button', { name: 'Write 2 things' }).press('Enter')
  await expect(page.getByText('2 written')).toBeVisible()
  expect((await fetch(`${demo.url}/api/jobs/job-seed-store`)).status).toBe(200)
  await page.getByRole('link', { name: 'Bench' }).press('Enter')
  const both = page.getByRole('link', { name: /\(backup of \d{4}-\d{2}-\d{2}\)/ })
  await expect(both).toHaveCount(1)
  // the next tests find the bench as it was
  const beside = (await page.locator('.job', { has: both }).getAttribute('data-job'))!
  await send(`${demo.url}/api/jobs/${beside}`, 'DELETE', {})
})

test('a job leaves with its logs and pictures, and is looked at before it comes in; what is no backup is said', async ({
  page,
  demo,
  quiet,
}) => {
  await page.goto(demo.url)
  await page.getByRole('button', { name: 'Export Film-drying cabinet' }).press('Enter')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'With logs and pictures' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Film-drying-cabinet.zip')
  await page.getByLabel('Import a job').setInputFiles({
    name: 'cabinet.zip',
    mimeType: 'application/zip',
    buffer: await import('node:fs/promises').then(async (fs) => fs.readFile(await download.path())),
  })
  await expect(page.getByRole('heading', { level: 1, name: 'Backup' })).toBeVisible()
  await expect(page.getByText('cabinet.zip, one job')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Nothing to write' })).toBeDisabled()
  await page.getByRole('button', { name: 'Leave it' }).press('Enter')
  await page
    .getByLabel('Choose a backup file')
    .locator('input[type=file]')
    .setInputFiles({
      name: 'holiday.zip',
      mimeType: 'application/zip',
      buffer: Buffer.from('not a zip'),
    })
  await expect(page.getByRole('alert')).toContainText('no backup of Redpoll')
  // what the browser itself writes of a refusal
  expect(quiet.splice(0)).toEqual([expect.stringContaining('422')])
})

test.describe('two people', () => {
  test('what one saves the other sees: in the open job and on the bench', async ({ page, context, demo }) => {
    const other = await context.newPage()
    await other.goto(`${demo.url}/job/job-tape-rack/brief`)
    await expect(other.getByLabel('The complaint, in your words')).not.toHaveValue('hums since Tuesday')
    await page.goto(`${demo.url}/job/job-tape-rack/brief`)
    await type(page, 'The complaint, in your words', 'hums since Tuesday')
    await saved(page)
    await expect(other.getByLabel('The complaint, in your words')).toHaveValue('hums since Tuesday', {
      timeout: 15_000,
    })
    await expect(other.getByText('Another device changed this job')).toBeVisible()
    // and undo says whose change it would take back
    await expect(other.getByRole('button', { name: /what another device changed/ })).toBeVisible()
    await other.goto(demo.url)
    await expect(other.getByRole('link', { name: 'Seen by the other' })).toHaveCount(0)
    await send(`${demo.url}/api/jobs`, 'POST', { name: 'Seen by the other' })
    const link = other.getByRole('link', { name: 'Seen by the other' })
    await expect(link).toBeVisible({ timeout: 15_000 })
    const id = (await other.locator('.job', { has: link }).getAttribute('data-job'))!
    await send(`${demo.url}/api/jobs/${id}`, 'DELETE', {})
    await expect(link).toHaveCount(0, { timeout: 15_000 })
    await other.close()
  })
})

test('a workshop with a password: the door, a wrong word, in, back to where one wanted to go, out', async ({
  page,
  browser,
  empty,
  quiet,
}) => {
  const script = join(import.meta.dirname, '..', '..', 'scripts', 'password.mjs')
  const set = spawnSync(process.execPath, [script, '--data', empty.data], { input: 'tarn lane kettle\n' })
  expect(set.status).toBe(0)
  await page.goto(`${empty.url}/shelf`)
  await expect(page.getByRole('heading', { name: 'This workshop has a password' })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('The password is wanted')
  await page.keyboard.type('kettle')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('This is not the password')
  await page.keyboard.type('tarn lane kettle')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(`${empty.url}/shelf`)
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible()
  // scripts of the page do not see the ticket
  expect(await page.evaluate(() => document.cookie)).toBe('')
  await page.goto(`${empty.url}/backup`)
  await expect(page.getByText('This workshop has a password; this browser is signed in.')).toBeVisible()
  // another browser is seen, and signed out from here
  const { request: other } = await browser.newContext({ userAgent: 'A phone, mobile' })
  await other.post(`${empty.url}/api/session`, { data: { password: 'tarn lane kettle' } })
  expect((await other.get(`${empty.url}/api/jobs`)).status()).toBe(200)
  await page.reload()
  await page.getByRole('button', { name: /^Sign out Phone or tablet/ }).press('Enter')
  await expect(page.getByRole('button', { name: /^Sign out/ })).toHaveCount(1)
  expect((await other.get(`${empty.url}/api/jobs`)).status()).toBe(401)
  await page.getByRole('button', { name: 'Sign out this browser' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'This workshop has a password' })).toBeVisible()
  await page.goto('about:blank')
  // what the browser itself writes of an answer that is no
  const own = quiet.splice(0)
  expect(own.filter((line) => !line.includes('401'))).toEqual([])
})
