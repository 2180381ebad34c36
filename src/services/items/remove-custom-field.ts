import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { customField } from '../../db/schema';

export const customFieldKeySchema = z.object({ key: z.string().max(30) }).strict();

/** Takes a field off the sheets. What items say in it is kept, and shows again when it comes back. */
export async function removeCustomField({ key }: z.infer<typeof customFieldKeySchema>): Promise<void> {
  await database().delete(customField).where(eq(customField.key, key));
}
