import { sql } from 'drizzle-orm';
import { priorities } from '../../core/sync';
import { database, pool } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { account } from '../../db/schema';
import { unheardAccounts } from '../records/listings/unheard-accounts';
import { lastAudit } from './audit';

export type StateInNumbers = {
  /** By state; of what waits, only what is due. Seconds since the oldest of them was due. */
  jobs: { state: string; count: number; oldestSeconds: number }[];
  /** Ends and lowerings that are due, of which a second's delay may sell a piece twice. */
  urgent: { count: number; oldestSeconds: number };
  /** Seconds since each account's orders were last heard; null before the first time. */
  accounts: { name: string; market: string; heardSeconds: number | null; isUnheard: boolean }[];
  /** Connections to the database: open, lent out, and who waits for one. */
  pool: { open: number; lent: number; waiting: number };
  audit: { at: Date | null; found: { id: string; count: number }[] };
};

type Inner = {
  _allConnections?: { length: number };
  _freeConnections?: { length: number };
  _connectionQueue?: { length: number };
};

/** How a running shop is, for those who watch it from outside. */
export async function stateInNumbers(now: Date): Promise<StateInNumbers> {
  const db = database();
  const age = sql.raw('coalesce(max(timestampdiff(microsecond, due_at, utc_timestamp(6))) / 1e6, 0)');
  const [jobs, urgent, accounts, unheard, audit] = await Promise.all([
    db.execute(
      sql`select state, count(*) as count, ${age} as oldest from job where state in ('waiting', 'held', 'running') and (state <> 'waiting' or due_at <= utc_timestamp(3)) group by state`,
    ),
    db.execute(
      sql`select count(*) as count, ${age} as oldest from job where state = 'waiting' and priority <= ${priorities.quantity} and due_at <= utc_timestamp(3)`,
    ),
    db.select({ id: account.id, name: account.name, market: account.market, heardAt: account.heardAt }).from(account),
    unheardAccounts(now),
    lastAudit(),
  ]);
  const silent = new Set(unheard.map((one) => one.id));
  const [first] = rowsOf<{ count: number; oldest: number }>(urgent);
  const inner = (pool().pool ?? {}) as unknown as Inner; // the driver tells of its pool only so
  const open = inner._allConnections?.length ?? 0;
  return {
    jobs: rowsOf<{ state: string; count: number; oldest: number }>(jobs).map((row) => ({
      state: row.state,
      count: Number(row.count),
      oldestSeconds: Math.max(0, Number(row.oldest)),
    })),
    urgent: { count: Number(first?.count ?? 0), oldestSeconds: Math.max(0, Number(first?.oldest ?? 0)) },
    accounts: accounts.map((row) => ({
      name: row.name,
      market: row.market,
      heardSeconds: row.heardAt ? Math.max(0, (now.getTime() - row.heardAt.getTime()) / 1_000) : null,
      isUnheard: silent.has(row.id),
    })),
    pool: {
      open,
      lent: open - (inner._freeConnections?.length ?? 0),
      waiting: inner._connectionQueue?.length ?? 0,
    },
    audit: {
      at: audit.at ? new Date(audit.at) : null,
      found: audit.found.map(({ id, count }) => ({ id, count })),
    },
  };
}
