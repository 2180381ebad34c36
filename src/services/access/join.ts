import { and, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { type Role, roleNames } from '../../core/access';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { authUser, invitation } from '../../db/schema';
import type { Actor } from './actor';
import { addPerson, personSchema } from './add-person';
import { noteAboutPeople } from './note-about-people';
import { hashOf } from './token-hash';

export const joinSchema = personSchema.extend({ code: z.string().min(20).max(80) }).strict();

const openBy = (code: string) => and(eq(invitation.hash, hashOf(code)), gt(invitation.expiresAt, new Date()));

/** Whom a link is for and as what, or null where it was used, withdrawn, or is older than a day. */
export async function findInvitation(code: string): Promise<{ forWhom: string; role: Role } | null> {
  const [row] = await database()
    .select({ forWhom: invitation.forWhom, role: invitation.role })
    .from(invitation)
    .where(openBy(code));
  return row ?? null;
}

/** Joins the shop by a link. The link is locked first: two who use it at the same moment are one person and one refusal. */
export async function join({ code, ...person }: z.infer<typeof joinSchema>): Promise<Actor> {
  return transaction(async (tx) => {
    const [open] = await tx.select().from(invitation).where(openBy(code)).for('update');
    if (!open)
      throw new NettingError('not-allowed', 'This link was used already, or is older than a day', {
        fix: 'Ask an owner of the shop for another',
      });
    const [taken] = await tx
      .select({ id: authUser.id })
      .from(authUser)
      .where(eq(authUser.email, person.email.toLowerCase()));
    if (taken)
      throw new NettingError('invalid', 'Somebody here has this e-mail address already', {
        field: 'email',
        details: [{ field: 'email', message: 'Somebody here has this e-mail address already' }],
      });
    const actor = await addPerson(person, open.role, tx);
    await tx.delete(invitation).where(eq(invitation.id, open.id));
    await noteAboutPeople(actor, `Joined as ${roleNames[open.role].toLowerCase()}, invited by ${open.byName}`, tx);
    return actor;
  });
}
