import { z } from 'zod';
import { verdictSchema, withVerdict } from '../../core/artwork';
import type { Actor } from '../access/actor';
import { changeArtwork } from './change-artwork';

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
  return changeArtwork(actor, itemId, 'looks', (item) => looks.reduce(withVerdict, item.looks));
}
