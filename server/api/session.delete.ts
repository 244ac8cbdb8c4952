import { deleteCookie } from 'h3'
import type { Session } from '#shared/api'
import { isLocked } from '../utils/password'
import { TICKET } from '../utils/guard'
import { route } from '../utils/reply'

/** This browser leaves. */
export default route(async (event): Promise<Session> => {
  deleteCookie(event, TICKET, { path: '/' })
  return { locked: isLocked(), inside: !isLocked() }
})
