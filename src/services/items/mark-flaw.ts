import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { hash } from './order-photos';

/** What a photo of a flaw shows; without words it is a photo like others again. */
export const flawSchema = z.object({ hash, words: z.string().trim().max(200) }).strict();

export async function markFlaw(actor: Actor, itemId: number, input: z.infer<typeof flawSchema>): Promise<void> {
  await transaction(async (tx) =>
    allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item] }) => {
          if (!item?.photos.some((photo) => photo.hash === input.hash))
            throw new NettingError('not-found', 'This photo is not one of the item’s', { field: 'photos' });
          const others = item.photos.flatMap(({ hash: one, flaw }) =>
            flaw && one !== input.hash ? [[one, flaw]] : [],
          );
          const flaws = Object.fromEntries([...others, ...(input.words ? [[input.hash, input.words]] : [])]);
          return [{ target: { item: itemId }, field: 'flaws', to: flaws }];
        },
        { actor, why: 'typing', at: new Date(), send: 'falls' },
      ),
    ),
  );
}
