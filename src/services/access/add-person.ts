import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { Role } from '../../core/access';
import type { Executor } from '../../db/client';
import { authCredential, authUser } from '../../db/schema';
import type { Actor } from './actor';
import { auth } from './auth';

export const personSchema = z
  .object({
    name: z.string().trim().min(1, 'Write your name').max(120),
    email: z.email('This is not an e-mail address').max(190),
    password: z.string().min(10, 'At least 10 characters').max(128),
  })
  .strict();

/** Makes somebody who may sign in with e-mail address and password, in the rows that the sign-in library reads. */
export async function addPerson(input: z.infer<typeof personSchema>, role: Role, db: Executor): Promise<Actor> {
  const context = await auth().$context;
  const password = await context.password.hash(input.password);
  const id = randomUUID();
  const at = { createdAt: new Date(), updatedAt: new Date() };
  const { name, email } = input;
  await db.insert(authUser).values({ id, name, email: email.toLowerCase(), emailVerified: true, role, ...at });
  await db
    .insert(authCredential)
    .values({ id: randomUUID(), userId: id, accountId: id, providerId: 'credential', password, ...at });
  return { id, name };
}
