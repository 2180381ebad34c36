import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { conditionIds } from '../../core/item/condition';
import { lotStates, sourceSchema, totalsOf, totalsSchema } from '../../core/kit';
import { database, type Executor } from '../../db/client';
import { item, type KitLotRow, kitLot, kitStates } from '../../db/schema';
import { loadKit } from './load-kit';
import { kitShareWays } from './save-kit';

export const kitViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  name: z.string(),
  accountId: z.number().nullable(),
  supplier: z.string(),
  totalCost: z.number().nullable(),
  shareBy: z.enum(kitShareWays),
  state: z.enum(kitStates),
  runId: z.number(),
  byName: z.string(),
  createdAt: z.string(),
  totals: totalsSchema,
});
export type KitView = z.infer<typeof kitViewSchema>;

export const lotViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  entry: z.string(),
  name: z.string(),
  finish: z.string(),
  condition: z.enum(conditionIds).nullable(),
  quantity: z.number(),
  grams: z.number().nullable(),
  price: z.number().nullable(),
  comment: z.string(),
  place: z.string(),
  state: z.enum(lotStates),
  from: z.array(sourceSchema),
  item: z.object({ id: z.number(), sku: z.string() }).nullable(),
});
export type LotView = z.infer<typeof lotViewSchema>;

export const findLotsSchema = z
  .object({
    after: z.coerce.number().int().min(0).default(0),
    limit: z.coerce.number().int().min(1).max(2_000).default(1_000),
  })
  .strict();

/** Lots with the item that each has become, all of them or some; one whose item was taken back is open again. */
export async function lotsOf(db: Executor, kitId: number, only?: { after: number; limit: number } | { ids: number[] }) {
  const query = db
    .select({ lot: kitLot, sku: item.sku, standing: item.standing })
    .from(kitLot)
    .leftJoin(item, eq(item.id, kitLot.itemId))
    .where(
      and(eq(kitLot.kitId, kitId), only && ('ids' in only ? inArray(kitLot.id, only.ids) : gt(kitLot.id, only.after))),
    )
    .orderBy(asc(kitLot.id));
  const rows = await (only && 'limit' in only ? query.limit(only.limit) : query);
  return rows.map(({ lot, sku, standing }): KitLotRow & { sku: string | null } => {
    const isThere = lot.state === 'done' && standing !== 'deleted' && standing !== null;
    return isThere || lot.state !== 'done' ? { ...lot, sku } : { ...lot, state: 'open', itemId: null, sku: null };
  });
}

/** Sets that are broken up, with what their lots come to. */
export async function findKit(id: number): Promise<KitView> {
  const db = database();
  const { createdAt, ...row } = await loadKit(db, id);
  const totals = totalsOf(await lotsOf(db, id));
  return { ...row, createdAt: createdAt.toISOString(), totals };
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
    ({ kitId: _kit, itemId, sku, ...lot }): LotView => ({
      ...lot,
      item: itemId !== null && sku !== null ? { id: itemId, sku } : null,
    }),
  );
  return { lots, next: lots.length < limit ? null : (lots.at(-1)?.id ?? null) };
}
