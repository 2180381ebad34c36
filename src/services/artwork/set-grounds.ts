import { z } from 'zod';
import { groundsAttribute, writeGrounds } from '../../core/artwork';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

export const setGroundsSchema = z.object({ grounds: z.array(z.string().trim().min(1).max(60)).max(40) }).strict();

/** Says by hand on which grounds artwork reads well. */
export async function setGrounds(
  actor: Actor,
  itemId: number,
  { grounds }: z.output<typeof setGroundsSchema>,
): Promise<{ version: number }> {
  return transaction(async (tx) => {
    const { items } = allCommitted(
      await commitItems(
        tx,
        [itemId],
        () => [{ target: { item: itemId }, field: `attributes.${groundsAttribute}`, to: writeGrounds(grounds) }],
        { actor, why: 'typing', at: new Date(), send: 'falls' },
      ),
    );
    return { version: items[0]?.version ?? 0 };
  });
}
