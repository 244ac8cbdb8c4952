import type { Channel } from '#core/measure'
import type { Fan, Goal, PlanDocument } from '#core/document'
import type { Station } from '#core/plan'
import type { BoxOrder } from './schemas/log'

/** How far the server's start is, in words that a page shows. */
export interface Startup {
  ready: boolean
  /** the database server does not answer: it is waited for */
  away: boolean
  doing: string
}
/** Whether the workshop has a password, and whether this browser gave it. */
export interface Session {
  locked: boolean
  inside: boolean
}
/** A browser that is signed in. */
export interface TicketShown {
  id: string
  /** what it calls itself */
  agent: string
  madeAt: string
  seenAt: string
  endsAt: string
  /** the one that asks */
  own: boolean
}
/** What the server answers with where it cannot do what was asked. */
export interface ApiError {
  error: { code: string; message: string; field?: string }
}
export interface StoredPlan {
  plan: PlanDocument
  revision: number
  updatedAt: string
}
/** What a save came to; with the plan where it was put together with what somebody else saved meanwhile. */
export interface SavedPlan {
  revision: number
  updatedAt: string
  plan?: PlanDocument
  /** steps of the build that both sides ticked */
  twice?: string[]
}
export interface StoredFan {
  fan: Fan
  revision: number
}
export interface JobSummary {
  id: string
  /** the job this one is a variant of */
  variantOf: string | null
  name: string
  goal: Goal
  equipment: string
  revision: number
  updatedAt: string
  stations: Station[]
  stops: number
  fixes: number
  waitsFor: string
  /** why it cannot be read; '' where it can */
  problem: string
  /** how its stations stand is still being worked out: ask again */
  pending: boolean
}
/** One of a job's variants, with the figures they are compared by. */
export interface VariantSummary {
  id: string
  name: string
  fan: string
  driveV: number | null
  flow: number | null
  margin: number | null
  level: number | null
  powerW: number | null
  cost: number | null
  stops: number
}
/** How the workshop stands: marks that move with every change, and the open job's revision (null where it is gone). */
export interface Changes {
  bench: string
  shelf: string
  parts: string
  revision: number | null
  at: string
}
/** What happened to the shelf; `all` where it is too much to be told one by one. */
export interface FanChanges {
  all: boolean
  fans: StoredFan[]
  gone: string[]
}
/** What an import did, enough to take it back: what it made, what it changed as it was, and where it left each of them. */
export interface Imported {
  created: string[]
  before: Fan[]
  revisions: Record<string, number>
}
/** What was taken back, and which fans were left because somebody has changed them since. */
export interface Undone {
  undone: number
  left: string[]
}

/** What a fan of the shelf is called, and its frame, by which the shelf is put in order. */
export interface FanName {
  id: string
  maker: string
  model: string
  frameM: number
}
/** Most fans that one page of the shelf holds. */
export const MAX_ON_PAGE = 500
/** A page of the shelf, what the shelf may be narrowed to, and a picture that belongs to a fan. */
export interface FanPage {
  fans: StoredFan[]
  total: number
}
export interface ShelfFacets {
  frames: number[]
  volts: number[]
  total: number
}
export interface Attachment {
  id: string
  name: string
  mediaType: 'image/png' | 'image/jpeg' | 'image/webp' | 'application/pdf'
  size: number
}
/** A log without its samples. */
export interface LogSummary {
  id: string
  jobId: string
  instrumentId: string | null
  name: string
  origin: 'recorded' | 'imported'
  startedAt: string
  open: boolean
  remarks: string
  rows: number
  channels: Channel[]
  /** rows whose running numbers never came, rows that came twice, times the board's clock jumped, starts of the board */
  lost: number
  repeated: number
  clockJumps: number
  boots: number
  /** rows that came behind later ones */
  late: number
  /** false where an import was cut short */
  whole: boolean
}
/** What is known of an instrument now. */
export interface InstrumentState {
  id: string
  name: string
  kind: 'board' | 'serial' | 'stand-in'
  logId: string | null
  /** null before its first message since the server started */
  live: {
    ageS: number
    rateHz: number | null
    values: (Channel & { value: number | null })[]
    refused: number
    lastRefusal: string
    problem: string
    tachLost: boolean
  } | null
}
/** What a board is told: rows below `next` are safe and need not be sent again. */
export interface Receipt {
  accepted: number
  /** came before */
  repeated: number
  /** of those accepted: came behind rows that were sent after them */
  late: number
  /** 1 where a row whose running number leaps waits for the next one to confirm it */
  held: number
  refused: { line: number; why: string }[]
  log: string | null
  next: number
}

/** What the stand-in bench box is doing. */
export interface BoxState {
  jobId: string
  order: BoxOrder
  simulatedS: number
  /** what its control puts out, and whether its alarm sounds; null where it obeys none */
  steering: { duty: number; alarm: boolean } | null
}
