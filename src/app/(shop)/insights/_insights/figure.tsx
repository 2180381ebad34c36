import type { InsightColumn, InsightTable } from '@/core/insight/table';
import { formatMoney } from '@/core/measure/money';

export type Row = InsightTable['rows'][number];

/** A figure as it is read: `–` where nothing is said. */
export function written(
  value: string | number | null | undefined,
  kind: InsightColumn['kind'],
  currency: string,
): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'string') return value;
  if (kind === 'money') return formatMoney(value, currency);
  if (kind === 'share') return `${(value / 100).toLocaleString('en', { maximumFractionDigits: 1 })} %`;
  if (kind === 'times') return `${(value / 100).toLocaleString('en', { maximumFractionDigits: 2 })} ×`;
  if (kind === 'days') return `${value.toLocaleString('en')} days`;
  return value.toLocaleString('en');
}

/** A cell by the name of its column. */
export function cellOf(table: InsightTable, row: Row | undefined, id: string): string | number | null {
  const at = table.columns.findIndex((column) => column.id === id);
  return row?.cells[at] ?? null;
}

/** A number of a cell, for drawing; nothing where there is none. */
export function numberOf(table: InsightTable, row: Row | undefined, id: string): number {
  const value = cellOf(table, row, id);
  return typeof value === 'number' ? value : 0;
}
