import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { hash, positionsOf, writePositions } from './photo-positions';

/** What a photo of a flaw shows; without words it is a photo like others again. */
export const flawSchema = z.object({ hash, words: z.string().trim().max(200) }).strict();

export async function markFlaw(actor: Actor, itemId: number, input: z.infer<typeof flawSchema>): Promise<void> {
  const at = new Date();
  await transaction(async (tx) => {
    const from = await positionsOf(tx, itemId);
    if (!from.some((place) => place.hash === input.hash))
      throw new NettingError('not-found', 'This photo is not one of the item’s', { field: 'photos' });
    const to = from.map((place) => (place.hash === input.hash ? { ...place, flaw: input.words || null } : place));
    await writePositions(tx, actor, itemId, from, to, at);
  });
}
