import type { PlanDocument } from '#core/document'
import { readFileSync } from 'node:fs'
import { expect, pickFan, saved, test } from './app'

/** A shelf that is too long to be held by a page: names are here, sheets come when they are asked for. */

const FANS = 900
const PART = 450
const post = async (url: string, body: unknown) => {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(response.ok).toBe(true)
  return (await response.json()) as { plan: { job: { id: string } } }
}

test('a long shelf: ranked, picked from, searched by name, and taken out whole', async ({
  page,
  demo,
  empty,
}) => {
  const { fans: shelf } = (await (await fetch(`${demo.url}/api/fans?limit=500`)).json()) as {
    fans: { fan: { id: string; model: string } }[]
  }
  const demoFans = shelf.map((s) => s.fan)
  const fans = Array.from({ length: FANS }, (_, i) => {
    const fan = demoFans[i % demoFans.length]!
    return { ...fan, id: `fan-${i}`, model: `${fan.model} no ${i}`, owned: false }
  })
  for (let from = 0; from < FANS; from += PART)
    await post(`${empty.url}/api/fans/import`, { fans: fans.slice(from, from + PART) })
  const { plan } = (await (await fetch(`${demo.url}/api/jobs/job-film-cabinet`)).json()) as {
    plan: PlanDocument
  }
  const made = await post(`${empty.url}/api/jobs/import`, {
    plan,
    fans: demoFans.filter((f) => f.id === plan.streams[0]!.places[0]!.fans[0]!.fanId),
  })

  // more groups than are worked out; each row has its figures and its curve although no page holds all the fans
  await page.goto(`${empty.url}/job/${made.plan.job.id}/line-up`)
  await expect(page.getByText(/of \d{4} choices would do the job; the best 600 are worked out/)).toBeVisible()
  const first = page.locator('.ranks tbody tr').nth(1)
  await expect(first).toContainText(/ no \d+/)
  await first.getByRole('button', { name: /^Airflow at the operating point/ }).press('Enter')
  await expect(page.getByText('monotone cubic through the fan’s curve')).toBeVisible()
  await page.keyboard.press('Escape')
  await pickFan(page, /^Pick \d × .* no \d+/)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.locator('.ranks tr.picked')).toContainText(/ no \d+/)
  await expect(page.getByText('The picked fan is no longer on the shelf')).toHaveCount(0)

  // a list of names is narrowed by typing; the one that is taken comes here with its sheet
  await page.goto(`${empty.url}/begin`)
  await page.getByLabel('Is there one?').focus()
  await page.keyboard.press('Enter')
  await page.getByRole('option', { name: 'One of my shelf' }).click()
  const list = page.getByLabel('Fan of the shelf', { exact: true })
  await list.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('option', { name: /\d+ more: type a part of the name/ })).toBeVisible()
  await page.keyboard.type('no 777')
  const found = page.getByRole('option', { name: / no 777$/ })
  await expect(page.getByRole('option')).toHaveCount(1)
  await found.click()
  // its first answer needs the sheet
  await expect(page.getByText('The picked fan gives')).toBeVisible()
  await page.getByLabel('Name of the job').fill('From a long shelf')
  await page.getByRole('button', { name: 'Begin', exact: true }).press('Enter')
  await expect(page).toHaveURL(/line-up/)
  await expect(page.locator('.ranks tr.picked')).toContainText('no 777')

  // all of it leaves as a file
  await page.goto(`${empty.url}/shelf`)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export CSV' }).press('Enter'),
  ])
  const text = readFileSync(await download.path(), 'utf8')
  expect(text.trim().split('\n').length).toBe(FANS + 2)
})
