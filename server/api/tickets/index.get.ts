import type { TicketShown } from '#shared/api'
import { route } from '../../utils/reply'
import { ticketOf, tickets } from '../../utils/tickets'

/** The browsers that are signed in. */
export default route('inside', async (event): Promise<TicketShown[]> => {
  const own = await ticketOf(event)
  return (await tickets()).map(({ id, agent, madeAt, seenAt, endsAt }) => ({
    id,
    agent,
    madeAt: madeAt.toISOString(),
    seenAt: seenAt.toISOString(),
    endsAt: endsAt.toISOString(),
    own: id === own?.id,
  }))
})
