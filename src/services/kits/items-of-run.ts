import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Tx } from '../../db/client';
import { changeRecord } from '../../db/schema';

/** Items that a run has made or changed, all of them or which of these. */
export async function itemsOfRun(tx: Tx, runId: number, among?: readonly number[]): Promise<number[]> {
  if (among?.length === 0) return [];
  const rows = await tx
    .selectDistinct({ id: changeRecord.itemId })
    .from(changeRecord)
    .where(and(eq(changeRecord.runId, runId), among && inArray(changeRecord.itemId, [...among])))
    .orderBy(asc(changeRecord.itemId));
  return rows.map((one) => one.id);
}
