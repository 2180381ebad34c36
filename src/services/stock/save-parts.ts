import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { levelFault } from '../../core/kit';
import { type Tx, transaction } from '../../db/client';
import { itemPart } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { familyOf } from '../records/items/family';
import { holdItems } from '../records/items/hold-items';

export const savePartsSchema = z
  .object({
    parts: z
      .array(z.object({ item: z.number().int().positive(), pieces: z.number().int().min(1).max(10_000) }).strict())
      .max(2_000),
  })
  .strict();

type Given = z.output<typeof savePartsSchema>;

/** Says what a whole set is made of; from then on it and its parts are one stock. Returns how many there are. */
export const saveParts = (actor: Actor, setId: number, given: Given): Promise<{ quantity: number }> =>
  transaction((tx) => savePartsWithin(tx, actor, setId, given));

/** The same in the caller's transaction. */
export async function savePartsWithin(
  tx: Tx,
  actor: Actor,
  setId: number,
  { parts }: Given,
): Promise<{ quantity: number }> {
  const ids = parts.map((one) => one.item);
  if (new Set(ids).size < ids.length)
    throw new NettingError('invalid', 'A part is named twice: say how many pieces of it there are', { field: 'parts' });
  const { items } = await holdItems(tx, [setId, ...ids]);
  const known = new Map(items.map((one) => [one.id, one]));
  const nameOf = (id: number) => known.get(id)?.title || known.get(id)?.sku || `item ${id}`;
  for (const id of [setId, ...ids]) {
    const one = known.get(id);
    if (!one) throw new NettingError('not-found', `There is no item ${id}`);
    if (one.axes.length)
      throw new NettingError('invalid', `${nameOf(id)} has variations: neither a set nor a part can have them`, {
        field: 'parts',
      });
  }
  const family = await familyOf(tx, [setId, ...ids]);
  const fault = levelFault(setId, ids, family?.relations ?? [], nameOf);
  if (fault) throw new NettingError('invalid', fault, { field: 'parts' });
  await tx.delete(itemPart).where(eq(itemPart.setId, setId));
  if (parts.length)
    await tx.insert(itemPart).values(parts.map(({ item: partId, pieces }) => ({ setId, partId, pieces })));
  const { items: now } = allCommitted(
    await commitItems(
      tx,
      [setId],
      // Without parts it is nothing of its own any more: what there is are the parts.
      () => (parts.length === 0 ? [{ target: { item: setId }, field: 'quantity', to: 0 }] : []),
      { actor, why: 'typing', at: new Date(), send: 'stock', stock: { reason: 'set', mayGoBelowZero: true } },
    ),
  );
  return { quantity: now[0]?.item.quantity ?? 0 };
}
