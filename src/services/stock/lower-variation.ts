import { eq } from 'drizzle-orm';
import type { Item } from '../../core/item';
import type { Tx } from '../../db/client';
import { item } from '../../db/schema';
import type { RemoteOrder } from '../../markets';
import type { Actor } from '../access/actor';
import { recordChanges } from '../changes/record-changes';
import { soldVariation } from './sold-variation';

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
