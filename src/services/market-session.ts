import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../config';
import { NettingError } from '../core/errors';
import { database, transaction } from '../db/client';
import { account } from '../db/schema';
import { type Access, connectorOf, openSession, Pacer, type Session } from '../markets';
import type { AccountRow } from './account-context';
import { noteAnswer } from './market-health';
import { seal, unseal } from './vault';

export const apiBase = (market: string): string => `${config.marketsUrl}/${market}/api`;

const tokenSchema = z.object({ access_token: z.string(), refresh_token: z.string(), expires_in: z.number() });

/** Trades a code or a refresh token for tokens at the marketplace's token address. */
export async function askForTokens(market: string, form: Record<string, string>): Promise<Access> {
  const answer = await fetch(`${config.marketsUrl}/${market}/token`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams(form),
    signal: AbortSignal.timeout(15_000),
    redirect: 'error',
  }).catch(() => null);
  const name = connectorOf(market).name;
  if (!answer || answer.status >= 500) throw new NettingError('market-unreachable', `${name} did not answer`);
  if (!answer.ok)
    throw new NettingError('market-auth', `${name} does not accept this access any more`, {
      mend: 'Connect the account again',
    });
  const tokens = tokenSchema.parse(await answer.json());
  return {
    kind: 'oauth',
    accessToken: tokens.access_token,
    refreshToken: tokens.refresh_token,
    expiresAt: new Date(Date.now() + tokens.expires_in * 1_000).toISOString(),
  };
}

/** Renews an account's tokens once, also when several ask at the same time: the row is locked, the second finds it done. */
async function renew(accountId: number, stale: Access): Promise<Access> {
  return transaction(async (tx) => {
    const [row] = await tx.select().from(account).where(eq(account.id, accountId)).for('update');
    if (!row) throw new NettingError('not-found', 'The account is gone');
    const now = unseal<Access>(row.secrets);
    if (now.kind === 'key')
      throw new NettingError('market-auth', `${row.name}: the key is not accepted any more`, {
        mend: 'Connect the account again',
      });
    if (stale.kind === 'oauth' && now.accessToken !== stale.accessToken) return now;
    const fresh = await askForTokens(row.market, { grant_type: 'refresh_token', refresh_token: now.refreshToken });
    await tx
      .update(account)
      .set({ secrets: seal(fresh) })
      .where(eq(account.id, accountId));
    return fresh;
  });
}

const pacers = new Map<number, Pacer>();

export function pacerOf(accountId: number, perMinute: number): Pacer {
  let pacer = pacers.get(accountId);
  if (!pacer) {
    pacer = new Pacer(perMinute);
    pacers.set(accountId, pacer);
  }
  pacer.setRate(perMinute);
  return pacer;
}

/** A conversation for one stored account: reads its access, renews it when it has run out. */
export function sessionFor(row: AccountRow, perMinute: number, urgent = false): Session {
  let access: Access | null = null;
  return openSession({
    base: apiBase(row.market),
    account: String(row.id),
    marketName: connectorOf(row.market).name,
    pacer: pacerOf(row.id, perMinute),
    urgent,
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
        mend: 'Check the key',
      });
    },
  });
