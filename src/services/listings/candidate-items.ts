import { and, eq, inArray, type SQL, sql } from 'drizzle-orm';
import { wordsOf } from '../../core/match';
import type { Executor } from '../../db/client';
import { item } from '../../db/schema';

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

const alike = 8;
const atOnce = 500;

/** The words by which a title is looked for: those that say most, which hold digits or are long. */
const tellingWords = (title: string): string[] =>
  [...new Set(wordsOf(title))]
    .filter((word) => /^[\p{L}\p{N}]{3,}$/u.test(word))
    .sort((a, b) => Number(/\d/.test(b)) - Number(/\d/.test(a)) || b.length - a.length)
    .slice(0, 5);

/**
 * Items that may be one of these listings: by their number, by the title, by words of the title.
 * @param where which items come into question besides
 * @param most of how many listings without a number words are looked for
 * @param alive told now and then, where it takes long
 */
export async function candidateItems(
  db: Executor,
  listings: readonly { sku: string; title: string }[],
  { where, most, alive }: { where?: SQL; most: number; alive?: () => Promise<void> },
): Promise<CandidateItem[]> {
  const found = new Map<number, CandidateItem>();
  const find = async (which: SQL | undefined, limit: number) => {
    const rows = await db
      .select(columns)
      .from(item)
      .where(and(eq(item.standing, 'active'), where, which))
      .limit(limit);
    for (const row of rows) found.set(row.id, row);
  };
  for (let at = 0; at < listings.length; at += atOnce) {
    const some = listings.slice(at, at + atOnce);
    const skus = some.map((one) => one.sku).filter(Boolean);
    const titles = some.map((one) => one.title).filter(Boolean);
    // Two walks along two indexes; one condition of both would read everything.
    if (skus.length) await find(inArray(item.sku, skus), 5_000);
    if (titles.length) await find(inArray(item.title, titles), 5_000);
  }
  const known = new Set([...found.values()].map((row) => row.sku.toLowerCase()));
  const open = listings.filter((one) => !known.has(one.sku.toLowerCase())).slice(0, most);
  for (const [at, one] of open.entries()) {
    if (at % 50 === 49) await alive?.();
    const words = tellingWords(one.title);
    if (words.length < 2) continue;
    const said = words.join(' ');
    await find(
      sql`match(${item.title}, ${item.sku}, ${item.brand}, ${item.model}, ${item.location}) against (${said} in natural language mode)`,
      alike,
    );
  }
  return [...found.values()];
}

/** None that is live on this account already. */
export const freeOn = (accountId: number): SQL =>
  sql`not exists (select 1 from listing l where l.item_id = ${item.id} and l.account_id = ${accountId} and l.remote_id is not null and l.remote in ('live', 'review'))`;
