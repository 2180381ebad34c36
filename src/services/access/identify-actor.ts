import { and, eq, sql } from 'drizzle-orm';
import { lesser, type Role } from '../../core/access';
import { database } from '../../db/client';
import { apiToken, authUser } from '../../db/schema';
import type { Actor } from './actor';
import { auth } from './auth';
import { hashOf } from './token-hash';

/** Who asks, and what that person or program may do. */
export type Who = {
  actor: Actor;
  role: Role;
  /** Such requests carry no cookie and cannot be forged by a page. */
  byToken: boolean;
  /** The place where a person is signed in; null for a program. */
  sessionId: string | null;
};

/** The person or program that a request comes from, or null. */
export async function actorOf(headers: Headers): Promise<Who | null> {
  const bearer = /^Bearer (net_[\w-]{20,})$/.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer) {
    const [row] = await database()
      .select({
        id: authUser.id,
        name: authUser.name,
        role: authUser.role,
        token: apiToken.name,
        tokenId: apiToken.id,
        tokenRole: apiToken.role,
      })
      .from(apiToken)
      .innerJoin(authUser, eq(authUser.id, apiToken.userId))
      .where(
        and(
          eq(apiToken.hash, hashOf(bearer)),
          sql`(${apiToken.expiresAt} is null or ${apiToken.expiresAt} > utc_timestamp(3))`,
        ),
      );
    if (!row) return null;
    await database()
      .update(apiToken)
      .set({ lastUsedAt: new Date() })
      .where(
        sql`${apiToken.id} = ${row.tokenId} and (${apiToken.lastUsedAt} is null or ${apiToken.lastUsedAt} < utc_timestamp(3) - interval 60 second)`,
      );
    return {
      actor: { id: row.id, name: `${row.name} (${row.token})` },
      role: lesser(row.role, row.tokenRole),
      byToken: true,
      sessionId: null,
    };
  }
  const found = await auth().api.getSession({ headers });
  if (!found) return null;
  const { user, session } = found;
  return { actor: { id: user.id, name: user.name }, role: user.role, byToken: false, sessionId: session.id };
}
