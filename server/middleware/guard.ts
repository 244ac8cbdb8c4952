import { defineEventHandler, getRequestHeader, getRequestURL, setResponseHeader, setResponseStatus } from 'h3'
import type { ApiError } from '#shared/api'
import { HEADERS, namesOf, refusalOf } from '../utils/guard'

const names = namesOf(
  process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1',
  (process.env.REDPOLL_NAMES ?? '').split(',').filter(Boolean),
)

/** Before every route: who asks, and what the browser is told about the answer. */
export default defineEventHandler((event): ApiError | undefined => {
  for (const [name, value] of Object.entries(HEADERS)) setResponseHeader(event, name, value)
  const header = (name: 'host' | 'origin' | 'sec-fetch-site' | 'content-type') => getRequestHeader(event, name)
  const refusal = refusalOf(
    {
      method: event.method,
      path: getRequestURL(event).pathname,
      host: header('host'),
      origin: header('origin'),
      site: header('sec-fetch-site'),
      contentType: header('content-type'),
    },
    names,
  )
  if (!refusal) return undefined
  setResponseStatus(event, refusal.status)
  setResponseHeader(event, 'content-type', 'application/json')
  return { error: { code: refusal.code, message: refusal.message } }
})
