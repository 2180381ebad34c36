import { z } from 'zod';
import { artworkOf, everywhere, placingSchema, writePlacing } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

export const setPlacingSchema = z
  .object({
    /** The product on which it stands so; left out for all that it is printed on. */
    product: z.string().trim().min(1).max(60).optional(),
    /** Null: it is placed by the template again. */
    placing: placingSchema.nullable(),
  })
  .strict();

/** Places artwork by hand, on one product or on all of them: there it stands in proportion to what is printed on. */
export async function setPlacing(
  actor: Actor,
  itemId: number,
  { product = everywhere, placing }: z.output<typeof setPlacingSchema>,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item || !artworkOf(item)) throw new NettingError('not-found', 'This item is no artwork');
          const { [product]: _before, ...rest } = item.placings;
          const placings = placing === null ? rest : { ...rest, [product]: writePlacing(placing) };
          return [{ target: { item: itemId }, field: 'placings', to: placings }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls' },
      ),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
