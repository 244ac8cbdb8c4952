import { settingsSchema } from '#shared/schemas/settings'
import { saveSettings } from '../db/repositories/settings'
import { database } from '../utils/store'
import { bodyOf, route } from '../utils/reply'

export default route('inside', async (event) =>
  saveSettings(await database(), await bodyOf(event, settingsSchema)),
)
