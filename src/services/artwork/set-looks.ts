import { z } from 'zod';
import { artworkOf, verdictSchema, withVerdict } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

export const setLooksSchema = z
  .object({
    looks: z
      .array(
        z
          .object({
            product: z.string().trim().min(1).max(60),
            ground: z.string().trim().min(1).max(60),
            /** Null takes back what was said. */
            verdict: verdictSchema.nullable(),
          })
          .strict(),
      )
      .min(1)
      .max(500),
  })
  .strict();

/** Says of artwork on products and grounds whether it is good there or not offered. */
export async function setLooks(
  actor: Actor,
  itemId: number,
  { looks }: z.output<typeof setLooksSchema>,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item || !artworkOf(item)) throw new NettingError('not-found', 'This item is no artwork');
          return [{ target: { item: itemId }, field: 'looks', to: looks.reduce(withVerdict, item.looks) }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls' },
      ),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
