import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { type Filter, mentionsNet } from '../../core/filter';
import { database, withConnection } from '../../db/client';
import { valuesList } from '../../db/literal';
import { streamRows } from '../../db/raw';
import { type AccountNet, accountNets, type ItemTuple, itemTuple, netsAt } from './account-nets';

type Stale = [...ItemTuple, version: number, listingId: number, accountId: number, price: number];

/** Figures hold so long without being looked at again: a page and its count ask at once. */
const freshMs = 2_000;
const portion = 2_000;

/** What a net hangs on besides the item and its price there. */
const stampOf = ({ account, liveCount, packaging, values, sellerPays }: AccountNet): string =>
  createHash('sha1')
    .update(
      JSON.stringify([
        account.row.market,
        account.row.rulesVersion,
        account.row.exceptions,
        account.categoryMap,
        account.rate,
        liveCount,
        packaging,
        values,
        sellerPays,
      ]),
    )
    .digest('hex');

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
      sql`select ${itemTuple}, i.version, l.id, l.account_id, l.wanted_price
        from listing l join item i on i.id = l.item_id left join listing_net n on n.listing_id = l.id
        where l.state <> 'none' and l.wanted_price is not null
          and not (n.item_version <=> i.version and n.price <=> l.wanted_price and n.stamp <=> case l.account_id ${stamp} end)`,
      portion,
    )) {
      const known = rows.flatMap((row) => {
        const [version, listingId, accountId, price] = row.slice(7) as [number, number, number, number]; // the columns behind the item's
        const there = nets.get(accountId);
        const found = there && netsAt(there, row, price);
        return found ? [[listingId, version, price, stamps.get(accountId) ?? '', found.net]] : [];
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
