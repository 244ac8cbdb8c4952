import { route } from '../utils/reply'
import { startup } from '../utils/store'

/** Answers at once, also while the database is being opened. */
export default route('anyone', () => Promise.resolve(startup))
