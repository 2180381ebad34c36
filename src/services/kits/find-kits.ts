import { count, desc, eq, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { account, kit, kitLot, kitStates } from '../../db/schema';
import { connectorOf } from '../../markets';

export const findKitsSchema = z
  .object({
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(100).default(50),
  })
  .strict();

export const kitRowSchema = z.object({
  id: z.number(),
  name: z.string(),
  state: z.enum(kitStates),
  lots: z.number(),
  pieces: z.number(),
  done: z.number(),
  totalCost: z.number().nullable(),
  byName: z.string(),
  createdAt: z.string(),
});

/** Sets that are, or were, broken up, the newest first. */
export async function findKits({ before, limit }: z.output<typeof findKitsSchema>): Promise<{
  kits: z.infer<typeof kitRowSchema>[];
  next: number | null;
}> {
  const db = database();
  const rows = await db
    .select()
    .from(kit)
    .where(before ? lt(kit.id, before) : undefined)
    .orderBy(desc(kit.id))
    .limit(limit);
  const counts = await db
    .select({
      kitId: kitLot.kitId,
      lots: count(),
      pieces: sql<number>`sum(${kitLot.quantity})`.mapWith(Number),
      done: sql<number>`sum(${kitLot.state} = 'done')`.mapWith(Number),
    })
    .from(kitLot)
    .where(inArray(kitLot.kitId, [0, ...rows.map((one) => one.id)]))
    .groupBy(kitLot.kitId);
  return {
    kits: rows.map(({ id, name, state, totalCost, byName, createdAt }) => {
      const own = counts.find((one) => one.kitId === id);
      return {
        id,
        name,
        state,
        lots: own?.lots ?? 0,
        pieces: own?.pieces ?? 0,
        done: own?.done ?? 0,
        totalCost,
        byName,
        createdAt: createdAt.toISOString(),
      };
    }),
    next: rows.length < limit ? null : (rows.at(-1)?.id ?? null),
  };
}

/** Accounts of marketplaces whose catalogue says what sets are made of. */
export async function setAccounts(): Promise<{ id: number; name: string }[]> {
  const rows = await database()
    .select({ id: account.id, name: account.name, market: account.market })
    .from(account)
    .where(eq(account.state, 'connected'));
  return rows.flatMap(({ id, name, market }) => (connectorOf(market).contents ? [{ id, name }] : []));
}
