import { eq, sql } from 'drizzle-orm';
import { config } from '../../src/config';
import { closeDatabase, database } from '../../src/db/client';
import { account } from '../../src/db/schema';
import { seal } from '../../src/services/access/vault';
import { loadAccounts } from '../../src/services/records/accounts/load-accounts';
import { openAccount } from '../../src/services/records/accounts/open-account';

/**
 * A shop's data copied to other ports goes on there: the marketplaces are told where their events go now, and links lead
 * to where the marketplaces are now. Its argument is the port at which they were.
 */
const [before] = process.argv.slice(2);
const db = database();
for (const { id, row } of await loadAccounts(db)) {
  const { connector, session } = await openAccount(id);
  if (!connector.hasWebhooks) continue;
  const { secret } = await connector.registerWebhook(session, `${config.baseUrl}/api/webhooks/${row.hookKey}`);
  await db
    .update(account)
    .set({ hookSecret: seal(secret) })
    .where(eq(account.id, id));
}
const [from, to] = [`:${before}/`, `:${new URL(config.marketsUrl).port}/`];
await db.execute(sql`update listing set remote_url = replace(remote_url, ${from}, ${to})`);
await db.execute(sql`update previous_remote_id set remote_url = replace(remote_url, ${from}, ${to})`);
await closeDatabase();
