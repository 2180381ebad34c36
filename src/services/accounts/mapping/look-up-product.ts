import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { catalogueEntrySchema, foundProductSchema } from '../../../core/listing/map/product';
import { database } from '../../../db/client';
import type { ProductQuery } from '../../../markets/connector';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { openAccount } from '../../records/accounts/open-account';
export const lookUpQuerySchema = z
  .object({ q: z.string().trim().min(2, 'A barcode, an ISBN or a name').max(200) })
  .strict();

/** A catalogue's entry, and what an item would take over from it. */
export const lookedUpSchema = catalogueEntrySchema.extend({
  market: z.string(),
  from: z.string(),
  category: z.string(),
  /** The same thing's entry on each marketplace that knows it: taken over, listings there are of that product. */
  records: z.array(foundProductSchema.extend({ accountId: z.number() })),
});
export type LookedUp = z.infer<typeof lookedUpSchema>;

export const lookUpSchema = z.object({
  found: z.array(lookedUpSchema),
  silent: z.array(
    z.object({
      name: z.string(),
      why: z.string(),
    }),
  ),
});
export type LookUp = z.infer<typeof lookUpSchema>;

/** A barcode or ISBN by its digits, else words of a name. */
export function queryFor(q: string): ProductQuery {
  const digits = q.replace(/[\s-]/g, '');
  if (/^97[89]\d{10}$/.test(digits) || /^\d{9}[\dX]$/i.test(digits)) return { isbn: digits };
  return /^\d{8,14}$/.test(digits) ? { gtin: digits } : { name: q };
}

/**
 * Asks every connected marketplace that has a catalogue, all at once; the same product found twice comes once. One that
 * does not answer is named, the others' answers count.
 */
export async function lookUpProduct({ q }: z.infer<typeof lookUpQuerySchema>): Promise<LookUp> {
  const accounts = await loadAccounts(database());
  const byMarket = new Map(accounts.map((account) => [account.compiled.rules.market, account]));
  const silent: LookUp['silent'] = [];
  const answers = await Promise.all(
    [...byMarket.values()].map(async (account): Promise<LookedUp[]> => {
      const { session, connector } = await openAccount(account.id);
      if (!connector.findProducts) return [];
      try {
        const entries = await connector.findProducts(session, queryFor(q));
        return entries.slice(0, 8).map((entry) => ({
          ...entry,
          market: connector.market,
          from: connector.name,
          records: [{ accountId: account.id, id: entry.id, name: entry.name, categoryId: entry.categoryId }],
          category: Object.entries(account.categoryMap).find(([, id]) => id === entry.categoryId)?.[0] ?? '',
        }));
      } catch (error) {
        silent.push({
          name: connector.name,
          why: error instanceof NettingError ? error.message : 'It did not answer',
        });
        return [];
      }
    }),
  );
  const known = new Map<string, LookedUp>();
  for (const entry of answers.flat()) {
    const key = entry.barcode || `${entry.brand}/${entry.model}/${entry.name}`.toLowerCase();
    const same = known.get(key);
    const best = same && !entry.category ? same : { ...entry, category: entry.category || (same?.category ?? '') };
    known.set(key, { ...best, records: [...(same?.records ?? []), ...entry.records] });
  }
  return { found: [...known.values()].slice(0, 20), silent };
}
