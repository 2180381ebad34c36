import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../config';
import { roleNames, roleSchema } from '../../core/access';
import { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { invitation } from '../../db/schema';
import type { Actor } from './actor';
import { noteAboutPeople } from './note-about-people';
import { hashOf } from './token-hash';

export const inviteSchema = z
  .object({ role: roleSchema, forWhom: z.string().trim().min(1, 'Write whom it is for').max(120) })
  .strict();
export const invitedSchema = z.object({ link: z.string(), expiresAt: z.string() });

const goodForMs = 86_400_000;

/** Makes a link by which one person joins the shop; it is shown once, and good once, for a day. */
export async function invite(
  actor: Actor,
  input: z.infer<typeof inviteSchema>,
): Promise<z.infer<typeof invitedSchema>> {
  const code = randomBytes(30).toString('base64url');
  const now = new Date();
  const expiresAt = new Date(now.getTime() + goodForMs);
  await transaction(async (tx) => {
    await tx.insert(invitation).values({
      hash: hashOf(code),
      role: input.role,
      forWhom: input.forWhom,
      byName: actor.name.slice(0, 120),
      createdAt: now,
      expiresAt,
    });
    await noteAboutPeople(actor, `Invited ${input.forWhom} as ${roleNames[input.role].toLowerCase()}`, tx);
  });
  return { link: `${config.baseUrl}/invited/${code}`, expiresAt: expiresAt.toISOString() };
}

/** A link that was not used yet opens nothing any more. */
export async function withdrawInvitation(actor: Actor, id: number): Promise<void> {
  await transaction(async (tx) => {
    const [row] = await tx.select().from(invitation).where(eq(invitation.id, id)).for('update');
    if (!row) throw new NettingError('not-found', 'This invitation was used, or is withdrawn already');
    await tx.delete(invitation).where(eq(invitation.id, id));
    await noteAboutPeople(actor, `Withdrew the invitation of ${row.forWhom}`, tx);
  });
}
