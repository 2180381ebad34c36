import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { combinationWords, type Item } from '../../core/item';
import { type Tx, transaction } from '../../db/client';
import { dispatch, item as items, movement, sale } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { listAgain } from './list-again';
import { unitsChange, unitsChangeThere } from './units-change';

type SaleRow = typeof sale.$inferSelect;

/** The combination that was sold: by its key, or for sales of before by what it was called. */
const soldOf = (item: Item, row: SaleRow) =>
  item.variations.find((one) =>
    row.combination ? one.key === row.combination : combinationWords(one.values) === row.variation,
  );

/**
 * Stores that an order is off, once: what was sold is in stock again, every listing offers it again, and where the
 * account says so a listing that ended by being sold out is made again.
 */
export async function storeCancelled(
  actor: Actor,
  saleId: number,
): Promise<{ quantity: number | null; again: number }> {
  const at = new Date();
  return transaction(async (tx) => {
    const [row] = await tx.select().from(sale).where(eq(sale.id, saleId)).for('update');
    if (!row) throw new NettingError('not-found', `There is no sale ${saleId}`);
    if (row.state === 'cancelled') return { quantity: null, again: 0 };
    await tx
      .update(sale)
      .set({ state: 'cancelled', cancelledAt: at, oversold: false, unassigned: false })
      .where(eq(sale.id, saleId));
    if (row.itemId === null) return { quantity: null, again: 0 };
    const id = row.itemId;
    // It goes back to where it was taken from; a warehouse that sends it is told so.
    const [taken] = await tx
      .select({ accountId: movement.accountId, delta: movement.delta })
      .from(movement)
      .where(and(eq(movement.itemId, id), eq(movement.saleId, saleId), eq(movement.place, 'there')))
      .limit(1);
    const warehouse = taken?.accountId ?? null;
    const there = warehouse === null ? 0 : Math.min(row.quantity, -(taken?.delta ?? 0));
    await tx
      .update(dispatch)
      .set({ state: sql`if(${dispatch.state} = 'sent', 'back', 'off')`, nextAt: at })
      .where(and(eq(dispatch.saleId, saleId), inArray(dispatch.state, ['due', 'sent', 'refused'])));
    let before = 0;
    let without: number[] = [];
    const { items: committed } = await commitItems(
      tx,
      [id],
      ({ items: [item], family }) => {
        if (!item) return [];
        before = item.quantity;
        without = (family?.items ?? []).flatMap((one) => (one.id !== id && one.quantity < 1 ? [one.id] : []));
        const back = warehouse === null ? [] : unitsChangeThere(item, warehouse, there);
        const here = row.quantity - there;
        return [...back, ...(here ? unitsChange(item, item.axes.length ? soldOf(item, row) : undefined, here) : [])];
      },
      {
        actor,
        why: 'sale',
        at,
        send: 'stock',
        stock: { reason: 'cancelled', saleId, mayGoBelowZero: true },
      },
    );
    const now = committed[0]?.item;
    const wasSoldOut = now !== undefined && before < 1 && now.quantity > 0;
    const again = wasSoldOut ? await listAgain(tx, id) : 0;
    return { quantity: now?.quantity ?? null, again: again + (await relativesAgain(tx, without)) };
  });
}

/** Whole sets and parts that come back with what was sold: those of which there was none are listed again, too. */
async function relativesAgain(tx: Tx, without: readonly number[]): Promise<number> {
  if (without.length === 0) return 0;
  const back = await tx
    .select({ id: items.id })
    .from(items)
    .where(and(inArray(items.id, [...without]), gt(items.quantity, 0)));
  let again = 0;
  for (const { id } of back) again += await listAgain(tx, id);
  return again;
}
