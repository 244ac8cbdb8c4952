import { z } from 'zod'
import { fanSchema, idSchema, shortText, stockPartSchema } from '#core/document'
import { attachmentSchema } from './fan'
import { logHeadSchema } from './log'
import { settingsSchema } from './settings'

/**
 * A backup: one zip file with everything of a workshop, or of one job, as JSON, CSV and pictures. docs/formats.md has it
 * in words. Fields that a later version adds must have a default here; a file of a newer version is refused by name.
 */
export const BACKUP_FORMAT = 'redpoll-backup'
export const BACKUP_VERSION = 1

/** Names of the files within it. */
export const inBackup = {
  manifest: 'manifest.json',
  job: (id: string) => `jobs/${id}.json`,
  unread: (id: string) => `unreadable/${id}.json`,
  fans: 'fans.json',
  parts: 'parts.json',
  instruments: 'instruments.json',
  settings: 'settings.json',
  log: (id: string) => `logs/${id}.json`,
  rows: (id: string) => `logs/${id}.csv`,
  pictures: 'pictures.json',
  picture: (id: string, mediaType: string) => `pictures/${id}.${mediaType.split('/')[1]}`,
  /** for other programs; not read back */
  shelf: 'shelf.csv',
}

const archived = z.boolean().default(false)
const moment = z.iso.datetime({ offset: true })
/** More jobs or logs than any workshop has. */
const MOST_THINGS = 20_000
export const manifestSchema = z.object({
  format: z.literal(BACKUP_FORMAT),
  version: z.number().int().min(1),
  made: moment,
  /** one job alone, or the whole workshop */
  scope: z.enum(['workshop', 'job']),
  jobs: z.array(idSchema).max(MOST_THINGS),
  logs: z.array(idSchema).max(MOST_THINGS),
  /** jobs that could not be read: their rows as they are, for somebody who can */
  unreadable: z.array(z.string()).default([]),
  /** SHA-256 of each file, hexadecimal */
  sums: z.record(z.string(), z.string()),
})
export type Manifest = z.infer<typeof manifestSchema>

/** The plan within is completed and checked as one of an older file may have to be. */
export const keptJobSchema = z.object({ plan: z.unknown(), archived, createdAt: moment, updatedAt: moment })
export const keptFanSchema = z.object({ fan: fanSchema, archived })
export const keptPartSchema = z.object({ part: stockPartSchema, archived })
export const keptInstrumentSchema = z.object({
  id: idSchema,
  name: shortText.min(1),
  kind: z.enum(['board', 'serial', 'stand-in']),
  tokenHash: z.string().max(128),
  archived,
})
export type KeptInstrument = z.infer<typeof keptInstrumentSchema>
/** The key under which the person's choices are kept: there is no other one. */
export const PREFERENCES = 'preferences'
export const keptSettingSchema = z.object({ key: z.literal(PREFERENCES), value: settingsSchema })
const MOST_BOOTS = 10_000
const bootSchema = z.object({
  boot: z.string().max(200),
  lastSeq: z.number(),
  lastMs: z.number(),
  offsetS: z.number(),
  lost: z.number(),
  repeated: z.number(),
  late: z.number().default(0),
  clockJumps: z.number(),
  gaps: z
    .array(z.tuple([z.number(), z.number(), z.boolean()]))
    .max(100_000)
    .default([]),
})
export const keptLogSchema = logHeadSchema.extend({
  jobId: idSchema,
  whole: z.boolean().default(true),
  archived,
  boots: z.array(bootSchema).max(MOST_BOOTS),
})
export type KeptLog = z.infer<typeof keptLogSchema>
export type KeptBoot = z.infer<typeof bootSchema>
export const keptPictureSchema = attachmentSchema
  .extend({ fanId: idSchema.nullable(), jobId: idSchema.nullable(), archived })
  .refine((p) => (p.fanId === null) !== (p.jobId === null), 'A picture belongs to a fan or to a job.')
export type KeptPicture = z.infer<typeof keptPictureSchema>

export const backupKinds = ['job', 'fan', 'part', 'log', 'picture', 'instrument', 'settings'] as const
export type BackupKind = (typeof backupKinds)[number]
/** What happens where the same thing stands here otherwise: `both` only for jobs, with their logs and pictures. */
export const conflictChoices = ['keep', 'take', 'both'] as const
export type ConflictChoice = (typeof conflictChoices)[number]
export interface BackupItem {
  kind: BackupKind
  id: string
  name: string
  state: 'new' | 'same' | 'conflict'
  /** what differs, in words */
  detail: string
  /** when it was changed here, and in the backup; null where that is not known */
  changed: { here: string; there: string } | null
}
/** What a restore would do. */
export interface BackupPreview {
  /** by which the restore is asked for */
  id: string
  made: string
  scope: Manifest['scope']
  counts: Record<BackupKind, Record<BackupItem['state'], number>>
  /** what is not the same, the conflicts first; of a long list the beginning */
  items: BackupItem[]
  more: number
  warnings: string[]
}
export const restoreSchema = z.object({
  /** for conflicts that are not named */
  others: z.enum(['keep', 'take']).default('keep'),
  /** by kind and id, as in `job/job-kiln` */
  choices: z.record(z.string().max(100), z.enum(conflictChoices)).default({}),
  /** things that it has, as its preview told: for saying how far it is */
  of: z.number().int().min(0).default(0),
})
/** What happens to conflicts. */
export type RestoreOrder = Omit<z.infer<typeof restoreSchema>, 'of'>
/** How far a restore is. */
export interface RestoreProgress {
  /** by which it is asked for; '' where nothing is going on */
  id: string
  doing: 'nothing' | 'reading' | 'writing' | 'stopped'
  done: number
  of: number
}
/** What a restore did. */
export interface Restored {
  written: number
  kept: number
  warnings: string[]
  /** it was stopped before its end: what was written stays, and it can go on */
  stopped: boolean
}
/** A copy that was made by itself. */
export interface DailyCopy {
  name: string
  made: string
  size: number
}
export interface Copies {
  /** how many are kept; 0 makes none */
  keep: number
  copies: DailyCopy[]
  /** why the last one could not be made; '' where it could */
  problem: string
  /** what was found when the newest one was read back: things in it, and what is wrong with it; null before */
  proof: { name: string; at: string; things: number; problem: string } | null
}
export const copiesSchema = z.object({
  keep: z.number().int('A whole number is wanted.').min(0, 'Not below 0.').max(60, 'At most 60 copies.'),
})
export const copyNameSchema = z.string().regex(/^daily-\d{4}-\d{2}-\d{2}\.zip$/, 'There is no such copy.')
