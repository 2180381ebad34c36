import { randomUUID } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database, isAway } from '../../db/client';
import { type AccountRow, account } from '../../db/schema';
import type { Access } from '../../markets';
import { askForTokens } from './request-tokens';
import { seal, unseal } from './vault';

/** Longer than a request for tokens may take. */
const leaseSeconds = 30;
const lookAgainMs = 100;
const patienceMs = 60_000;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const rowOf = async (accountId: number): Promise<AccountRow> => {
  const [row] = await database().select().from(account).where(eq(account.id, accountId));
  if (!row) throw new NettingError('not-found', 'The account is gone');
  return row;
};

/** One process asks at a time: the row says who and until when; nothing is locked while they take their time. */
async function takeTurn(accountId: number, who: string): Promise<boolean> {
  const [{ affectedRows }] = await database()
    .update(account)
    .set({
      renewingBy: who,
      renewingUntil: sql`utc_timestamp(3) + interval ${sql.raw(String(leaseSeconds))} second`,
    })
    .where(
      and(
        eq(account.id, accountId),
        sql`(${account.renewingUntil} is null or ${account.renewingUntil} < utc_timestamp(3))`,
      ),
    );
  return affectedRows === 1;
}

/** Asks for tokens and keeps them, whoever's turn it is by then: a refresh token that was rotated must not be lost. */
async function ask(row: AccountRow, refreshToken: string): Promise<Access> {
  const fresh = await askForTokens(row.market, { grant_type: 'refresh_token', refresh_token: refreshToken });
  // The database may be away for a moment just then; the old refresh token is worth nothing any more.
  for (const until = Date.now() + patienceMs; ; await pause(lookAgainMs)) {
    try {
      await database()
        .update(account)
        .set({ secrets: seal(fresh) })
        .where(and(eq(account.id, row.id), eq(account.secrets, row.secrets)));
      return fresh;
    } catch (error) {
      if (!isAway(error) || Date.now() > until) throw error;
    }
  }
}

async function renewed(accountId: number, stale: Access): Promise<Access> {
  const who = randomUUID();
  for (const until = Date.now() + patienceMs; Date.now() < until; ) {
    const row = await rowOf(accountId);
    const now = unseal<Access>(row.secrets);
    if (now.kind === 'key')
      throw new NettingError('market-auth', `${row.name}: the key is not accepted any more`, {
        fix: 'Connect the account again',
      });
    if (stale.kind === 'oauth' && now.accessToken !== stale.accessToken) return now;
    if (await takeTurn(accountId, who)) {
      try {
        // Between the look and the turn another one may have been given it.
        const held = await rowOf(accountId);
        const access = unseal<Access>(held.secrets);
        if (access.kind !== 'oauth' || access.accessToken !== now.accessToken) continue;
        return await ask(held, access.refreshToken);
      } finally {
        await database()
          .update(account)
          .set({ renewingBy: null, renewingUntil: null })
          .where(and(eq(account.id, accountId), eq(account.renewingBy, who)));
      }
    }
    await pause(lookAgainMs);
  }
  throw new NettingError('market-unreachable', 'New access was not given in time');
}

const underWay = new Map<number, Promise<Access>>();

/** Renews an account's tokens, once at a time however many ask and in however many processes; the others get what came of it. */
export function renew(accountId: number, stale: Access): Promise<Access> {
  const known = underWay.get(accountId);
  if (known) return known;
  const work = renewed(accountId, stale).finally(() => underWay.delete(accountId));
  underWay.set(accountId, work);
  return work;
}
