import type { z } from 'zod';
import type { findSalesSchema } from './find-sales';
import { findSales } from './find-sales';

const columns = [
  'date',
  'marketplace',
  'order',
  'stock number',
  'title',
  'variation',
  'quantity',
  'total',
  'fee',
  'cost',
  'net',
  'currency',
  'state',
  'oversold',
  'buyer town',
] as const;

/** A cell that a spreadsheet takes as text, also when it begins like a formula. */
const cell = (value: string | number): string => {
  const text = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};
const money = (minor: number) => (minor / 100).toFixed(2);

/** Sales as CSV (RFC 4180), newest first, a page at a time. */
export async function* exportSales(
  filter: Omit<z.infer<typeof findSalesSchema>, 'before' | 'limit'>,
): AsyncGenerator<string> {
  yield `${columns.join(',')}\r\n`;
  for (let before: number | undefined; ; ) {
    const page = await findSales({ ...filter, before, limit: 200 });
    for (const one of page.sales)
      yield `${[
        one.soldAt,
        one.accountName ?? 'by hand',
        one.orderId,
        one.sku,
        one.title,
        one.variation ?? '',
        one.quantity,
        money(one.total),
        money(one.fee),
        one.cost === null ? '' : money(one.cost * one.quantity),
        money(one.net),
        one.currency,
        one.state,
        one.oversold ? 'yes' : '',
        one.buyerTown,
      ]
        .map(cell)
        .join(',')}\r\n`;
    if (page.next === null) return;
    before = page.next;
  }
}
