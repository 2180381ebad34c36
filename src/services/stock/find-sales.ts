import { and, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { homeCurrency } from '../../core/measure';
import { netOfSale } from '../../core/price';
import { database } from '../../db/client';
import { account, dispatch, item, postagePaid, sale } from '../../db/schema';

export const findSalesSchema = z.object({
  account: z.coerce.number().int().optional(),
  item: z.coerce.number().int().optional(),
  state: z.enum(['paid', 'cancelled', 'oversold', 'unassigned']).optional(),
  before: z.coerce.number().int().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
});

export const saleViewSchema = z.object({
  id: z.number(),
  orderId: z.string(),
  accountName: z.string().nullable(),
  itemId: z.number().nullable(),
  photo: z.string().nullable(),
  sku: z.string(),
  title: z.string(),
  /** Which combination, where there are several. */
  variation: z.string().nullable(),
  quantity: z.number(),
  total: z.number(),
  fee: z.number(),
  buyerPostage: z.number(),
  discount: z.number(),
  /** In the items' currency. */
  cost: z.number().nullable(),
  /** What the parcel cost, in the items' currency, and whether that was written down. */
  postage: z.number(),
  postageKnown: z.boolean(),
  packing: z.number(),
  /** What was left, in the items' currency by the rate of the day of the sale; null where none was known. */
  net: z.number().nullable(),
  netCurrency: z.string(),
  /** Of total and fee. */
  currency: z.string(),
  /** What the marketplace calls its state, where it is neither paid nor called off. */
  rawState: z.string().nullable(),
  buyerTown: z.string(),
  /** What the buyer wants on it; and whether it is fetched. */
  personal: z.string().nullable(),
  collected: z.boolean(),
  oversold: z.boolean(),
  /** So many units of it leave from a marketplace's warehouse; under which number, and why not, where it is for another account. */
  sentThere: z.number(),
  tracking: z.string().nullable(),
  notSent: z.string().nullable(),
  /** It fits no item, or none of its combinations: a person has to say what was sold. */
  unassigned: z.boolean(),
  state: z.enum(['paid', 'cancelled']),
  soldAt: z.string(),
});
export type SaleView = z.infer<typeof saleViewSchema>;

/**
 * Sales, newest first, with what was left of each after fees, postage, packing and cost.
 * @param items only of these
 */
export async function findSales(
  input: z.infer<typeof findSalesSchema>,
  items?: readonly number[],
): Promise<{ sales: SaleView[]; next: number | null }> {
  const rows = await database()
    .select({
      sale,
      accountName: account.name,
      photo: item.mainPhoto,
      postageKnown: sql<boolean>`exists(select 1 from ${postagePaid} where ${postagePaid.saleId} = ${sale.id})`.mapWith(
        Boolean,
      ),
      sentThere:
        sql<number>`coalesce((select -sum(m.delta) from movement m where m.item_id = ${sale.itemId} and m.sale_id = ${sale.id} and m.place = 'there'), 0)`.mapWith(
          Number,
        ),
      tracking: dispatch.tracking,
      notSent: sql<string | null>`if(${dispatch.state} = 'refused', ${dispatch.message}, null)`,
    })
    .from(sale)
    .leftJoin(account, eq(account.id, sale.accountId))
    .leftJoin(item, eq(item.id, sale.itemId))
    .leftJoin(dispatch, eq(dispatch.saleId, sale.id))
    .where(
      and(
        input.account ? eq(sale.accountId, input.account) : undefined,
        input.item ? eq(sale.itemId, input.item) : undefined,
        items ? inArray(sale.itemId, [...items]) : undefined,
        input.state === 'oversold'
          ? eq(sale.oversold, true)
          : input.state === 'unassigned'
            ? eq(sale.unassigned, true)
            : input.state
              ? eq(sale.state, input.state)
              : undefined,
        input.before ? lt(sale.id, input.before) : undefined,
      ),
    )
    .orderBy(desc(sale.id))
    .limit(input.limit + 1);
  const sales = rows.slice(0, input.limit).map(
    ({ sale: one, accountName, photo, postageKnown, sentThere, tracking, notSent }): SaleView => ({
      id: one.id,
      orderId: one.orderId,
      accountName,
      itemId: one.itemId,
      photo,
      sku: one.sku,
      title: one.title,
      variation: one.variation,
      quantity: one.quantity,
      total: one.total,
      fee: one.fee,
      cost: one.cost,
      buyerPostage: one.buyerPostage,
      discount: one.discount,
      postage: one.postage,
      postageKnown,
      packing: one.packing,
      net: one.state === 'cancelled' ? 0 : netOfSale(one),
      netCurrency: homeCurrency,
      rawState: one.state === 'cancelled' ? null : one.rawState,
      state: one.state,
      currency: one.currency,
      buyerTown: one.buyerTown,
      personal: one.personal,
      collected: one.collected,
      oversold: one.oversold,
      sentThere,
      tracking,
      notSent,
      unassigned: one.unassigned,
      soldAt: one.soldAt.toISOString(),
    }),
  );
  return { sales, next: rows.length > input.limit ? (sales.at(-1)?.id ?? null) : null };
}
