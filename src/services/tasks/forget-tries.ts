import { and, eq, lt } from 'drizzle-orm';
import { database } from '../../db/client';
import { authRateLimit, authSession, authVerification, peopleEvent, removed, requestKey } from '../../db/schema';

const dayMs = 86_400_000;
/** So long what was removed can be had back. */
const removedDays = 90;

/**
 * What signing in leaves behind: counts of tries of yesterday, which strangers could make as many of as they like, sessions that
 * are over, and who signed in before a day; keys of commands of yesterday, which nobody sends again; and what was removed long ago.
 * @param history who signed in before it is forgotten
 */
export async function forgetTries(now: Date, history: Date): Promise<void> {
  const db = database();
  await db.delete(authRateLimit).where(lt(authRateLimit.lastRequest, now.getTime() - dayMs));
  await db.delete(requestKey).where(lt(requestKey.at, new Date(now.getTime() - dayMs)));
  await db.delete(removed).where(lt(removed.at, new Date(now.getTime() - removedDays * dayMs)));
  await db.delete(authSession).where(lt(authSession.expiresAt, now));
  await db.delete(authVerification).where(lt(authVerification.expiresAt, new Date(now.getTime() - dayMs)));
  await db.delete(peopleEvent).where(and(eq(peopleEvent.kind, 'sign-in'), lt(peopleEvent.at, history)));
}
