import { sql } from 'drizzle-orm';
import { amountThere, netFor, netInput, packagingCost } from '../../core/listing/net';
import { homeCurrency } from '../../core/measure';
import { isSamePrice, listingPrice } from '../../core/price';
import { database } from '../../db/client';
import { type LoadedAccount, loadAccounts } from '../records/load-accounts';

export type ItemTuple = [
  id: number,
  price: number | null,
  quantity: number,
  cost: number | null,
  weightGrams: number | null,
  category: string,
  /** 1 when the item has variations. */
  varied: number,
];

export type ListingTuple = [itemId: number, accountId: number, overridePrice: number | null];

export type AccountNet = { account: LoadedAccount; liveCount: number };

/** The price that an account makes of the item's. */
export function priceThere({ account }: AccountNet, row: ItemTuple, price: number | null): number | null {
  const { rules } = account.compiled;
  const holds = rules.price?.holds === true;
  if (price === null || isSamePrice(account.pricing, homeCurrency, rules.currency, holds)) return price;
  const categoryId = account.categoryMap[row[5]] ?? null;
  const made = listingPrice(price, {
    pricing: account.pricing,
    rate: account.rate,
    needsRate: rules.currency !== homeCurrency,
    holds,
    net: netInput(rules, {
      cost: 0,
      weightGrams: row[4],
      categoryId,
      liveCount: 0,
      sellerPays: paysByDefault(account),
    }),
  });
  return made?.price ?? null;
}

const paysByDefault = ({ compiled: { rules }, defaults }: LoadedAccount): boolean =>
  rules.price?.holds === true ||
  (rules.sellerPaysWhen !== null &&
    defaults[rules.sellerPaysWhen.field.replace('extra.', '')] === rules.sellerPaysWhen.value);

export const netAt = ({ account, liveCount }: AccountNet, row: ItemTuple, price: number | null): number | null =>
  price === null
    ? null
    : netFor(account.compiled.rules, {
        price,
        cost: amountThere(row[3], account.rate),
        packaging: amountThere(packagingCost, account.rate),
        weightGrams: row[4],
        categoryId: account.categoryMap[row[5]] ?? null,
        liveCount,
        sellerPays: paysByDefault(account),
        values: Object.fromEntries(Object.entries(account.defaults).map(([field, value]) => [`extra.${field}`, value])),
      }).net;

export async function accountNets(): Promise<Map<number, AccountNet>> {
  const db = database();
  const accounts = await loadAccounts(db);
  const [rows] = await db.execute(
    sql`select account_id as id, count(*) as live from listing where state in ('live', 'changed', 'conflict') group by account_id`,
  );
  const live = new Map((rows as unknown as { id: number; live: number }[]).map((row) => [row.id, row.live])); // columns of the query above
  return new Map(accounts.map((account) => [account.id, { account, liveCount: live.get(account.id) ?? 0 }]));
}

export const itemTuple = sql`i.id, i.price, i.quantity, i.cost, i.weight_grams, i.category, i.axes <> '[]'`;
