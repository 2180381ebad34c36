import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { undoChange } from '../../core/edit';
import { NettingError } from '../../core/errors';
import { ownTransaction, streamRows } from '../../db/raw';
import { run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { carryOutStaged, stageChanges } from './carry-out-staged';
export const undoRunSchema = z.object({ send: z.boolean().default(false) }).strict();

export const undoneSchema = z.object({
  runId: z.number(),
  items: z.number(),
  changedSince: z.array(
    z.object({
      itemId: z.number(),
      sku: z.string(),
      title: z.string(),
      field: z.string(),
    }),
  ),
});
export type Undone = z.infer<typeof undoneSchema>;

type Row = [
  itemId: number,
  field: 'price' | 'quantity',
  from: number | null,
  to: number | null,
  price: number | null,
  quantity: number,
  sku: string,
  title: string,
];

const asNumber = (value: unknown): number | null => {
  const plain: unknown = typeof value === 'string' ? JSON.parse(value) : value;
  return typeof plain === 'number' ? plain : null;
};

/**
 * Takes a whole bulk change back. Items whose price was changed since keep it and are named; stock takes back only
 * the difference, so that what was sold meanwhile stays sold.
 */
export async function undoRun(actor: Actor, runId: number, { send }: z.infer<typeof undoRunSchema>): Promise<Undone> {
  return ownTransaction(async (db, connection) => {
    const [original] = await db.select().from(run).where(eq(run.id, runId)).for('update');
    if (!original || original.kind !== 'edit') throw new NettingError('not-found', 'There is no such change');
    if (original.undoneBy) throw new NettingError('too-late', 'This change was taken back already');
    const planned = new Map<
      number,
      { id: number; price: number | null; newPrice: number | null; quantity: number; newQuantity: number }
    >();
    const changedSince: Undone['changedSince'] = [];
    const rows = streamRows<Row>(
      connection,
      sql`select c.item_id, c.field, c.old_value, c.new_value, i.price, i.quantity, i.sku, i.title from change_record c join item i on i.id = c.item_id where c.run_id = ${runId} order by c.item_id for update`,
    );
    for await (const chunk of rows) {
      for (const [id, field, from, to, price, quantity, sku, title] of chunk) {
        const verdict = undoChange(
          { field, from: asNumber(from), to: asNumber(to) },
          field === 'price' ? price : quantity,
        );
        if (verdict.kind === 'changed-since') {
          changedSince.push({ itemId: id, sku, title, field });
          continue;
        }
        const restored = asNumber(verdict.value);
        const plan = planned.get(id) ?? { id, price, newPrice: price, quantity, newQuantity: quantity };
        if (field === 'price') plan.newPrice = restored;
        else plan.newQuantity = restored ?? 0;
        planned.set(id, plan);
      }
    }
    const all = [...planned.values()];
    const [{ insertId: undoId }] = await db.insert(run).values({
      kind: 'undo',
      title: `Taken back: ${original.title}`.slice(0, 200),
      detail: { changedSince: changedSince.slice(0, 1_000) },
      itemCount: all.length,
      undoOf: runId,
      byName: actor.name,
    });
    if (all.length) {
      await stageChanges(connection, all);
      await carryOutStaged(db, {
        connection,
        actor,
        runId: undoId,
        why: 'undo',
        send,
        prices: all.some((one) => one.price !== one.newPrice),
        quantities: all.some((one) => one.quantity !== one.newQuantity),
      });
    }
    await db.update(run).set({ undoneBy: undoId }).where(eq(run.id, runId));
    return { runId: undoId, items: all.length, changedSince: changedSince.slice(0, 1_000) };
  });
}
