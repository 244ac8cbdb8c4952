import { z } from 'zod'

/** The person's choices: a unit for each quantity, theme. */
export const settingsSchema = z.object({
  units: z.record(z.string().max(40), z.string().max(20)),
  theme: z.enum(['system', 'light', 'dark']),
})
export type Settings = z.infer<typeof settingsSchema>
export const defaultSettings: Settings = { units: {}, theme: 'system' }
/** The workshop's password, as it is typed. */
export const passwordSchema = z.object({ password: z.string().min(1, 'A password is wanted.').max(200) })
