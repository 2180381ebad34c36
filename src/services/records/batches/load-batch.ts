import { eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import type { Executor } from '../../../db/client';
import { type BatchRow, batch } from '../../../db/schema';

/** What pieces name their batch by. */
export const codeOf = (batchId: number): string => `B${batchId}`;

export async function loadBatch(db: Executor, id: number): Promise<BatchRow> {
  const [found] = await db.select().from(batch).where(eq(batch.id, id));
  if (!found) throw new NettingError('not-found', 'There is no such batch');
  return found;
}
