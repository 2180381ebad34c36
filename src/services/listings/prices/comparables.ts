import { z } from 'zod';
import { distributionOf, statisticsOf } from '../../../core/price';
import { barSchema, comparableSchema, statisticsSchema } from '../../../core/price/comparables';
import { nameKey } from '../../../core/rules';
import { database } from '../../../db/client';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { today } from '../../records/accounts/today';
import { loadItem } from '../../records/items/load-items';
import { salesOfThing } from '../../records/items/sales-of-thing';

export const comparablesQuerySchema = z
  .object({ days: z.coerce.number().int().min(7).max(1_000).default(180), condition: z.string().max(60).optional() })
  .strict();

const presentOffersSchema = z.object({
  count: z.number(),
  pieces: z.number(),
  low: z.number().nullable(),
  median: z.number().nullable(),
});

export const comparablesSchema = z.object({
  days: z.number(),
  /** What was asked and said nothing, in words. */
  silent: z.array(z.string()),
  /** Currencies that were converted, by the rate of which day. */
  converted: z.array(z.object({ currency: z.string(), date: z.string() })),
  statistics: statisticsSchema.nullable(),
  distribution: z.array(barSchema),
  sales: z.array(comparableSchema),
  present: presentOffersSchema,
  conditions: z.array(z.string()),
});
export type Comparables = z.infer<typeof comparablesSchema>;

/**
 * What such things sold for lately and what is on offer now: single sales from every marketplace that tells them, and
 * one's own; the figures are computed here.
 */
export async function comparablesOf(
  itemId: number,
  query: z.infer<typeof comparablesQuerySchema>,
): Promise<Comparables> {
  const db = database();
  const item = await loadItem(db, itemId);
  const { sales, offers, silent, converted } = await salesOfThing(await loadAccounts(db), item, true);
  const fitting = query.condition ? sales.filter((one) => one.condition === query.condition) : sales;
  const day = today();
  const statistics = statisticsOf(fitting, day, query.days);
  const from = new Date(Date.parse(day) - query.days * 86_400_000).toISOString().slice(0, 10);
  const inside = fitting
    .filter((one) => one.date >= from && one.date <= day)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  const prices = offers.map((one) => one.price).sort((a, b) => a - b);
  return {
    days: query.days,
    silent,
    converted,
    statistics,
    distribution: distributionOf(inside),
    sales: inside,
    present: {
      count: offers.length,
      pieces: offers.reduce((sum, one) => sum + one.quantity, 0),
      low: prices[0] ?? null,
      median: prices[Math.floor(prices.length / 2)] ?? null,
    },
    conditions: [...new Set(sales.flatMap((one) => (one.condition ? [one.condition] : [])))].sort((a, b) =>
      nameKey(a) < nameKey(b) ? -1 : 1,
    ),
  };
}
