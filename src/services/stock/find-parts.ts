import { asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { item, itemPart } from '../../db/schema';

const relativeSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  quantity: z.number(),
  pieces: z.number(),
});
export const partsViewSchema = z.object({
  /** What it is made of, and what it is a part of; `pieces` of the part in one set. */
  parts: z.array(relativeSchema),
  sets: z.array(relativeSchema),
});
export type PartsView = z.infer<typeof partsViewSchema>;

/** What an item is one stock with. */
export async function findParts(itemId: number): Promise<PartsView> {
  const columns = {
    id: item.id,
    sku: item.sku,
    title: item.title,
    quantity: item.quantity,
    pieces: itemPart.pieces,
  };
  const db = database();
  const parts = await db
    .select(columns)
    .from(itemPart)
    .innerJoin(item, eq(item.id, itemPart.partId))
    .where(eq(itemPart.setId, itemId))
    .orderBy(asc(item.title), asc(item.id));
  const sets = await db
    .select(columns)
    .from(itemPart)
    .innerJoin(item, eq(item.id, itemPart.setId))
    .where(eq(itemPart.partId, itemId))
    .orderBy(asc(item.title), asc(item.id));
  return { parts, sets };
}
