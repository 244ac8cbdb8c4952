import { networkInterfaces } from 'node:os'
import { createServer, type IncomingMessage } from 'node:http'
import { defineNitroPlugin } from 'nitropack/runtime'
import { benchAddress } from '../utils/bench-address'
import { PASSED_ON } from '../utils/reply'

/**
 * A door for the boards on the bench network, and for nothing else: with REDPOLL_BENCH=host:port a second listener takes
 * readings (they need their token), while the pages and all other routes stay on this computer.
 */

/** Bytes of one message. */
const MOST = 2_000_000
const FAR_TOO_MUCH = 20_000_000
const PATH = '/api/instruments/readings'

async function bodyOf(request: IncomingMessage): Promise<string | null> {
  const parts: Buffer[] = []
  let size = 0
  for await (const part of request) {
    size += (part as Buffer).length
    // read to its end, so that the answer arrives; but not for ever
    if (size > FAR_TOO_MUCH) request.destroy()
    if (size <= MOST) parts.push(part as Buffer)
  }
  return size > MOST ? null : Buffer.concat(parts).toString('utf8')
}

/** An address that boards can reach: of all interfaces the first one to the outside. */
function reachable(host: string): string {
  if (host !== '0.0.0.0' && host !== '::') return host
  return (
    Object.values(networkInterfaces())
      .flat()
      .find((i) => i && !i.internal && i.family === 'IPv4')?.address ?? '127.0.0.1'
  )
}

export default defineNitroPlugin((nitro) => {
  const wanted = process.env.REDPOLL_BENCH
  if (!wanted) return
  const [, host, port] = /^(.+):(\d{1,5})$/.exec(wanted) ?? []
  if (!host || !port) {
    console.error(
      `[redpoll] The bench address ${wanted} cannot be read: host:port is wanted, such as 0.0.0.0:3100. Boards cannot send.`,
    )
    return
  }
  const server = createServer(async (request, response) => {
    const say = (status: number, body: unknown) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))
    // the path as it was sent: an address that cannot be read is answered too
    const [path, query = ''] = (request.url ?? '').split('?', 2)
    if (!path?.startsWith('/') || path.startsWith('//')) {
      response.setHeader('connection', 'close')
      return say(400, {
        error: { code: 'bad-address', message: `This address cannot be read: POST to ${PATH}.` },
      })
    }
    if (path !== PATH || request.method !== 'POST')
      return say(404, {
        error: {
          code: 'not-found',
          message: `Here boards POST their readings to ${PATH}; nothing else is answered.`,
        },
      })
    try {
      const body = await bodyOf(request)
      if (body === null)
        return say(413, { error: { code: 'too-large', message: 'At most 2 MB in one message.' } })
      const answer = await nitro.localFetch(query ? `${PATH}?${query}` : PATH, {
        method: 'POST',
        body,
        headers: {
          authorization: request.headers.authorization ?? '',
          'content-type': 'text/plain',
          [PASSED_ON]: request.socket.remoteAddress ?? '',
        },
      })
      response.writeHead(answer.status, { 'content-type': 'application/json' }).end(await answer.text())
    } catch {
      // a board that hangs up in the middle sends again
      response.destroy()
    }
  })
  server.once('error', (error) =>
    console.error(`[redpoll] Boards cannot send: ${wanted} may not be used (${error.message}).`),
  )
  server.listen(Number(port), host, () => {
    benchAddress.value = `http://${reachable(host)}:${port}${PATH}`
    console.log(`[redpoll] boards send to ${benchAddress.value}`)
  })
  nitro.hooks.hook('close', () => new Promise<void>((done) => server.close(() => done())))
})
