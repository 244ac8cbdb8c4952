import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { addElement, beginEmpty, choose, expect, goTo, mark, press, saved, test, type, undo } from './app'

const piece = (page: Page, name: string) => mark(page, 'radio', name)
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

test('four fans laid out on a panel: their pitch, and what a smaller one has room for', async ({
  page,
  demo,
}) => {
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', '150 W')
  await type(page, 'Highest temperature inside', '40 C')
  await goTo(page, 'Air path')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '300 cm2')
  await addElement(page, 'Fan')
  await goTo(page, 'Line-up')
  await press(page, 'More filters')
  await type(page, 'Maker, model or note', 'sedge 120')
  await press(page, /^Pick 4 × /)
  await goTo(page, 'Fit')
  await piece(page, 'Template')
  await piece(page, 'Whole panel')
  await expect(page.getByText('Tell width and height of the panel')).toBeVisible()
  await piece(page, 'Panel and guard')
  await type(page, 'Panel, width', '40 cm')
  await type(page, 'Panel, height', '40 cm')
  // two and two on 400 mm: 200 mm from middle to middle
  await expect(page.getByText(/200\smm from middle to middle, rows 200\smm apart/)).toBeVisible()
  const dxf = (await download(page, /^DXF$/)).toString()
  expect(dxf.match(/^CIRCLE$/gm)).toHaveLength(4 * 5)
  // a beam across it: the fans go beside it
  await press(page, '+ Keep clear')
  await type(page, 'From below', '28 cm')
  await type(page, 'Height', '3 cm')
  await expect(page.getByText('Beam: keep clear')).toBeVisible()
  await expect(page.getByText(/200\smm from middle to middle, rows 140\smm apart/)).toBeVisible()
  await press(page, 'Remove Beam')
  // a lower panel has room for three
  await type(page, 'Panel, height', '15 cm')
  await expect(page.getByText(/4 side by side, and the panel has room for 3/)).toBeVisible()
  await expect(page.getByText('it has room for 3.')).toBeVisible()
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('a tight space: the gap is counted in the air path, moves the operating point, and is corrected', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-battery-locker/fit`)
  await expect(page.getByText('Not counted in the air path.')).toBeVisible()
  await type(page, 'Depth for the fan', '33 mm')
  await press(page, 'Count it there')
  await expect(page.getByText('Counted in the air path as the free ring')).toBeVisible()
  await expect(page.getByRole('region', { name: /^Air path from/ })).toContainText('Gap before')
  await type(page, 'Depth for the fan', '60 mm')
  await expect(page.getByText('The air path counts another gap than this.')).toBeVisible()
  await press(page, 'Correct it there')
  await expect(page.getByText('Counted in the air path as the free ring')).toBeVisible()
  await undo(page, 4)
})

test('without a fan the station says what to do; a finding leads to its field', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/fit`)
  await expect(page.getByText('Pick a fan in the Line-up')).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit`)
  await expect(page.getByText(/20\smm screw where 5\smm is clamped/)).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit#field-screwM`)
  await expect(page.getByLabel('Screws in the drawer')).toBeVisible()
})
