import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { account, gatheredItem, gathering, item, listing } from '../../db/schema';

/** Fields that no marketplace knows, by what they are called. */
const unknownThere = [
  { field: 'cost', label: 'Cost', isMissing: sql`${item.cost} is null` },
  { field: 'location', label: 'Place', isMissing: sql`${item.location} = ''` },
  { field: 'keywords', label: 'Keywords', isMissing: sql`json_length(${item.keywords}) = 0` },
  { field: 'weightGrams', label: 'Weight', isMissing: sql`${item.weightGrams} is null` },
] as const;

const missingSchema = z.object({ field: z.string(), label: z.string() });

export const sittingSchema = z.object({
  id: z.number(),
  title: z.string(),
  total: z.number(),
  done: z.number(),
  /** The item at hand, where it belongs to the sitting: which it is, from 1, and what it lacks. */
  at: z.number().nullable(),
  missing: z.array(missingSchema),
  /** The next one that nobody has looked through; null when all are. */
  next: z.number().nullable(),
  /** The first field that the next one lacks. */
  nextAt: z.string().nullable(),
  /** Those that wait: how many lack what, and on which accounts something is missing. */
  waiting: z.array(missingSchema.extend({ count: z.number(), items: z.array(z.number()) })),
  accounts: z.array(z.object({ id: z.number(), name: z.string(), count: z.number() })),
});
export type Sitting = z.infer<typeof sittingSchema>;

/** So many items are named of those that lack something. */
const mostNamed = 1_000;

/** Items that were brought in to be looked through one by one: where one is, and what is missing. */
export async function findSitting(id: number, itemId: number): Promise<Sitting> {
  const db = database();
  const [head] = await db.select().from(gathering).where(eq(gathering.id, id));
  if (!head) throw new NettingError('not-found', 'There is no such bringing in');
  const flags = Object.fromEntries(unknownThere.map((one) => [one.field, sql<number>`${one.isMissing}`]));
  const rows = await db
    .select({ itemId: gatheredItem.itemId, isDone: gatheredItem.isDone, ...flags })
    .from(gatheredItem)
    .innerJoin(item, eq(item.id, gatheredItem.itemId))
    .where(eq(gatheredItem.gatheringId, id))
    .orderBy(asc(gatheredItem.itemId));
  const at = rows.findIndex((row) => row.itemId === itemId);
  const lacks = (row: (typeof rows)[number] | undefined) =>
    unknownThere.filter(({ field }) => Number((row as Record<string, unknown> | undefined)?.[field] ?? 0) === 1); // named by `flags`
  const open = rows.filter((row) => !row.isDone);
  const ids = open.map((row) => row.itemId);
  const blocked = ids.length
    ? await db
        .select({ id: account.id, name: account.name, count: sql<number>`count(*)` })
        .from(listing)
        .innerJoin(account, eq(account.id, listing.accountId))
        .where(and(inArray(listing.itemId, ids), gt(listing.blocking, 0)))
        .groupBy(account.id, account.name)
        .orderBy(account.id)
    : [];
  const next = open.find((row) => row.itemId > itemId) ?? open.find((row) => row.itemId !== itemId);
  return {
    id,
    title: head.title,
    total: rows.length,
    done: rows.length - open.length,
    at: at < 0 ? null : at + 1,
    missing: lacks(rows[at]).map(({ field, label }) => ({ field, label })),
    next: next?.itemId ?? null,
    nextAt: lacks(next)[0]?.field ?? null,
    waiting: unknownThere.flatMap(({ field, label }) => {
      const without = open
        .filter((row) => row.itemId !== itemId && lacks(row).some((one) => one.field === field))
        .map((row) => row.itemId);
      return without.length ? [{ field, label, count: without.length, items: without.slice(0, mostNamed) }] : [];
    }),
    accounts: blocked.map((one) => ({ ...one, count: Number(one.count) })),
  };
}

/** An item of a sitting was looked through. */
export async function lookedThrough(id: number, itemId: number): Promise<{ next: number | null; at: string | null }> {
  await database()
    .update(gatheredItem)
    .set({ isDone: true })
    .where(and(eq(gatheredItem.gatheringId, id), eq(gatheredItem.itemId, itemId)));
  const { next, nextAt } = await findSitting(id, itemId);
  return { next, at: nextAt };
}
