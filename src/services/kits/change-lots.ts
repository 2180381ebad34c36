import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { conditionIds } from '../../core/item/condition';
import { type EditedField, editedFields, lotMeanings } from '../../core/kit';
import { homeCurrency } from '../../core/measure';
import { tierFault } from '../../core/price';
import { type Tx, transaction } from '../../db/client';
import { kitLot } from '../../db/schema';
import { type RowChange, updateMany } from '../../db/update-many';
import { type LotNow, lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

const lotFields = z
  .object({
    price: z.number().int().min(1).max(100_000_000_00).nullable(),
    isKept: z.boolean(),
    tiers: z.array(z.string().trim().max(20)).max(3),
    comment: z.string().trim().max(1_000),
    place: z.string().trim().max(60),
    quantity: z.number().int().min(0).max(1_000_000),
    condition: z.enum(conditionIds).nullable(),
    state: z.enum(['open', 'later', 'out']),
    meant: z.enum(lotMeanings),
  })
  .partial()
  .strict();
type LotFields = z.output<typeof lotFields>;
/** Steps may also weigh. */
type LotSet = LotFields & { grams?: number | null };

export const changeLotsSchema = z
  .object({
    lots: z
      .array(z.object({ id: z.number().int().positive(), baseVersion: z.number().int(), set: lotFields }).strict())
      .min(1)
      .max(2_000),
  })
  .strict();

export const changedLotsSchema = z.object({
  changed: z.array(z.object({ id: z.number(), version: z.number() })),
  refused: z.array(z.object({ id: z.number(), why: z.string() })),
});

export type ChangedLots = z.infer<typeof changedLotsSchema>;

const isEditable = (field: string): field is EditedField => editedFields.some((one) => one === field);

/** Why a lot cannot be changed so; null where it can. */
function whyNot(lot: LotNow | undefined, baseVersion: number, set: LotSet): string | null {
  if (!lot) return 'There is no such lot here';
  if (lot.version !== baseVersion) return 'Somebody changed it meanwhile';
  if (lot.state === 'done' && !Object.keys(set).every(isEditable)) return 'It is in stock already: change it there';
  const price = set.price === undefined ? lot.price : set.price;
  return set.tiers ? tierFault(set.tiers, price, homeCurrency) : null;
}

/** What is written, as columns: a price that a person writes is kept, and is not any more what sales made it. */
function columnsOf(lot: LotNow, set: LotSet): RowChange['set'] {
  const isDone = lot.state === 'done';
  const byHand: LotSet & { basis?: null } =
    set.price !== undefined && !isDone ? { isKept: set.price !== null, ...set, basis: null } : set;
  const pairs = Object.entries(byHand).map(([field, value]) => [kitLot[field as keyof LotSet], value] as const); // the columns are called as the fields are
  // The item may have been changed since: what is not written here is as it is there.
  return isDone
    ? [...pairs, [kitLot.edited, [...new Set([...lot.edited, ...Object.keys(set).filter(isEditable)])]]]
    : [...pairs, [kitLot.state, set.state ?? lot.state], [kitLot.itemId, lot.itemId], [kitLot.runId, lot.runId]];
}

/** Changes lots, each where it is still as it was seen. What is in stock is changed there only when a person says so. */
export async function changeLots(id: number, { lots }: z.output<typeof changeLotsSchema>): Promise<ChangedLots> {
  return transaction(async (tx) => {
    refuseClosed(await loadKit(tx, id, true));
    const there = new Map((await lotsOf(tx, id, { ids: lots.map((one) => one.id) })).map((lot) => [lot.id, lot]));
    return changeLotsWithin(tx, there, lots);
  });
}

/** The same in the caller's transaction, with the lots as they were read in it. */
export async function changeLotsWithin(
  tx: Tx,
  there: ReadonlyMap<number, LotNow>,
  lots: readonly { id: number; baseVersion: number; set: LotSet }[],
): Promise<ChangedLots> {
  const done: ChangedLots = { changed: [], refused: [] };
  const rows = new Map<number, RowChange>();
  for (const { id: lotId, baseVersion, set } of lots) {
    const lot = there.get(lotId);
    const why = rows.has(lotId) ? 'It is named twice' : whyNot(lot, baseVersion, set);
    if (why !== null || !lot) {
      done.refused.push({ id: lotId, why: why ?? '' });
      continue;
    }
    const columns = new Map(columnsOf(lot, set).map(([column, value]) => [column.name, [column, value] as const]));
    rows.set(lotId, { id: lotId, set: [...columns.values()] });
    done.changed.push({ id: lotId, version: baseVersion + 1 });
  }
  await updateMany(tx, 'kit_lot', [...rows.values()], sql`r.version = r.version + 1`);
  return done;
}
