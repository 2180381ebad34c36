import type { InsightColumn, InsightTable } from '../../core/insight';
import { amountToText, homeCurrency } from '../../core/measure';
import { type Column, lookedAtColumn } from '../../core/table';

const said: Partial<Record<InsightColumn['kind'], string>> = {
  money: ` (${homeCurrency})`,
  share: ' (%)',
  days: ' (days)',
};

/** The columns of a table of Insights as a file has them. */
export const insightColumns = ({ columns }: InsightTable): Column[] =>
  columns.map(({ id, head, kind }) => lookedAtColumn(`${head}${said[kind] ?? ''}`, { id, isNumber: kind !== 'text' }));

function inFile(value: string | number | null, kind: InsightColumn['kind']): string {
  if (value === null || typeof value === 'string') return value ?? '';
  if (kind === 'money') return amountToText(value, homeCurrency);
  // Shares are ten-thousandths, written as per cent; times as many are hundredths.
  return kind === 'share' || kind === 'times' ? (value / 100).toFixed(2) : String(value);
}

/** Its rows, as they are written into a file: plain decimals. */
export async function* insightRows({ columns, rows }: InsightTable): AsyncGenerator<string[]> {
  for (const { cells } of rows) yield cells.map((cell, at) => inFile(cell, columns[at]?.kind ?? 'text'));
}
