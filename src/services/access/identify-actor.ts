import { eq, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { apiToken, authUser } from '../../db/schema';
import type { Actor } from './actor';
import { auth } from './auth';
import { hashOf } from './token-hash';

/** The person or program that a request comes from, or null. `byToken` requests carry no cookie and cannot be forged by a page. */
export async function actorOf(headers: Headers): Promise<{ actor: Actor; byToken: boolean } | null> {
  const bearer = /^Bearer (net_[\w-]{20,})$/.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer) {
    const [row] = await database()
      .select({ id: authUser.id, name: authUser.name, token: apiToken.name, tokenId: apiToken.id })
      .from(apiToken)
      .innerJoin(authUser, eq(authUser.id, apiToken.userId))
      .where(eq(apiToken.hash, hashOf(bearer)));
    if (!row) return null;
    await database()
      .update(apiToken)
      .set({ lastUsedAt: new Date() })
      .where(
        sql`${apiToken.id} = ${row.tokenId} and (${apiToken.lastUsedAt} is null or ${apiToken.lastUsedAt} < utc_timestamp(3) - interval 60 second)`,
      );
    return { actor: { id: row.id, name: `${row.name} (${row.token})` }, byToken: true };
  }
  const found = await auth().api.getSession({ headers });
  return found ? { actor: { id: found.user.id, name: found.user.name }, byToken: false } : null;
}
