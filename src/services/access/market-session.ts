import { eq } from 'drizzle-orm';
import { config } from '../../config';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import type { AccountRow } from '../../db/schema';
import { account } from '../../db/schema';
import { type Access, connectorOf, openSession, Pacer, type Session } from '../../markets';
import { noteAnswer } from './market-health';
import { renew } from './renew-access';
import { unseal } from './vault';

const apiBase = (market: string): string => `${config.marketsUrl}/${market}/api`;

const pacers = new Map<number, Pacer>();

function pacerOf(accountId: number, perMinute: number): Pacer {
  let pacer = pacers.get(accountId);
  if (!pacer) {
    pacer = new Pacer(perMinute);
    pacers.set(accountId, pacer);
  }
  pacer.setRate(perMinute);
  return pacer;
}

/**
 * A conversation for one stored account: reads its access, renews it when it has run out.
 * @param mayStill where it is spoken for by a lease: whether that still holds
 */
export function sessionFor(row: AccountRow, perMinute: number, urgent = false, mayStill?: () => boolean): Session {
  let access: Access | null = null;
  return openSession({
    base: apiBase(row.market),
    account: String(row.id),
    marketName: connectorOf(row.market).name,
    pacer: pacerOf(row.id, perMinute),
    urgent,
    mayStill,
    heard: (answered) => void noteAnswer(row.id, answered).catch(() => undefined),
    async readAccess() {
      if (!access) {
        const [now] = await database().select({ secrets: account.secrets }).from(account).where(eq(account.id, row.id));
        access = unseal<Access>(now?.secrets ?? row.secrets);
      }
      if (access.kind === 'oauth' && Date.parse(access.expiresAt) < Date.now() + 30_000)
        access = await renew(row.id, access);
      return access;
    },
    async renewAccess() {
      access = await renew(row.id, access ?? unseal<Access>(row.secrets));
      return access;
    },
  });
}

/** A conversation before the account is stored. */
export const trialSession = (market: string, access: Access): Session =>
  openSession({
    base: apiBase(market),
    marketName: connectorOf(market).name,
    pacer: new Pacer(600),
    readAccess: async () => access,
    renewAccess: async () => {
      throw new NettingError('market-auth', `${connectorOf(market).name} does not accept this access`, {
        field: 'key',
        fix: 'Check the key',
      });
    },
  });
