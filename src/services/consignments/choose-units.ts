import { eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { readScans, spellingsOf } from '../../core/barcode';
import { NettingError } from '../../core/errors';
import { type Tx, transaction } from '../../db/client';
import { type ConsignmentUnits, consignment, item } from '../../db/schema';
import { batchPieces } from '../records/batches/batch-pieces';
import { loadBatch } from '../records/batches/load-batch';
import { loadConsignment } from './load-consignment';

const mostNumbers = 500;

export const chooseUnitsSchema = z
  .object({
    /** Items by their numbers, each with all that is here. */
    items: z.array(z.number().int().positive()).max(mostNumbers).optional(),
    /** Everything of a batch that is here. */
    batch: z.number().int().positive().optional(),
    /** A stock number or a barcode, as it was scanned or typed: one unit more. */
    code: z.string().trim().min(1).max(200).optional(),
    /** Of an item so many; none takes it out. */
    set: z
      .object({ item: z.number().int().positive(), quantity: z.number().int().min(0).max(100_000) })
      .strict()
      .optional(),
  })
  .strict();

type Thing = { id: number; sku: string; quantity: number; isVaried: boolean | null };
const columns = { id: item.id, sku: item.sku, quantity: item.quantity, isVaried: item.isVaried };

const thingsOf = (tx: Tx, ids: readonly number[]): Promise<Thing[]> =>
  tx
    .select(columns)
    .from(item)
    .where(inArray(item.id, [0, ...ids]));

/** The one item that a code names. */
async function thingOf(tx: Tx, text: string): Promise<Thing> {
  const [bySku] = await tx.select(columns).from(item).where(eq(item.sku, text));
  if (bySku) return bySku;
  const [scan] = readScans(text);
  const found =
    scan?.is === 'code'
      ? await tx
          .select(columns)
          .from(item)
          .where(inArray(item.barcode, spellingsOf(scan.code)))
          .limit(20)
      : [];
  const [first] = found.sort((a, b) => Number(b.quantity > 0) - Number(a.quantity > 0) || b.id - a.id);
  if (!first)
    throw new NettingError('not-found', `Nothing in stock has the number or barcode “${text.slice(0, 60)}”`, {
      field: 'code',
    });
  return first;
}

/**
 * Chooses what is sent in, and how many. More than is here is refused at its place, as are items that are counted by their
 * variations. What was planned before is not fitting any more then: plans are asked for anew.
 * @returns what was named and left out, in sentences
 */
export async function chooseUnits(id: number, input: z.output<typeof chooseUnitsSchema>): Promise<{ left: string[] }> {
  return transaction(async (tx) => {
    const row = await loadConsignment(tx, id, true);
    if (row.state !== 'choosing' || row.planId)
      throw new NettingError('too-late', 'A plan is taken: what goes with it stays', {
        fix: 'Begin another consignment',
      });
    const chosen = new Map(row.units.map((one) => [one.item, one.quantity]));
    const left: string[] = [];
    const ids = [...(input.items ?? [])];
    if (input.batch) ids.push(...(await batchPieces(tx, await loadBatch(tx, input.batch))).map((one) => one.item[0]));
    for (const one of await thingsOf(tx, [...new Set(ids)])) {
      if (one.isVaried) left.push(`${one.sku} is counted by its variations, which no warehouse takes`);
      else if (one.quantity < 1) left.push(`Nothing of ${one.sku} is here`);
      else chosen.set(one.id, one.quantity);
    }
    const single = input.code !== undefined ? await thingOf(tx, input.code) : undefined;
    if (single) await setOne(tx, chosen, single.id, (chosen.get(single.id) ?? 0) + 1);
    if (input.set) await setOne(tx, chosen, input.set.item, input.set.quantity);
    if (chosen.size > mostNumbers)
      throw new NettingError('invalid', `A consignment has at most ${mostNumbers} stock numbers`);
    const units: ConsignmentUnits[] = [...chosen].map(([one, quantity]) => ({ item: one, quantity }));
    await tx
      .update(consignment)
      .set({ units, plans: [], version: sql`${consignment.version} + 1` })
      .where(eq(consignment.id, id));
    return { left };
  });
}

async function setOne(tx: Tx, chosen: Map<number, number>, id: number, quantity: number): Promise<void> {
  const [thing] = await thingsOf(tx, [id]);
  if (!thing) throw new NettingError('not-found', 'There is no such item', { field: 'item' });
  if (quantity === 0) {
    chosen.delete(id);
    return;
  }
  if (thing.isVaried)
    throw new NettingError('invalid', `${thing.sku} is counted by its variations, which no warehouse takes`, {
      field: 'item',
    });
  if (quantity > thing.quantity)
    throw new NettingError('invalid', `${thing.quantity} of ${thing.sku} are here, ${quantity} cannot be sent in`, {
      field: 'quantity',
    });
  chosen.set(id, quantity);
}
