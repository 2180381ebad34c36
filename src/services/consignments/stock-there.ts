import { inArray, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { unitsAt } from '../../core/item';
import { convertBack } from '../../core/measure';
import { database } from '../../db/client';
import { item } from '../../db/schema';
import { inboundAccounts } from './find-consignments';
import { inboundOf } from './inbound-of';

const rowSchema = z.object({
  item: z.number().nullable(),
  sku: z.string(),
  title: z.string(),
  /** Units there by our ledger, and as they tell it. */
  ours: z.number(),
  theirs: z.number(),
  /** What a month there costs, in minor units of the shop's own currency. */
  monthly: z.number(),
});
export const stockThereSchema = z.array(
  z.object({
    accountId: z.number(),
    accountName: z.string(),
    /** Why it did not answer. */
    problem: z.string().nullable(),
    rows: z.array(rowSchema),
  }),
);
type Row = z.infer<typeof rowSchema>;

/** What lies in the warehouses of each account, by the ledger and as they tell it, with what a month there costs. */
export async function stockThere(): Promise<z.infer<typeof stockThereSchema>> {
  return Promise.all(
    (await inboundAccounts()).map(async ({ id, name }) => {
      try {
        return { accountId: id, accountName: name, problem: null, rows: await rowsOf(id) };
      } catch (error) {
        if (!(error instanceof NettingError)) throw error;
        return { accountId: id, accountName: name, problem: error.message, rows: [] };
      }
    }),
  );
}

async function rowsOf(accountId: number): Promise<Row[]> {
  const { session, inbound, account } = await inboundOf(accountId);
  const told = new Map<string, { theirs: number; monthly: number }>();
  for (const { sku, quantity, monthly } of await inbound.stock(session)) {
    const before = told.get(sku) ?? { theirs: 0, monthly: 0 };
    told.set(sku, { theirs: before.theirs + quantity, monthly: before.monthly + monthly });
  }
  const items = await database()
    .select({ id: item.id, sku: item.sku, title: item.title, elsewhere: item.elsewhere })
    .from(item)
    .where(
      or(
        inArray(item.sku, ['', ...told.keys()]),
        sql`json_exists(${item.elsewhere}, ${`$."there:${accountId}"`}) and ${item.elsewhere} <> '{}'`,
      ),
    );
  const { rate } = account;
  const rows = items.map(({ id, sku, title, elsewhere }): Row => {
    const { theirs = 0, monthly = 0 } = told.get(sku) ?? {};
    told.delete(sku);
    const ours = unitsAt(elsewhere, 'there', accountId);
    return { item: id, sku, title, ours, theirs, monthly: rate ? convertBack(monthly, rate) : monthly };
  });
  const strange = [...told].map(([sku, one]): Row => ({ item: null, sku, title: '', ours: 0, ...one }));
  return [...rows, ...strange].sort((a, b) => a.sku.localeCompare(b.sku));
}
