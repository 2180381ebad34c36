import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { account } from '../../db/schema';
import { systemActor } from '../access/actor';
import { findUnlinked } from '../listings/links/find-unlinked';
import { makeLinks } from '../listings/links/make-links';
import { compareAccount } from './compare-account';

const atOnce = 200;

/**
 * After a backup was brought back, and the orders since have been heard: what has become of the listings there is read,
 * and what was made there since is linked by its stock number, so that nothing is made twice. Then it is sent again.
 */
export async function catchUp(accountId: number): Promise<void> {
  await compareAccount(accountId);
  const { unlinked } = await findUnlinked(accountId);
  const links = unlinked.flatMap(({ remoteId, numbered }) =>
    numbered === null ? [] : [{ remoteId, itemId: numbered }],
  );
  for (let at = 0; at < links.length; at += atOnce)
    await makeLinks(systemActor, { account: accountId, links: links.slice(at, at + atOnce), afterwards: 'send' });
  await database().update(account).set({ restoredAt: null }).where(eq(account.id, accountId));
}
