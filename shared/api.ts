import type { Fan, Goal, PlanDocument } from '../core/plan/document'
import type { Station } from '../core/plan/stations'

/** What the server answers with. */
export interface ApiError { error: { code: string, message: string, field?: string } }
export interface StoredPlan { plan: PlanDocument, revision: number, updatedAt: string }
export interface StoredFan { fan: Fan, revision: number }
export interface JobSummary { id: string, name: string, goal: Goal, equipment: string, revision: number, updatedAt: string, stations: Station[], stops: number, fixes: number, waitsFor: string }
/** One of a job's variants, with the figures they are compared by. */
export interface VariantSummary { id: string, name: string, fan: string, driveV: number | null, flow: number | null, margin: number | null, level: number | null, powerW: number | null, cost: number | null, stops: number }
