import { and, asc, eq, gt, ne, sql } from 'drizzle-orm';
import { keyed } from '../../core/change';
import { combinationWords, unitsOf } from '../../core/item';
import { database, transaction } from '../client';
import { newCombinationKey } from '../combination-key';
import { item, movement, sale, setting } from '../schema';

const mark = 'filled.combination-keys';

/**
 * Gives the combinations of an older shop keys of their own and counts its ledger by them: each combination's units are
 * the sum of its movements from then on. Done once.
 */
export async function fillCombinationKeys(): Promise<void> {
  const [done] = await database().select().from(setting).where(eq(setting.name, mark));
  if (done) return;
  for (let after = 0; ; ) {
    const [next] = await database()
      .select({ id: item.id })
      .from(item)
      .where(and(gt(item.id, after), ne(sql`cast(${item.axes} as char)`, '[]')))
      .orderBy(asc(item.id))
      .limit(1);
    if (!next) break;
    await fillItem(next.id);
    after = next.id;
  }
  await database().insert(setting).values({ name: mark, value: true, byName: 'Netting', at: new Date() });
}

const fillItem = (id: number): Promise<void> =>
  transaction(async (tx) => {
    const [row] = await tx.select().from(item).where(eq(item.id, id)).for('update');
    if (!row) return;
    const variations = keyed(
      row.variations.map((one) => ({ ...one, key: one.key ?? '' })),
      [],
      newCombinationKey,
    );
    const moves = await tx.select().from(movement).where(eq(movement.itemId, id));
    const counted = new Map(variations.map((one) => [one.key, 0]));
    let rest = 0;
    for (const move of moves) {
      const of = variations.find(
        (one) => one.key === move.combination || combinationWords(one.values) === move.variation,
      );
      if (of) {
        counted.set(of.key, (counted.get(of.key) ?? 0) + move.delta);
        await tx.update(movement).set({ combination: of.key }).where(eq(movement.id, move.id));
      } else rest += move.delta;
    }
    const at = new Date();
    const balance = (combination: string | null, variation: string | null, delta: number) => ({
      itemId: id,
      delta,
      reason: 'corrected' as const,
      combination,
      variation,
      note: 'Counted by combination from now on',
      at,
      byName: 'Netting',
    });
    const rows = variations.map((one) =>
      balance(one.key, combinationWords(one.values), one.quantity - (counted.get(one.key) ?? 0)),
    );
    const due = [...rows, balance(null, null, -rest)].filter((one) => one.delta !== 0);
    if (due.length) await tx.insert(movement).values(due);
    for (const one of variations)
      await tx
        .update(sale)
        .set({ combination: one.key })
        .where(and(eq(sale.itemId, id), eq(sale.variation, combinationWords(one.values))));
    await tx
      .update(item)
      .set({ variations, quantity: unitsOf(variations) })
      .where(eq(item.id, id));
  });
