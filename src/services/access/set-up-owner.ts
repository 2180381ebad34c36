import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { authUser } from '../../db/schema';
import type { Actor } from './actor';
import { addPerson, type personSchema } from './add-person';

export async function hasOwner(): Promise<boolean> {
  const rows = await database().select({ id: authUser.id }).from(authUser).limit(1);
  return rows.length > 0;
}

/** Makes the owner's account; only while there is nobody yet. */
export async function setupOwner(input: z.infer<typeof personSchema>): Promise<Actor> {
  // One at a time: two visitors at the same moment must not both become owner.
  return transaction(async (tx) => {
    await tx.execute(sql`select get_lock('netting-setup', 10)`);
    try {
      if (await hasOwner())
        throw new NettingError('not-allowed', 'This shop has its owner already', { fix: 'Sign in' });
      return await addPerson(input, 'owner', tx);
    } finally {
      await tx.execute(sql`select release_lock('netting-setup')`);
    }
  });
}
