import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { drawPdf } from './pdf'
import {
  addElement,
  beginEmpty,
  choose,
  expect,
  goTo,
  pickFan,
  press,
  saved,
  test,
  type,
  undo,
  violations,
} from './app'

const piece = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).press('Space')
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

  await piece(page, 'Panel')
  await choose(page, 'Cut into', 'wood')
  await type(page, 'Panel, thickness', '9 mm')
  await type(page, 'Gasket, free', '2 mm')
  await piece(page, 'Guards')
  await choose(page, 'Guard', 'wire rings')
  await type(page, 'Guard, thickness', '1.2 mm')
  await type(page, 'Its openings', '8 mm')
  await type(page, 'Guard to blades', '12 mm')
  await expect(page.getByText(/Guard 12\smm from the blades, 20\smm needed/)).toBeVisible()
  await type(page, 'Guard to blades', '22 mm')
  await expect(page.getByText(/needed for its openings/)).toHaveCount(0)

  await piece(page, 'Mount')
  await choose(page, 'Held by', 'screws through both flanges')
  // 1.2 + 9 + 1 + 25, washers, nut and two pitches: 42.4, so 45
  await expect(page.getByText(/M4 × 45\smm, 2 washers each/)).toBeVisible()
  await type(page, 'Screws in the drawer', '40 mm')
  await expect(page.getByText(/40\smm screw for/)).toBeVisible()
  await type(page, 'Screws in the drawer', '45 mm')
  await expect(page.getByText(/screw for/)).toHaveCount(0)
  // a hole larger than the panel is told where it happens
  await piece(page, 'Panel')
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
  expect(await violations(page, { least: 'any' })).toEqual([])
  await saved(page)
  await page.reload()
  await expect(page.getByText(/M4 × 45\smm/)).toBeVisible()
  await page.request.delete(`${demo.url}/api/jobs/${id}`)

  // printed it measures true: the ruler in pixels, every circle in the file itself
  const [sheet] = await drawPdf(page, pdf)
  expect(sheet!.text).toContain('measure me')
  expect(sheet!.widthMm).toBeCloseTo(210, 0)
  expect(sheet!.runsMm.some((l) => Math.abs(l - 100) < 0.3)).toBe(true)
  const rounds = sheet!.roundsMm
  const hole = rounds.find((c) => Math.abs(c.w - 86) < 0.01)!
  expect(hole).toBeDefined()
  const screws = rounds.filter((c) => Math.abs(c.w - 4.5) < 0.01)
  const from = screws.map((c) => [Math.abs(c.x - hole.x), Math.abs(c.y - hole.y)])
  expect(from).toHaveLength(4)
  for (const d of from.flat()) expect(Math.abs(d - 41.25)).toBeLessThan(0.01)
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
  await pickFan(page, /^Pick 4 × /)
  await goTo(page, 'Fit')
  await piece(page, 'Template')
  await piece(page, 'Whole panel')
  await expect(page.getByText('Tell width and height of the panel')).toBeVisible()
  await piece(page, 'Panel')
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
  // beside a beam in the middle two go above it and two below
  await type(page, 'Panel, height', '30 cm')
  await press(page, '+ Keep clear')
  await type(page, 'From below', '14 cm')
  await type(page, 'Height', '2 cm')
  await expect(page.getByText(/side by side/)).toHaveCount(0)
  // by hand: on the beam it is a stop, and undone it stands free again
  await piece(page, 'On the panel')
  const first = page.getByRole('button', { name: /^Fan 1, / })
  await first.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowUp')
  await expect(page.getByText('A fan stands on what is to be kept clear')).toBeVisible()
  await expect(first).toHaveAccessibleName(/does not fit there/)
  await press(page, 'Spread evenly')
  await expect(page.getByText('A fan stands on what is to be kept clear')).toHaveCount(0)
  // dragged to the left edge it stands over it
  const box = (await first.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x - box.width, box.y + box.height / 2, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByText('A fan stands over the edge of the panel')).toBeVisible()
  await type(page, 'Its middle, from the left', '7 cm')
  await expect(page.getByText('A fan stands over the edge of the panel')).toHaveCount(0)
  await press(page, 'Spread evenly')
  await press(page, 'Remove Beam')
  // a lower panel has room for three
  await type(page, 'Panel, height', '15 cm')
  await expect(page.getByText(/4 side by side, and frame to frame the panel takes 3/)).toBeVisible()
  await expect(page.getByText('it has room for 3.')).toBeVisible()
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('a tight space: the gap is counted in the air path, moves the operating point, and is corrected', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-battery-locker/fit`)
  await expect(page.getByText('Gap before the fan: not counted')).toBeVisible()
  const flow = page.locator('.rail').getByText(/Line-up/)
  await expect(flow).toBeVisible()
  await type(page, 'Depth for the fan', '33 mm')
  await press(page, 'Gap before the fan: Count it there')
  await expect(page.getByText('Gap before the fan: counted in the air path')).toBeVisible()
  await expect(page.getByRole('region', { name: /^Air path from/ })).toContainText('Gap before')
  await type(page, 'Depth for the fan', '60 mm')
  await expect(page.getByText('counts it with other values')).toBeVisible()
  await press(page, 'Gap before the fan: Correct it there')
  await expect(page.getByText('Gap before the fan: counted in the air path')).toBeVisible()
  // where nothing is left of it, it is taken out
  await type(page, 'Depth for the fan', '24 mm')
  await expect(page.getByText('counted in the air path, and no longer there')).toBeVisible()
  await press(page, 'Take it out')
  await expect(page.getByText('no longer there')).toHaveCount(0)
  await undo(page, 6)
})

test('a moving part: its unknown travel is told, then how far it strikes', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-film-cabinet/fit`)
  await press(page, '+ Something in the way')
  await type(page, 'In the way', 'Clip rail')
  await type(page, 'From the panel', '50 mm')
  await choose(page, 'It', 'moves')
  await expect(page.getByText('It moves, and nobody said how far')).toBeVisible()
  await type(page, 'Comes nearer by', '30 mm')
  await expect(page.getByText(/It comes to 20\smm from the panel/)).toBeVisible()
  await expect(page.getByText(/Clip rail: strikes the fan by 6\smm/)).toBeVisible()
  await type(page, 'Comes nearer by', '10 mm')
  await expect(page.getByText(/Clip rail: 14\smm left/)).toBeVisible()
  await undo(page, 6)
})

