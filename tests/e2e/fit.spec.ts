import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { choose, expect, goTo, press, saved, test, type } from './app'

async function piece(page: Page, name: string) {
  const radio = page.getByRole('radio', { name })
  await radio.focus()
  await page.keyboard.press('Space')
  await expect(radio).toBeChecked()
}
const figure = (page: Page, label: string) => page.getByRole('button', { name: new RegExp(`^${label}: `) })
async function download(page: Page, button: RegExp): Promise<Buffer> {
  const [file] = await Promise.all([page.waitForEvent('download'), press(page, button)])
  return readFileSync((await file.path())!)
}

test('a fan into a board with the saws one owns, and its template in three formats', async ({ page, demo }) => {
  // a job of its own, so that the shared one stays as it is
  const { plan } = (await (await page.request.get(`${demo.url}/api/jobs/job-telescope-mirror`)).json()) as {
    plan: object
  }
  const made = await page.request.post(`${demo.url}/api/jobs/job-telescope-mirror/variants`, {
    data: { name: 'Cut into a board', plan },
  })
  const { id } = ((await made.json()) as { plan: { job: { id: string } } }).plan.job
  await page.goto(`${demo.url}/job/${id}/line-up`)
  await goTo(page, 'Fit')
  // a fan of 92 mm: 88 mm wanted; of the drawer's saws the one of 86 mm is the nearest
  const saw = page.getByRole('row').filter({ hasText: '86 mm' })
  await expect(saw).toContainText('yours')
  await press(page, 'Take 86 mm')
  await expect(saw).toContainText('taken')
  await expect(figure(page, 'Between hole and screw holes')).toContainText('13.1 mm')

  await piece(page, 'Panel and guard')
  await choose(page, 'Cut into', 'wood')
  await type(page, 'Panel, thickness', '9 mm')
  await type(page, 'Gasket, free', '2 mm')
  await choose(page, 'Guard', 'wire rings')
  await type(page, 'Guard, thickness', '1.2 mm')
  await type(page, 'Its openings', '8 mm')
  await type(page, 'Guard to blades', '12 mm')
  await expect(page.getByText(/Guard 12\smm from the blades, 20\smm needed/)).toBeVisible()
  await type(page, 'Guard to blades', '22 mm')
  await expect(page.getByText(/needed for its openings/)).toHaveCount(0)

  await piece(page, 'How it is held')
  await choose(page, 'Held by', 'screws through both flanges')
  // 1.2 + 9 + 1 + 25, washers, nut and two pitches: 42.4, so 45
  await expect(page.getByText(/M4 × 45\smm, 2 washers each/)).toBeVisible()
  await type(page, 'Screws in the drawer', '40 mm')
  await expect(page.getByText(/40\smm screw for/)).toBeVisible()
  await type(page, 'Screws in the drawer', '45 mm')
  await expect(page.getByText(/screw for/)).toHaveCount(0)
  // a hole larger than the panel is told where it happens
  await piece(page, 'Panel and guard')
  await type(page, 'Panel, width', '80 mm')
  await expect(page.getByText(/A hole of 86\smm in a panel of 80\smm/)).toBeVisible()
  await type(page, 'Panel, width', '300 mm')
  // a panel of nothing is refused beside its field
  await page.getByLabel('Panel, thickness').fill('0')
  await page.getByLabel('Panel, thickness').blur()
  await expect(page.getByText(/Not below/)).toBeVisible()
  await type(page, 'Panel, thickness', '9 mm')

  await piece(page, 'Template')
  await expect(page.getByText('measure me')).toBeVisible()
  const svg = (await download(page, /^SVG$/)).toString()
  expect(svg.match(/<circle class="cut" [^>]*r="([\d.]+)"/)?.[1]).toBe('43.000')
  expect(/width="[\d.]+mm"/.test(svg)).toBe(true)
  const dxf = (await download(page, /^DXF$/)).toString()
  expect(/CIRCLE[\s\S]*cut/.test(dxf)).toBe(true)
  const pdf = await download(page, /^PDF, A4$/)
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map((v) => `${v.id} ${v.nodes[0]?.html}`)).toEqual([])
  await saved(page)
  await page.reload()
  await expect(page.getByText(/M4 × 45\smm/)).toBeVisible()
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('without a fan the station says what to do; a finding leads to its field', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/fit`)
  await expect(page.getByText('Pick a fan in the Line-up')).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit`)
  await expect(page.getByText(/20\smm screw where 5\smm is clamped/)).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit#field-screwM`)
  await expect(page.getByLabel('Screws in the drawer')).toBeVisible()
})
