import { defineEventHandler, getRequestHeader, setResponseHeader } from 'h3'
import type { ApiError } from '#shared/api'
import { HEADERS, namesOf, refusalOf } from '../utils/guard'
import { refuse } from '../utils/reply'

const names = namesOf(
  process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1',
  (process.env.REDPOLL_NAMES ?? '').split(',').filter(Boolean),
)

/** Before everything: by which name this server is called, from which page, and what the browser is told of the answer. */
export default defineEventHandler((event): ApiError | undefined => {
  for (const [name, value] of Object.entries(HEADERS)) setResponseHeader(event, name, value)
  const header = (name: 'host' | 'origin' | 'sec-fetch-site') => getRequestHeader(event, name)
  const refusal = refusalOf(
    { method: event.method, host: header('host'), origin: header('origin'), site: header('sec-fetch-site') },
    names,
  )
  if (refusal) return refuse(event, refusal)
  // who asks for the head gets that of the answer: its body is left out where it is sent
  if (event.method === 'HEAD') event._method = 'GET'
  return undefined
})
