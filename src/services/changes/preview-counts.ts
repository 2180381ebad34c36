import { sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { z } from 'zod';
import { applySteps, needsTitle } from '../../core/edit';
import { withConnection } from '../../db/client';
import { streamRows } from '../../db/raw';
import { selectionWhere } from '../records/selection';
import {
  type AccountNet,
  accountNets,
  type ItemTuple,
  itemTuple,
  type ListingTuple,
  netAt,
  priceThere,
} from './edit-nets';
import type { Edit } from './edit-schema';

export const accountConsequenceSchema = z.object({
  accountId: z.number(),
  name: z.string(),
  changes: z.number(),
  keepOverride: z.number(),
  belowZero: z.number(),
  outOfRange: z.number(),
  netBefore: z.number(),
  netAfter: z.number(),
  currency: z.string(),
});
export type AccountConsequence = z.infer<typeof accountConsequenceSchema>;

export const editConsequencesSchema = z.object({
  items: z.number(),
  changed: z.number(),
  unchanged: z.number(),
  refused: z.array(
    z.object({
      why: z.string(),
      count: z.number(),
    }),
  ),
  accounts: z.array(accountConsequenceSchema),
});
export type EditConsequences = z.infer<typeof editConsequencesSchema>;

const liveListings = sql`l.remote = 'live'`;

/** With its title where a step reads it. */
type CountedItem = [...ItemTuple, title?: string];

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
        keepOverride: 0,
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
    row: CountedItem,
    newPrice: number | null,
    quantityChanged: boolean,
    overridePrice: number | null,
  ): void {
    const account = this.accounts.get(net.account.id);
    if (!account) return;
    const priceChanged = newPrice !== row[1];
    if (overridePrice !== null && priceChanged) account.keepOverride++;
    const before = overridePrice ?? priceThere(net, row, row[1]);
    const after = overridePrice ?? priceThere(net, row, newPrice);
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
    sql`select l.item_id, l.account_id, l.override_price from listing l join item i on i.id = l.item_id where ${where} and ${liveListings} order by l.item_id`,
  );
  // Both streams run in the order of the items and are merged, so that memory stays flat.
  let waiting: ListingTuple[] = [];
  let at = 0;
  let over = false;
  const title = needsTitle(edit.steps) ? sql`, i.title` : sql``;
  for await (const chunk of streamRows<CountedItem>(
    connection,
    sql`select ${itemTuple}${title} from item i where ${where} order by i.id`,
  )) {
    for (const row of chunk) {
      const [, price, quantity, , , , varied, ofItem] = row;
      const result = applySteps(edit.steps, { price, quantity, varied: varied === 1, title: ofItem });
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
