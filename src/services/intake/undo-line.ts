import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { standsThere } from '../../core/sync';
import type { Tx } from '../../db/client';
import { type BatchLineRow, type BatchRow, batchLine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';

/** Takes one scan back: the item that it made goes, units that it added are taken away again. Once taken back it stays so. */
export async function undoLine(tx: Tx, actor: Actor, { runId }: BatchRow, line: BatchLineRow): Promise<void> {
  if (line.isUndone) return;
  const { itemId, kind, combination, units } = line;
  if (itemId !== null && kind !== 'none')
    allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item], listings }) => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          if (kind === 'stock') {
            const row = item.variations.find((one) => one.key === combination);
            const target = combination === null ? { item: itemId } : { item: itemId, combination };
            return [{ target, field: 'quantity', to: (row?.quantity ?? item.quantity) - units }];
          }
          if (listings.some((row) => standsThere(row.remote)))
            throw new NettingError('conflict', `${item.sku} is listed already`, {
              fix: 'End its listings first, or put it away in the inventory',
            });
          return item.standing === 'active' ? [{ target: { item: itemId }, field: 'standing', to: 'deleted' }] : [];
        },
        { actor, why: 'scan', at: new Date(), runId, send: 'falls', stock: { reason: 'undo' } },
      ),
    );
  await tx.update(batchLine).set({ isUndone: true, lookAt: null }).where(eq(batchLine.id, line.id));
}
