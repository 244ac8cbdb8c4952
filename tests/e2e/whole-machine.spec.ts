import type { Page } from '@playwright/test'
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
} from './app'

/** Whole machines from an empty job to the verdict, by keyboard. */

async function findings(page: Page): Promise<string> {
  await press(page, /^Findings: /)
  const text = await page.getByRole('dialog').innerText()
  await page.keyboard.press('Escape')
  return text
}

test('a hub fed by its own supply and steered by a header, from an empty job to the verdict', async ({
  page,
  demo,
}) => {
  test.setTimeout(120_000)
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', '150 W')
  await type(page, 'Highest temperature inside', '40 C')
  await press(page, '+ Temperature')
  await type(page, 'Temperature, at most', '42 C')
  await goTo(page, 'Air path')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '300 cm2')
  await addElement(page, 'Fan')
  await goTo(page, 'Line-up')
  await press(page, 'More filters')
  await type(page, 'Maker, model or note', 'teasel 140')
  await choose(page, 'How the fans may be driven', 'rated voltage')
  await pickFan(page, /^Pick 4 × /)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
  await mark(page, 'checkbox', /PWM/)

  // everything on the header first: the load is too much, and a hub alone has no supply
  await goTo(page, 'Power')
  await choose(page, 'Kind of source', 'Fan header of a board')
  await expect.poll(() => findings(page)).toMatch(/on a header for 1\sA/)
  await mark(page, 'radio', 'Lead to the fans')
  await press(page, 'Tach and PWM wires')
  await choose(page, 'Splitter or hub', 'powered hub')
  expect(await findings(page)).toContain('The powered hub has no supply of its own')

  // its own supply feeds it, the header becomes a further source that only steers
  await mark(page, 'radio', 'Source')
  await choose(page, 'Kind of source', 'Wall adapter, regulated')
  await type(page, 'Nominal voltage', '12 V')
  await type(page, 'It can give', '5 A')
  await press(page, '+ Source')
  await choose(page, 'Kind of source', 'Fan header of a board')
  await type(page, 'Name', 'Front header')
  await mark(page, 'radio', 'Lead to the fans')
  await press(page, 'Tach and PWM wires')
  await choose(page, 'PWM wire comes from', 'a header of the host')
  await choose(page, 'Tach wire leads to', 'a header of the host')
  const diagram = page.getByRole('region', { name: 'Wiring diagram' })
  await expect(diagram).toContainText('PWM, 1 tach, ground')
  await expect(diagram).toContainText('to Front header, pin 4')
  await choose(page, 'Grounds joined', 'no')
  expect(await findings(page)).toContain('are not joined')
  await choose(page, 'Grounds joined', 'yes')
  await type(page, 'PWM driver can sink', '10 mA')
  // four inputs of 5 mA are too much for it, two of the board's drivers are enough
  expect(await findings(page)).toContain('PWM inputs on one driver: 4')
  await type(page, 'PWM driver can sink', '50 mA')
  const left = await findings(page)
  expect(left).not.toMatch(/header for|hub has no supply|not joined|on one driver/)
  await page.getByRole('radio', { name: 'Wire list' }).press('Space')
  await expect(page.getByRole('row').filter({ hasText: 'PWM' }).first()).toContainText('Front header')
  await page.getByRole('radio', { name: 'Connection order' }).press('Space')
  await expect(page.getByText(/Its supply pin stays open and insulated/)).toBeVisible()

  await goTo(page, 'Log')
  for (const [button, line] of [
    ['+ Baseline', '47 C; ambient 24 C; soaked 2 h'],
    ['+ After a change', '37 C; ambient 24 C; soaked 2 h'],
  ] as const) {
    await press(page, button)
    await page.keyboard.type(line)
    await page.keyboard.press('Enter')
    await type(page, 'Load of the equipment', '150 W')
  }
  await saved(page)
  await goTo(page, 'Verdict')
  await expect(page.getByText('It worked: every target is met.')).toBeVisible()
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})

