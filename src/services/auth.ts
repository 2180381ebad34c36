import { createHash, randomBytes } from 'node:crypto';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { config, readSecrets } from '../config';
import { NettingError } from '../core/errors';
import { database } from '../db/client';
import { apiToken, credential, session, user, verification } from '../db/schema';
import type { Actor } from './actor';

const make = () =>
  betterAuth({
    baseURL: config.baseUrl,
    basePath: '/api/auth',
    secret: readSecrets().appSecret,
    database: drizzleAdapter(database(), {
      provider: 'mysql',
      schema: { user, session, account: credential, verification },
    }),
    // The first owner is made on the set-up page; nobody else signs up by himself.
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 10, maxPasswordLength: 128 },
    session: { expiresIn: 30 * 24 * 3600, updateAge: 24 * 3600 },
    advanced: {
      useSecureCookies: config.baseUrl.startsWith('https:'),
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
      cookiePrefix: 'netting',
    },
    // Guessing is slowed per e-mail address by sign-in-guard.ts, which also counts across processes.
    rateLimit: { enabled: false },
    telemetry: { enabled: false },
    logger: { level: 'error' },
  });

let made: ReturnType<typeof make> | null = null;
export const auth = () => {
  made ??= make();
  return made;
};

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** The person or program that a request comes from, or null. `byToken` requests carry no cookie and cannot be forged by a page. */
export async function actorOf(headers: Headers): Promise<{ actor: Actor; byToken: boolean } | null> {
  const bearer = /^Bearer (net_[\w-]{20,})$/.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer) {
    const [row] = await database()
      .select({ id: user.id, name: user.name, token: apiToken.name, tokenId: apiToken.id })
      .from(apiToken)
      .innerJoin(user, eq(user.id, apiToken.userId))
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

export async function hasOwner(): Promise<boolean> {
  const rows = await database().select({ id: user.id }).from(user).limit(1);
  return rows.length > 0;
}

export const setupSchema = z
  .object({
    name: z.string().trim().min(1, 'Write your name').max(120),
    email: z.email('This is not an e-mail address').max(190),
    password: z.string().min(10, 'At least 10 characters').max(128),
  })
  .strict();

/** Makes the owner's account; only while there is nobody yet. */
export async function setupOwner(input: z.infer<typeof setupSchema>): Promise<Actor> {
  // One at a time: two visitors at the same moment must not both become owner.
  return database().transaction(async (tx) => {
    await tx.execute(sql`select get_lock('netting-setup', 10)`);
    try {
      if (await hasOwner())
        throw new NettingError('not-allowed', 'This shop has its owner already', { mend: 'Sign in' });
      const context = await auth().$context;
      const created = await context.internalAdapter.createUser(
        { email: input.email.toLowerCase(), name: input.name, emailVerified: true },
        { method: 'email-password' },
      );
      await context.internalAdapter.linkAccount({
        userId: created.id,
        providerId: 'credential',
        accountId: created.id,
        password: await context.password.hash(input.password),
      });
      return { id: created.id, name: created.name };
    } finally {
      await tx.execute(sql`select release_lock('netting-setup')`);
    }
  });
}

/** Makes a token for a program; it is shown once and only its hash is kept. */
export async function createApiToken(actor: Actor, name: string): Promise<{ token: string }> {
  const token = `net_${randomBytes(30).toString('base64url')}`;
  await database()
    .insert(apiToken)
    .values({ name: name.slice(0, 80), hash: hashOf(token), userId: actor.id, createdAt: new Date() });
  return { token };
}
