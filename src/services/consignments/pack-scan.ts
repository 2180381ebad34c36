import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { readScans, spellingsOf } from '../../core/barcode';
import { readCommand } from '../../core/batch';
import { closeBox, packedOf, placeUnit, takeOut, unitsIn } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import { database, isDuplicate, type Tx, transaction } from '../../db/client';
import { type ConsignmentRow, item, packedUnit, type ShipmentRow, shipment } from '../../db/schema';
import type { Actor } from '../access/actor';
import { usualLimits, weightsOf } from './box-faults';
import { boxLabelOf } from './box-name';
import { loadConsignment, shipmentsOf } from './load-consignment';

export const packScanSchema = z
  .object({
    /** Chosen by who scans: sent twice, it is one unit. */
    key: z.uuid(),
    text: z.string().max(200),
  })
  .strict();

const boxSchema = z.object({ shipment: z.number(), warehouse: z.string(), box: z.number(), name: z.string() });

export const packedSchema = z.object({
  /** `placed` into a box; `right` or `wrong` box, after its label was scanned; `closed`; `undone`; `refused`. */
  is: z.enum(['placed', 'right', 'wrong', 'closed', 'undone', 'refused']),
  message: z.string(),
  /** The box that is meant. */
  to: boxSchema.nullable(),
  isNewBox: z.boolean(),
  sku: z.string().nullable(),
  title: z.string().nullable(),
  /** Units that are still to be packed in the whole consignment. */
  left: z.number(),
});
type Packed = z.infer<typeof packedSchema>;
type PackedRow = typeof packedUnit.$inferSelect;

/**
 * What a scan means while packing: a piece is put into a box, the label of a box says whether it is the right one, a command
 * label closes the box or takes the last unit out again.
 */
export async function packScan(
  actor: Actor,
  id: number,
  { key, text }: z.output<typeof packScanSchema>,
): Promise<Packed> {
  try {
    return await transaction(async (tx) => {
      const row = await loadConsignment(tx, id, true);
      const shipments = await shipmentsOf(tx, id, true);
      const [known] = await tx.select().from(packedUnit).where(eq(packedUnit.key, key));
      if (known) return placed(tx, shipments, known);
      if (row.state !== 'packing')
        throw new NettingError('too-late', 'Nothing of this consignment is packed any more', {
          fix: 'Take a plan first, or look at what has become of it',
        });
      const last = await lastPacked(tx, id, actor.name);
      const command = readCommand(text);
      const boxLabel = boxOfLabel(shipments, text);
      if (boxLabel) return checkBox(shipments, last, boxLabel);
      if (command?.do === 'undo') return takeLastOut(tx, shipments, last);
      if (command?.do === 'box') return closeLast(tx, shipments, last);
      if (command) return said(shipments, 'refused', 'This command does nothing here');
      return pack(tx, { actor, row, shipments, last, key, text: text.trim() });
    });
  } catch (error) {
    // Sent twice at the same moment: the other one has packed it.
    if (!isDuplicate(error)) throw error;
    const db = database();
    const [known] = await db.select().from(packedUnit).where(eq(packedUnit.key, key));
    if (!known) throw error;
    return placed(db, await shipmentsOf(db, id), known);
  }
}

const isOpen = (one: ShipmentRow) => one.state === 'open';

const leftIn = (shipments: readonly ShipmentRow[]): number =>
  shipments
    .filter((one) => one.state !== 'off')
    .reduce(
      (sum, { units, boxes }) =>
        sum + units.reduce((all, one) => all + Math.max(0, one.quantity - packedOf(boxes, one.sku)), 0),
      0,
    );

const boxOf = ({ id, warehouseName }: ShipmentRow, box: number) => ({
  shipment: id,
  warehouse: warehouseName,
  box,
  name: `${warehouseName} ${box}`,
});

const said = (
  shipments: readonly ShipmentRow[],
  is: Packed['is'],
  message: string,
  more: Partial<Packed> = {},
): Packed => ({
  is,
  message,
  to: null,
  isNewBox: false,
  sku: null,
  title: null,
  left: leftIn(shipments),
  ...more,
});

async function titleOf(db: Pick<Tx, 'select'>, sku: string): Promise<string> {
  const [found] = await db.select({ title: item.title }).from(item).where(eq(item.sku, sku));
  return found?.title ?? '';
}

async function placed(db: Pick<Tx, 'select'>, shipments: readonly ShipmentRow[], one: PackedRow): Promise<Packed> {
  const into = shipments.find(({ id }) => id === one.shipmentId);
  if (!into) throw new NettingError('not-found', 'There is no such shipment');
  const to = boxOf(into, one.box);
  return said(shipments, 'placed', one.isNewBox ? `${to.name}, a new box` : to.name, {
    to,
    isNewBox: one.isNewBox,
    sku: one.sku,
    title: await titleOf(db, one.sku),
  });
}

/** What this person packed last and did not take out again. */
async function lastPacked(tx: Tx, consignmentId: number, byName: string): Promise<PackedRow | undefined> {
  const [last] = await tx
    .select()
    .from(packedUnit)
    .where(
      and(eq(packedUnit.consignmentId, consignmentId), eq(packedUnit.byName, byName), eq(packedUnit.isUndone, false)),
    )
    .orderBy(desc(packedUnit.id))
    .limit(1);
  return last;
}

