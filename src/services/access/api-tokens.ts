import { randomBytes } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { covers, lesser, type Role, roleSchema } from '../../core/access';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { apiToken } from '../../db/schema';
import type { Actor } from './actor';
import type { Who } from './identify-actor';
import { hashOf } from './token-hash';

/** No token is good for ever: what nobody knows of any more ends by itself. */
const longestDays = 366;

export const newTokenSchema = z
  .object({
    name: z.string().trim().min(1).max(80),
    role: roleSchema.optional(),
    /** How long it opens anything, in days. */
    days: z.number().int().min(1).max(longestDays).default(longestDays),
  })
  .strict();

/**
 * Makes a token for a program; it is shown once and only its hash is kept.
 * @param role whose who makes it; a token may be given less, never more
 */
export async function createApiToken(
  actor: Actor,
  role: Role,
  input: z.input<typeof newTokenSchema>,
): Promise<{ token: string }> {
  const token = `net_${randomBytes(30).toString('base64url')}`;
  await transaction((tx) =>
    tx.insert(apiToken).values({
      name: input.name,
      hash: hashOf(token),
      userId: actor.id,
      role: lesser(role, input.role ?? role),
      createdAt: new Date(),
      expiresAt: new Date(Date.now() + (input.days ?? longestDays) * 86_400_000),
    }),
  );
  return { token };
}

/** A program with this token is nobody from now on. Owners end anybody's; a token ends none that may do more than it. */
export async function endApiToken({ actor, role, byToken }: Who, id: number): Promise<void> {
  const which = role === 'owner' ? eq(apiToken.id, id) : and(eq(apiToken.id, id), eq(apiToken.userId, actor.id));
  const [token] = await database().select({ role: apiToken.role }).from(apiToken).where(which);
  if (!token) throw new NettingError('not-found', 'This token is ended already');
  if (byToken && !covers(role, token.role))
    throw new NettingError('not-allowed', 'This token may do more than the program that asks');
  await database().delete(apiToken).where(which);
}
