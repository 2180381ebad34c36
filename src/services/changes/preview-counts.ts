import { sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { applyToNumbers, isOnNumbers } from '../../core/edit';
import { homeCurrency } from '../../core/measure';
import { database, withConnection } from '../../db/client';
import { streamRows } from '../../db/raw';
import { selectionWhere } from '../records/selection';
import { checkSteps } from './check-steps';
import { Consequences, type EditConsequences } from './consequences';
import { countWhole } from './count-whole';
import { accountNets, type ItemTuple, itemTuple, type ListingTuple } from './edit-nets';
import type { Edit } from './edit-schema';

const byVariations = 'Its stock is counted by its variations';
const liveListings = sql`l.remote = 'live'`;

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
  for await (const chunk of streamRows<ItemTuple>(
    connection,
    sql`select ${itemTuple} from item i where ${where} order by i.id`,
  )) {
    for (const row of chunk) {
      const [, price, quantity, , , , varied] = row;
      const seen = applyToNumbers(edit.steps, { price, quantity }, homeCurrency);
      // Of an item with combinations stock is counted there.
      const isCounted = varied === 1 && seen.changed.includes('quantity');
      const result = isCounted ? { price, changed: [], refused: byVariations } : seen;
      const isQuantity = result.changed.some((one) => one === 'quantity');
      total.items++;
      if (result.changed.length) total.changed++;
      if (result.refused !== null) total.refuse(result.refused);
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
        if (net && listing[0] === row[0]) total.listing(net, row, result.price, isQuantity, listing[2]);
      }
    }
  }
  return total.view;
}

/** What a change does to all of its items and to each account's listings, counted over every row. */
export async function previewCounts(edit: Edit): Promise<EditConsequences> {
  await checkSteps(database(), edit.steps);
  if (!isOnNumbers(edit.steps)) return countWhole(edit);
  return withConnection((connection) => withConnection((listings) => countOn(connection, listings, edit)));
}
