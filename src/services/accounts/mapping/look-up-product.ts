import { z } from 'zod';
import { database } from '../../../db/client';
import type { ProductQuery } from '../../../markets/connector';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { askCatalogues, joinEntries, lookedUpSchema } from './ask-catalogues';

export const lookUpQuerySchema = z
  .object({ q: z.string().trim().min(2, 'A barcode, an ISBN or a name').max(200) })
  .strict();

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
  const asked = askCatalogues(await loadAccounts(database()), queryFor(q));
  const answers = await Promise.all(asked.map(async ({ name, answer }) => ({ name, ...(await answer) })));
  return {
    found: joinEntries(answers.flatMap((one) => ('entries' in one ? one.entries : []))),
    silent: answers.flatMap((one) => ('why' in one ? [{ name: one.name, why: one.why }] : [])),
  };
}
