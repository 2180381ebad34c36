import { inArray } from 'drizzle-orm';
import { type BoxFault, type BoxLimits, boxFaults } from '../../core/consignment';
import type { Executor } from '../../db/client';
import { item, type ShipmentRow } from '../../db/schema';

/** What is taken where the marketplace says nothing else. */
export const usualLimits: BoxLimits = { grams: 23_000, millimetres: 630 };

/** What a unit weighs, by stock number; 0 where that is not known. */
export async function weightsOf(db: Executor, row: Pick<ShipmentRow, 'units'>): Promise<(sku: string) => number> {
  const rows = await db
    .select({ sku: item.sku, grams: item.weightGrams })
    .from(item)
    .where(inArray(item.id, [0, ...row.units.map((one) => one.item)]));
  const grams = new Map(rows.map((one) => [one.sku, one.grams ?? 0]));
  return (sku) => grams.get(sku) ?? 0;
}

/** Faults of the boxes of a shipment, as they stand. */
export async function faultsOf(db: Executor, row: ShipmentRow, limits: BoxLimits): Promise<BoxFault[]> {
  return boxFaults(row.units, row.boxes, limits, await weightsOf(db, row));
}
