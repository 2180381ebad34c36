import { sql } from 'drizzle-orm';
import { thereStates } from '../../../core/sync';

/** The same as `standsThere`, over `l`, the listing table. */
export const isThere = sql.raw(`l.remote in (${thereStates.map((state) => `'${state}'`).join(', ')})`);
