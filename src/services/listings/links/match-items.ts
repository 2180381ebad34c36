import { z } from 'zod';
import { joinThings } from '../../../core/match';
import type { Executor } from '../../../db/client';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { candidateItems, freeOn } from './candidate-items';
import { type Said, textOf, thingOfItem, thingOfListing } from './match-things';

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

const looksAtOnce = 300;

export type MatchedItems = {
  /** By their number: the item that it seems to be. */
  matches: Map<string, ItemMatch>;
  /** By their number: the item that carries its stock number, whatever else is said of it. */
  numbered: Map<string, number>;
};

/** Which items these listings of an account seem to be: certain ones, and likely ones to be asked about. */
export async function matchItems(db: Executor, accountId: number, open: readonly Said[]): Promise<MatchedItems> {
  const matches = new Map<string, ItemMatch>();
  const numbered = new Map<string, number>();
  const [account] = open.length ? await loadAccounts(db, [accountId]) : [];
  if (!account) return { matches, numbered };
  const asked = open.map(({ sku, content, called }) => ({ sku, title: textOf(content.title) || called }));
  const found = await candidateItems(db, asked, { where: freeOn(accountId), most: looksAtOnce });
  const rows = new Map(found.map((row) => [`item:${row.id}`, row]));
  const bySku = new Map([...rows.values()].map((row) => [row.sku, row.id]));
  for (const { remoteId, sku } of open) {
    const id = sku ? bySku.get(sku) : undefined;
    if (id !== undefined) numbered.set(remoteId, id);
  }
  const things = [
    ...open.map((one) => thingOfListing(`listing:${one.remoteId}`, 'there', one, account)),
    ...[...rows].map(([id, row]) => thingOfItem(id, row)),
  ];
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
