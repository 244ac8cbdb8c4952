import { chromium } from '@playwright/test'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
const c = await b.newContext({ viewport: { width: 1280, height: 800 } })
const c2 = await b.newContext({ userAgent: 'Mozilla/5.0 (Linux; Android 14) Mobile', viewport: { width: 390, height: 844 } })
const enter = async (ctx) => { const p = await ctx.newPage(); await p.goto('http://127.0.0.1:4556/enter'); await p.getByLabel('Password').first().fill('nine tarn lane kettles'); await p.keyboard.press('Enter'); await p.waitForURL('http://127.0.0.1:4556/'); return p }
const phone = await enter(c2); const p = await enter(c)
await p.goto('http://127.0.0.1:4556/backup'); await p.waitForTimeout(9000)
await p.reload(); await p.waitForTimeout(2500)
await p.screenshot({ path: '/tmp/a.png' })
await phone.goto('http://127.0.0.1:4556/backup'); await phone.waitForTimeout(2500); await phone.screenshot({ path: '/tmp/b.png', fullPage: true })
// the other browser is signed out here, and sees the door
await p.getByRole('button', { name: /Sign out Phone/ }).click(); await p.waitForTimeout(600)
await phone.goto('http://127.0.0.1:4556/'); await phone.waitForTimeout(2500); console.log(phone.url())
await b.close()
