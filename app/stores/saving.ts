import type { PlanDocument } from '#core/document'

/** Saving of jobs in the background: each job has its own queue of one, whichever job is open. */

export type SaveState = 'saved' | 'saving' | 'unsaved' | 'failed' | 'conflict'

/** A job as it is held in this browser, with the revision that it stands on. */
export interface Draft {
  plan: PlanDocument
  revision: number
  /** as the server had it at that revision; null where nobody knows any more */
  base?: PlanDocument | null
  /** what was sent from here and never answered: it may stand there by now */
  unsure?: PlanDocument | null
}
export type SaveAnswer =
  /** with the plan where the server put it together with what somebody else saved */
  | { ok: true; revision: number; plan?: PlanDocument; twice?: string[] }
  | { ok: false; kind: 'conflict' | 'offline' | 'refused'; message: string }

/** What saving needs of the world around it. */
export interface SavingPorts {
  put: (plan: PlanDocument, revision: number) => Promise<SaveAnswer>
  keepDraft: (draft: Draft) => void
  dropDraft: (id: string) => void
  /** what two sides made of a plan, put together; null where they changed the same thing */
  join: (base: PlanDocument, mine: PlanDocument, theirs: PlanDocument) => PlanDocument | null
  /** the plan is now this one: what somebody else saved is in it; some steps of the build were ticked by both */
  joined: (plan: PlanDocument, twice: readonly string[]) => void
  /** told after each step of a job */
  told: (id: string, state: SaveState, message: string, revision: number) => void
}

interface Track extends Draft {
  base: PlanDocument | null
  unsure: PlanDocument | null
  state: SaveState
  message: string
  /** the request that is under way */
  sending: Promise<void> | null
  timer: ReturnType<typeof setTimeout> | undefined
}

export const SAVE_AFTER_MS = 350
const RETRY_MS = 2500

export function createSaving({ put, keepDraft, dropDraft, join, joined, told }: SavingPorts) {
  const tracks = new Map<string, Track>()

  function tell(track: Track, state: SaveState, message = '') {
    track.state = state
    track.message = message
    told(track.plan.job.id, state, message, track.revision)
  }

  function schedule(track: Track, after: number) {
    clearTimeout(track.timer)
    track.timer = setTimeout(() => void flush(track), after)
  }

  /** Sends a job as it stands; what changes meanwhile is sent behind it. */
  async function flush(track: Track): Promise<void> {
    clearTimeout(track.timer)
    if (track.sending) return track.sending
    if (track.state === 'saved' || track.state === 'conflict') return
    track.sending = send(track)
    await track.sending
  }

  async function send(track: Track): Promise<void> {
    // what was sent and never answered goes first, as it was: the server knows it again
    const sent = track.unsure ?? track.plan
    const answer = await put(sent, track.revision)
    track.sending = null
    track.unsure = !answer.ok && answer.kind === 'offline' ? sent : null
    if (answer.ok) return taken(track, sent, answer)
    if (answer.kind === 'conflict') return tell(track, 'conflict', answer.message)
    if (answer.kind === 'refused') {
      if (track.plan !== sent) return schedule(track, 0)
      return tell(track, 'failed', answer.message)
    }
    keepDraft(track)
    tell(track, 'unsaved', answer.message)
    schedule(track, RETRY_MS)
  }

  /** The server has what was sent, perhaps with what somebody else saved. */
  function taken(track: Track, sent: PlanDocument, answer: SaveAnswer & { ok: true }) {
    const stands = answer.plan ?? sent
    if (track.plan === sent) track.plan = stands
    else if (answer.plan) {
      const next = join(sent, track.plan, stands)
      // changed here meanwhile as well, and otherwise: a person decides
      if (!next) {
        track.base = sent
        return tell(track, 'conflict', 'It was changed elsewhere while you typed.')
      }
      track.plan = next
    }
    Object.assign(track, { revision: answer.revision, base: stands })
    if (answer.plan) joined(track.plan, answer.twice ?? [])
    if (track.plan !== stands) {
      keepDraft(track)
      tell(track, 'saving')
      return schedule(track, 0)
    }
    dropDraft(sent.job.id)
    tell(track, 'saved')
  }

  const trackOf = (id: string) => tracks.get(id)

  return {
    /**
     * A job as it was read from the server; anything known of it before is forgotten.
     * @param state `conflict` where a draft of this browser stands on another revision
     */
    begin(
      plan: PlanDocument,
      revision: number,
      state: 'saved' | 'conflict' = 'saved',
      message = '',
      base: PlanDocument | null = plan,
    ): void {
      clearTimeout(tracks.get(plan.job.id)?.timer)
      const track: Track = {
        plan,
        base,
        unsure: null,
        revision,
        state,
        message,
        sending: null,
        timer: undefined,
      }
      tracks.set(plan.job.id, track)
      tell(track, state, message)
    },
    /** A change: kept in the browser at once, sent a moment later. */
    changed(plan: PlanDocument, after = SAVE_AFTER_MS): void {
      const track = tracks.get(plan.job.id)
      if (!track) return
      track.plan = plan
      keepDraft(track)
      if (track.state === 'conflict') return
      if (track.state === 'saved' || track.state === 'failed') tell(track, 'saving')
      schedule(track, after)
    },
    /** After a conflict: this version goes on top of the server's revision. */
    async keep(id: string, revision: number): Promise<void> {
      const track = tracks.get(id)
      if (!track) return
      Object.assign(track, { revision, unsure: null })
      tell(track, 'saving')
      await flush(track)
    },
    /** What both sides of a conflict began with, and how it stands here; null where the first is not known. */
    sides(id: string): { base: PlanDocument; mine: PlanDocument } | null {
      const track = trackOf(id)
      return track?.base ? { base: track.base, mine: track.plan } : null
    },
    /** After a conflict that was put together: this plan goes on top of what the server has. */
    async together(plan: PlanDocument, theirs: PlanDocument, revision: number): Promise<void> {
      const track = tracks.get(plan.job.id)
      if (!track) return
      Object.assign(track, { plan, base: theirs, revision, unsure: null })
      keepDraft(track)
      tell(track, 'saving')
      await flush(track)
    },
    async retry(id: string): Promise<void> {
      const track = tracks.get(id)
      if (!track || track.state === 'conflict') return
      tell(track, 'saving')
      await flush(track)
    },
    /**
     * Brings a job to rest before it is read anew: waits for what is under way and sends what is waiting.
     * @returns what is still unsaved here, null where the server has everything
     */
    async settle(id: string): Promise<(Draft & Pick<Track, 'state' | 'message'>) | null> {
      const track = trackOf(id)
      if (!track) return null
      if (track.sending) await track.sending
      if (track.state === 'saving' || track.state === 'unsaved') await flush(track)
      const { plan, base, unsure, revision, state, message } = track
      return state === 'saved' ? null : { plan, base, unsure, revision, state, message }
    },
  }
}