test('a blower gives way to an axial fan: what no longer fits is said, and an adapter leads to the hose', async ({
  page,
  demo,
}) => {
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Brief')
  await choose(page, 'The fan', 'draws out')
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', '15 W')
  await type(page, 'Highest temperature inside', '40 C')
  await goTo(page, 'Air path')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '60 cm2')
  await addElement(page, 'Fan')
  await goTo(page, 'Line-up')
  await press(page, 'More filters')
  await type(page, 'Maker, model or note', 'sorrel')
  await pickFan(page, /^Pick 1 × .*Sorrel/)
  await goTo(page, 'Fit')
  // a blower has no pattern: its own lugs and outlet are measured
  await piece(page, 'Mount')
  await expect(page.getByText('Blowers have no usual pattern')).toBeVisible()
  await choose(page, 'Against the panel', 'its outlet')
  await type(page, 'Outlet, width', '26 mm')
  await type(page, 'Outlet, height', '20 mm')
  await type(page, 'Intakes', '2')
  await piece(page, 'Template')
  const slot = (await download(page, /^SVG$/)).toString()
  expect(slot).toContain('#b3202c')
  await choose(page, 'Against the panel', 'its flat side')
  await expect(page.getByText(/One of the blower.s two intakes/)).toBeVisible()
  await choose(page, 'Against the panel', 'its outlet')
  await piece(page, 'Place')
  await type(page, 'Hole, there or to cut', '40 mm')
  await type(page, 'Screw holes there', '40 mm')

  await goTo(page, 'Line-up')
  await press(page, 'More filters')
  await type(page, 'Maker, model or note', 'sedge 80')
  await pickFan(page, /^Pick 1 × .*Sedge 80/)
  await expect(page.getByText(/Does not fit this fan: hole 40\smm, screw holes 40\smm/)).toBeVisible()
  await press(page, 'See Fit')
  await expect(page.getByText(/Does not fit: hole 40\smm, smaller than the blades/)).toBeVisible()
  await press(page, 'Take 76 mm')
  await expect(page.getByText(/hole 76\smm/).first()).toBeVisible()
  await piece(page, 'Hose')
  await press(page, /^Take a hose of 63/)
  await expect(figure(page, 'Adapter costs')).toBeVisible()
  await press(page, 'Adapter: Count it there')
  await expect(page.getByText('Adapter: counted in the air path')).toBeVisible()
  await piece(page, 'Template')
  await page.getByRole('radio', { name: 'Adapter', exact: true }).first().press('Space')
  await expect(page.getByText(/Ø 76 to Ø 63, 12 long/)).toBeVisible()
  const dxf = (await download(page, /^DXF$/)).toString()
  expect(dxf.match(/^ARC$/gm)).toHaveLength(2)
  await saved(page)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('a panel over several sheets: each at true scale, with its own ruler', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-print-rack/fit`)
  await piece(page, 'Template')
  await piece(page, 'Whole panel')
  const pdf = await download(page, /^PDF, Letter$/)
  const sheets = await drawPdf(page, pdf)
  expect(sheets.length).toBeGreaterThan(1)
  for (const [i, sheet] of sheets.entries()) {
    expect(sheet.widthMm).toBeCloseTo(279.4, 0)
    expect(sheet.text).toMatch(/[AB][12] of B2: lay the crosses on each other/)
    expect(
      sheet.runsMm.some((l) => Math.abs(l - 100) < 0.3),
      `ruler of sheet ${i + 1}`,
    ).toBe(true)
  }
  // all four holes are somewhere, each of 86 mm
  const holes = sheets.flatMap((s) => s.roundsMm).filter((c) => Math.abs(c.w - 86) < 0.01)
  expect(holes.length).toBeGreaterThanOrEqual(4)
})

test('fans at two places: each has its own panel, and its findings say which', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-tape-rack/fit`)
  await expect(page.getByText(/M4 × 30\smm|M4 × 25\smm/).first()).toBeVisible()
  await piece(page, 'Back')
  await expect(page).toHaveURL(/place=place-2-main/)
  await expect(page.getByLabel('Depth for the fan')).toHaveValue('45 mm')
  await type(page, 'Depth for the fan', '20 mm')
  await expect(page.getByText(/^Back$|Back:/).first()).toBeVisible()
  await expect(page.getByText(/25\smm fan and 0\smm parts in 20\smm/)).toBeVisible()
  await piece(page, 'Floor')
  await expect(page.getByLabel('Depth for the fan')).toHaveValue('50 mm')
  await expect(page.getByText(/25\smm fan and 0\smm parts in 20\smm/)).toHaveCount(0)
  await undo(page, 1)
})

test('without a fan the station says what to do; a finding leads to its field', async ({ page, demo }) => {
  await page.goto(`${demo.url}/job/job-kiln-controller/fit`)
  await expect(page.getByText('Pick a fan in the Line-up')).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit`)
  await expect(page.getByText(/20\smm screw where 5\smm is clamped/)).toBeVisible()
  await page.goto(`${demo.url}/job/job-battery-locker/fit#field-screwM`)
  await expect(page.getByLabel('Screws in the drawer')).toBeVisible()
})
