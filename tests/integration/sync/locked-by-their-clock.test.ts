import { eq } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { account as accountTable } from '../../../src/db/schema';
import { refreshRules } from '../../../src/services/accounts/rules/refresh-rules';
import { accountOf, aDayLater, control, until } from '../../support/stack';

afterAll(closeDatabase);

test('until when an account is locked is said by their clock, and kept by ours', async () => {
  const account = await accountOf('Oakhand');
  const row = async () => {
    const [found] = await database().select().from(accountTable).where(eq(accountTable.id, account));
    if (!found) throw new Error('no such account');
    return found;
  };
  const { clockAheadMs: before, remoteName: seller } = await row();
  await aDayLater();
  // It is heard with the next asking for orders.
  const shop = await until(row, (one) => one.clockAheadMs > before, 90_000);
  try {
    await control('oakhand', 'lock', { seller, minutes: 5 });
    await refreshRules(shop);
    const minutes = (Number((await row()).lockedUntil) - Date.now()) / 60_000;
    expect(minutes).toBeGreaterThan(3);
    expect(minutes).toBeLessThan(7);
  } finally {
    await control('oakhand', 'lock', { seller, minutes: 0 });
    await database().update(accountTable).set({ lockedUntil: null }).where(eq(accountTable.id, account));
  }
}, 150_000);
