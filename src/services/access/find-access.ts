import { and, desc, eq, gt } from 'drizzle-orm';
import { z } from 'zod';
import { roleSchema } from '../../core/access';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { apiToken, authSession, authUser } from '../../db/schema';
import type { Who } from './identify-actor';

export const accessSchema = z.object({
  email: z.string(),
  /** Signing in takes a second step. */
  twoStep: z.boolean(),
  sessions: z.array(
    z.object({
      id: z.string(),
      since: z.string(),
      until: z.string(),
      address: z.string().nullable(),
      browser: z.string().nullable(),
      isThis: z.boolean(),
    }),
  ),
  tokens: z.array(
    z.object({
      id: z.number(),
      name: z.string(),
      role: roleSchema,
      /** Whose it is; owners see those of all. */
      person: z.string(),
      madeAt: z.string(),
      usedAt: z.string().nullable(),
      until: z.string().nullable(),
    }),
  ),
});

/** Where somebody is signed in, and the programs that act in one's name; for an owner those of everybody. */
export async function findAccess({ actor, role, sessionId }: Who): Promise<z.infer<typeof accessSchema>> {
  const db = database();
  const mine = eq(apiToken.userId, actor.id);
  const [[me], sessions, tokens] = await Promise.all([
    db
      .select({ email: authUser.email, twoStep: authUser.twoFactorEnabled })
      .from(authUser)
      .where(eq(authUser.id, actor.id)),
    db
      .select()
      .from(authSession)
      .where(and(eq(authSession.userId, actor.id), gt(authSession.expiresAt, new Date())))
      .orderBy(desc(authSession.updatedAt)),
    db
      .select({ token: apiToken, person: authUser.name })
      .from(apiToken)
      .innerJoin(authUser, eq(authUser.id, apiToken.userId))
      .where(role === 'owner' ? undefined : mine)
      .orderBy(desc(apiToken.id)),
  ]);
  if (!me) throw new NettingError('not-signed-in', 'You are not one of the shop any more');
  return {
    ...me,
    sessions: sessions.map((one) => ({
      id: one.id,
      since: one.createdAt.toISOString(),
      until: one.expiresAt.toISOString(),
      address: one.ipAddress || null,
      browser: one.userAgent,
      isThis: one.id === sessionId,
    })),
    tokens: tokens.map(({ token, person }) => ({
      id: token.id,
      name: token.name,
      role: token.role,
      person,
      madeAt: token.createdAt.toISOString(),
      usedAt: token.lastUsedAt?.toISOString() ?? null,
      until: token.expiresAt?.toISOString() ?? null,
    })),
  };
}
