import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { ownField } from '../../db/schema';

export const ownFieldKeySchema = z.object({ key: z.string().max(30) }).strict();

/** Takes a field off the sheets. What items say in it is kept, and shows again when it comes back. */
export async function removeOwnField({ key }: z.infer<typeof ownFieldKeySchema>): Promise<void> {
  await database().delete(ownField).where(eq(ownField.key, key));
}
