import type { Page } from '@playwright/test'
import { expect, test, type } from './app'

/** A chart drawn in the browser: a grid, another curve, and p = 50 (1 - (q/80)²) in red; 0 to 100 m³/h by 0 to 60 Pa. */
const drawn = (page: Page) =>
  page.evaluate(async () => {
    const canvas = document.createElement('canvas')
    canvas.width = 640
    canvas.height = 440
    const pen = canvas.getContext('2d')!
    pen.fillStyle = '#fff'
    pen.fillRect(0, 0, 640, 440)
    pen.strokeStyle = '#ccc'
    for (let i = 0; i <= 10; i++) {
      pen.strokeRect(60 + 50 * i, 50, 0.5, 350)
      pen.strokeRect(60, 50 + 35 * i, 500, 0.5)
    }
    const draw = (colour: string, f: (q: number) => number) => {
      pen.strokeStyle = colour
      pen.lineWidth = 3
      pen.beginPath()
      for (let q = 0; q <= 100; q += 0.5) {
        const p = f(q)
        if (p >= 0) pen.lineTo(60 + 5 * q, 400 - (p * 350) / 60)
      }
      pen.stroke()
    }
    draw('#1464b4', (q) => 0.008 * q * q)
    draw('#c8202c', (q) => 50 * (1 - (q / 80) ** 2))
    const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), 'image/png'))
    return [...new Uint8Array(await blob.arrayBuffer())]
  })

test('a curve is read off a picture to within 3 %, its points can be mended, and its reading error is kept', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/shelf/new`)
  const png = Buffer.from(await drawn(page))
  await type(page, 'Model', 'Traced 80')
  await page.getByRole('button', { name: 'Read it off a picture' }).click()
  const dialog = page.getByRole('dialog')
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') })
  await expect(dialog.getByRole('alert')).toContainText('not a picture')
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'broken.png', mimeType: 'image/png', buffer: Buffer.from('no picture either') })
  await expect(dialog.getByRole('alert')).toContainText('cannot be read')
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'chart.png', mimeType: 'image/png', buffer: png })

  const picture = dialog.getByRole('group', { name: 'Picture of the chart' })
  await expect(picture).toBeVisible()
  const box = (await picture.boundingBox())!
  const click = (x: number, y: number) =>
    picture.click({ position: { x: (x / 640) * box.width, y: (y / 440) * box.height } })
  await click(60, 400)
  await click(560, 400)
  await click(60, 400)
  await click(60, 50)
  await type(page, 'Flow axis, second mark', '100 m3/h')
  await type(page, 'Pressure axis, second mark', '60 Pa')
  await expect(dialog.getByText('Click on the curve: it is followed both ways.')).toBeVisible()
  await click(600, 30)
  await expect(dialog.getByRole('alert')).toContainText('no line where you clicked')
  await click(60 + 5 * 30, 400 - (50 * (1 - (30 / 80) ** 2) * 350) / 60)
  await expect(dialog.getByText(/reading error ±\d\.\d %/)).toBeVisible()

  // a point is taken away with the keyboard and the others stay
  const points = dialog.getByRole('button', { name: /^Point \d+: arrows/ })
  const before = await points.count()
  await points.nth(3).focus()
  await page.keyboard.press('Delete')
  await expect(points).toHaveCount(before - 1)
  await dialog.getByRole('button', { name: /^Take these/ }).click()
  // the second curve of the same picture: the axes stay, only its voltage is told
  await type(page, 'This curve is drawn at', '9 V')
  await click(60 + 5 * 50, 400 - (20 * 350) / 60)
  await dialog.getByRole('button', { name: /^Take these/ }).click()
  await page.keyboard.press('Escape')
  await expect(dialog).toBeHidden()
  await expect(page.getByText(/^9\sV/)).toBeVisible()

  const rows = before - 1
  for (let i = 1; i <= rows; i++) {
    const value = async (label: string) =>
      Number.parseFloat(await page.getByLabel(label, { exact: true }).first().inputValue())
    const q = await value(`Flow of point ${i}`)
    const p = await value(`Pressure of point ${i}`)
    expect(Math.abs(p - 50 * (1 - (q / 80) ** 2)), `point ${i} at ${q}`).toBeLessThan(0.03 * 50)
  }
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await page.getByRole('link', { name: 'Traced 80', exact: true }).click()
  await page.getByText('Body, price, and claims printed twice').click()
  await expect(page.getByLabel('Notes')).toHaveValue(/Curve read off a picture, reading error ±/)
})
