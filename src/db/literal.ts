import { type SQL, sql } from 'drizzle-orm';
import { escape as escapeValue } from 'mysql2';

/**
 * A value written into the text of a statement, escaped by the driver: for many rows at once, where a placeholder each
 * costs more than the statement. Objects are written as JSON.
 */
export function literal(value: unknown): string {
  if (value === null || value === undefined) return 'null';
  if (typeof value === 'number') return Number.isFinite(value) ? String(value) : 'null';
  if (typeof value === 'boolean') return value ? '1' : '0';
  if (value instanceof Date) return `'${value.toISOString().replace('T', ' ').slice(0, 23)}'`;
  return escapeValue(typeof value === 'string' ? value : JSON.stringify(value));
}

/** Rows as a table of values, to be joined: `select 1 as id, 'x' as title union all select 2, 'y'`. */
export const valuesTable = (columns: readonly string[], rows: readonly (readonly unknown[])[]): SQL =>
  sql.raw(
    rows
      .map((row, at) =>
        at === 0
          ? `select ${columns.map((column, index) => `${literal(row[index])} as \`${column}\``).join(', ')}`
          : `select ${columns.map((_column, index) => literal(row[index])).join(', ')}`,
      )
      .join(' union all '),
  );

/** Rows as they stand behind `values`. */
export const valuesList = (rows: readonly (readonly unknown[])[]): SQL =>
  sql.raw(rows.map((row) => `(${row.map(literal).join(', ')})`).join(', '));
