import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Json } from '../core/json';
import { type Differences, toPlainText } from '../core/listing';
import type { MarketRules } from '../core/rules';
import { type Tx, transaction } from '../db/client';
import { account, item, listing } from '../db/schema';
import { loadAccounts } from './account-context';
import type { Actor } from './actor';
import { loadItem } from './load-items';
import { recordChanges } from './record-change';
import { computeRow, refreshListings } from './refresh-listings';

const knot = (itemId: number, accountId: number) => and(eq(listing.itemId, itemId), eq(listing.accountId, accountId));

async function lockKnot(tx: Tx, itemId: number, accountId: number) {
  const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId)).for('update');
  const [shop] = await tx.select({ id: account.id }).from(account).where(eq(account.id, accountId));
  if (!row || !shop) throw new NettingError('not-found', 'There is no such item or account');
  const [stored] = await tx.select().from(listing).where(knot(itemId, accountId));
  return { version: row.version, stored };
}

export const placeSchema = z.object({ here: z.boolean() }).strict();

/**
 * Adds a marketplace to an item, or leaves it out. What was written for it stays; a listing that is live has to be
 * ended first, so that nothing disappears from sight while it can still be bought.
 */
export async function placeListing(
  actor: Actor,
  itemId: number,
  accountId: number,
  { here }: z.infer<typeof placeSchema>,
): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const { version, stored } = await lockKnot(tx, itemId, accountId);
    if (!here && (stored?.remote === 'live' || stored?.remote === 'review'))
      throw new NettingError('market-blocked', 'It is live there; end it before leaving it out', {
        mend: 'End the listing',
      });
    const before = stored?.wanted ?? 'none';
    const after = here ? (before === 'none' ? 'draft' : before) : 'none';
    if (after === before && stored) return;
    if (stored) await tx.update(listing).set({ wanted: after, problem: false }).where(knot(itemId, accountId));
    else await tx.insert(listing).values({ itemId, accountId, differences: {}, wanted: after });
    const [saved] = await tx.select({ id: listing.id }).from(listing).where(knot(itemId, accountId));
    await recordChanges(tx, { actor, why: 'typing', at }, [
      { itemId, listingId: saved?.id, itemVersion: version, field: 'place', from: before !== 'none', to: here },
    ]);
    await refreshListings(tx, [itemId]);
  });
}

export const modelSchema = z.object({ model: z.number().int().positive() }).strict();

/** Fields that another marketplace's version can lend: words, photos and price, not what follows from rules. */
const lent = ['title', 'description', 'conditionNote', 'highlights', 'tags', 'photos', 'price'];

const escapeHtml = (raw: string) => raw.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A description in the form that the marketplace takes. */
function inForm(value: Json, from: MarketRules, to: MarketRules): Json {
  if (typeof value !== 'string') return value;
  const wasRich = from.description?.format === 'rich';
  const isRich = to.description?.format === 'rich';
  if (wasRich === isRich) return value;
  if (wasRich) return toPlainText(value);
  return value
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('');
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
    const { version, stored } = await lockKnot(tx, itemId, accountId);
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
    const differences: Differences = { ...stored?.differences };
    const taken: string[] = [];
    for (const field of lent) {
      const lender = model.values.find((one) => one.field === field);
      const value = here.values.find((one) => one.field === field);
      if (!lender || lender.value === null || !value || value.origin === 'unused') continue;
      // What both take from the item needs no lending.
      if (lender.origin !== 'own' && !(field === 'title' && lender.origin === 'fitted')) continue;
      const theirs =
        field === 'description' ? inForm(lender.value, source.compiled.rules, target.compiled.rules) : lender.value;
      if (field === 'price' && !sameCurrency) continue;
      if (JSON.stringify(value.value) === JSON.stringify(theirs)) continue;
      differences[field] = theirs;
      taken.push(field);
    }
    const wanted = stored && stored.wanted !== 'none' ? stored.wanted : 'draft';
    if (stored) await tx.update(listing).set({ differences, wanted }).where(knot(itemId, accountId));
    else await tx.insert(listing).values({ itemId, accountId, differences, wanted });
    const [saved] = await tx.select({ id: listing.id }).from(listing).where(knot(itemId, accountId));
    await recordChanges(
      tx,
      { actor, why: 'typing', at },
      taken.map((field) => ({
        itemId,
        listingId: saved?.id,
        itemVersion: version,
        field,
        from: stored?.differences[field] ?? null,
        to: differences[field] ?? null,
      })),
    );
    await refreshListings(tx, [itemId]);
    return { taken };
  });
}