/** A stream of a machine: what it gives off, a slot, and the fan that is picked for it. */
async function stream(page: Page, name: string | null, heat: string, fan: string) {
  if (name) {
    await goTo(page, 'Brief')
    await press(page, 'Add an air stream')
    await type(page, 'Name of this air stream', name)
    await page.keyboard.press('Escape')
  }
  await goTo(page, 'Need')
  await type(page, 'Heat released inside', heat)
  await type(page, 'Highest temperature inside', '45 C')
  await goTo(page, 'Air path')
  await addElement(page, 'Opening')
  await type(page, 'Free area', '30 cm2')
  await addElement(page, 'Fan')
  await goTo(page, 'Line-up')
  await findAndPick(page, fan)
}
async function findAndPick(page: Page, fan: string) {
  if (!(await page.getByLabel('Maker, model or note', { exact: true }).isVisible()))
    await press(page, 'More filters')
  await type(page, 'Maker, model or note', fan)
  await choose(page, 'How the fans may be driven', 'rated voltage')
  await pickFan(page, /^Pick 1 × /)
  await expect(page.getByRole('button', { name: 'Give up the pick' })).toBeVisible()
}

test('a machine with four fans on two rails, changed one after another, from an empty job to the verdict', async ({
  page,
  demo,
}) => {
  test.setTimeout(180_000)
  const id = await beginEmpty(page, demo.url)
  await goTo(page, 'Need')
  await press(page, '+ Sound level')
  await type(page, 'Sound level, at most', '45')
  await page.getByLabel('Where').last().fill('chair')
  await page.getByLabel('Where').last().blur()
  await stream(page, null, '20 W', 'alder 60')
  await goTo(page, 'Power')
  await choose(page, 'Kind of source', 'Rail of the equipment')
  await type(page, 'Nominal voltage', '24 V')
  await type(page, 'It can give', '1 A')
  await press(page, '+ Source')
  await type(page, 'Name', 'Board rail')
  await type(page, 'It can give', '0.8 A')
  await stream(page, 'Board', '10 W', 'sedge 40')
  await stream(page, 'Supply', '12 W', 'sedge 60')
  await stream(page, 'Drum', '15 W', 'alder 60')

  // a 12 V fan hangs on the 12 V rail by itself; moved to the other one it is told by its name
  await goTo(page, 'Power')
  expect(await findings(page)).not.toMatch(/straight on/)
  await pick(page, page.getByLabel(/^Piece of the feed/), 'Board')
  await choose(page, 'Hangs on', 'Rail of the equipment')
  expect(await findings(page)).toMatch(/Board: 12\sV fan straight on 24\sV/)
  await choose(page, 'Hangs on', 'Board rail')
  expect(await findings(page)).not.toMatch(/straight on/)
  await saved(page)

  // as it was found, then one fan changed after another
  await goTo(page, 'Log')
  for (const [button, line] of [
    ['+ Baseline', '50 dB(A) chair, idle; 54 dB(A) chair, everything on'],
    ['+ After a change', '46 dB(A) chair, idle; 52 dB(A) chair, everything on'],
    ['+ After a change', '38 dB(A) chair, idle; 40 dB(A) chair, everything on'],
  ] as const) {
    await press(page, button)
    await page.keyboard.type(line)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('Reading in one line')).toHaveValue('')
  }
  await type(page, 'After change number', '2')
  await type(page, 'Name of the run', 'Both quiet ones in')
  await press(page, /^Stage by stage/)
  const idle = page.getByRole('group', { name: 'idle' })
  await pick(page, idle.getByLabel('Drum', { exact: true }), 'off')
  await expect(idle.getByLabel('Voltage, Drum')).toHaveCount(0)
  await idle.getByLabel('Voltage, Board').fill('7 V')
  await idle.getByLabel('Voltage, Board').blur()
  await saved(page)
  await page.reload()
  await press(page, /^Stage by stage/)
  await expect(page.getByRole('group', { name: 'idle' }).getByLabel('Voltage, Board')).toHaveValue('7 V')

  await goTo(page, 'Verdict')
  const level = page.getByRole('region', { name: 'Targets' }).getByRole('row').filter({ hasText: 'chair' })
  await expect(level).toContainText('looks met')
  await page.getByRole('link', { name: 'Noise ladder' }).press('Enter')
  // the prediction knows which fans the stage ran
  const drum = page.getByRole('row').filter({ has: page.getByRole('cell', { name: 'Drum', exact: true }) })
  await expect(drum).toContainText('off')
  await expect(drum).toContainText(/predicted ~\d/)
  await expect(page.getByRole('row').filter({ hasText: 'Both quiet ones in' })).toContainText(/40\sdB/)
  await page.request.delete(`${demo.url}/api/jobs/${id}`)
})
