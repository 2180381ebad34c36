import { inArray, sql } from 'drizzle-orm';
import { layersOf } from '../../core/insight';
import type { Executor } from '../../db/client';
import { valuesList } from '../../db/literal';
import { rowsOf } from '../../db/rows';
import { item, movement, stockLayer } from '../../db/schema';

const dayOf = (at: Date): string => at.toISOString().slice(0, 10);

/** Makes the layers of these items anew from their whole ledger. Artwork is printed when it is sold: it lies nowhere. */
export async function writeLayers(db: Executor, ids: readonly number[]): Promise<void> {
  if (ids.length === 0) return;
  const bought = await db
    .select({ id: item.id, boughtOn: item.boughtOn })
    .from(item)
    .where(sql`${inArray(item.id, [...ids])} and not exists (select 1 from artwork w where w.item_id = ${item.id})`);
  const boughtOn = new Map(bought.map((one) => [one.id, one.boughtOn]));
  const lines = await db
    .select({
      id: movement.id,
      itemId: movement.itemId,
      delta: movement.delta,
      reason: movement.reason,
      saleId: movement.saleId,
      at: movement.at,
    })
    .from(movement)
    .where(inArray(movement.itemId, [...boughtOn.keys(), 0]))
    .orderBy(movement.itemId, movement.id);
  const ledgers = new Map<number, typeof lines>();
  for (const line of lines) {
    const ledger = ledgers.get(line.itemId);
    if (ledger) ledger.push(line);
    else ledgers.set(line.itemId, [line]);
  }
  const rows = [...ledgers].flatMap(([itemId, ledger]) =>
    layersOf(ledger).map((layer) => {
      const left = layer.outAt && dayOf(layer.outAt);
      const came = (layer.isFirst && boughtOn.get(itemId)) || dayOf(layer.inAt);
      // Bought after it was sold: somebody mistyped the day. It came in when it was recorded.
      const inOn = left && came > left ? dayOf(layer.inAt) : came;
      return [itemId, layer.units, inOn, left, layer.how, layer.saleId];
    }),
  );
  const upTo = new Map(lines.map((line) => [line.itemId, line.id]));
  await db.delete(stockLayer).where(inArray(stockLayer.itemId, [...ids]));
  for (let at = 0; at < rows.length; at += 2_000)
    await db.execute(
      sql`insert into stock_layer (item_id, units, in_on, out_on, how, sale_id) values ${valuesList(rows.slice(at, at + 2_000))}`,
    );
  await db.execute(
    sql`insert into item_milestone (item_id, moved_up_to) values ${valuesList(ids.map((id) => [id, upTo.get(id) ?? 0]))}
      on duplicate key update moved_up_to = values(moved_up_to), kept_at = current_timestamp(3)`,
  );
}

/** The numbers out of rows that hold them as `id`. */
export const numbersOf = (result: unknown): number[] => rowsOf<{ id: number }>(result).map((one) => Number(one.id));
