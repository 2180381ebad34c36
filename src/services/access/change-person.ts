import { and, eq, ne } from 'drizzle-orm';
import { z } from 'zod';
import { type Role, roleNames, roleSchema } from '../../core/access';
import { NettingError } from '../../core/errors';
import { database, type Executor, transaction } from '../../db/client';
import { apiToken, authCredential, authSession, authTwoFactor, authUser } from '../../db/schema';
import type { Actor } from './actor';
import { noteAboutPeople } from './note-about-people';

export const newRoleSchema = z.object({ id: z.string().max(36), role: roleSchema }).strict();

/** A person who is there; all owners are locked with it, so that two who go at the same moment are not both the second last. */
async function personLocked(tx: Executor, id: string): Promise<{ name: string; role: Role; isLastOwner: boolean }> {
  const owners = await tx.select({ id: authUser.id }).from(authUser).where(eq(authUser.role, 'owner')).for('update');
  const [person] = await tx
    .select({ name: authUser.name, role: authUser.role })
    .from(authUser)
    .where(eq(authUser.id, id))
    .for('update');
  if (!person) throw new NettingError('not-found', 'This person is not here any more');
  return { ...person, isLastOwner: person.role === 'owner' && owners.every((one) => one.id === id) };
}

const needsOwner = () =>
  new NettingError('conflict', 'The shop needs an owner', { fix: 'Make somebody else an owner first' });

/** What somebody may do from now on; it holds with the very next request. */
export async function changeRole(actor: Actor, input: z.infer<typeof newRoleSchema>): Promise<void> {
  await transaction(async (tx) => {
    const person = await personLocked(tx, input.id);
    if (person.role === input.role) return;
    if (person.isLastOwner) throw needsOwner();
    await tx.update(authUser).set({ role: input.role, updatedAt: new Date() }).where(eq(authUser.id, input.id));
    const words = `${person.name} is ${roleNames[input.role].toLowerCase()} now, was ${roleNames[person.role].toLowerCase()}`;
    await noteAboutPeople(actor, words, tx);
  });
}

/**
 * Somebody leaves, or is let go: sessions, tokens and all that signs in go at once. What the person did stays in every
 * history under the name that it was done by.
 */
export async function removePerson(actor: Actor, id: string): Promise<void> {
  await transaction(async (tx) => {
    const person = await personLocked(tx, id);
    if (person.isLastOwner) throw needsOwner();
    await tx.delete(authSession).where(eq(authSession.userId, id));
    await tx.delete(apiToken).where(eq(apiToken.userId, id));
    await tx.delete(authCredential).where(eq(authCredential.userId, id));
    await tx.delete(authTwoFactor).where(eq(authTwoFactor.userId, id));
    await tx.delete(authUser).where(eq(authUser.id, id));
    await noteAboutPeople(actor, actor.id === id ? 'Left the shop' : `${person.name} was let go`, tx);
  });
}

export const endSessionsSchema = z.object({ id: z.string().max(36).optional() }).strict();

/** Ends one place where a person is signed in, or all but the one that asks. */
export async function endSessions(
  person: Actor,
  here: string | null,
  { id }: z.infer<typeof endSessionsSchema>,
): Promise<{ ended: number }> {
  const which = id ? eq(authSession.id, id) : ne(authSession.id, here ?? '');
  const [done] = await database()
    .delete(authSession)
    .where(and(eq(authSession.userId, person.id), which));
  return { ended: done.affectedRows };
}
