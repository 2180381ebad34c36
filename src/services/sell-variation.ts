import { eq, sql } from 'drizzle-orm';
import type { Item } from '../core/item';
import { priorities } from '../core/sync';
import type { Tx } from '../db/client';
import { item } from '../db/schema';
import type { RemoteOrder } from '../markets';
import type { Actor } from './actor';
import { enqueueJobs } from './enqueue-jobs';
import { recordChanges } from './record-change';
import { refreshListings } from './refresh-listings';

/**
 * The combination that an order is for: by its own stock number, else by its values. A marketplace that was told fewer
 * axes names fewer values; the first combination that has them all and is in stock is meant.
 */
export function soldVariation(
  { variations }: Pick<Item, 'variations'>,
  { variation, quantity }: Pick<RemoteOrder, 'variation' | 'quantity'>,
) {
  const on = variations.filter((row) => row.on);
  if (!variation) return on.length === 1 ? on[0] : undefined;
  const fitting = on.filter(
    (row) =>
      (variation.number !== '' && row.sku === variation.number) ||
      variation.values.every((value) => row.values.includes(value)),
  );
  return (
    fitting.find((row) => variation.number !== '' && row.sku === variation.number) ??
    fitting.find((row) => row.quantity >= quantity) ??
    fitting[0]
  );
}

/**
 * Takes what was sold off its combination; the ledger is the caller's. It is a change of the table: whoever writes in an
 * older one is asked, so that what was sold does not come back.
 */
export async function lowerVariation(
  tx: Tx,
  itemId: number,
  stock: Pick<Item, 'variations'>,
  order: Pick<RemoteOrder, 'variation' | 'quantity'>,
  { actor, at }: { actor: Actor; at: Date },
): Promise<void> {
  const sold = soldVariation(stock, order);
  if (!sold) return;
  const variations = stock.variations.map((row) =>
    row === sold ? { ...row, quantity: Math.max(0, row.quantity - order.quantity) } : row,
  );
  const [row] = await tx.select({ version: item.version }).from(item).where(eq(item.id, itemId));
  await tx.update(item).set({ variations }).where(eq(item.id, itemId));
  // The movement that follows brings the item to its next version.
  await recordChanges(tx, { actor, why: 'sale', at }, [
    {
      itemId,
      itemVersion: (row?.version ?? 0) + 1,
      field: 'variations',
      from: stock.variations,
      to: variations,
    },
  ]);
}

/** Every marketplace shows the combination's own stock: they are told, as urgently as of a stock. */
export async function tellVariations(tx: Tx, itemId: number): Promise<void> {
  await refreshListings(tx, [itemId]);
  await enqueueJobs(tx, {
    where: sql`l.item_id = ${itemId} and l.remote in ('live', 'review') and l.dirty = 1`,
    priority: priorities.quantity,
    runId: null,
  });
}
