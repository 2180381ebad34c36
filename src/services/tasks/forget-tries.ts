import { and, eq, lt } from 'drizzle-orm';
import { database } from '../../db/client';
import { authRateLimit, authSession, authVerification, peopleEvent } from '../../db/schema';

const dayMs = 86_400_000;

/**
 * What signing in leaves behind: counts of tries of yesterday, which strangers could make as many of as they like, sessions that
 * are over, and who signed in before a day.
 * @param history who signed in before it is forgotten
 */
export async function forgetTries(now: Date, history: Date): Promise<void> {
  const db = database();
  await db.delete(authRateLimit).where(lt(authRateLimit.lastRequest, now.getTime() - dayMs));
  await db.delete(authSession).where(lt(authSession.expiresAt, now));
  await db.delete(authVerification).where(lt(authVerification.expiresAt, new Date(now.getTime() - dayMs)));
  await db.delete(peopleEvent).where(and(eq(peopleEvent.kind, 'sign-in'), lt(peopleEvent.at, history)));
}
