import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import type { Json } from '../../core/json';
import { fixedFields } from '../../core/listing';
import { transaction } from '../../db/client';
import { account, item, listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { cleanRichText } from '../records/clean-rich-text';
import { refreshListings } from '../records/refresh-listings';
import { recordChanges } from './record-changes';

const json: z.ZodType<Json> = z.json();
const fieldName = z
  .string()
  .max(80)
  .refine(
    (field) => /^(attr|extra)\.[\w-]+$/.test(field) || fixedFields.some((known) => known === field),
    'There is no such field',
  );

export const setOverrideSchema = z
  .object({ field: fieldName, value: json.optional().describe('Left out: back to the item’s own value') })
  .strict();

/** Writes a field for one marketplace alone, or takes that back so that it follows the item again. */
export async function setOverride(
  actor: Actor,
  itemId: number,
  accountId: number,
  input: z.infer<typeof setOverrideSchema>,
): Promise<void> {
  const at = new Date();
  const value =
    input.field === 'description' && typeof input.value === 'string' ? cleanRichText(input.value) : input.value;
  if (JSON.stringify(value ?? null).length > 120_000)
    throw new NettingError('invalid', 'This is too long', { field: input.field });
  if (
    (input.field === 'price' || input.field === 'quantity') &&
    value !== undefined &&
    !(typeof value === 'number' && Number.isInteger(value) && value >= 0)
  ) {
    throw new NettingError('invalid', 'A whole number is needed', { field: input.field });
  }
  if (input.field === 'sku')
    throw new NettingError('invalid', 'The stock number is the same everywhere', { field: 'sku' });
  await transaction(async (tx) => {
    const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId)).for('update');
    const [shop] = await tx.select({ id: account.id }).from(account).where(eq(account.id, accountId));
    if (!row || !shop) throw new NettingError('not-found', 'There is no such item or account');
    const knot = and(eq(listing.itemId, itemId), eq(listing.accountId, accountId));
    const [existing] = await tx.select().from(listing).where(knot);
    const overrides = { ...existing?.overrides };
    const from = overrides[input.field] ?? null;
    if (value === undefined) delete overrides[input.field];
    else overrides[input.field] = value;
    if (existing) await tx.update(listing).set({ overrides }).where(knot);
    else await tx.insert(listing).values({ itemId, accountId, overrides, wanted: 'draft' });
    const [saved] = await tx.select({ id: listing.id }).from(listing).where(knot);
    await recordChanges(tx, { actor, why: 'typing', at }, [
      { itemId, listingId: saved?.id, itemVersion: row.version, field: input.field, from, to: value ?? null },
    ]);
    await refreshListings(tx, [itemId]);
  });
}
