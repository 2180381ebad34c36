import { sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { applyToNumbers, isOnNumbers } from '../../../core/edit';
import { homeCurrency } from '../../../core/measure';
import { database, pool } from '../../../db/client';
import { readRows, streamRows } from '../../../db/raw';
import { selectionWhere } from '../../records/items/selection';
import {
  accountNets,
  type ItemTuple,
  itemTuple,
  type ListingTuple,
  ownColumn,
} from '../../records/listings/account-nets';
import { checkSteps } from '../many/check-steps';
import type { Edit } from '../many/edit-schema';
import { Consequences, type EditConsequences } from './consequences';
import { countWhole } from './count-whole';

const byVariations = 'Its stock is counted by its variations';
const liveListings = sql`l.remote = 'live'`;

async function* countOn(
  connection: PoolConnection,
  listingConnection: PoolConnection,
  edit: Edit,
): AsyncGenerator<EditConsequences> {
  const nets = await accountNets();
  const total = new Consequences(nets);
  const where = selectionWhere(edit.selection);
  const [[items] = [0]] = await readRows<[number]>(connection, sql`select count(*) from item i where ${where}`);
  total.total = items;
  const listings = streamRows<ListingTuple>(
    listingConnection,
    sql`select l.item_id, l.account_id, l.override_price, ${ownColumn} from listing l join item i on i.id = l.item_id where ${where} and ${liveListings} order by l.item_id`,
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
      const [id, price, quantity, , , , varied] = row;
      const seen = applyToNumbers(edit.steps, { price, quantity }, homeCurrency);
      // Of an item with combinations stock is counted there.
      const isCounted = varied === 1 && seen.changed.includes('quantity');
      const result = isCounted ? { price, changed: [], refused: byVariations } : seen;
      const isQuantity = result.changed.some((one) => one === 'quantity');
      total.items++;
      if (result.changed.length) total.changed++;
      if (result.refused !== null) total.refuse(id, result.refused);
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
        if (net && listing[0] === row[0]) total.listing(net, row, result.price, isQuantity, listing);
      }
    }
    yield total.view(false);
  }
  yield total.view(true);
}

/** What only concerns prices and units is counted from two streams; whoever stops early leaves no half-read connection. */
async function* countNumbers(edit: Edit): AsyncGenerator<EditConsequences> {
  const [items, listings] = await Promise.all([pool().getConnection(), pool().getConnection()]);
  let isWhole = false;
  try {
    for await (const one of countOn(items, listings, edit)) {
      isWhole = one.isWhole;
      yield one;
    }
  } finally {
    for (const one of [items, listings]) {
      if (isWhole) one.release();
      else one.destroy();
    }
  }
}

/**
 * What a change does to all of its items and to each account's listings: what has been counted by now, again and again,
 * and at last with every row counted.
 */
export async function* countEdit(edit: Edit): AsyncGenerator<EditConsequences> {
  await checkSteps(database(), edit.steps);
  // Where a template says what a net hangs on, each listing has to be computed as a whole.
  const isTold = isOnNumbers(edit.steps) && ![...(await accountNets()).values()].some((one) => one.isTemplated);
  yield* isTold ? countNumbers(edit) : countWhole(edit);
}

/** The same, once all is counted. */
export async function previewCounts(edit: Edit): Promise<EditConsequences> {
  let last: EditConsequences | null = null;
  for await (const one of countEdit(edit)) last = one;
  if (!last) throw new Error('nothing was counted');
  return last;
}
