import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { account, categoryMap } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { recheckListings } from '../../records/listings/recheck-listings';

export const mapCategorySchema = z
  .object({ ownCategory: z.string().min(1).max(120), categoryId: z.string().min(1).max(60) })
  .strict();

/** Says which of a marketplace's categories stands for one of ours, for every item of that category. */
export async function mapCategory(
  actor: Actor,
  accountId: number,
  input: z.infer<typeof mapCategorySchema>,
): Promise<void> {
  const [found] = await loadAccounts(database(), [accountId]);
  if (!found) throw new NettingError('not-found', 'There is no such account');
  const target = found.compiled.categoryById.get(input.categoryId);
  if (!target?.leaf)
    throw new NettingError('invalid', 'Choose a category of the deepest level', { field: 'categoryId' });
  const { market } = found.compiled.rules;
  await database()
    .insert(categoryMap)
    .values({ market, ...input, byName: actor.name, at: new Date() })
    .onDuplicateKeyUpdate({ set: { categoryId: input.categoryId, byName: actor.name, at: new Date() } });
  const accounts = await database().select({ id: account.id }).from(account).where(eq(account.market, market));
  for (const { id } of accounts) await recheckListings(id);
}
