import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { twoFactor } from 'better-auth/plugins/two-factor';
import { config, readSecrets } from '../../config';
import { roles } from '../../core/access';
import { database } from '../../db/client';
import { authCredential, authSession, authTwoFactor, authUser, authVerification } from '../../db/schema';

/** Whether browsers reach the shop over TLS. */
export const isSecure = (): boolean => config.baseUrl.startsWith('https:');

const make = () =>
  betterAuth({
    appName: 'Netting',
    baseURL: config.baseUrl,
    basePath: '/api/auth',
    secret: readSecrets().appSecret,
    database: drizzleAdapter(database(), {
      provider: 'mysql',
      schema: {
        user: authUser,
        session: authSession,
        account: authCredential,
        verification: authVerification,
        twoFactor: authTwoFactor,
      },
    }),
    // The first owner is made on the set-up page, everybody else by a link; nobody signs up by himself.
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 10, maxPasswordLength: 128 },
    user: { additionalFields: { role: { type: [...roles], required: true, input: false } } },
    session: { expiresIn: 30 * 24 * 3600, updateAge: 24 * 3600 },
    // Ten wrong codes in a row lock the second step for a quarter of an hour.
    plugins: [twoFactor({ issuer: 'Netting', accountLockout: { maxFailedAttempts: 10, durationSeconds: 900 } })],
    advanced: {
      // Behind TLS a cookie is bound to this very host (RFC 6265bis, `__Host-`); the library's own mark says less.
      useSecureCookies: false,
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax', path: '/', secure: isSecure() },
      cookiePrefix: isSecure() ? '__Host-netting' : 'netting',
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
