import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { joinThings, nothingKnown, type Thing, wordsOf } from '../../core/match';
import type { Executor } from '../../db/client';
import { item, listing } from '../../db/schema';
import type { RemoteListing } from '../../markets';

export const itemMatchSchema = z.object({
  itemId: z.number(),
  sku: z.string(),
  title: z.string(),
  /** Whether nobody has to be asked. */
  isSure: z.boolean(),
  /** What speaks for it, the weightiest first. */
  why: z.array(z.string()),
});
export type ItemMatch = z.infer<typeof itemMatchSchema>;

const columns = {
  id: item.id,
  sku: item.sku,
  title: item.title,
  brand: item.brand,
  model: item.model,
  barcode: item.barcode,
  price: item.price,
};
type Row = {
  id: number;
  sku: string;
  title: string;
  brand: string;
  model: string;
  barcode: string;
  price: number | null;
};

const looksAtOnce = 300;
const alike = 8;

const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

/** The words by which a title is looked for: those that say most, which hold digits or are long. */
const tellingWords = (title: string): string[] =>
  [...new Set(wordsOf(title))]
    .filter((word) => /^[\p{L}\p{N}]{3,}$/u.test(word))
    .sort((a, b) => Number(/\d/.test(b)) - Number(/\d/.test(a)) || b.length - a.length)
    .slice(0, 5);

/** Items that may be one of these listings: by number, by title, by words of the title; none that is live there already. */
async function candidates(db: Executor, accountId: number, open: readonly RemoteListing[]): Promise<Row[]> {
  const free = and(
    eq(item.standing, 'active'),
    or(isNull(listing.id), isNull(listing.remoteId), sql`${listing.remote} not in ('live', 'review')`),
  );
  const find = (which: ReturnType<typeof or>, most: number) =>
    db
      .select(columns)
      .from(item)
      .leftJoin(listing, and(eq(listing.itemId, item.id), eq(listing.accountId, accountId)))
      .where(and(free, which))
      .limit(most);
  const skus = open.map((one) => one.sku).filter(Boolean);
  const titles = open.map((one) => textOf(one.content.title)).filter(Boolean);
  const found = new Map<number, Row>();
  for (const row of await find(or(inArray(item.sku, ['', ...skus]), inArray(item.title, ['', ...titles])), 5_000))
    found.set(row.id, row);
  const known = new Set([...found.values()].map((row) => row.sku));
  for (const one of open.filter((other) => !known.has(other.sku)).slice(0, looksAtOnce)) {
    const words = tellingWords(textOf(one.content.title));
    if (words.length < 2) continue;
    const said = words.join(' ');
    for (const row of await find(
      sql`match(${item.title}, ${item.sku}, ${item.brand}, ${item.model}, ${item.location}) against (${said} in natural language mode)`,
      alike,
    ))
      found.set(row.id, row);
  }
  return [...found.values()];
}

const thingOfItem = ({ id, sku, title, brand, model, barcode, price }: Row): Thing => ({
  ...nothingKnown,
  id: `item:${id}`,
  place: 'inventory',
  sku,
  title,
  brand,
  model,
  barcode,
  price,
});

const thingOfListing = ({ remoteId, sku, content }: RemoteListing): Thing => ({
  ...nothingKnown,
  id: `listing:${remoteId}`,
  place: 'there',
  sku,
  title: textOf(content.title),
  brand: textOf(content.brand),
});

export type MatchedItems = {
  /** By their number: the item that it seems to be. */
  matches: Map<string, ItemMatch>;
  /** By their number: the item that carries its stock number, whatever else is said of it. */
  numbered: Map<string, number>;
};

/** Which items these listings of an account seem to be: certain ones, and likely ones to be asked about. */
export async function matchItems(
  db: Executor,
  accountId: number,
  open: readonly RemoteListing[],
): Promise<MatchedItems> {
  const matches = new Map<string, ItemMatch>();
  const numbered = new Map<string, number>();
  if (open.length === 0) return { matches, numbered };
  const rows = new Map((await candidates(db, accountId, open)).map((row) => [`item:${row.id}`, row]));
  const bySku = new Map([...rows.values()].map((row) => [row.sku, row.id]));
  for (const { remoteId, sku } of open) {
    const id = sku ? bySku.get(sku) : undefined;
    if (id !== undefined) numbered.set(remoteId, id);
  }
  const things = [...open.map(thingOfListing), ...[...rows.values()].map(thingOfItem)];
  const { pairs } = joinThings(things);
  for (const { a, b, evidence, verdict } of pairs) {
    const [there, ours] = a.place === 'there' ? [a, b] : [b, a];
    const row = rows.get(ours.id);
    const remoteId = there.id.slice('listing:'.length);
    if (!row || matches.has(remoteId)) continue;
    matches.set(remoteId, {
      itemId: row.id,
      sku: row.sku,
      title: row.title,
      isSure: verdict === 'same',
      why: evidence.filter((one) => one.weight > 0).map((one) => one.said),
    });
  }
  return { matches, numbered };
}
