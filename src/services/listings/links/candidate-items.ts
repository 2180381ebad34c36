import { and, asc, eq, gt, inArray, type SQL, sql } from 'drizzle-orm';
import { NearestTitles } from '../../../core/match';
import type { Executor } from '../../../db/client';
import { item } from '../../../db/schema';

const columns = {
  id: item.id,
  sku: item.sku,
  title: item.title,
  brand: item.brand,
  model: item.model,
  barcode: item.barcode,
  price: item.price,
  condition: item.condition,
};
export type CandidateItem = Pick<typeof item.$inferSelect, keyof typeof columns>;

/** So many are kept of each that is looked for; some of them may be live there already. */
const alike = 10;
const atOnce = 500;
const portion = 10_000;

/** The items whose titles are nearest to these, found in one pass over the inventory. */
async function nearestItems(
  db: Executor,
  titles: readonly string[],
  alive: (() => Promise<void>) | undefined,
): Promise<number[]> {
  const nearest = new NearestTitles(titles, alike);
  for (let after = 0; ; ) {
    const rows = await db
      .select({ id: item.id, title: item.title })
      .from(item)
      .where(and(eq(item.standing, 'active'), gt(item.id, after)))
      .orderBy(asc(item.id))
      .limit(portion);
    for (const row of rows) nearest.look(row.id, row.title);
    await alive?.();
    const last = rows.at(-1);
    if (!last || rows.length < portion) return [...new Set(nearest.ids.flat())];
    after = last.id;
  }
}

/**
 * Items that may be one of these listings: by their number, by the title, by words of the title.
 * @param where which items come into question besides
 * @param most of how many listings without a known number words are looked for
 * @param alive told now and then, where it takes long
 */
export async function candidateItems(
  db: Executor,
  listings: readonly { sku: string; title: string }[],
  { where, most, alive }: { where?: SQL; most: number; alive?: () => Promise<void> },
): Promise<CandidateItem[]> {
  const found = new Map<number, CandidateItem>();
  const find = async (which: SQL | undefined) => {
    const rows = await db
      .select(columns)
      .from(item)
      .where(and(eq(item.standing, 'active'), where, which))
      .limit(5_000);
    for (const row of rows) found.set(row.id, row);
  };
  for (let at = 0; at < listings.length; at += atOnce) {
    const some = listings.slice(at, at + atOnce);
    const skus = some.map((one) => one.sku).filter(Boolean);
    const titles = some.map((one) => one.title).filter(Boolean);
    // Two walks along two indexes; one condition of both would read everything.
    if (skus.length) await find(inArray(item.sku, skus));
    if (titles.length) await find(inArray(item.title, titles));
  }
  const known = new Set([...found.values()].map((row) => row.sku.toLowerCase()));
  const open = listings.filter((one) => one.title && !known.has(one.sku.toLowerCase())).slice(0, most);
  if (open.length === 0) return [...found.values()];
  const near = await nearestItems(
    db,
    open.map((one) => one.title),
    alive,
  );
  for (let at = 0; at < near.length; at += atOnce) await find(inArray(item.id, near.slice(at, at + atOnce)));
  return [...found.values()];
}

/** None that is live on this account already. */
export const freeOn = (accountId: number): SQL =>
  sql`not exists (select 1 from listing l where l.item_id = ${item.id} and l.account_id = ${accountId} and l.remote_id is not null and l.remote in ('live', 'review'))`;
