import { getCookie } from 'h3'
import type { Session } from '#shared/api'
import { isLocked, isTicket } from '../utils/password'
import { TICKET } from '../utils/guard'
import { route } from '../utils/reply'

/** Whether this workshop asks for a password, and whether this browser gave it. */
export default route(async (event): Promise<Session> => ({
  locked: isLocked(),
  inside: !isLocked() || isTicket(getCookie(event, TICKET)),
}))
