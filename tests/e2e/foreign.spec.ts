import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { expect, test } from './app'

/** A page of another place, open in the same browser: it writes nothing, reads nothing and shows nothing of the workshop. */

test('a foreign page cannot change, read or frame the workshop', async ({ page, demo, quiet }) => {
  const target = `${demo.url}/api/settings`
  const before = await (await page.request.get(target)).text()
  const site = createServer((_, response) =>
    response.writeHead(200, { 'content-type': 'text/html' }).end(`<!doctype html><title>Foreign</title>
      <form id="f" method="post" target="out" action="${demo.url}/api/jobs"><input name="name" value="planted"></form>
      <form id="t" method="post" enctype="text/plain" target="out" action="${demo.url}/api/jobs">
        <input name='{"name":"planted","x":"' value='"}'></form>
      <iframe name="out"></iframe><iframe id="app" src="${demo.url}/"></iframe>`),
  )
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done))
  const { port } = site.address() as AddressInfo
  try {
    await page.goto(`http://localhost:${port}/`)
    const tried = await page.evaluate(async (url) => {
      const attempt = async (init: RequestInit) => {
        try {
          const answer = await fetch(url, init)
          return answer.type === 'opaque' ? 'opaque' : `${answer.status}`
        } catch {
          return 'stopped'
        }
      }
      const body = JSON.stringify({ values: {} })
      return {
        json: await attempt({ method: 'PUT', body, headers: { 'content-type': 'application/json' } }),
        text: await attempt({ method: 'POST', mode: 'no-cors', body }),
        read: await attempt({}),
      }
    }, target)
    expect(tried).toEqual({ json: 'stopped', text: 'stopped', read: 'stopped' })
    for (const form of ['#f', '#t']) {
      await page.evaluate((id) => document.querySelector<HTMLFormElement>(id)!.submit(), form)
      await page.waitForTimeout(300)
    }
    // the app does not show itself in a foreign frame
    await expect(page.frameLocator('#app').getByRole('heading')).toHaveCount(0)
  } finally {
    site.close()
  }
  expect(await (await page.request.get(target)).text()).toBe(before)
  const jobs = (await (await page.request.get(`${demo.url}/api/jobs`)).json()) as { name: string }[]
  expect(jobs.filter((j) => j.name.includes('planted'))).toEqual([])
  // the browser tells what it stopped
  quiet.length = 0
})

test('a name that points here by a trick is not answered; own pages run only their own scripts', async ({
  page,
  demo,
  quiet,
}) => {
  const { hostname, port } = new URL(demo.url)
  const status = await new Promise<number>((done, failed) => {
    request(
      { host: hostname, port, path: '/api/jobs', headers: { host: `evil.example:${port}` } },
      (response) => done(response.statusCode ?? 0),
    )
      .once('error', failed)
      .end()
  })
  expect(status).toBe(421)
  const answer = await page.goto(demo.url)
  const headers = answer!.headers()
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'")
  expect(headers['x-content-type-options']).toBe('nosniff')
  const ran = await page.evaluate(() => {
    const script = document.createElement('script')
    script.textContent = 'window.planted = true'
    document.head.append(script)
    return 'planted' in window
  })
  expect(ran).toBe(false)
  // the browser tells what it stopped
  expect(quiet.every((m) => m.includes('Content Security Policy'))).toBe(true)
  quiet.length = 0
})
