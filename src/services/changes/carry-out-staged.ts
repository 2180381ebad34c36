import { type SQL, sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { isSamePrice } from '../../core/price';
import { priorities } from '../../core/sync';
import type { Db } from '../../db/client';
import { insertNumbers, readRows } from '../../db/raw';
import type { Actor } from '../access/actor';
import { enqueueJobs } from '../records/enqueue-jobs';
import { homeCurrency, loadAccounts } from '../records/load-accounts';
import { refreshListings } from '../records/refresh-listings';

export type Planned = {
  id: number;
  price: number | null;
  newPrice: number | null;
  quantity: number;
  newQuantity: number;
};

/** Temporary table of one run: what changes from what to what. */
export async function stageChanges(connection: PoolConnection, planned: Planned[]): Promise<void> {
  await connection.query('drop temporary table if exists staged');
  await connection.query(
    'create temporary table staged (item_id bigint unsigned primary key, old_price bigint, new_price bigint, old_quantity int not null, new_quantity int not null) engine=memory',
  );
  await insertNumbers(
    connection,
    'staged',
    planned.map((one) => [one.id, one.price, one.newPrice, one.quantity, one.newQuantity]),
  );
}

const priceChanged = sql`not (s.old_price <=> s.new_price)`;

const quantityChanged = sql`s.old_quantity <> s.new_quantity`;

// What differs from what was sent; and what is being sent right now, which may carry the old value: the change joins it.
const plainPrice = sql`if(l.override_price is null, s.new_price, l.wanted_price)`;

/** Where an account makes its own prices they were computed before; everywhere else the item's price is taken over. */
const newPriceBut = (computed: number[]) =>
  computed.length ? sql`if(l.account_id in ${computed}, l.wanted_price, ${plainPrice})` : plainPrice;

/** Accounts whose prices are made by rule, from rate, postage or fees: their listings are computed one by one. */
async function computePrices(db: Db, connection: PoolConnection): Promise<number[]> {
  const accounts = (await loadAccounts(db)).filter(
    ({ pricing, compiled: { rules } }) =>
      rules.price !== null && !isSamePrice(pricing, homeCurrency, rules.currency, rules.price.holds === true),
  );
  if (accounts.length === 0) return [];
  const ids = accounts.map((one) => one.id);
  const rows = await readRows<[number]>(
    connection,
    sql`select distinct l.item_id from listing l join staged s on s.item_id = l.item_id where l.account_id in ${ids} and l.override_price is null`,
  );
  for (let at = 0; at < rows.length; at += 500)
    await refreshListings(
      db,
      rows.slice(at, at + 500).map(([id]) => id),
      accounts,
    );
  return ids;
}

/** Combinations carry prices of their own that follow the item's: such listings are computed one by one. */
async function variedStaged(connection: PoolConnection): Promise<number[]> {
  const rows = await readRows<[number]>(
    connection,
    sql`select i.id from staged s join item i on i.id = s.item_id where i.axes <> '[]'`,
  );
  return rows.map(([id]) => id);
}

async function refreshInPortions(db: Db, ids: number[]): Promise<void> {
  for (let at = 0; at < ids.length; at += 500) await refreshListings(db, ids.slice(at, at + 500));
}

const differs = (price: SQL) =>
  sql`(l.busy = 1 or (l.remote in ('live', 'review') and (l.content_dirty = 1 or coalesce(${price} <> l.sent_price, 0) or coalesce(l.wanted_quantity <> l.sent_quantity, 0))))`;

/**
 * Carries out what is staged: items, history, stock movements, what listings shall hold, and jobs where wanted.
 * Set by set in the caller's transaction, so that a hundred thousand items take seconds and all of it counts or none.
 */
export async function carryOutStaged(
  db: Db,
  options: {
    connection: PoolConnection;
    actor: Actor;
    runId: number;
    why: 'bulk' | 'undo';
    send: boolean;
    prices: boolean;
    quantities: boolean;
    /** Items with variations among them, where the caller knows; looked up when left out. */
    varied?: number[];
  },
): Promise<number> {
  const { actor, runId, why, send, prices, quantities } = options;
  if (prices && quantities)
    await db.execute(
      sql`update item i join staged s on s.item_id = i.id set i.price = s.new_price, i.quantity = s.new_quantity, i.version = i.version + 1, i.updated_at = utc_timestamp(3)`,
    );
  else if (prices)
    await db.execute(
      sql`update item i join staged s on s.item_id = i.id set i.price = s.new_price, i.version = i.version + 1, i.updated_at = utc_timestamp(3)`,
    );
  else
    await db.execute(
      sql`update item i join staged s on s.item_id = i.id set i.quantity = s.new_quantity, i.version = i.version + 1, i.updated_at = utc_timestamp(3)`,
    );
  if (quantities) {
    await db.execute(sql`insert into change_record (item_id, run_id, item_version, field, old_value, new_value, why, by_name, at)
      select s.item_id, ${runId}, i.version, 'quantity', s.old_quantity, s.new_quantity, ${why}, ${actor.name}, utc_timestamp(3)
      from staged s join item i on i.id = s.item_id where ${quantityChanged}`);
    await db.execute(sql`insert into movement (item_id, delta, reason, run_id, at, by_name)
      select s.item_id, s.new_quantity - s.old_quantity, ${why === 'undo' ? 'undo' : 'set'}, ${runId}, utc_timestamp(3), ${actor.name} from staged s where ${quantityChanged}`);
    await db.execute(
      sql`update listing l join staged s on s.item_id = l.item_id set l.wanted_quantity = greatest(0, least(l.quantity_cap, s.new_quantity - (select a.stock_reserve from account a where a.id = l.account_id))) where ${quantityChanged}`,
    );
  }
  if (prices) {
    await refreshInPortions(db, options.varied ?? (await variedStaged(options.connection)));
    const newPrice = newPriceBut(await computePrices(db, options.connection));
    await db.execute(sql`insert into change_record (item_id, run_id, item_version, field, old_value, new_value, why, by_name, at)
      select s.item_id, ${runId}, i.version, 'price', coalesce(s.old_price, 'null'), coalesce(s.new_price, 'null'), ${why}, ${actor.name}, utc_timestamp(3)
      from staged s join item i on i.id = s.item_id where ${priceChanged}`);
    await db.execute(sql`update listing l join staged s on s.item_id = l.item_id set
      l.wanted_price = ${newPrice},
      l.problem = if(${send} and ${differs(newPrice)}, 0, l.problem),
      l.busy = if(${send} and ${differs(newPrice)}, 1, l.busy)`);
  }
  if (!send) return 0;
  // With prices the listings were marked in the update above: one pass over them instead of two.
  return enqueueJobs(db, {
    from: sql`join staged s on s.item_id = l.item_id`,
    where: prices ? sql`l.busy = 1` : differs(sql`l.wanted_price`),
    priority: quantities ? priorities.quantity : priorities.price,
    runId,
    marked: prices,
  });
}
