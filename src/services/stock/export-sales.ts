import type { z } from 'zod';
import { amountToText } from '../../core/measure';
import { type Column, lookedAtColumn } from '../../core/table';
import { findSales, type findSalesSchema, type SaleView } from './find-sales';

const numbers = new Set([
  'quantity',
  'total',
  'fee',
  'discount',
  'postage of the buyer',
  'cost',
  'postage',
  'packing',
  'net',
]);

/** Columns of a file of sales, by their names. */
export const salesColumns: Column[] = [
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
].map((name) => lookedAtColumn(name, { isNumber: numbers.has(name) }));

/** A sale as the cells of a row. */
export const saleCells = (one: SaleView): string[] => [
  one.soldAt,
  one.accountName ?? 'by hand',
  one.orderId,
  one.sku,
  one.title,
  one.variation ?? '',
  String(one.quantity),
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
];

/** Sales of a filter, newest first, read a page at a time. */
export async function* eachSale(
  filter: Omit<z.infer<typeof findSalesSchema>, 'before' | 'limit'>,
  items?: readonly number[],
): AsyncGenerator<SaleView> {
  for (let before: number | undefined; ; ) {
    const page = await findSales({ ...filter, before, limit: 200 }, items);
    yield* page.sales;
    if (page.next === null) return;
    before = page.next;
  }
}

/** The same as rows of a file. */
export async function* salesRows(
  filter: Omit<z.infer<typeof findSalesSchema>, 'before' | 'limit'>,
): AsyncGenerator<string[]> {
  for await (const one of eachSale(filter)) yield saleCells(one);
}
