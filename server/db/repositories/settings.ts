import { PREFERENCES as KEY } from '#shared/schemas/backup'
import { defaultSettings, settingsSchema, type Settings } from '#shared/schemas/settings'
import type { Database } from '../database'

/** The person's settings; what was never chosen is the default. */
export async function getSettings(db: Database): Promise<Settings> {
  const [row] = await db.query<{ value: unknown }>('SELECT value FROM setting WHERE key = $1', [KEY])
  const parsed = settingsSchema.safeParse(row?.value)
  return parsed.success ? parsed.data : defaultSettings
}

export async function saveSettings(db: Database, settings: Settings): Promise<Settings> {
  await db.query(
    `
    INSERT INTO setting AS t (key, value) VALUES ($1, $2::jsonb)
    ON CONFLICT (key) DO UPDATE SET value = EXCLUDED.value, revision = t.revision + 1, updated_at = now()`,
    [KEY, JSON.stringify(settings)],
  )
  return settings
}
