import { eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { artwork } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { loadItem } from '../records/items/load-items';

export const settleTwinSchema = z
  .object({
    /** `take`: its file takes the place of that of the artwork it looks like. `keep`: it is another one. */
    how: z.enum(['take', 'keep']),
  })
  .strict();

/**
 * Settles that artwork looks like another one: it is kept as one of its own, or its file takes the place of the other's,
 * which keeps its words, its placings and its listings; what was made of the file goes to what was deleted.
 * @returns the artwork that has the file now
 */
export async function settleTwin(
  actor: Actor,
  itemId: number,
  { how }: z.output<typeof settleTwinSchema>,
): Promise<{ itemId: number }> {
  return transaction(async (tx) => {
    const [art] = await tx.select().from(artwork).where(eq(artwork.itemId, itemId)).for('update');
    if (!art) throw new NettingError('not-found', 'This item is no artwork');
    if (how === 'keep' || art.twinOf === null) {
      await tx.update(artwork).set({ twinOf: null }).where(eq(artwork.itemId, itemId));
      return { itemId };
    }
    const into = art.twinOf;
    const [other] = await tx.select().from(artwork).where(eq(artwork.itemId, into)).for('update');
    const isThere = other && (await loadItem(tx, into)).standing !== 'deleted';
    if (!other || !isThere) throw new NettingError('not-found', 'What it looks like is gone');
    const picture = (await loadItem(tx, itemId)).photos.find((one) => one.hash === art.hash);
    if (!picture) throw new NettingError('conflict', 'Its picture is not on it any more');
    allCommitted(
      await commitItems(
        tx,
        [into, itemId],
        ({ items }) => {
          const kept = items.find((one) => one.id === into);
          const hashes = (kept?.photos ?? []).map((one) => (one.hash === other.hash ? art.hash : one.hash));
          return [
            { target: { item: into }, field: 'photos', to: hashes.includes(art.hash) ? hashes : [art.hash, ...hashes] },
            { target: { item: itemId }, field: 'standing', to: 'deleted' },
          ];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls', photos: [picture] },
      ),
    );
    await tx.delete(artwork).where(inArray(artwork.itemId, [itemId]));
    await tx
      .update(artwork)
      .set({ hash: art.hash, name: art.name, tones: art.tones, print: art.print, pixels: art.pixels })
      .where(eq(artwork.itemId, into));
    return { itemId: into };
  });
}
