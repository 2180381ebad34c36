import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { conditionIds } from '../../core/item/condition';
import {
  editedFields,
  lotMeanings,
  lotPricingSchema,
  lotStates,
  priceBasisSchema,
  sourceSchema,
  totalsOf,
  totalsSchema,
} from '../../core/kit';
import { database, type Executor } from '../../db/client';
import { item, type KitLotRow, kitLot, kitStates, run, task, taskStates } from '../../db/schema';
import { countedLots } from './counted-lots';
import { loadKit } from './load-kit';
import { kitShareWays } from './save-kit';

const kitTaskSchema = z.object({
  id: z.number(),
  kind: z.enum(['pricing', 'lots']),
  state: z.enum(taskStates),
  done: z.number(),
  total: z.number(),
  message: z.string().nullable(),
  runId: z.number().nullable(),
  result: z.unknown(),
});

export const kitViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  name: z.string(),
  accountId: z.number().nullable(),
  supplier: z.string(),
  totalCost: z.number().nullable(),
  shareBy: z.enum(kitShareWays),
  state: z.enum(kitStates),
  pricing: lotPricingSchema.nullable(),
  placeHolds: z.number().nullable(),
  byName: z.string(),
  createdAt: z.string(),
  totals: totalsSchema,
  /** The last piece of long work on it, while that is new. */
  task: kitTaskSchema.nullable(),
});
export type KitView = z.infer<typeof kitViewSchema>;

export const lotViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  entry: z.string(),
  name: z.string(),
  finish: z.string(),
  sort: z.string(),
  condition: z.enum(conditionIds).nullable(),
  quantity: z.number(),
  grams: z.number().nullable(),
  price: z.number().nullable(),
  basis: priceBasisSchema.nullable(),
  isKept: z.boolean(),
  tiers: z.array(z.string()),
  comment: z.string(),
  place: z.string(),
  state: z.enum(lotStates),
  meant: z.enum(lotMeanings),
  from: z.array(sourceSchema),
  /** What was written since it went into stock, and is not there yet. */
  edited: z.array(z.enum(editedFields)),
  item: z.object({ id: z.number(), sku: z.string(), photo: z.string().nullable() }).nullable(),
});
export type LotView = z.infer<typeof lotViewSchema>;

export const findLotsSchema = z
  .object({
    after: z.coerce.number().int().min(0).default(0),
    limit: z.coerce.number().int().min(1).max(2_000).default(1_000),
  })
  .strict();

export type LotNow = KitLotRow & { sku: string | null; photo: string | null };

/**
 * Lots with the item that each has become, all of them or some. One whose item was taken back is open again, and so is one
 * of a run that was.
 */
export async function lotsOf(
  db: Executor,
  kitId: number,
  only?: { after: number; limit: number } | { ids: number[] },
): Promise<LotNow[]> {
  const query = db
    .select({
      lot: kitLot,
      sku: item.sku,
      photo: item.mainPhoto,
      standing: item.standing,
      undoneBy: run.undoneBy,
      now: { price: item.price, place: item.location, comment: item.conditionNote },
    })
    .from(kitLot)
    .leftJoin(item, eq(item.id, kitLot.itemId))
    .leftJoin(run, eq(run.id, kitLot.runId))
    .where(
      and(eq(kitLot.kitId, kitId), only && ('ids' in only ? inArray(kitLot.id, only.ids) : gt(kitLot.id, only.after))),
    )
    .orderBy(asc(kitLot.id));
  const rows = await (only && 'limit' in only ? query.limit(only.limit) : query);
  return rows.map(({ lot, sku, photo, standing, undoneBy, now }): LotNow => {
    if (lot.state !== 'done') return { ...lot, sku, photo };
    if (now === null || standing === 'deleted' || undoneBy !== null)
      return { ...lot, state: 'open', itemId: null, runId: null, edited: [], sku: null, photo: null };
    // What is in stock is as it stands there, but for what was written here since.
    const said = (field: 'price' | 'place' | 'comment') => lot.edited.includes(field);
    return {
      ...lot,
      sku,
      photo,
      price: said('price') ? lot.price : now.price,
      place: said('place') ? lot.place : now.place,
      comment: said('comment') ? lot.comment : now.comment,
    };
  });
}

/** Sets that are broken up, with what their lots come to. */
export async function findKit(id: number): Promise<KitView> {
  const db = database();
  const { createdAt, taskId, ...row } = await loadKit(db, id);
  const totals = totalsOf(await countedLots(db, id));
  const [last] = await db
    .select({
      id: task.id,
      kind: task.kind,
      state: task.state,
      done: task.doneCount,
      total: task.totalCount,
      message: task.message,
      runId: task.runId,
      result: task.result,
    })
    .from(task)
    .where(eq(task.id, taskId ?? 0));
  return {
    ...row,
    createdAt: createdAt.toISOString(),
    totals,
    task: last ? kitTaskSchema.parse(last) : null,
  };
}

/** Its lots in the order in which they came, a page at a time. */
export async function findLots(
  id: number,
  { after, limit }: z.output<typeof findLotsSchema>,
): Promise<{ lots: LotView[]; next: number | null }> {
  const db = database();
  await loadKit(db, id);
  const rows = await lotsOf(db, id, { after, limit });
  const lots = rows.map(
    ({ kitId: _kit, runId: _run, itemId, sku, photo, ...lot }): LotView => ({
      ...lot,
      item: itemId !== null && sku !== null ? { id: itemId, sku, photo } : null,
    }),
  );
  return { lots, next: lots.length < limit ? null : (lots.at(-1)?.id ?? null) };
}
