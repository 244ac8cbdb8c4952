import type { Fan, Goal, PlanDocument } from '../core/plan/document'
import type { Station } from '../core/plan/stations'

/** What the server answers with. */
export interface ApiError { error: { code: string, message: string, field?: string } }
export interface StoredPlan { plan: PlanDocument, revision: number, updatedAt: string }
export interface StoredFan { fan: Fan, revision: number }
export interface JobSummary { id: string, name: string, goal: Goal, equipment: string, revision: number, updatedAt: string, stations: Station[], stops: number, fixes: number, waitsFor: string }
/** One of a job's variants, with the figures they are compared by. */
export interface VariantSummary { id: string, name: string, fan: string, driveV: number | null, flow: number | null, margin: number | null, level: number | null, powerW: number | null, cost: number | null, stops: number }
/** Most fans that one page of the shelf holds. */
export const MOST_ON_PAGE = 500
/** A page of the shelf, what the shelf may be narrowed to, and a picture that belongs to a fan. */
export interface FanPage { fans: StoredFan[], total: number }
export interface ShelfFacets { frames: number[], volts: number[], total: number }
export interface Attachment { id: string, name: string, mediaType: 'image/png' | 'image/jpeg' | 'image/webp' | 'application/pdf', size: number }
