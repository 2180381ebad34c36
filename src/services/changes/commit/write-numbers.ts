import { type SQL, sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import { homeCurrency } from '../../../core/measure';
import { isSamePrice } from '../../../core/price';
import type { Db } from '../../../db/client';
import { insertNumbers, readRows } from '../../../db/raw';
import type { Actor } from '../../access/actor';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { isThere } from '../../records/items/is-there';
import { refreshListings } from '../../records/listings/refresh-listings';
import { queueChanges, queueMarked, type Send } from './queue-changes';

/** Price and units of one item without variations, from what to what. */
export type Planned = {
  id: number;
  price: number | null;
  newPrice: number | null;
  quantity: number;
  newQuantity: number;
};

/** Temporary table of one portion: what changes from what to what. */
async function stage(connection: PoolConnection, planned: readonly Planned[]): Promise<void> {
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

const isByRule = ({ pricing, compiled: { rules } }: LoadedAccount): boolean =>
  rules.price !== null && !isSamePrice(pricing, homeCurrency, rules.currency, rules.price.holds === true);

/** Texts and conditions that speak of a number hang on it. */
const speaksOf = (account: LoadedAccount, word: RegExp): boolean =>
  account.templates.some(
    ({ fields, conditions, previous }) =>
      conditions.some((one) => word.test(one.field)) ||
      [fields, previous?.fields ?? {}].some((texts) => Object.values(texts).some((text) => word.test(text))),
  );

/**
 * Which listings of an account say or check more of a price than the price itself, and so are computed one by one; null
 * when none does.
 */
function oddPrices(account: LoadedAccount): SQL | null {
  const { rules } = account.compiled;
  if (rules.price === null) return speaksOf(account, /price/i) ? sql`1` : null;
  const compared = rules.extras.filter((extra) => extra.against !== undefined);
  const hasDefault = compared.some((extra) => account.defaults[extra.id] !== undefined);
  const isTemplate = compared.some((extra) =>
    account.templates.some((one) => one.fields[`extra.${extra.id}`] !== undefined),
  );
  if (isByRule(account) || rules.fees.bases || hasDefault || isTemplate || speaksOf(account, /price/i)) return sql`1`;
  const { min, max } = rules.price;
  const terms = [
    sql`s.old_price is null or s.new_price is null or s.old_price not between ${min} and ${max} or s.new_price not between ${min} and ${max}`,
    ...(compared.length ? [sql`i.retail_price is not null`] : []),
    ...compared.map((extra) => sql`json_exists(l.overrides, ${`$."extra.${extra.id}"`})`),
    // An attribute of that name says it, too.
    ...compared.map((extra) => sql`json_exists(i.attributes, ${`$."${extra.label}"`})`),
  ];
  return sql`(${sql.join(terms, sql` or `)})`;
}

async function computeOdd(
  db: Db,
  connection: PoolConnection,
  accounts: readonly LoadedAccount[],
  odd: (account: LoadedAccount) => SQL | null,
): Promise<void> {
  const terms = accounts.flatMap((account) => {
    const where = odd(account);
    return where ? [{ account, where }] : [];
  });
  if (terms.length === 0) return;
  const where = terms.map(({ account, where: term }) => sql`(l.account_id = ${account.id} and ${term})`);
  const rows = await readRows<[itemId: number, accountId: number]>(
    connection,
    sql`select l.item_id, l.account_id from listing l join staged s on s.item_id = l.item_id join item i on i.id = l.item_id where ${sql.join(where, sql` or `)}`,
  );
  for (const { account } of terms) {
    const ids = rows.filter(([, accountId]) => accountId === account.id).map(([id]) => id);
    if (ids.length) await refreshListings(db, ids, [account]);
  }
}

/**
 * Writes prices and units of a portion of items without variations set by set: items, history, movements, what listings
 * shall hold, and jobs, in the caller's transaction with the items held. It comes to the same as the general way; a test
 * holds it to that.
 * @returns how many listings are told
 */
export async function writeNumbers(
  db: Db,
  planned: readonly Planned[],
  options: { connection: PoolConnection; actor: Actor; runId: number; why: 'bulk' | 'undo'; send: Send },
): Promise<number> {
  const { connection, actor, runId, why, send } = options;
  const changed = planned.filter((one) => one.price !== one.newPrice || one.quantity !== one.newQuantity);
  if (changed.length === 0) return 0;
  const ids = (some: readonly Planned[]) => some.map((one) => one.id);
  const moved = changed.filter((one) => one.quantity !== one.newQuantity);
  const prices = changed.some((one) => one.price !== one.newPrice);
  const accounts = await loadAccounts(db);
  await stage(connection, changed);
  await db.execute(
    sql`update item i join staged s on s.item_id = i.id set i.price = s.new_price, i.quantity = s.new_quantity, i.version = i.version + 1, i.updated_at = utc_timestamp(3)`,
  );
  if (moved.length) {
    await db.execute(sql`insert into change_record (item_id, run_id, item_version, field, old_value, new_value, why, by_name, at)
      select s.item_id, ${runId}, i.version, 'quantity', s.old_quantity, s.new_quantity, ${why}, ${actor.name}, utc_timestamp(3)
      from staged s join item i on i.id = s.item_id where ${quantityChanged}`);
    await db.execute(sql`insert into movement (item_id, delta, reason, run_id, at, by_name)
      select s.item_id, s.new_quantity - s.old_quantity, ${why === 'undo' ? 'undo' : 'set'}, ${runId}, utc_timestamp(3), ${actor.name} from staged s where ${quantityChanged}`);
    // Where a warehouse sends, or may, units are not those of here alone.
    const afar = accounts.filter(({ compiled, stock }) => compiled.rules.fees.handling || stock?.servedBy);
    const plain = afar.length ? sql`and l.account_id not in ${afar.map((one) => one.id)}` : sql``;
    await db.execute(
      sql`update listing l join staged s on s.item_id = l.item_id set l.wanted_quantity = greatest(0, least(l.quantity_cap, s.new_quantity - (select a.stock_reserve from account a where a.id = l.account_id))) where ${quantityChanged} ${plain}`,
    );
    await computeOdd(db, connection, accounts, (account) =>
      afar.includes(account) || speaksOf(account, /quantity/i) ? quantityChanged : null,
    );
  }
  if (prices) {
    await db.execute(sql`insert into change_record (item_id, run_id, item_version, field, old_value, new_value, why, by_name, at)
      select s.item_id, ${runId}, i.version, 'price', coalesce(s.old_price, 'null'), coalesce(s.new_price, 'null'), ${why}, ${actor.name}, utc_timestamp(3)
      from staged s join item i on i.id = s.item_id where ${priceChanged}`);
    await computeOdd(db, connection, accounts, (account) => {
      const odd = oddPrices(account);
      return odd && sql`${priceChanged} and ${odd}`;
    });
    const own = accounts.filter((account) => isByRule(account) || account.compiled.rules.price === null);
    const takes = own.length ? sql`l.account_id not in ${own.map((one) => one.id)} and` : sql``;
    const priced = ids(changed.filter((one) => one.price !== one.newPrice));
    // One table walked by its index: a joined update would first collect the rows and then find each of them again.
    const newPrice = sql`(select s.new_price from staged s where s.item_id = l.item_id)`;
    const take = sql`update listing l force index (listing_knot) set l.wanted_price = if(${takes} l.override_price is null, ${newPrice}, l.wanted_price)`;
    if (send === 'all' && moved.length === 0) {
      // Prices alone: what is to be told is marked in the same pass, with the price that stands there by then, and queued
      // from the mark.
      const told = sql`(l.busy = 1 or (${isThere} and (l.content_dirty = 1 or coalesce(l.wanted_price <> l.sent_price, 0) or coalesce(l.wanted_quantity <> l.sent_quantity, 1))))`;
      await db.execute(
        sql`${take}, l.problem = if(${told}, 0, l.problem), l.busy = if(${told}, 1, l.busy) where l.item_id in ${priced}`,
      );
      return queueMarked(db, priced, runId);
    }
    await db.execute(sql`${take} where l.item_id in ${priced}`);
  }
  return queueChanges(
    db,
    { all: ids(changed), moved: ids(moved), fallen: ids(moved.filter((one) => one.newQuantity < one.quantity)) },
    send,
    runId,
  );
}
