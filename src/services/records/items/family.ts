import { inArray, or, sql } from 'drizzle-orm';
import { mostLevels, type PartOf } from '../../../core/kit';
import type { Executor } from '../../../db/client';
import { itemPart } from '../../../db/schema';

/** Items that are one stock with others: whole sets and their parts. */
export type Family = {
  /** What must be held where units of one of them move: parts, their parts, and every whole that any of them is in. */
  ids: number[];
  /** Everything that the numbers of whole sets follow from, also of parts that nobody has to hold. */
  relations: PartOf[];
};

const columns = { set: itemPart.setId, part: itemPart.partId, pieces: itemPart.pieces };

/** Whether an item, by the name of its table in a statement, is a whole set or a part of one. */
export const isInFamily = (item: 'i') =>
  sql.raw(
    `(exists (select 1 from item_part p where p.set_id = ${item}.id) or exists (select 1 from item_part p where p.part_id = ${item}.id))`,
  );

/** The relatives of these items; null where none of them is a whole set or a part of one. */
export async function familyOf(db: Executor, ids: readonly number[]): Promise<Family | null> {
  if (ids.length === 0) return null;
  const first = await db
    .select(columns)
    .from(itemPart)
    .where(or(inArray(itemPart.setId, [...ids]), inArray(itemPart.partId, [...ids])));
  if (first.length === 0) return null;
  const all = new Map(first.map((one) => [`${one.set}/${one.part}`, one]));
  /** Goes from these items one way, level by level; everything that is met there. */
  const walk = async (from: Iterable<number>, way: 'down' | 'up'): Promise<Set<number>> => {
    const met = new Set(from);
    let edge = [...met];
    for (let level = 0; level < mostLevels && edge.length; level++) {
      const rows = await db
        .select(columns)
        .from(itemPart)
        .where(inArray(way === 'down' ? itemPart.setId : itemPart.partId, edge));
      for (const one of rows) all.set(`${one.set}/${one.part}`, one);
      edge = [...new Set(rows.map((one) => (way === 'down' ? one.part : one.set)))].filter((id) => !met.has(id));
      for (const id of edge) met.add(id);
    }
    return met;
  };
  const concerned = new Set(first.flatMap((one) => [one.set, one.part]));
  const named = ids.filter((id) => concerned.has(id));
  const held = await walk(await walk(named, 'down'), 'up');
  await walk(held, 'down');
  return { ids: [...held], relations: [...all.values()] };
}
