import { and, eq, inArray } from 'drizzle-orm';
import type { z } from 'zod';
import type { Change } from '../../../core/change';
import { NettingError } from '../../../core/errors';
import { canBeTaken } from '../../../core/sync';
import { transaction } from '../../../db/client';
import { listing } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { commitItems } from '../../changes/commit/commit-items';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { publish } from '../publish/publish';
import { type copyShopSchema, planCopy } from './plan-copy';

/** Copies chosen listings, or a whole shop, to another marketplace; what is there already is skipped, stock numbers stay. */
export async function copyShop(
  actor: Actor,
  input: z.infer<typeof copyShopSchema>,
): Promise<{ runId: number; queued: number; notReady: number; copied: number }> {
  const { ids } = await planCopy(input);
  if (ids.length === 0) throw new NettingError('invalid', 'Everything is there already');
  return transaction(async (tx) => {
    if (input.takeOwn) {
      const accounts = await loadAccounts(tx, [input.from, input.to]);
      const sameMoney =
        accounts[0]?.compiled.rules.currency === accounts[1]?.compiled.rules.currency && accounts.length === 2;
      const models = await tx
        .select({ itemId: listing.itemId, overrides: listing.overrides })
        .from(listing)
        .where(and(eq(listing.accountId, input.from), inArray(listing.itemId, ids)));
      // Categories and a marketplace's own fields mean nothing elsewhere; a price only in the same currency.
      const goesAlong = (field: string) =>
        canBeTaken(field) && !/^(attr|extra)\.|^category$|^condition$/.test(field) && (field !== 'price' || sameMoney);
      const byItem = new Map(models.map((model) => [model.itemId, model.overrides]));
      for (let at = 0; at < ids.length; at += 400) {
        await commitItems(
          tx,
          ids.slice(at, at + 400),
          ({ items, listings }) =>
            items.flatMap(({ id: item }): Change[] => {
              const there = listings.find((row) => row.itemId === item && row.accountId === input.to)?.overrides ?? {};
              return Object.entries(byItem.get(item) ?? {})
                .filter(([field]) => goesAlong(field) && !Object.hasOwn(there, field))
                .map(([field, to]) => ({ target: { item, account: input.to }, field, to }));
            }),
          { actor, why: 'typing', at: new Date(), send: 'falls', accounts },
        );
      }
    }
    const done = await publish(
      actor,
      { selection: { kind: 'items', ids }, accounts: [input.to], without: [], as: input.as },
      tx,
    );
    return { ...done, copied: ids.length };
  });
}
