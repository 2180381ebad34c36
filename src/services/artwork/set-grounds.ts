import { z } from 'zod';
import { groundsAttribute, writeGrounds } from '../../core/artwork';
import type { Actor } from '../access/actor';
import { changeArtwork } from './change-artwork';

export const setGroundsSchema = z.object({ grounds: z.array(z.string().trim().min(1).max(60)).max(40) }).strict();

/** Says by hand on which grounds artwork reads well. */
export async function setGrounds(
  actor: Actor,
  itemId: number,
  { grounds }: z.output<typeof setGroundsSchema>,
): Promise<{ version: number }> {
  return changeArtwork(actor, itemId, `attributes.${groundsAttribute}`, () => writeGrounds(grounds));
}
