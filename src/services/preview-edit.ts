import { sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { z } from 'zod';
import { applySteps, operationSchema } from '../core/edit';
import { isSamePrice, listingPrice } from '../core/price';
import { database, withConnection } from '../db/client';
import { readRows, streamRows } from '../db/raw';
import { homeCurrency, type LoadedAccount, loadAccounts } from './account-context';
import { amountThere, netFor, netInput, packagingCost } from './net-input';
import { selectionSchema, selectionWhere } from './selection';

export const editSchema = z
  .object({ selection: selectionSchema, steps: z.array(operationSchema).min(1).max(20) })
  .strict();
export type Edit = z.infer<typeof editSchema>;

export type PreviewRow = {
  id: number;
  sku: string;
  title: string;
  photo: string | null;
  before: { price: number | null; quantity: number };
  after: { price: number | null; quantity: number };
  changed: boolean;
  refused: string | null;
  /** Net before and after, per account where it is listed; null without a price. */
  nets: { accountId: number; before: number | null; after: number | null; keepsOwnPrice: boolean }[];
};

export type AccountConsequence = {
  accountId: number;
  name: string;
  changes: number;
  keepOwnPrice: number;
  belowZero: number;
  outOfRange: number;
  netBefore: number;
  netAfter: number;
  currency: string;
};
export type EditConsequences = {
  items: number;
  changed: number;
  unchanged: number;
  refused: { why: string; count: number }[];
  accounts: AccountConsequence[];
};

type ItemTuple = [
  id: number,
  price: number | null,
  quantity: number,
  cost: number | null,
  weightGrams: number | null,
  category: string,
  /** 1 when the item has variations. */
  varied: number,
];
type ListingTuple = [itemId: number, accountId: number, ownPrice: number | null];

type AccountNet = { account: LoadedAccount; liveCount: number };

/** The price that an account makes of the item's. */
function priceThere({ account }: AccountNet, row: ItemTuple, price: number | null): number | null {
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

const netAt = ({ account, liveCount }: AccountNet, row: ItemTuple, price: number | null): number | null =>
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

async function accountNets(): Promise<Map<number, AccountNet>> {
  const db = database();
  const accounts = await loadAccounts(db);
  const [rows] = await db.execute(
    sql`select account_id as id, count(*) as live from listing where state in ('live', 'changed', 'conflict') group by account_id`,
  );
  const live = new Map((rows as unknown as { id: number; live: number }[]).map((row) => [row.id, row.live])); // columns of the query above
  return new Map(accounts.map((account) => [account.id, { account, liveCount: live.get(account.id) ?? 0 }]));
}

const itemTuple = sql`i.id, i.price, i.quantity, i.cost, i.weight_grams, i.category, i.axes <> '[]'`;
const liveListings = sql`l.remote = 'live'`;

/** The first rows of a change, before and after, with the net per account. */
export async function previewRows(edit: Edit, limit = 60): Promise<PreviewRow[]> {
  const nets = await accountNets();
  return withConnection(async (connection) => {
    const rows = await readRows<[...ItemTuple, sku: string, title: string, photo: string | null]>(
      connection,
      sql`select ${itemTuple}, i.sku, i.title, i.main_photo from item i where ${selectionWhere(edit.selection)} order by i.id limit ${limit}`,
    );
    if (rows.length === 0) return [];
    const ids = rows.map((row) => row[0]);
    const listings = await readRows<ListingTuple>(
      connection,
      sql`select l.item_id, l.account_id, l.own_price from listing l where l.item_id in ${ids} and l.state <> 'none'`,
    );
    return rows.map((row): PreviewRow => {
      const [id, price, quantity, cost, grams, category, varied, sku, title, photo] = row;
      const tuple: ItemTuple = [id, price, quantity, cost, grams, category, varied];
      const result = applySteps(edit.steps, { price, quantity, varied: varied === 1 });
      return {
        id,
        sku,
        title,
        photo,
        before: { price, quantity },
        after: { price: result.price, quantity: result.quantity },
        changed: result.changed.length > 0,
        refused: result.refused[0] ?? null,
        nets: listings
          .filter((listing) => listing[0] === id)
          .flatMap(([, accountId, ownPrice]) => {
            const net = nets.get(accountId);
            if (!net) return [];
            return [
              {
                accountId,
                before: netAt(net, tuple, ownPrice ?? priceThere(net, tuple, price)),
                after: netAt(net, tuple, ownPrice ?? priceThere(net, tuple, result.price)),
                keepsOwnPrice: ownPrice !== null,
              },
            ];
          }),
      };
    });
  });
}

class Consequences {
  readonly refused = new Map<string, number>();
  readonly accounts = new Map<number, AccountConsequence>();
  items = 0;
  changed = 0;

  constructor(nets: Map<number, AccountNet>) {
    for (const [accountId, { account }] of nets) {
      this.accounts.set(accountId, {
        accountId,
        name: account.name,
        changes: 0,
        keepOwnPrice: 0,
        belowZero: 0,
        outOfRange: 0,
        netBefore: 0,
        netAfter: 0,
        currency: account.compiled.rules.currency,
      });
    }
  }

  listing(
    net: AccountNet,
    row: ItemTuple,
    newPrice: number | null,
    quantityChanged: boolean,
    ownPrice: number | null,
  ): void {
    const account = this.accounts.get(net.account.id);
    if (!account) return;
    const priceChanged = newPrice !== row[1];
    if (ownPrice !== null && priceChanged) account.keepOwnPrice++;
    const before = ownPrice ?? priceThere(net, row, row[1]);
    const after = ownPrice ?? priceThere(net, row, newPrice);
    if (before !== after || quantityChanged) account.changes++;
    const netAfter = netAt(net, row, after) ?? 0;
    account.netBefore += netAt(net, row, before) ?? 0;
    account.netAfter += netAfter;
    if (netAfter < 0) account.belowZero++;
    const { min, max } = net.account.compiled.rules.price ?? { min: 0, max: Number.POSITIVE_INFINITY };
    if (after !== null && (after < min || after > max)) account.outOfRange++;
  }
}

async function countOn(
  connection: PoolConnection,
  listingConnection: PoolConnection,
  edit: Edit,
): Promise<EditConsequences> {
  const nets = await accountNets();
  const total = new Consequences(nets);
  const where = selectionWhere(edit.selection);
  const listings = streamRows<ListingTuple>(
    listingConnection,
    sql`select l.item_id, l.account_id, l.own_price from listing l join item i on i.id = l.item_id where ${where} and ${liveListings} order by l.item_id`,
  );
  // Both streams run in the order of the items and are merged, so that memory stays flat.
  let waiting: ListingTuple[] = [];
  let at = 0;
  let over = false;
  for await (const chunk of streamRows<ItemTuple>(
    connection,
    sql`select ${itemTuple} from item i where ${where} order by i.id`,
  )) {
    for (const row of chunk) {
      const result = applySteps(edit.steps, { price: row[1], quantity: row[2], varied: row[6] === 1 });
      total.items++;
      if (result.changed.length) total.changed++;
      for (const why of result.refused) total.refused.set(why, (total.refused.get(why) ?? 0) + 1);
      while (true) {
        if (at >= waiting.length && !over) {
          const next = await listings.next();
          over = next.done === true;
          waiting = next.done ? [] : next.value;
          at = 0;
        }
        const listing = waiting[at];
        if (!listing || listing[0] > row[0]) break;
        at++;
        const net = nets.get(listing[1]);
        if (net && listing[0] === row[0])
          total.listing(net, row, result.price, result.changed.includes('quantity'), listing[2]);
      }
    }
  }
  const refusedCount = [...total.refused.values()].reduce((sum, count) => sum + count, 0);
  return {
    items: total.items,
    changed: total.changed,
    unchanged: total.items - total.changed - refusedCount,
    refused: [...total.refused].map(([why, count]) => ({ why, count })),
    accounts: [...total.accounts.values()],
  };
}

/** What a change does to all of its items and to each account's listings, counted over every row. */
export const previewCounts = (edit: Edit): Promise<EditConsequences> =>
  withConnection((connection) => withConnection((listingConnection) => countOn(connection, listingConnection, edit)));
