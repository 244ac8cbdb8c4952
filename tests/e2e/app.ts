import { rmSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import { test as base, expect, type Locator, type Page } from '@playwright/test'
import { demoData, emptyData, startServer, type TestServer } from '../api/harness'

export interface App {
  server: TestServer
  data: string
  url: string
  restart: () => Promise<void>
}

async function run(data: string, empty: boolean, use: (app: App) => Promise<void>) {
  const app: App = {
    server: await startServer(data, { empty }),
    data,
    url: '',
    restart: async () => {
      await app.server.stop()
      app.server = await startServer(data, { empty, port: Number(new URL(app.url).port) })
    },
  }
  app.url = app.server.url
  await use(app)
  await app.server.stop()
  rmSync(data, { recursive: true, force: true })
}

/**
 * `demo`: a server with the demo workshop, shared by the tests of a worker; `empty`: one of its own for every test, with
 * nothing on bench and shelf. Console errors fail a test.
 */
export const test = base.extend<{ quiet: string[]; empty: App }, { demo: App }>({
  demo: [async ({}, use) => run(await demoData(), false, use), { scope: 'worker', timeout: 60_000 }],
  empty: [
    async ({ page }, use) =>
      run(await emptyData(), true, async (app) => {
        await use(app)
        // what the page still asks is not cut off by the end of its server
        await page.goto('about:blank').catch(() => {})
      }),
    { timeout: 60_000 },
  ],
  quiet: [
    async ({ page }, use) => {
      const heard: string[] = []
      page.on('console', (m) => {
        // what asks for changes every few seconds may ask while a test has its server stopped
        const { url } = m.location()
        if (url.includes('/api/changes')) return
        if (m.type() === 'error' || m.type() === 'warning') heard.push(`${m.text()} ${url}`)
      })
      page.on('pageerror', (e) => heard.push(e.message))
      await use(heard)
      expect(heard, 'console errors and warnings').toEqual([])
    },
    { auto: true },
  ],
})

export { expect }

/**
 * What axe finds on the page that is open, as a line each. It looks at the one document there is (the legacy mode, which
 * opens no page of its own to gather frames) and tells of violations only: what passes would be described node by node.
 * @param within only this part
 * @param rules only these; else all
 * @param without all but these
 * @param least how bad it is at least
 */
export async function violations(
  page: Page,
  { within, rules, without = [], least = 'serious' }: AxeWish = {},
): Promise<string[]> {
  const builder = new AxeBuilder({ page }).setLegacyMode(true).options({
    resultTypes: ['violations'],
    ...(rules ? { runOnly: { type: 'rule' as const, values: rules } } : {}),
    rules: Object.fromEntries(without.map((rule) => [rule, { enabled: false }])),
  })
  if (within) builder.include(within)
  const { violations: found } = await builder.analyze()
  const bad = least === 'any' ? found : found.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  return bad.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.html)
        .slice(0, 2)
        .join(' ')}`,
  )
}
interface AxeWish {
  within?: string
  rules?: string[]
  without?: string[]
  least?: 'serious' | 'any'
}

/** Types into a field by its label and leaves it, as a person does. */
export async function type(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true })
  await field.fill(text)
  await field.blur()
}
/** Opens a list and takes one of it. */
export async function pick(page: Page, list: Locator, option: string) {
  await list.focus()
  await page.keyboard.press('ArrowDown')
  const wanted = page.getByRole('option', { name: option, exact: true }).filter({ visible: true })
  await wanted.click()
  // a press while the list still opens may be lost on a busy machine: a person who sees it stay open presses again
  for (let tries = 0; tries < 3 && (await staysOpen(wanted)); tries++) await wanted.click({ timeout: 1000 })
  await expect(wanted).toHaveCount(0)
}
/** A list that was pressed closes within its animation; one that is still there did not take the press. */
const staysOpen = (wanted: Locator) =>
  wanted.waitFor({ state: 'hidden', timeout: 2000 }).then(
    () => false,
    () => true,
  )
export const choose = (page: Page, label: string, option: string) =>
  pick(page, page.getByLabel(label, { exact: true }), option)
export const saved = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: 'saved' })).toHaveText('saved')

/** Takes back the last changes, as a person does: away from any field, then the key. The next test finds the job as it was. */
export async function undo(page: Page, steps: number) {
  await page.getByRole('heading', { level: 1 }).click()
  for (let i = 0; i < steps; i++) await page.keyboard.press('z')
  await saved(page)
}
/** Adds an element to the air path from its one menu. */
export const addElement = (page: Page, name: string) =>
  pick(page, page.getByRole('combobox', { name: /^(Add|Insert) / }), name)

/** Presses what has the focus after being reached, as somebody without a mouse does. */
export async function press(page: Page, name: string | RegExp) {
  const button = page.getByRole('button', { name }).first()
  await button.focus()
  await page.keyboard.press('Enter')
}
/** Picks a choice of the line-up, once what was typed there is answered. */
export async function pickFan(page: Page, name: RegExp) {
  await expect(page.getByText(/choices would do the job/)).toBeVisible()
  await press(page, name)
}
/** Goes to a station by the keyboard. */
export const goTo = (page: Page, station: string) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: station }).first().press('Enter')

/** Begins an empty job by keyboard; gives back its id. */
export async function beginEmpty(page: Page, url: string): Promise<string> {
  await page.goto(`${url}/begin`)
  await page.getByRole('button', { name: 'Begin with an empty plan' }).press('Enter')
  await page.waitForURL(/\/job\/[^/]+\/brief/)
  // the address comes before the page: the beginning, with a goal of its own to choose, may still stand there
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  return page.url().split('/')[4]!
}
/** Marks one of a few, or a tick, by the space bar. */
export async function mark(page: Page, role: 'radio' | 'checkbox', name: string | RegExp) {
  const box = page.getByRole(role, { name }).first()
  await box.focus()
  await page.keyboard.press('Space')
  await expect(box).toBeChecked()
}

/** A variant of a demo job, so that the shared one stays as it is; gives back its id. */
export async function variantOf(url: string, job: string): Promise<string> {
  const { plan } = (await (await fetch(`${url}/api/jobs/${job}`)).json()) as { plan: object }
  const made = await fetch(`${url}/api/jobs/${job}/variants`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Trial', plan }),
  })
  return ((await made.json()) as { plan: { job: { id: string } } }).plan.job.id
}
