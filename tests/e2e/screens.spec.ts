import { expect, test, violations } from './app'

// its tests share nothing: they may run side by side
test.describe.configure({ mode: 'parallel' })

const screens = [
  '/',
  '/shelf',
  '/shelf/new',
  '/shelf/import',
  '/shelf/fan-sedge-92x25-12v',
  '/shelf/fan-sedge-80x25-12v/measure',
  '/shelf/fan-rowan-80x25-24v/measure',
  '/begin',
  '/backup',
  '/enter',
  '/guide',
  '/words',
  '/sums?sum=wire',
  '/sums?sum=units',
  ...['brief', 'need', 'air-path', 'line-up', 'fit', 'power', 'control', 'build', 'log', 'verdict'].flatMap(
    (s) => [`/job/job-film-cabinet/${s}`, `/job/job-mushroom-tent/${s}`],
  ),
  ...[
    'log/live',
    'log/import',
    'log/listen',
    'verdict/compare',
    'build/care',
    'build/trouble',
    'build/labels',
    'build/book',
    'verdict/report',
  ].map((s) => `/job/job-film-cabinet/${s}`),
  '/job/job-choir-amplifier/verdict/ladder',
  '/job/job-stencil-press/brief',
  '/job/job-kiln-controller/log/live',
  ...['wax-bench', 'telescope-mirror', 'cheese-box', 'hydroponic-tank'].flatMap((j) =>
    ['need', 'air-path'].map((s) => `/job/job-${j}/${s}`),
  ),
]

/** Every job with the count of its changes. */
async function revisions(url: string) {
  const jobs = (await (await fetch(`${url}/api/jobs`)).json()) as { id: string; revision: number }[]
  return Object.fromEntries(jobs.map((j) => [j.id, j.revision]))
}

/** The screens in four parts, which may be looked at side by side. */
const PARTS = 4
for (let part = 0; part < PARTS; part++)
  test(`no screen has anything serious for axe, light or dark, or scrolls sideways at 390 px, part ${part + 1} of ${PARTS}`, async ({
    page,
    demo,
  }) => {
    test.setTimeout(300_000)
    const before = await revisions(demo.url)
    for (const path of screens.filter((_, i) => i % PARTS === part)) {
      await page.setViewportSize({ width: 1280, height: 800 })
      await page.emulateMedia({ colorScheme: 'light' })
      await page.goto(demo.url + path)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      // the whole of it, not its first parts
      await page.locator('html:not([aria-busy])').waitFor({ state: 'attached' })
      if (path.endsWith('line-up')) await expect(page.getByText(/choices would do the job/)).toBeVisible()
      expect(await violations(page), path).toEqual([])
      // the structure is the same in both themes: only colours are looked at again, once they have changed
      await page.emulateMedia({ colorScheme: 'dark' })
      await page.waitForTimeout(300)
      expect(await violations(page, { rules: ['color-contrast'] }), `${path} dark`).toEqual([])
      await page.setViewportSize({ width: 390, height: 844 })
      await page.waitForTimeout(150)
      const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      expect(overflow, path).toBeLessThanOrEqual(0)
    }
    // who only looks has changed nothing
    await page.goto(demo.url)
    expect(await revisions(demo.url)).toEqual(before)
  })

test('the first page is small: at most 220 kB of compressed script', async ({ page, demo }) => {
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  const scripts = new Set<string>()
  let bytes = 0
  session.on('Network.responseReceived', (e) => {
    if (e.response.url.endsWith('.js')) scripts.add(e.requestId)
  })
  session.on('Network.loadingFinished', (e) => {
    if (scripts.has(e.requestId)) bytes += e.encodedDataLength
  })
  await page.goto(demo.url)
  await expect(page.getByRole('link', { name: 'Film-drying cabinet' })).toBeVisible()
  await page.waitForLoadState('networkidle')
  expect(bytes).toBeGreaterThan(50_000)
  expect(bytes).toBeLessThan(220_000)
})

test('the air drifts along the ribbon, and stands still for who asks for less motion', async ({
  page,
  demo,
}) => {
  await page.emulateMedia({ reducedMotion: 'no-preference' })
  await page.goto(`${demo.url}/job/job-film-cabinet/brief`)
  const running = () =>
    page
      .locator('.ribbon .streaks')
      .evaluateAll(
        (all) => all.flatMap((e) => e.getAnimations().filter((a) => a.playState === 'running')).length,
      )
  await expect.poll(running).toBeGreaterThan(1)
  await page.emulateMedia({ reducedMotion: 'reduce' })
  expect(await running()).toBe(0)
})

test('at 390 px a reading can be logged', async ({ page, demo }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`${demo.url}/job/job-kiln-controller/log`)
  await page.getByLabel('Reading in one line').fill('58 °C')
  await page.getByLabel('Reading in one line').press('Enter')
  await expect(
    page.getByRole('button', { name: 'Remove Temperature at beside the relays' }).nth(1),
  ).toBeVisible()
})

test('the demo shows every state: settled, to fix, stop, not begun', async ({ page, demo }) => {
  await page.goto(demo.url)
  for (const state of ['settled', 'something to fix', 'stop', 'not begun'])
    await expect(page.getByRole('img', { name: state }).first()).toBeVisible()
  await expect(page.getByText('settled at every station').first()).toBeVisible()
})
