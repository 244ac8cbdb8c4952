import { send, setResponseHeaders, setResponseStatus } from 'h3'
import { defineNitroErrorHandler } from 'nitropack/runtime'
import type { ApiError } from '#shared/api'
import { HEADERS } from './utils/guard'

/** What is answered where no route does: in the shape of every other refusal. */
const WORDS: Record<number, [string, string]> = {
  400: ['bad-request', 'This request cannot be read.'],
  404: ['not-found', 'There is nothing at this address.'],
  405: ['not-allowed', 'This cannot be done at this address.'],
}
const BROKEN: [string, string] = ['internal', 'Something went wrong on the server.']

export default defineNitroErrorHandler((error, event) => {
  // it cannot be answered any more
  if (event.node.res.headersSent || event.node.res.destroyed) return
  const status = error.statusCode in WORDS ? error.statusCode : 500
  if (status === 500) console.error(error)
  const [code, message] = WORDS[status] ?? BROKEN
  const body: ApiError = { error: { code, message } }
  setResponseStatus(event, status)
  setResponseHeaders(event, {
    ...HEADERS,
    'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
    'cache-control': 'no-cache',
  })
  return send(event, JSON.stringify(body), 'application/json')
})
