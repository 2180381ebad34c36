import { z } from 'zod';
import type { Change } from '../../../core/change';
import { NettingError } from '../../../core/errors';
import { type Json, sameJson } from '../../../core/json';
import { toPlainText, toRichText } from '../../../core/listing';
import type { MarketRules } from '../../../core/rules';
import { transaction } from '../../../db/client';
import { listing } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { commitItems } from '../../changes/commit/commit-items';
import { allCommitted } from '../../changes/commit/refusal-error';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { loadItem } from '../../records/items/load-items';
import { computeRow } from '../../records/listings/compute-row';
import { refreshListings } from '../../records/listings/refresh-listings';
import { knot, lockTarget } from '../publish/lock-target';

export const modelSchema = z.object({ model: z.number().int().positive() }).strict();

/** Fields that another marketplace's version can lend: words, photos and price, not what follows from rules. */
const lent = ['title', 'description', 'conditionNote', 'highlights', 'tags', 'photos', 'price'];

/** A description in the form that the marketplace takes. */
function inForm(value: Json, from: MarketRules, to: MarketRules): Json {
  if (typeof value !== 'string') return value;
  const wasRich = from.description?.format === 'rich';
  const isRich = to.description?.format === 'rich';
  if (wasRich === isRich) return value;
  if (wasRich) return toPlainText(value);
  return toRichText(value);
}

/**
 * Takes another marketplace's version as the model: what was written for it alone (and its title, however it came about)
 * is written here as own, in the form this marketplace takes, where it has such a field and says something else.
 */
export async function modelListing(
  actor: Actor,
  itemId: number,
  accountId: number,
  input: z.infer<typeof modelSchema>,
): Promise<{ taken: string[] }> {
  const at = new Date();
  return transaction(async (tx) => {
    const { stored } = await lockTarget(tx, itemId, accountId);
    const accounts = await loadAccounts(tx, [accountId, input.model]);
    const target = accounts.find((one) => one.id === accountId);
    const source = accounts.find((one) => one.id === input.model);
    if (!target || !source || target === source)
      throw new NettingError('invalid', 'Choose another account as the model', { field: 'model' });
    const whole = await loadItem(tx, itemId);
    const [row] = await tx.select().from(listing).where(knot(itemId, input.model));
    const model = computeRow(whole, row, source);
    const here = computeRow(whole, stored, target);
    const sameCurrency = source.compiled.rules.currency === target.compiled.rules.currency;
    const taken: string[] = [];
    const changes: Change[] = [];
    for (const field of lent) {
      const lender = model.values.find((one) => one.field === field);
      const value = here.values.find((one) => one.field === field);
      if (!lender || lender.value === null || !value || value.origin === 'unused') continue;
      // What both take from the item needs no lending.
      if (lender.origin !== 'override' && !(field === 'title' && lender.origin === 'fitted')) continue;
      const theirs =
        field === 'description' ? inForm(lender.value, source.compiled.rules, target.compiled.rules) : lender.value;
      if (field === 'price' && !sameCurrency) continue;
      if (sameJson(value.value, theirs)) continue;
      changes.push({ target: { item: itemId, account: accountId }, field, to: theirs });
      taken.push(field);
    }
    // Also where nothing is lent the item is for this marketplace from now on.
    if (!stored) await tx.insert(listing).values({ itemId, accountId, overrides: {}, wanted: 'draft' });
    else if (stored.wanted === 'none') await tx.update(listing).set({ wanted: 'draft' }).where(knot(itemId, accountId));
    allCommitted(await commitItems(tx, [itemId], () => changes, { actor, why: 'typing', at, send: 'falls' }));
    await refreshListings(tx, [itemId], [target]);
    return { taken };
  });
}
