import { and, eq, inArray } from 'drizzle-orm';
import { transaction } from '../../../db/client';
import { account, mapping } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { contextChanged } from '../../records/accounts/context-changed';

/** Keeps catalogue products under what identifies the thing. */
export async function keepProducts(
  actor: Actor,
  market: string,
  found: readonly { key: string; id: string; name: string; categoryId: string | null }[],
): Promise<void> {
  if (found.length === 0) return;
  const at = new Date();
  const rows = found.map(({ key, id, name, categoryId }) => ({
    market,
    kind: 'product' as const,
    attribute: '',
    source: key,
    target: id,
    detail: { name, categoryId },
    byName: actor.name,
    at,
  }));
  const keys = found.map((one) => one.key);
  await transaction(async (tx) => {
    await contextChanged(tx, eq(account.market, market));
    await tx
      .delete(mapping)
      .where(and(eq(mapping.market, market), eq(mapping.kind, 'product'), inArray(mapping.source, keys)));
    await tx.insert(mapping).values(rows);
  });
}
