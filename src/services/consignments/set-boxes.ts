import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { contentsFromRows } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { type ShipmentRow, shipment } from '../../db/schema';
import { readCsvText } from '../../files';
import { loadShipment } from './load-consignment';

const units = z.number().int().min(0).max(100_000);
const side = z.number().int().min(1, 'A side has at least 1 mm').max(20_000);

export const setBoxesSchema = z
  .object({
    /** The version that the change was made on. */
    baseVersion: z.number().int().positive(),
    boxes: z
      .array(
        z
          .object({
            number: z.number().int().min(1).max(200),
            contents: z.record(z.string().min(1).max(40), units),
            grams: z.number().int().min(1, 'A box weighs something').max(1_000_000).nullable(),
            millimetres: z.tuple([side, side, side]).nullable(),
            isFull: z.boolean(),
          })
          .strict(),
      )
      .max(200),
  })
  .strict();

export const contentsFileSchema = z
  .object({
    baseVersion: z.number().int().positive(),
    /** CSV with the heads `stock number`, `box`, `units`. */
    text: z.string().max(1_000_000),
  })
  .strict();

/** A shipment that is still packed; boxes that they were told of are told anew. */
function refusePacked(row: ShipmentRow): void {
  if (row.state !== 'open' && row.state !== 'told')
    throw new NettingError('too-late', 'It is on its way: its boxes stay as they are');
}

async function write(id: number, baseVersion: number, boxes: ShipmentRow['boxes']): Promise<{ version: number }> {
  const [{ affectedRows }] = await database()
    .update(shipment)
    .set({ boxes, boxCodes: [], state: 'open', version: sql`${shipment.version} + 1` })
    .where(and(eq(shipment.id, id), eq(shipment.version, baseVersion), sql`${shipment.state} in ('open', 'told')`));
  if (affectedRows === 1) return { version: baseVersion + 1 };
  throw new NettingError('conflict', 'Somebody packed into this shipment meanwhile', {
    fix: 'Look at it anew, then change it',
  });
}

/** Says by hand what is in which box, what it weighs and how large it is. */
export async function setBoxes(
  id: number,
  { baseVersion, boxes }: z.output<typeof setBoxesSchema>,
): Promise<{ version: number }> {
  const row = await loadShipment(database(), id);
  refusePacked(row);
  const planned = new Set(row.units.map((one) => one.sku));
  const numbers = new Set<number>();
  for (const box of boxes) {
    if (numbers.has(box.number))
      throw new NettingError('invalid', `There are two boxes ${box.number}`, { field: 'boxes' });
    numbers.add(box.number);
    const strange = Object.keys(box.contents).find((sku) => !planned.has(sku));
    if (strange) throw new NettingError('invalid', `${strange} does not belong into this shipment`, { field: 'boxes' });
  }
  const kept = boxes
    .map((box) => ({
      ...box,
      contents: Object.fromEntries(Object.entries(box.contents).filter(([, count]) => count > 0)),
    }))
    .sort((a, b) => a.number - b.number);
  return write(id, baseVersion, kept);
}

/** The same out of a file; nothing of it is taken where a row cannot be meant. */
export async function readContentsFile(
  id: number,
  { baseVersion, text }: z.output<typeof contentsFileSchema>,
): Promise<{ version: number; boxes: number }> {
  const row = await loadShipment(database(), id);
  refusePacked(row);
  const read = contentsFromRows(readCsvText(text), row.units, row.boxes);
  if ('faults' in read)
    throw new NettingError('invalid', `Row ${read.faults[0]?.row}: ${read.faults[0]?.message}`, {
      field: 'text',
      details: read.faults.slice(0, 50).map((one) => ({ field: `row ${one.row}`, message: one.message })),
    });
  const { version } = await write(id, baseVersion, read.boxes);
  return { version, boxes: read.boxes.length };
}
