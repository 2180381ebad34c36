import { sql } from 'drizzle-orm';
import { type ShareWay, shareCost } from '../../../core/batch';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import type { BatchRow } from '../../../db/schema';
import { type ItemTuple, itemTuple } from '../listings/account-nets';
import { codeOf } from './load-batch';

/** A piece of a batch: an item that names it, or units that a scan of it added to another. */
export type Piece = {
  /** The line that it came in with; null where it was moved here without one. */
  lineId: number | null;
  /** It was made here, or moved here; else units were added to it. */
  isOwn: boolean;
  units: number;
  item: ItemTuple;
  sku: string;
  title: string;
  condition: string | null;
  /** The accounts that it is meant for. */
  meantFor: number[];
  /** Where units were added: what the item had and cost before. */
  unitsBefore: number | null;
  costBefore: number | null;
};

const columns = sql`${itemTuple}`;

/** The pieces of a batch, in the order in which they came in. Of an item that names it without a line what is in stock. */
export async function batchPieces(db: Executor, { id }: Pick<BatchRow, 'id'>): Promise<Piece[]> {
  const facts = sql`i.sku, i.title, i.condition_grade,
    (select group_concat(m.account_id) from listing m where m.item_id = i.id and m.wanted <> 'none') as meant`;
  const rows = rowsOf<Record<string, unknown>>(
    await db.execute(sql`
      select l.id as line_id, 1 as own, coalesce(l.units, i.quantity) as units, ${facts}, null as units_before, null as cost_before,
          json_array(${columns}) as tuple
        from item i left join batch_line l on l.item_id = i.id and l.kind = 'item' and l.is_undone = 0
        where i.batch = ${codeOf(id)} and i.archived <> 2
      union all
      select l.id, 0, l.units, ${facts}, l.units_before, l.cost_before, json_array(${columns})
        from batch_line l join item i on i.id = l.item_id
        where l.batch_id = ${id} and l.kind = 'stock' and l.is_undone = 0
      order by line_id`),
  );
  return rows.map((row) => ({
    lineId: row.line_id === null ? null : Number(row.line_id),
    isOwn: Number(row.own) === 1,
    units: Number(row.units),
    sku: String(row.sku),
    title: String(row.title),
    condition: row.condition_grade === null ? null : String(row.condition_grade),
    meantFor: row.meant === null ? [] : String(row.meant).split(',').map(Number),
    unitsBefore: row.units_before === null ? null : Number(row.units_before),
    costBefore: row.cost_before === null ? null : Number(row.cost_before),
    item: (typeof row.tuple === 'string' ? JSON.parse(row.tuple) : row.tuple) as ItemTuple, // written by the columns above
  }));
}

/** What each piece bears of the total, in minor units; null where there is none to share, or it cannot be shared so. */
export function sharesOf(
  batch: Pick<BatchRow, 'totalCost' | 'shareBy' | 'shares'>,
  pieces: readonly Piece[],
): number[] | null {
  if (batch.totalCost === null) return null;
  const by: ShareWay = batch.shareBy;
  return shareCost(
    batch.totalCost,
    pieces.map(({ units, item, lineId }) => ({
      units,
      weightGrams: item[4],
      price: item[1],
      byHand: lineId === null ? null : (batch.shares[String(lineId)] ?? null),
    })),
    by,
  );
}
