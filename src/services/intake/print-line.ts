import type { Executor } from '../../db/client';
import type { BatchLineRow } from '../../db/schema';
import { queuePrint } from '../labels/print-queue';

type Scanned = Pick<BatchLineRow, 'itemId' | 'settings' | 'units' | 'byName' | 'scanned'>;

/** The label of a piece that was scanned, one for each of its units, into the printer's queue; nothing where none is wanted. */
export async function printLine(db: Executor, line: Scanned): Promise<void> {
  const { itemId, settings, units, byName, scanned } = line;
  if (itemId === null || settings.label === null) return;
  const what = { kind: 'item' as const, size: settings.label, items: [itemId], copies: Math.min(100, units) };
  const how = { batch: null, places: [], code: 'sku' as const, startAt: 1, prefers: 'linear' as const };
  await queuePrint(db, byName, { ...what, ...how }, `Label for ${scanned}`);
}
