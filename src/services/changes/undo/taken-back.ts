import { and, eq, inArray } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { changeRecord, run } from '../../../db/schema';

type Place = { itemId: number; listingId: number | null; combination: string | null; field: string };

/** One place of one item: a field, of a combination, or written for an account. */
const placeOf = ({ itemId, listingId, combination, field }: Place) =>
  `${itemId}/${listingId ?? ''}/${combination ?? ''}/${field}`;

/** The places in which a run is taken back: another run has taken it back there, and has not been taken back itself. */
async function placesTakenBack(db: Executor, runId: number, items: readonly number[]): Promise<Set<string>> {
  const back = new Set<string>();
  const undos = await db.select({ id: run.id }).from(run).where(eq(run.undoOf, runId));
  for (const { id } of undos) {
    const rows = await db
      .select({
        itemId: changeRecord.itemId,
        listingId: changeRecord.listingId,
        combination: changeRecord.combination,
        field: changeRecord.field,
      })
      .from(changeRecord)
      .where(and(eq(changeRecord.runId, id), inArray(changeRecord.itemId, [...items])));
    if (rows.length === 0) continue;
    const again = await placesTakenBack(db, id, items);
    for (const row of rows) if (!again.has(placeOf(row))) back.add(placeOf(row));
  }
  return back;
}

/** Of what a run changed, that which is not taken back already. */
export async function notTakenBack<T extends Place>(db: Executor, runId: number, records: readonly T[]): Promise<T[]> {
  if (records.length === 0) return [];
  const back = await placesTakenBack(db, runId, [...new Set(records.map((one) => one.itemId))]);
  return records.filter((one) => !back.has(placeOf(one)));
}
