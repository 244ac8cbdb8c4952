import type { ApiError } from '#shared/api'

export type ApiResult<T> =
  | { ok: true; data: T }
  | {
      ok: false
      kind: 'offline' | 'refused' | 'conflict' | 'missing' | 'broken'
      message: string
      field?: string
    }

const kinds: Record<number, 'conflict' | 'missing' | 'refused'> = {
  400: 'refused',
  404: 'missing',
  409: 'conflict',
  422: 'refused',
}

/** Asks the server; every failure comes back as a value with a sentence that can be shown. */
export const api = <T>(
  path: string,
  options: { method?: 'GET' | 'POST' | 'PUT' | 'DELETE'; body?: unknown; patienceMs?: number } = {},
): Promise<ApiResult<T>> =>
  ask<T>(
    path,
    {
      method: options.method ?? 'GET',
      ...(options.body === undefined
        ? {}
        : { body: JSON.stringify(options.body), headers: { 'content-type': 'application/json' } }),
    },
    options.patienceMs,
  )

/** Sends a file as it is. */
export const sendFile = <T>(path: string, file: Blob): Promise<ApiResult<T>> =>
  ask<T>(
    path,
    { method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream' } },
    PATIENCE_LONG_MS,
  )

/** A server that has not answered after so long is not waited for: nothing says “saving” for ever. Files and whole workshops take their time, ms. */
const PATIENCE_MS = 30_000
export const PATIENCE_LONG_MS = 3600_000

async function ask<T>(path: string, init: RequestInit, patience = PATIENCE_MS): Promise<ApiResult<T>> {
  let response: Response
  try {
    response = await fetch(`/api/${path}`, { ...init, signal: AbortSignal.timeout(patience) })
  } catch {
    return { ok: false, kind: 'offline', message: 'The Redpoll server does not answer.' }
  }
  const json: unknown = await response.json().catch(() => null)
  if (response.ok && json !== null) return { ok: true, data: json as T }
  const error = (json as ApiError | null)?.error
  const outside = error?.code === 'password'
  if (outside) askPassword()
  return {
    ok: false,
    // what is not saved for want of the password is kept and sent later
    kind: outside ? 'offline' : (kinds[response.status] ?? (response.status >= 502 ? 'offline' : 'broken')),
    message: error?.message ?? 'The server gave an answer that cannot be read.',
    ...(error?.field ? { field: error.field } : {}),
  }
}

/** To the door, and back to this page from there. */
function askPassword() {
  const { pathname, search } = window.location
  if (pathname !== '/enter') void navigateTo({ path: '/enter', query: { to: pathname + search } })
}
