import { artworkOf } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import type { Item } from '../../core/item';
import type { Json } from '../../core/json';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

/**
 * Changes one field of artwork, as a person says it.
 * @throws NettingError where the item is no artwork
 */
export async function changeArtwork(
  actor: Actor,
  itemId: number,
  field: string,
  next: (item: Item) => Json,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item || !artworkOf(item)) throw new NettingError('not-found', 'This item is no artwork');
          return [{ target: { item: itemId }, field, to: next(item) }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls' },
      ),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
