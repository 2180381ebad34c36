import { sql } from 'drizzle-orm';

/**
 * Listings that are live and show something else than was sent, whether or not they need somebody besides. The states say
 * nothing more, they keep it to few rows: there is an index of them.
 */
export const isDrifted = sql`state in ('changed', 'conflict', 'attention') and drifted = 1 and remote = 'live'`;
