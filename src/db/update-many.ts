import { type SQL, sql } from 'drizzle-orm';
import type { MySqlColumn } from 'drizzle-orm/mysql-core';
import type { Executor } from './client';
import { valuesTable } from './literal';

/** A row by its number, and what becomes different in it. */
export type RowChange = { id: number; set: readonly (readonly [MySqlColumn, unknown])[] };

/**
 * Writes changes of many rows of a table, those that share the same columns in one statement.
 * @param also what every changed row gets besides; the row is called `r`
 */
export async function updateMany(
  db: Executor,
  table: string,
  changes: readonly RowChange[],
  also: SQL,
  portion = 500,
): Promise<void> {
  const groups = new Map<string, { columns: MySqlColumn[]; rows: RowChange[] }>();
  for (const one of changes) {
    const key = one.set.map(([column]) => column.name).join();
    const group = groups.get(key) ?? { columns: one.set.map(([column]) => column), rows: [] };
    group.rows.push(one);
    groups.set(key, group);
  }
  for (const { columns, rows } of groups.values()) {
    const names = columns.map((column) => column.name);
    const set = names.map((column) => sql.raw(`, r.\`${column}\` = v.\`${column}\``));
    for (let from = 0; from < rows.length; from += portion) {
      const values = rows
        .slice(from, from + portion)
        .map((row) => [row.id, ...columns.map((column, index) => column.mapToDriverValue(row.set[index]?.[1]))]);
      await db.execute(
        sql`update ${sql.identifier(table)} r join (${valuesTable(['id', ...names], values)}) v on v.id = r.id set ${also}${sql.join(set, sql``)}`,
      );
    }
  }
}
