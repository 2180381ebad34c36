import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { authUser } from '../../db/schema';
import type { Actor } from './actor';
import { auth } from './auth';

export async function hasOwner(): Promise<boolean> {
  const rows = await database().select({ id: authUser.id }).from(authUser).limit(1);
  return rows.length > 0;
}

export const setupSchema = z
  .object({
    name: z.string().trim().min(1, 'Write your name').max(120),
    email: z.email('This is not an e-mail address').max(190),
    password: z.string().min(10, 'At least 10 characters').max(128),
  })
  .strict();

/** Makes the owner's account; only while there is nobody yet. */
export async function setupOwner(input: z.infer<typeof setupSchema>): Promise<Actor> {
  // One at a time: two visitors at the same moment must not both become owner.
  return database().transaction(async (tx) => {
    await tx.execute(sql`select get_lock('netting-setup', 10)`);
    try {
      if (await hasOwner())
        throw new NettingError('not-allowed', 'This shop has its owner already', { fix: 'Sign in' });
      const context = await auth().$context;
      const created = await context.internalAdapter.createUser(
        { email: input.email.toLowerCase(), name: input.name, emailVerified: true },
        { method: 'email-password' },
      );
      await context.internalAdapter.linkAccount({
        userId: created.id,
        providerId: 'credential',
        accountId: created.id,
        password: await context.password.hash(input.password),
      });
      return { id: created.id, name: created.name };
    } finally {
      await tx.execute(sql`select release_lock('netting-setup')`);
    }
  });
}
