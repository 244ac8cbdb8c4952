import type { Page } from '@playwright/test'
import type { StoredPlan } from '#shared/api'
import {
  addElement,
  beginEmpty,
  choose,
  expect,
  goTo,
  mark,
  pick,
  pickFan,
  press,
  saved,
  test,
  type,
  undo,
  violations,
} from './app'

/** Shows another air stream. */
const show = (page: Page, name: string) => mark(page, 'radio', name)

/** A box to cool with a slot, a fan and a guard, and the quietest fan for it. */
async function planStream(page: Page, heat: string) {
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', heat)
  await type(page, 'Highest temperature inside', '45 C')
  await goTo(page, 'Air path')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '12 x 3 cm')
  await addElement(page, 'Fan')
  await goTo(page, 'Line-up')
  await pickFan(page, /^Pick 1 × /)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
}

test('a machine with fans on two rails, from an empty job by keyboard', async ({ page, demo }) => {
  const id = await beginEmpty(page, demo.url)
  // one stream: nothing of streams is seen but the offer
  await expect(page.getByRole('region', { name: 'Air streams of this job' })).toHaveCount(0)
  await planStream(page, '30 W')
  await goTo(page, 'Power')
  await choose(page, 'Kind of source', 'Rail of the equipment')
  await type(page, 'Nominal voltage', '24 V')
  await type(page, 'It can give', '1 A')
  await press(page, '+ Source')
  await type(page, 'Name', 'Board rail')
  await type(page, 'Nominal voltage', '12 V')
  await type(page, 'It can give', '0.8 A')

  await goTo(page, 'Brief')
  await press(page, 'Add an air stream')
  await expect(page.getByLabel('Name of this air stream')).toBeFocused()
  await type(page, 'Name of this air stream', 'Board')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('radio', { name: 'Board' })).toBeChecked()
  await planStream(page, '12 W')

  // the fans of the new stream hang straight on the first source until told otherwise
  await goTo(page, 'Power')
  await pick(page, page.getByLabel(/^Piece of the feed/), 'Step-down converter of Board')
  await choose(page, 'Hangs on', 'Board rail')
  await expect(page.getByRole('region', { name: 'Wiring diagram' })).toContainText('Board rail')
  await goTo(page, 'Brief')
  const machine = page.getByRole('region', { name: 'Air streams of the machine' })
  await expect(machine.getByRole('row').filter({ hasText: 'Board' })).toContainText('of the label')
  await expect(machine).toContainText('All fans together')

  // what is typed in one stream stays there; taking it away can be undone
  await show(page, 'Stream 1')
  await goTo(page, 'Need')
  await expect(page.getByLabel('Heat released inside', { exact: true })).toHaveValue('30 W')
  await goTo(page, 'Brief')
  await show(page, 'Board')
  await press(page, 'Name, order, remove')
  await press(page, 'Remove this stream')
  await expect(page.getByRole('region', { name: 'Air streams of this job' })).toHaveCount(0)
  await undo(page, 1)
  await expect(page.getByRole('radio', { name: 'Board' })).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('radio', { name: 'Board' })).toBeVisible()
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

test('the press of the print room: each stream on its own pages, the whole machine on the others', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.url}/job/job-stencil-press/line-up`)
  await show(page, 'Drum heater')
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
  await expect(page.getByRole('columnheader', { name: 'all, dB(A)' })).toBeVisible()
  await goTo(page, 'Power')
  const diagram = page.getByRole('region', { name: 'Wiring diagram' })
  await expect(diagram).toContainText('Machine rail 24 V')
  await expect(diagram).toContainText('Board rail 12 V')
  await expect(diagram).toContainText('2 × Bracken 80')
  // a 12 V fan hung on the 24 V rail is told by name, and leads to its lead
  await pick(page, page.getByLabel(/^Piece of the feed/), 'Board fan')
  await choose(page, 'Hangs on', 'Machine rail 24 V')
  await page.getByRole('button', { name: /^Findings: [1-9]\d* stop/ }).click()
  await expect(page.getByRole('dialog')).toContainText('Board fan: 12 V fan straight on 24 V')
  await page.keyboard.press('Escape')
  await undo(page, 1)
  await goTo(page, 'Brief')
  await show(page, 'Drying tray')
  await expect(page.getByLabel('Heard of it alone')).toHaveValue('31 dB(A)')
  for (const path of ['brief', 'line-up', 'power']) {
    await page.goto(`${demo.url}/job/job-stencil-press/${path}`)
    await expect(page.locator('main')).toBeVisible()
    expect(await violations(page, { least: 'any' }), path).toEqual([])
  }
})

test('a fan that is added from the line-up of a stream is that stream’s; the others keep theirs', async ({
  page,
  demo,
}) => {
  const picks = async () => {
    const { plan } = (await (
      await page.request.get(`${demo.url}/api/jobs/job-stencil-press`)
    ).json()) as StoredPlan
    return plan.streams.map((s) => s.places.flatMap((p) => p.fans.map((f) => f.fanId)).join() || null)
  }
  const before = await picks()
  await page.goto(`${demo.url}/job/job-stencil-press/line-up`)
  await show(page, 'Board')
  await page.getByRole('link', { name: 'Add a fan for this job' }).click()
  await page.getByLabel('Model').fill('Board find')
  await page.getByRole('button', { name: 'Put on the shelf and take it' }).click()
  await expect(page.getByRole('radio', { name: 'Board' })).toBeChecked()
  await expect(page.getByText('Board find is picked.')).toBeVisible()
  await saved(page)
  const after = await picks()
  expect(after[1]).not.toBe(before[1])
  expect(after.with(1, null)).toEqual(before.with(1, null))
  await undo(page, 1)
  await saved(page)
  expect(await picks()).toEqual(before)
})
