import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { type ArtworkDetails, artworkDetailsSchema } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { artwork } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { loadItem } from '../records/items/load-items';
import { fieldOfDetail, heldOf } from './item-details';

const fieldSchema = z.enum(
  Object.keys(artworkDetailsSchema.shape) as [keyof ArtworkDetails, ...(keyof ArtworkDetails)[]],
); // keys of the schema above

export const takeDetailsSchema = z
  .object({
    /** What is taken over from the file. */
    take: z.array(fieldSchema).default([]),
    /** Where ours stays, and the difference is not shown any more. */
    leave: z.array(fieldSchema).default([]),
  })
  .strict();

/** Takes over what a picture's file says, field by field, or leaves ours and the matter be. */
export async function takeDetails(
  actor: Actor,
  itemId: number,
  { take, leave }: z.output<typeof takeDetailsSchema>,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const [art] = await tx.select().from(artwork).where(eq(artwork.itemId, itemId)).for('update');
    if (!art) throw new NettingError('not-found', 'This item is no artwork');
    if (leave.length) {
      const silent = Object.fromEntries(leave.map((field) => [field, Array.isArray(art.said[field]) ? [] : '']));
      await tx
        .update(artwork)
        .set({ said: { ...art.said, ...silent } })
        .where(eq(artwork.itemId, itemId));
    }
    if (take.length === 0) return { version: (await loadItem(tx, itemId)).version };
    const held = heldOf(art.said);
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        () => take.map((field) => ({ target: { item: itemId }, field: fieldOfDetail[field], to: held[field] })),
        {
          actor,
          why: 'typing',
          at: new Date(),
          send: 'falls',
        },
      ),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
