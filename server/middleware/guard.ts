import {
  defineEventHandler,
  getCookie,
  getRequestHeader,
  getRequestURL,
  setResponseHeader,
  setResponseStatus,
} from 'h3'
import type { ApiError } from '#shared/api'
import { HEADERS, isInside, namesOf, OUTSIDE, refusalOf, TICKET } from '../utils/guard'
import { isLocked, isTicket } from '../utils/password'

const names = namesOf(
  process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1',
  (process.env.REDPOLL_NAMES ?? '').split(',').filter(Boolean),
)

/** Before every route: who asks, and what the browser is told about the answer. */
export default defineEventHandler((event): ApiError | undefined => {
  for (const [name, value] of Object.entries(HEADERS)) setResponseHeader(event, name, value)
  const header = (name: 'host' | 'origin' | 'sec-fetch-site' | 'content-type') => getRequestHeader(event, name)
  const path = getRequestURL(event).pathname
  const kept = isInside(path) && isLocked() && !isTicket(getCookie(event, TICKET))
  const refusal =
    refusalOf(
      {
        method: event.method,
        path,
        host: header('host'),
        origin: header('origin'),
        site: header('sec-fetch-site'),
        contentType: header('content-type'),
      },
      names,
    ) ?? (kept ? OUTSIDE : null)
  if (!refusal) return undefined
  setResponseStatus(event, refusal.status)
  setResponseHeader(event, 'content-type', 'application/json')
  return { error: { code: refusal.code, message: refusal.message } }
})
