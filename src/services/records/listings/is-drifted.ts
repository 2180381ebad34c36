import { sql } from 'drizzle-orm';

/**
 * Listings that show something else than was sent and wait for somebody: one that needs somebody for another reason as well
 * is among them, one that is being sent just now is not. The states keep it to few rows: there is an index of them.
 */
export const isDrifted = sql`state in ('changed', 'conflict', 'attention') and drifted = 1 and remote = 'live'`;
