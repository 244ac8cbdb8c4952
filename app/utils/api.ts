import type { ApiError } from '#shared/api'

/** Why nothing can be read or saved just now; '' where it can. Shown on every page. */
export const serverTrouble = ref('')
const UNANSWERED = 'The Redpoll server does not answer.'

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

/**
 * A server that has not answered after so long is not waited for: nothing says “saving” for ever. Files and whole workshops
 * take their time, ms.
 */
const PATIENCE_MS = 30_000
export const PATIENCE_LONG_MS = 3600_000

/** Requests that write and whose answer was lost, with the id that they came with: the same again is known there. */
const unsure = new Map<string, string>()
const MOST_UNSURE = 50
/** Not for secrets, only unlike all others: a page that came without a certificate has no other source. */
const newWriteId = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(15)), (b) => b.toString(16).padStart(2, '0')).join('')
/** How often it is asked again by itself where the answer was lost, and how long it is waited before, ms. */
const AGAIN = 3
const AGAIN_MS = 700

async function ask<T>(path: string, init: RequestInit, patience = PATIENCE_MS): Promise<ApiResult<T>> {
  const writes = init.method !== 'GET'
  const what = `${init.method} ${path} ${typeof init.body === 'string' ? init.body : ''}`
  const id = writes ? (unsure.get(what) ?? newWriteId()) : ''
  const headers = writes ? { ...init.headers, 'x-redpoll-write': id } : init.headers
  for (let tried = 0; ; tried++) {
    const { result, lost } = await askOnce<T>(path, { ...init, headers }, patience)
    if (writes && lost) {
      unsure.delete(what)
      unsure.set(what, id)
      if (unsure.size > MOST_UNSURE) unsure.delete(unsure.keys().next().value!)
    } else unsure.delete(what)
    // where nobody answers at all, whoever asked decides whether to go on
    if (lost !== 'not-known' || tried >= AGAIN) return result
    await new Promise((done) => setTimeout(done, AGAIN_MS))
  }
}

async function askOnce<T>(
  path: string,
  init: RequestInit,
  patience: number,
): Promise<{ result: ApiResult<T>; lost: 'unanswered' | 'not-known' | '' }> {
  let response: Response
  try {
    response = await fetch(`/api/${path}`, { ...init, signal: AbortSignal.timeout(patience) })
  } catch {
    serverTrouble.value = UNANSWERED
    return { result: { ok: false, kind: 'offline', message: UNANSWERED }, lost: 'unanswered' }
  }
  const json: unknown = await response.json().catch(() => null)
  if (response.ok && json !== null) {
    serverTrouble.value = ''
    return { result: { ok: true, data: json as T }, lost: '' }
  }
  const error = (json as ApiError | null)?.error
  const outside = error?.code === 'password'
  if (outside) askPassword()
  const away = error?.code === 'database-away' || error?.code === 'not-known'
  serverTrouble.value = away ? error.message : ''
  return {
    result: {
      ok: false,
      // what is not saved for want of the password is kept and sent later
      kind: outside ? 'offline' : (kinds[response.status] ?? (response.status >= 502 ? 'offline' : 'broken')),
      message: error?.message ?? 'The server gave an answer that cannot be read.',
      ...(error?.field ? { field: error.field } : {}),
    },
    lost: error?.code === 'not-known' ? 'not-known' : response.ok ? 'unanswered' : '',
  }
}

/** To the door, and back to this page from there. */
function askPassword() {
  const { pathname, search } = window.location
  if (pathname !== '/enter') void navigateTo({ path: '/enter', query: { to: pathname + search } })
}
