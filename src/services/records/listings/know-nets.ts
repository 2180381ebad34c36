import { createHash } from 'node:crypto';
import { crc32 } from 'node:zlib';
import { inArray, sql } from 'drizzle-orm';
import { type Filter, mentionsNet } from '../../../core/filter';
import { computeListing, type Overrides } from '../../../core/listing';
import { netOfContent } from '../../../core/listing/net';
import { database, withConnection } from '../../../db/client';
import { valuesList } from '../../../db/literal';
import { streamRows } from '../../../db/raw';
import { listing } from '../../../db/schema';
import { loadItems } from '../items/load-items';
import { type AccountNet, accountNets, type ItemTuple, itemTuple, netsAt, type Own, ownColumn } from './account-nets';

type Stale = [...ItemTuple, version: number, listingId: number, accountId: number, price: number, own: string | null];

/** Figures hold so long without being looked at again: a page and its count ask at once. */
const freshMs = 2_000;
const portion = 2_000;

/** What a net hangs on besides the item and its price there. */
const stampOf = (there: AccountNet): string => {
  const { account, liveCount, values } = there;
  return createHash('sha1')
    .update(
      JSON.stringify([
        account.row.market,
        account.row.rulesVersion,
        account.row.exceptions,
        account.categoryMap,
        account.rate,
        account.packaging,
        account.packing,
        account.parcels,
        there.isTemplated ? [account.templates, account.defaults] : [],
        liveCount,
        values,
      ]),
    )
    .digest('hex')
    .slice(0, 32);
};

/** Nets of listings whose template says something that a net hangs on: each is computed as a whole. */
async function templated(nets: ReadonlyMap<number, AccountNet>, rows: readonly Stale[]) {
  const found = new Map<number, number | null>();
  const concerned = rows.filter((row) => {
    const there = nets.get(row[12]);
    return there?.isTemplated;
  });
  if (concerned.length === 0) return found;
  const items = new Map(
    (await loadItems(database(), [...new Set(concerned.map(([id]) => id))])).map((one) => [one.id, one]),
  );
  const own = await findOverrides(concerned.map((row) => row[11]));
  for (const row of concerned) {
    const [item, there] = [items.get(row[0]), nets.get(row[12])];
    if (!item || !there) continue;
    const { content } = computeListing({ item, overrides: own.get(row[11]) ?? {}, account: there.account });
    found.set(row[11], netOfContent(there.account, { ...content, price: row[13] }, item, there.liveCount)?.net ?? null);
  }
  return found;
}

async function findOverrides(ids: number[]): Promise<Map<number, Overrides>> {
  const rows = await database()
    .select({ id: listing.id, overrides: listing.overrides })
    .from(listing)
    .where(inArray(listing.id, ids));
  return new Map(rows.map((row) => [row.id, row.overrides]));
}

let working: Promise<void> | null = null;
let knownAt = 0;

/** Computes what is left of every price that is new, or whose item or account became another, since it was computed last. */
async function compute(): Promise<void> {
  const nets = await accountNets();
  if (nets.size === 0) return;
  const stamps = new Map([...nets].map(([id, there]) => [id, stampOf(there)]));
  const stamp = sql.join(
    [...stamps].map(([id, text]) => sql`when ${id} then ${text}`),
    sql` `,
  );
  await withConnection(async (connection) => {
    for await (const rows of streamRows<Stale>(
      connection,
      sql`select ${itemTuple}, i.version, l.id, l.account_id, l.wanted_price, ${ownColumn}
        from listing l join item i on i.id = l.item_id left join listing_net n on n.listing_id = l.id
        where l.state <> 'none' and l.wanted_price is not null
          and not (n.item_version <=> i.version and n.price <=> l.wanted_price and n.stamp <=> concat(case l.account_id ${stamp} end, coalesce(hex(crc32(${ownColumn})), '')))`,
      portion,
    )) {
      const whole = await templated(nets, rows);
      const known = rows.flatMap((row) => {
        const [version, listingId, accountId, price, text] = row.slice(10) as [
          number,
          number,
          number,
          number,
          string | null,
        ]; // the columns behind the item's
        const there = nets.get(accountId);
        const own = text === null ? null : (JSON.parse(text) as Own); // written as JSON by ourselves
        const net = whole.get(listingId) ?? (there && netsAt(there, row, price, own)?.net);
        const ownStamp = text === null ? '' : crc32(text).toString(16).toUpperCase();
        return net === undefined ? [] : [[listingId, version, price, `${stamps.get(accountId) ?? ''}${ownStamp}`, net]];
      });
      if (known.length)
        await database().execute(
          sql`insert into listing_net (listing_id, item_version, price, stamp, net) values ${valuesList(known)} on duplicate key update item_version = values(item_version), price = values(price), stamp = values(stamp), net = values(net)`,
        );
    }
  });
  knownAt = Date.now();
}

/**
 * Before a filter that asks for nets is carried out: they are brought up to date. Others cost nothing.
 * @param within so many milliseconds ago they may have been; 0 for what is about to be changed
 */
export async function knowNetsFor(filters: readonly (Filter | undefined)[], within = freshMs): Promise<void> {
  if (!filters.some((filter) => filter !== undefined && mentionsNet(filter))) return;
  if (Date.now() - knownAt < within) return;
  working ??= compute().finally(() => {
    working = null;
  });
  await working;
}
