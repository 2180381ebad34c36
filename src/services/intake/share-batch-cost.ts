import { meanCost } from '../../core/batch';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { batchPieces, sharesOf } from '../records/batches/batch-pieces';
import { loadBatch } from '../records/batches/load-batch';

/** Items written in one transaction. */
const portion = 200;

/**
 * Writes what each piece bears of the batch's total into the items' costs, of one piece each; an item that units were added
 * to costs the mean of what it had and what came in. Done again, it comes to the same.
 */
export async function shareBatchCost(actor: Actor, batchId: number): Promise<{ items: number }> {
  const batch = await loadBatch(database(), batchId);
  const pieces = await batchPieces(database(), batch);
  if (batch.totalCost === null)
    throw new NettingError('invalid', 'What all of it cost is not said yet', { field: 'totalCost' });
  const shares = sharesOf(batch, pieces);
  if (shares === null)
    throw new NettingError('invalid', 'What was said by hand does not add up to the total', {
      field: 'shares',
      fix: 'Leave a line open to bear the rest, or change a share',
    });
  const costs = new Map<number, number>();
  // Several scans of one thing follow each other: each adds to what was there before it.
  const since = new Map<number, { units: number; cost: number | null }>();
  for (const [index, piece] of pieces.entries()) {
    const [id] = piece.item;
    const total = shares[index] ?? 0;
    if (piece.isOwn) {
      costs.set(id, piece.units ? Math.round(total / piece.units) : 0);
      since.set(id, { units: piece.units, cost: costs.get(id) ?? null });
      continue;
    }
    const before = since.get(id) ?? { units: piece.unitsBefore ?? 0, cost: piece.costBefore };
    const cost = meanCost(before, { units: piece.units, total });
    costs.set(id, cost);
    since.set(id, { units: before.units + piece.units, cost });
  }
  let items = 0;
  const all = [...costs.keys()];
  for (let from = 0; from < all.length; from += portion) {
    const ids = all.slice(from, from + portion);
    const committed = await transaction(async (tx) =>
      allCommitted(
        await commitItems(
          tx,
          ids,
          ({ items: held }) =>
            held.map((one) => ({ target: { item: one.id }, field: 'cost', to: costs.get(one.id) ?? one.cost })),
          { actor, why: 'scan', at: new Date(), runId: batch.runId, send: 'falls' },
        ),
      ),
    );
    items += committed.items.filter((one) => one.changes.length).length;
  }
  return { items };
}
