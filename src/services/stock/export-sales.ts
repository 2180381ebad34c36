import type { z } from 'zod';
import { amountToText } from '../../core/measure';
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
  'discount',
  'postage of the buyer',
  'currency',
  'cost',
  'postage',
  'packing',
  'net',
  'currency of what it cost and left',
  'state',
  'oversold',
  'buyer town',
  'wanted on it',
] as const;

/** A cell that a spreadsheet takes as text, also when it begins like a formula. */
const cell = (value: string | number): string => {
  const text = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\n\r]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};
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
        amountToText(one.total, one.currency),
        amountToText(one.fee, one.currency),
        amountToText(one.discount, one.currency),
        amountToText(one.buyerPostage, one.currency),
        one.currency,
        one.cost === null ? '' : amountToText(one.cost * one.quantity, one.netCurrency),
        amountToText(one.postage, one.netCurrency),
        amountToText(one.packing, one.netCurrency),
        one.net === null ? '' : amountToText(one.net, one.netCurrency),
        one.netCurrency,
        one.rawState ?? one.state,
        one.oversold ? 'yes' : '',
        one.buyerTown,
        one.personal ?? '',
      ]
        .map(cell)
        .join(',')}\r\n`;
    if (page.next === null) return;
    before = page.next;
  }
}
