import { deleteCookie } from 'h3'
import type { Session } from '#shared/api'
import { isLocked } from '../../utils/password'
import { endOf, TICKET, ticketOf } from '../../utils/tickets'
import { route } from '../../utils/reply'

/** This browser leaves: its ticket serves no more, wherever it is kept. */
export default route('anyone', async (event): Promise<Session> => {
  const ticket = isLocked() ? await ticketOf(event) : null
  if (ticket) await endOf(ticket.id)
  deleteCookie(event, TICKET, { path: '/' })
  return { locked: isLocked(), inside: !isLocked() }
})
