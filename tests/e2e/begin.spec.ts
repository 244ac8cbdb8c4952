import type { Page } from '@playwright/test'
import { choose, expect, saved, test, undo } from './app'

/** At most so many entries lead from an empty workshop with an empty shelf to a first operating point. */
const MOST = 12

/** A person at work: every value typed and every choice made is an entry, every press too. */
function person(page: Page) {
  let entries = 0
  return {
    entries: () => entries,
    press: async (name: string) => {
      entries++
      await page.getByRole('button', { name, exact: true }).first().click()
    },
    tick: async (name: RegExp) => {
      entries++
      await page.getByRole('radio', { name }).check()
    },
    type: async (label: string, text: string) => {
      entries++
      const field = page.getByLabel(label, { exact: true })
      await field.fill(text)
      await field.blur()
    },
  }
}
const goals: { goal: RegExp; facts: [string, string][]; path: [string, string][] }[] = [
  {
    goal: /^Cool a box/,
    facts: [
      ['Heat released inside', '30 to 50 W'],
      ['Highest temperature inside', '45 °C'],
    ],
    path: [['Free area of the holes, each side', '6 x 8 cm']],
  },
  {
    goal: /^Cool a part/,
    facts: [
      ['Heat of the part', '12 W'],
      ['Part at most', '70 °C'],
    ],
    path: [],
  },
  {
    goal: /^Ventilate/,
    facts: [
      ['Free air volume', '0.4 m3'],
      ['Air changes per hour', '10 to 30'],
    ],
    path: [],
  },
  {
    goal: /^Carry off fumes/,
    facts: [
      ['Source to opening', '12 cm'],
      ['Opening of the nozzle', '80 cm2'],
    ],
    path: [
      ['Bore of the hose', '100 mm'],
      ['Length of the hose', '3 m'],
    ],
  },
  {
    goal: /^Stir/,
    facts: [
      ['Free air volume', '120 L'],
      ['Turnovers per hour', '20 to 40'],
    ],
    path: [],
  },
  {
    goal: /^Chill water/,
    facts: [
      ['Water surface', '30 x 60 cm'],
      ['Water temperature', '26 °C'],
    ],
    path: [],
  },
  {
    goal: /^Quieten/,
    facts: [
      ['It may get warmer by', '3 K'],
      ['At most this loud there', '30 dB(A)'],
    ],
    path: [['Free area of the holes, each side', '40 cm2']],
  },
]

for (const { goal, facts, path } of goals)
  test(`${goal.source.slice(1)}: from nothing to an operating point in at most ${MOST} entries`, async ({
    page,
    empty,
  }) => {
    const me = person(page)
    await page.goto(empty.url)
    await me.press('New job')
    await me.tick(goal)
    for (const [label, text] of facts) await me.type(label, text)
    for (const [label, text] of path) await me.type(label, text)
    await me.type('Frame, side', '80 mm')
    await me.type('Voltage', '12 V')
    await me.type('Current', '0.15 A')
    await expect(page.getByRole('complementary', { name: 'First answer' })).toContainText('m³/h')
    await me.press('Begin')
    await expect(page).toHaveURL(/line-up/)
    await expect(page.getByText('Airflow at the operating point')).toBeVisible()
    await expect(page.getByRole('region', { name: 'What would make this surer' })).toBeVisible()
    expect(me.entries()).toBeLessThanOrEqual(MOST)
    // what was typed is in the plan, what was not is told as assumed
    await saved(page)
    const report = (await (
      await fetch(
        `${empty.url}/api${new URL(page.url()).pathname.replace('/line-up', '').replace('/job', '/jobs')}/report`,
      )
    ).json()) as { findings: { severity: string }[] }
    expect(report.findings.filter((f) => f.severity === 'stop')).toEqual([])
  })

test('nothing is known: a usual fan of a size that may do, by keyboard alone', async ({ page, empty }) => {
  await page.goto(empty.url)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await page.keyboard.press('n')
  await expect(page.getByRole('heading', { name: 'New job' })).toBeVisible()
  await page.getByRole('radio', { name: /^Cool a box/ }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('radio', { name: /^Ventilate/ })).toBeChecked()
  await choose(page, 'Is there one?', 'None yet: a usual one')
  await expect(page.getByText(/the smallest usual size that may do/)).toBeVisible()
  await page.getByLabel('Name of the job').fill('Damp cupboard')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/line-up/)
  await expect(page.getByRole('heading', { level: 1, name: 'Damp cupboard' })).toBeVisible()
  await expect(page.getByText('Airflow at the operating point')).toBeVisible()
  // the assumed facts wait in Need, marked, and a typed one takes the mark away
  await page.keyboard.press('2')
  await expect(page.getByText('assumed, measure it').first()).toBeVisible()
  const before = await page.getByText('assumed, measure it').count()
  await page.getByLabel('Free air volume', { exact: true }).fill('0.3 m3')
  await page.getByLabel('Free air volume', { exact: true }).blur()
  await expect(page.getByText('assumed, measure it')).toHaveCount(before - 1)
  // nothing is asked of the server while it is stopped
  await saved(page)
  await page.goto('about:blank')
})

test('what was answered stays until the job is there', async ({ page, empty }) => {
  await page.goto(`${empty.url}/begin`)
  await page.getByRole('radio', { name: /^Stir/ }).check()
  await page.getByLabel('Free air volume', { exact: true }).fill('90 L')
  await page.goto(empty.url)
  await page.getByRole('button', { name: 'New job' }).first().click()
  await expect(page.getByRole('radio', { name: /^Stir/ })).toBeChecked()
  await expect(page.getByLabel('Free air volume', { exact: true })).toHaveValue('90 L')
  await page.getByLabel('Free air volume', { exact: true }).fill('nine litres')
  await expect(page.locator('[aria-invalid=true]')).toHaveCount(1)
})

test('like a job that exists, and one of the shelf', async ({ page, demo }) => {
  await page.goto(`${demo.url}/begin`)
  await page.getByRole('radio', { name: /^Like another job/ }).check()
  await choose(page, 'Its air path is like that of', 'Film-drying cabinet')
  await choose(page, 'Is there one?', 'One of my shelf')
  await choose(page, 'Fan of the shelf', 'Fenholm Sedge 92')
  await page.getByLabel('Name of the job').fill('Second cabinet')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page).toHaveURL(/line-up/)
  await page.keyboard.press('3')
  await expect(page.getByText('Pleated filter').first()).toBeVisible()
})

test('a fan made for a job comes back to it, chosen', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/line-up`)
  await page.getByRole('link', { name: 'Add a fan for this job' }).click()
  await page.getByLabel('Model').fill('Own find')
  await page.getByLabel('Rated current', { exact: true }).fill('0.2 A')
  await expect(page.getByText(/estimated from its size, voltage and current/)).toBeVisible()
  await page.getByRole('button', { name: 'Put on the shelf and take it' }).click()
  await expect(page).toHaveURL(/job-film-cabinet\/line-up$/)
  await expect(page.getByRole('row', { name: /Own find/ }).getByText('picked')).toBeVisible()
  await undo(page, 1)
})