function boxOfLabel(shipments: readonly ShipmentRow[], text: string): { row: ShipmentRow; box: number } | null {
  const said = text.trim().toUpperCase();
  for (const row of shipments) {
    const theirs = row.boxCodes.findIndex((code) => code.toUpperCase() === said);
    const ours = row.boxes.find((box) => boxLabelOf(row.id, box.number) === said);
    if (ours) return { row, box: ours.number };
    const box = theirs < 0 ? undefined : row.boxes[theirs];
    if (box) return { row, box: box.number };
  }
  return null;
}

function checkBox(
  shipments: readonly ShipmentRow[],
  last: PackedRow | undefined,
  { row, box }: { row: ShipmentRow; box: number },
): Packed {
  const meant = shipments.find((one) => one.id === last?.shipmentId);
  if (!meant || !last) return said(shipments, 'right', `This is ${boxOf(row, box).name}`, { to: boxOf(row, box) });
  const to = boxOf(meant, last.box);
  const isRight = row.id === last.shipmentId && box === last.box;
  return said(
    shipments,
    isRight ? 'right' : 'wrong',
    isRight ? `${to.name}, right` : `Wrong box: ${last.sku} goes into ${to.name}, this is ${boxOf(row, box).name}`,
    { to, sku: last.sku },
  );
}

/** The shipment, as it is to be written; its version goes up. */
const write = (tx: Tx, one: ShipmentRow, boxes: ShipmentRow['boxes']) =>
  tx
    .update(shipment)
    .set({ boxes, version: sql`${shipment.version} + 1` })
    .where(eq(shipment.id, one.id));

const withBoxes = (shipments: readonly ShipmentRow[], id: number, boxes: ShipmentRow['boxes']) =>
  shipments.map((one) => (one.id === id ? { ...one, boxes } : one));

async function takeLastOut(tx: Tx, shipments: readonly ShipmentRow[], last: PackedRow | undefined): Promise<Packed> {
  const from = shipments.find((one) => one.id === last?.shipmentId && isOpen(one));
  if (!last || !from) return said(shipments, 'refused', 'There is nothing of yours to be taken out again');
  const boxes = takeOut(from.boxes, last.box, last.sku);
  await tx.update(packedUnit).set({ isUndone: true }).where(eq(packedUnit.id, last.id));
  await write(tx, from, boxes);
  const to = boxOf(from, last.box);
  return said(withBoxes(shipments, from.id, boxes), 'undone', `${last.sku} is out of ${to.name} again`, {
    to,
    sku: last.sku,
  });
}

async function closeLast(tx: Tx, shipments: readonly ShipmentRow[], last: PackedRow | undefined): Promise<Packed> {
  const into = shipments.find((one) => one.id === last?.shipmentId && isOpen(one));
  const open = into?.boxes.filter((box) => !box.isFull && unitsIn(box) > 0).at(-1);
  if (!into || !open) return said(shipments, 'refused', 'There is no box of yours to be closed');
  const boxes = closeBox(into.boxes);
  await write(tx, into, boxes);
  const to = boxOf(into, open.number);
  return said(
    withBoxes(shipments, into.id, boxes),
    'closed',
    `${to.name} is closed; the next begins with the next piece`,
    {
      to,
    },
  );
}

/** The stock number that a scan names, among those that are packed here. */
async function skuOf(tx: Tx, shipments: readonly ShipmentRow[], text: string): Promise<string | null> {
  const units = shipments.flatMap((one) => one.units);
  const bySku = units.find((one) => one.sku.toLowerCase() === text.toLowerCase());
  if (bySku) return bySku.sku;
  const [scan] = readScans(text);
  if (scan?.is !== 'code') return null;
  const found = await tx
    .select({ sku: item.sku })
    .from(item)
    .where(and(inArray(item.id, [0, ...units.map((one) => one.item)]), inArray(item.barcode, spellingsOf(scan.code))));
  const skus = found.map((one) => one.sku);
  // Of several with one barcode that which is still lacking somewhere.
  return (
    skus.find((sku) =>
      shipments.some(
        (one) => isOpen(one) && (one.units.find((its) => its.sku === sku)?.quantity ?? 0) > packedOf(one.boxes, sku),
      ),
    ) ??
    skus[0] ??
    null
  );
}

async function pack(
  tx: Tx,
  given: {
    actor: Actor;
    row: ConsignmentRow;
    shipments: ShipmentRow[];
    last: PackedRow | undefined;
    key: string;
    text: string;
  },
): Promise<Packed> {
  const { actor, row, shipments, last, key, text } = given;
  const sku = await skuOf(tx, shipments, text);
  if (sku === null)
    return said(shipments, 'refused', `“${text.slice(0, 60)}” is not in this consignment: put it aside`);
  const gramsOf = await weightsOf(tx, { units: shipments.flatMap((one) => one.units) });
  const open = shipments.filter(isOpen);
  const one = placeUnit(open, sku, {
    limits: { grams: (row.limits ?? usualLimits).grams, units: row.boxUnits },
    gramsOf,
    last: last?.shipmentId ?? null,
  });
  const into = open.find(({ id }) => id === one?.shipment);
  if (!one || !into)
    return said(shipments, 'refused', `All of ${sku} are packed already: this one is too many`, {
      sku,
      title: await titleOf(tx, sku),
    });
  const entry = {
    key,
    consignmentId: row.id,
    shipmentId: into.id,
    box: one.box,
    sku,
    isNewBox: one.isNew,
    byName: actor.name,
    at: new Date(),
  };
  const [{ insertId }] = await tx.insert(packedUnit).values(entry);
  await write(tx, into, one.boxes);
  return placed(tx, withBoxes(shipments, into.id, one.boxes), { ...entry, id: insertId, isUndone: false });
}
