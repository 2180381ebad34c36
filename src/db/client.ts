import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import mysql from 'mysql2/promise';
import { config, readSecrets } from '../config';
import { keptOnce } from './kept-once';
import * as schema from './schema';

export type Db = MySql2Database<typeof schema>;
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];
/** What a query needs: the database, or a transaction on it. */
export type Executor = Db | Tx;

const connectionOptions = () => ({
  host: config.databaseHost,
  port: config.databasePort,
  user: config.databaseUser,
  password: readSecrets().databasePassword,
  database: config.databaseName,
  timezone: 'Z',
  charset: 'utf8mb4',
  supportBigNumbers: true,
});

/**
 * Before anything else runs on a connection: UTC, and reads that see what others committed. Where several servers hold
 * the same, a new connection may be to one that has yet to apply what was committed elsewhere just before: its first look
 * waits for that, once. From then on it writes there, so it sees its own. A server that stands alone has nothing to wait for.
 */
const firstOfAll = [
  "set time_zone = '+00:00', tx_isolation = 'READ-COMMITTED', wsrep_sync_wait = 1",
  'select 1',
  'set wsrep_sync_wait = 0',
];

type Connection = { pool: mysql.Pool; db: Db };
// Next.js may load this module more than once a process; the pool must stay one.
const kept = globalThis as typeof globalThis & { nettingDatabase?: Connection };

function connection(): Connection {
  kept.nettingDatabase ??= (() => {
    // Many jobs may wait for what a change of many holds; what is urgent finds a connection all the same.
    const pool = mysql.createPool({ ...connectionOptions(), connectionLimit: 40, enableKeepAlive: true });
    pool.pool.on('connection', (raw) => {
      for (const one of firstOfAll) raw.query(one, (error) => error && raw.destroy());
    });
    return { pool, db: drizzle(pool, { schema, mode: 'planetscale' }) };
  })();
  return kept.nettingDatabase;
}

export const database = (): Db => connection().db;
export const pool = (): mysql.Pool => connection().pool;

/** A connection of its own, for work that streams rows or keeps temporary tables. */
export async function withConnection<T>(work: (connection: mysql.PoolConnection) => Promise<T>): Promise<T> {
  const own = await pool().getConnection();
  try {
    return await work(own);
  } finally {
    own.release();
  }
}

/**
 * A transaction, run again when the database chose it as the victim of a deadlock or a lock wait ran out: nothing of
 * it was kept, so repeating is safe. The first one of a command that came with a key keeps the key.
 */
export async function transaction<T>(work: (tx: Tx) => Promise<T>, tries = 5): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await keptOnce<Tx, T>((inner) => database().transaction(inner), work);
    } catch (error) {
      if (attempt >= tries || !isDeadlock(error)) throw error;
    }
  }
}

export function isDeadlock(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { errno } = at as { errno?: number };
    if (errno === 1213 || errno === 1205) return true;
  }
  return false;
}

/** The connection is gone, or the database, or the node has yet to join the others: what was asked for waits until then. */
export function isAway(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause)
    if (
      /ECONN|PROTOCOL_|ER_SERVER_SHUTDOWN|Pool is closed|WSREP has not yet prepared/.test(
        `${(at as { code?: string }).code} ${at.message}`,
      )
    )
      return true;
  return false;
}

export function isDuplicate(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    if ((at as { errno?: number }).errno === 1062) return true;
  }
  return false;
}

export async function closeDatabase(): Promise<void> {
  await kept.nettingDatabase?.pool.end();
  kept.nettingDatabase = undefined;
}
