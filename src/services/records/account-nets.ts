import { sql } from 'drizzle-orm';
import { amountThere, netFor, netInput, packagingCost } from '../../core/listing/net';
import { homeCurrency } from '../../core/measure';
import { isSamePrice, listingPrice } from '../../core/price';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { type LoadedAccount, loadAccounts } from './load-accounts';

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

/** An account with what the net of everything that is sold there hangs on. */
export type AccountNet = {
  account: LoadedAccount;
  liveCount: number;
  sellerPays: boolean;
  /** In its currency. */
  packaging: number;
  values: Record<string, unknown>;
  /** Its prices are the items' own. */
  samePrice: boolean;
};

const paysByDefault = ({ compiled: { rules }, defaults }: LoadedAccount): boolean =>
  rules.price?.holds === true ||
  (rules.sellerPaysWhen !== null &&
    defaults[rules.sellerPaysWhen.field.replace('extra.', '')] === rules.sellerPaysWhen.value);

function netAccount(account: LoadedAccount, liveCount: number): AccountNet {
  const { rules } = account.compiled;
  return {
    account,
    liveCount,
    sellerPays: paysByDefault(account),
    packaging: amountThere(packagingCost, account.rate),
    values: Object.fromEntries(Object.entries(account.defaults).map(([field, value]) => [`extra.${field}`, value])),
    samePrice: isSamePrice(account.pricing, homeCurrency, rules.currency, rules.price?.holds === true),
  };
}

/** The price that an account makes of the item's. */
export function priceThere(
  { account, samePrice, sellerPays }: AccountNet,
  row: Readonly<[...ItemTuple, ...unknown[]]>,
  price: number | null,
) {
  if (price === null || samePrice) return price;
  const { rules } = account.compiled;
  const categoryId = account.categoryMap[row[5]] ?? null;
  const made = listingPrice(price, {
    pricing: account.pricing,
    rate: account.rate,
    needsRate: rules.currency !== homeCurrency,
    holds: rules.price?.holds === true,
    net: netInput(rules, { cost: 0, weightGrams: row[4], categoryId, liveCount: 0, sellerPays }),
  });
  return made?.price ?? null;
}

/** Net and fees of a price there; null without one. */
export function netsAt(
  there: AccountNet,
  row: Readonly<[...ItemTuple, ...unknown[]]>,
  price: number | null,
): { net: number; fees: number } | null {
  if (price === null) return null;
  const { net, fees } = netFor(there.account.compiled.rules, {
    price,
    cost: amountThere(row[3], there.account.rate),
    packaging: there.packaging,
    weightGrams: row[4],
    categoryId: there.account.categoryMap[row[5]] ?? null,
    liveCount: there.liveCount,
    sellerPays: there.sellerPays,
    values: there.values,
  });
  return { net, fees: fees.total };
}

/** Every account, ready to compute nets. Live listings are counted only where a fee hangs on their number. */
export async function accountNets(): Promise<Map<number, AccountNet>> {
  const db = database();
  const accounts = await loadAccounts(db);
  const counted = accounts.filter((one) => one.compiled.rules.fees.listing !== null).map((one) => one.id);
  const rows = counted.length
    ? rowsOf<{ id: number; live: number }>(
        await db.execute(
          sql`select account_id as id, count(*) as live from listing where state in ('live', 'changed', 'conflict') and account_id in ${counted} group by account_id`,
        ),
      )
    : [];
  const live = new Map(rows.map((row) => [row.id, row.live]));
  return new Map(accounts.map((account) => [account.id, netAccount(account, live.get(account.id) ?? 0)]));
}

export const itemTuple = sql`i.id, i.price, i.quantity, i.cost, i.weight_grams, i.category, i.axes <> '[]'`;
