import { desc, eq, gt, max } from 'drizzle-orm';
import { z } from 'zod';
import { roleSchema } from '../../core/access';
import { database } from '../../db/client';
import { authSession, authUser, invitation, peopleEvent } from '../../db/schema';

const eventSchema = z.object({ id: z.number(), at: z.string(), byName: z.string(), what: z.string() });

export const peopleSchema = z.object({
  people: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      email: z.string(),
      role: roleSchema,
      twoStep: z.boolean(),
      /** When the newest of the places where the person is signed in was last made or prolonged. */
      seenAt: z.string().nullable(),
    }),
  ),
  invitations: z.array(
    z.object({ id: z.number(), forWhom: z.string(), role: roleSchema, byName: z.string(), expiresAt: z.string() }),
  ),
  events: z.array(eventSchema),
  /** Who signed in, or tried to. */
  signIns: z.array(eventSchema),
});

const shownEvents = 100;

const eventsOf = async (kind: 'change' | 'sign-in') =>
  (
    await database()
      .select()
      .from(peopleEvent)
      .where(eq(peopleEvent.kind, kind))
      .orderBy(desc(peopleEvent.id))
      .limit(shownEvents)
  ).map(({ id, at, byName, what }) => ({ id, at: at.toISOString(), byName, what }));

/** The people of the shop, who is invited, and what was done about them, the newest first. */
export async function findPeople(): Promise<z.infer<typeof peopleSchema>> {
  const db = database();
  const [people, invitations, events, signIns] = await Promise.all([
    db
      .select({
        id: authUser.id,
        name: authUser.name,
        email: authUser.email,
        role: authUser.role,
        twoStep: authUser.twoFactorEnabled,
        seenAt: max(authSession.updatedAt),
      })
      .from(authUser)
      .leftJoin(authSession, eq(authSession.userId, authUser.id))
      .groupBy(authUser.id)
      .orderBy(authUser.createdAt),
    db.select().from(invitation).where(gt(invitation.expiresAt, new Date())).orderBy(desc(invitation.id)),
    eventsOf('change'),
    eventsOf('sign-in'),
  ]);
  return {
    people: people.map(({ seenAt, ...one }) => ({ ...one, seenAt: seenAt?.toISOString() ?? null })),
    invitations: invitations.map(({ id, forWhom, role, byName, expiresAt }) => ({
      id,
      forWhom,
      role,
      byName,
      expiresAt: expiresAt.toISOString(),
    })),
    events,
    signIns,
  };
}
