import { and, desc, eq, inArray, lt, ne, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { foundListing, foundStates, item, listing, task } from '../../db/schema';
import { foundFilterSchema, foundWhere, isIn, isWaiting } from './found-filter';

export const findFoundSchema = foundFilterSchema.extend({
  /** The last one of the page before: when it was made, and its id. */
  after: z
    .string()
    .regex(/^\d+:\d+$/)
    .optional(),
  limit: z.coerce.number().int().min(1).max(100).default(50),
});

const foundViewSchema = z.object({
  id: z.number(),
  remoteId: z.string(),
  url: z.string(),
  state: z.enum(foundStates),
  sku: z.string(),
  title: z.string(),
  section: z.string(),
  price: z.number().nullable(),
  quantity: z.number().nullable(),
  hasPhoto: z.boolean(),
  madeAt: z.string(),
  /** The item that it is in already. */
  item: z.object({ id: z.number(), sku: z.string() }).nullable(),
  /** The bringing in that waits for an answer about it. */
  waitsIn: z.number().nullable(),
});
export type FoundView = z.infer<typeof foundViewSchema>;

export const foundPageSchema = z.object({
  found: z.array(foundViewSchema),
  next: z.string().nullable(),
  total: z.number(),
  /** Of all that were read: how many, how many are in, which sections and states there are. */
  read: z.number(),
  in: z.number(),
  sections: z.array(z.object({ name: z.string(), count: z.number() })),
  states: z.array(z.object({ name: z.enum(foundStates), count: z.number() })),
  /** The reading that is under way. */
  reading: z.object({ id: z.number(), done: z.number(), state: z.string(), message: z.string().nullable() }).nullable(),
  readAt: z.string().nullable(),
});
export type FoundPage = z.infer<typeof foundPageSchema>;

const pageOf = (input: z.infer<typeof findFoundSchema>) => {
  const [at = 0, id = 0] = (input.after ?? '').split(':').map(Number);
  return input.after
    ? or(lt(foundListing.madeAt, new Date(at)), and(eq(foundListing.madeAt, new Date(at)), lt(foundListing.id, id)))
    : undefined;
};

/** What was found on an account, newest first, each with the item that it is in already. */
export async function findFound(input: z.infer<typeof findFoundSchema>): Promise<FoundPage> {
  const db = database();
  const where = foundWhere(input);
  const [rows, [total], facts, [reading]] = await Promise.all([
    db
      .select({ row: foundListing, isIn: sql<number>`${isIn}`, isWaiting: sql<number>`${isWaiting}` })
      .from(foundListing)
      .where(and(where, pageOf(input)))
      .orderBy(desc(foundListing.madeAt), desc(foundListing.id))
      .limit(input.limit + 1),
    db.select({ count: sql<number>`count(*)` }).from(foundListing).where(where),
    db
      .select({
        section: foundListing.section,
        state: foundListing.state,
        count: sql<number>`count(*)`,
        in: sql<number>`sum(${isIn})`,
        readAt: sql<Date | string>`max(${foundListing.readAt})`,
      })
      .from(foundListing)
      .where(and(eq(foundListing.accountId, input.account), ne(foundListing.state, 'gone')))
      .groupBy(foundListing.section, foundListing.state),
    db
      .select({ id: task.id, done: task.doneCount, state: task.state, message: task.message })
      .from(task)
      .where(
        and(
          eq(task.kind, 'survey'),
          inArray(task.state, ['waiting', 'running', 'failed']),
          sql`json_value(${task.input}, '$.account') = ${input.account}`,
        ),
      )
      .orderBy(desc(task.id))
      .limit(1),
  ]);
  const page = rows.slice(0, input.limit);
  const items = await itemsOf(
    input.account,
    page.filter((one) => Number(one.isIn)).map((one) => one.row),
  );
  const counted = <Name extends string>(names: readonly Name[]) => names.map((name) => ({ name, count: 0 }));
  const states = counted(foundStates).map((one) => ({
    ...one,
    count: facts.reduce((sum, fact) => sum + (fact.state === one.name ? Number(fact.count) : 0), 0),
  }));
  const sections = [...new Set(facts.map((fact) => fact.section))].sort().map((name) => ({
    name,
    count: facts.reduce((sum, fact) => sum + (fact.section === name ? Number(fact.count) : 0), 0),
  }));
  const lastRead = facts.map((fact) => new Date(fact.readAt).getTime());
  const last = page.at(-1)?.row;
  return {
    found: page.map(({ row, isWaiting: waits }) => ({
      id: row.id,
      remoteId: row.remoteId,
      url: row.url,
      state: row.state === 'gone' ? ('ended' as const) : row.state,
      sku: row.sku,
      title: row.title,
      section: row.section,
      price: row.price,
      quantity: row.quantity,
      hasPhoto: row.photos.length > 0,
      madeAt: row.madeAt.toISOString(),
      item: items.get(row.remoteId) ?? null,
      waitsIn: Number(waits) ? row.gatheringId : null,
    })),
    next: rows.length > input.limit && last ? `${last.madeAt.getTime()}:${last.id}` : null,
    total: Number(total?.count ?? 0),
    read: facts.reduce((sum, fact) => sum + Number(fact.count), 0),
    in: facts.reduce((sum, fact) => sum + Number(fact.in), 0),
    sections: sections.filter((one) => one.name),
    states: states.filter((one) => one.count),
    reading: reading ?? null,
    readAt: lastRead.length ? new Date(Math.max(...lastRead)).toISOString() : null,
  };
}

/** By their number: the item that each is in. */
async function itemsOf(
  accountId: number,
  rows: readonly (typeof foundListing.$inferSelect)[],
): Promise<Map<string, { id: number; sku: string }>> {
  if (rows.length === 0) return new Map();
  const db = database();
  const ids = rows.map((row) => row.remoteId);
  const links = await db
    .select({ remoteId: listing.remoteId, id: item.id, sku: item.sku })
    .from(listing)
    .innerJoin(item, eq(item.id, listing.itemId))
    .where(and(eq(listing.accountId, accountId), inArray(listing.remoteId, ids)));
  const into = rows.flatMap((row) => row.itemId ?? []);
  const made = into.length
    ? rowsOf<{ id: number; sku: string }>(await db.execute(sql`select id, sku from item where id in ${into}`))
    : [];
  const bySku = new Map(made.map((one) => [Number(one.id), one.sku]));
  const found = new Map<string, { id: number; sku: string }>();
  for (const row of rows) {
    const sku = bySku.get(row.itemId ?? 0);
    if (row.itemId !== null && sku !== undefined) found.set(row.remoteId, { id: row.itemId, sku });
  }
  for (const link of links) if (link.remoteId) found.set(link.remoteId, { id: link.id, sku: link.sku });
  return found;
}
