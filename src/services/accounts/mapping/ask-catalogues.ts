import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { catalogueEntrySchema, foundProductSchema } from '../../../core/listing/map/product';
import { connectorOf } from '../../../markets';
import type { ProductQuery } from '../../../markets/connector';
import { sessionFor } from '../../access/market-session';
import type { LoadedAccount } from '../../records/accounts/load-accounts';

/** A catalogue's entry, and what an item would take over from it. */
export const lookedUpSchema = catalogueEntrySchema.extend({
  market: z.string(),
  from: z.string(),
  category: z.string(),
  /** The same thing's entry on each marketplace that knows it: taken over, listings there are of that product. */
  records: z.array(foundProductSchema.extend({ accountId: z.number() })),
});
export type LookedUp = z.infer<typeof lookedUpSchema>;

/** What one catalogue answers: its entries, or why it said nothing. */
export type Asked = { name: string; answer: Promise<{ entries: LookedUp[] } | { why: string }> };

/**
 * Asks every connected marketplace that has a catalogue, all at once.
 * @param urgent somebody stands and waits: it goes before what else is asked there
 */
export function askCatalogues(accounts: readonly LoadedAccount[], query: ProductQuery, urgent = false): Asked[] {
  const byMarket = new Map(accounts.map((account) => [account.compiled.rules.market, account]));
  return [...byMarket.values()].flatMap((account): Asked[] => {
    const connector = connectorOf(account.row.market);
    const look = connector.findProducts;
    if (!look) return [];
    const ask = async () => {
      const session = sessionFor(account.row, account.compiled.rules.pacing.perMinute, urgent);
      try {
        const entries = await look(session, query);
        return {
          entries: entries.slice(0, 8).map((entry) => ({
            ...entry,
            market: connector.market,
            from: connector.name,
            records: [{ accountId: account.id, id: entry.id, name: entry.name, categoryId: entry.categoryId }],
            category: Object.entries(account.categoryMap).find(([, id]) => id === entry.categoryId)?.[0] ?? '',
          })),
        };
      } catch (error) {
        return { why: error instanceof NettingError ? error.message : 'It did not answer' };
      }
    };
    return [{ name: connector.name, answer: ask() }];
  });
}

/** The same product found on several marketplaces comes once, with its entry on each. */
export function joinEntries(entries: readonly LookedUp[]): LookedUp[] {
  const known = new Map<string, LookedUp>();
  for (const entry of entries) {
    const key = entry.barcode || `${entry.brand}/${entry.model}/${entry.name}`.toLowerCase();
    const same = known.get(key);
    const best = same && !entry.category ? same : { ...entry, category: entry.category || (same?.category ?? '') };
    known.set(key, { ...best, records: [...(same?.records ?? []), ...entry.records] });
  }
  return [...known.values()].slice(0, 20);
}
