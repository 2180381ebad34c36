import type { SQL } from 'drizzle-orm';
import { MySqlDialect } from 'drizzle-orm/mysql-core';
import { drizzle } from 'drizzle-orm/mysql2';
import type { PoolConnection as PlainConnection } from 'mysql2';
import type { PoolConnection } from 'mysql2/promise';
import { type Db, isDeadlock, withConnection } from './client';
import * as schema from './schema';

const dialect = new MySqlDialect();

/** Rows as arrays in chunks, as fast as the driver gives them, with only one chunk in memory. */
export async function* streamRows<T extends unknown[]>(
  connection: PoolConnection,
  query: SQL,
  chunkSize = 5_000,
): AsyncGenerator<T[]> {
  const { sql: text, params } = dialect.sqlToQuery(query);
  const plain = connection.connection as unknown as PlainConnection; // the promise wrapper holds the plain connection, which can stream
  const stream = plain.query({ sql: text, values: params, rowsAsArray: true }).stream({ highWaterMark: chunkSize });
  let chunk: T[] = [];
  for await (const row of stream) {
    chunk.push(row as T); // the columns are those of the caller's query
    if (chunk.length >= chunkSize) {
      yield chunk;
      chunk = [];
    }
  }
  if (chunk.length) yield chunk;
}

/** Rows as arrays, all at once. */
export async function readRows<T extends unknown[]>(connection: PoolConnection, query: SQL): Promise<T[]> {
  const { sql: text, params } = dialect.sqlToQuery(query);
  const [rows] = await connection.query({ sql: text, values: params, rowsAsArray: true });
  return rows as T[]; // the columns are those of the caller's query
}

/** A transaction on a connection of its own, which may hold temporary tables; run again after a deadlock. */
export async function ownTransaction<T>(
  work: (db: Db, connection: PoolConnection) => Promise<T>,
  tries = 4,
): Promise<T> {
  return withConnection(async (connection) => {
    const db = drizzle(connection, { schema, mode: 'planetscale' }) as unknown as Db; // same interface over one connection
    for (let attempt = 1; ; attempt++) {
      try {
        await connection.beginTransaction();
        const result = await work(db, connection);
        await connection.commit();
        return result;
      } catch (error) {
        await connection.rollback().catch(() => undefined);
        if (attempt >= tries || !isDeadlock(error)) throw error;
      }
    }
  });
}

/** Inserts many rows of numbers and nulls at once; values are written into the text since they cannot hold anything else. */
export async function insertNumbers(
  connection: PoolConnection,
  table: string,
  rows: (number | null)[][],
  chunkSize = 10_000,
): Promise<void> {
  for (let at = 0; at < rows.length; at += chunkSize) {
    const values = rows
      .slice(at, at + chunkSize)
      .map((row) => `(${row.map((value) => (value === null ? 'null' : String(Number(value)))).join(',')})`)
      .join(',');
    await connection.query(`insert into ${table} values ${values}`);
  }
}
