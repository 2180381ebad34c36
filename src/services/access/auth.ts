import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { config, readSecrets } from '../../config';
import { database } from '../../db/client';
import { authCredential, authSession, authUser, authVerification } from '../../db/schema';

const make = () =>
  betterAuth({
    baseURL: config.baseUrl,
    basePath: '/api/auth',
    secret: readSecrets().appSecret,
    database: drizzleAdapter(database(), {
      provider: 'mysql',
      schema: { user: authUser, session: authSession, account: authCredential, verification: authVerification },
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
