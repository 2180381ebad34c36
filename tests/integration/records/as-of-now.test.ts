import { and, eq } from 'drizzle-orm';
import { closeDatabase, database, transaction } from '../../../src/db/client';
import { listing } from '../../../src/db/schema';
import { commitItems } from '../../../src/services/changes/commit/commit-items';
import { loadAccounts } from '../../../src/services/records/accounts/load-accounts';
import { refreshListings } from '../../../src/services/records/listings/refresh-listings';
import { readyItem } from '../../support/items';
import { accountOf, call } from '../../support/stack';

afterAll(closeDatabase);

/** Somebody has loaded the accounts, and has not computed with them yet when the stock that is held back becomes another. */
test.each([
  [
    'computed anew',
    (id: number, accounts: Awaited<ReturnType<typeof loadAccounts>>) =>
      transaction((tx) => refreshListings(tx, [id], accounts)),
  ],
  [
    'changed',
    (id: number, accounts: Awaited<ReturnType<typeof loadAccounts>>) =>
      transaction((tx) =>
        commitItems(tx, [id], () => [{ target: { item: id }, field: 'price', to: 15_900 }], {
          actor: { id: 'test', name: 'Ines' },
          why: 'typing',
          at: new Date(),
          send: 'falls',
          accounts,
        }),
      ),
  ],
])(
  'with accounts that were loaded before a setting became another, listings are %s by what holds now',
  async (_what, work) => {
    const { id } = await readyItem({}, 9);
    const shopfront = await accountOf('Shopfront');
    const before = await loadAccounts(database());
    const offered = async () => {
      const [row] = await database()
        .select({ quantity: listing.wantedQuantity })
        .from(listing)
        .where(and(eq(listing.itemId, id), eq(listing.accountId, shopfront)));
      return row?.quantity;
    };
    try {
      await call('PUT', `/accounts/${shopfront}/pace`, { reserve: 2, cap: null });
      expect(await offered()).toBe(7);
      await work(id, before);
      expect(await offered()).toBe(7);
    } finally {
      await call('PUT', `/accounts/${shopfront}/pace`, { reserve: 0, cap: null });
    }
    expect(await offered()).toBe(9);
  },
);
