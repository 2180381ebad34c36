import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { photoFile } from '../../db/schema';
import { hash } from './order-photos';

/** What a picture was made from, and how: to go on from there, or back to the original. */
export const photoHashSchema = z.object({ hash }).strict();

export async function photoRecipe({
  hash: wanted,
}: z.infer<typeof photoHashSchema>): Promise<{ original: string; recipe: Record<string, unknown> | null }> {
  const [row] = await database().select().from(photoFile).where(eq(photoFile.hash, wanted));
  if (!row) throw new NettingError('not-found', 'There is no such photo');
  return { original: row.madeFrom ?? row.hash, recipe: row.recipe };
}
