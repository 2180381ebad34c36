import { type SQL, sql } from 'drizzle-orm';
import { hasWords, type ItemFilter, readFilter, type Worded } from '../../../core/filter';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';

/** How far the order is walked for words that many records have. */
const depths = [600, 4_000];

/**
 * The next items of a page that is asked for by words alone, found by walking along the page's own order: words that many
 * records have are met at once there, while an index of words would hand out all of the records that have them first.
 * @param rest the page's place and order, to follow the condition
 * @returns one more than the page holds, where there are so many; null where the words are too rare to be met on the way
 */
export async function nearest(
  db: Executor,
  input: ItemFilter & { limit: number },
  rest: SQL,
): Promise<number[] | null> {
  const [only, ...others] = readFilter(input).all;
  if (!only || others.length || !('words' in only)) return null;
  for (const depth of depths) {
    const rows = rowsOf<Worded & { id: number }>(
      await db.execute(
        sql`select i.id, i.title, i.sku, i.brand, i.model, i.location from item i where i.archived = 0${rest} limit ${depth}`,
      ),
    );
    const met = rows.filter((row) => hasWords(row, only.words));
    if (met.length > input.limit || rows.length < depth) return met.slice(0, input.limit + 1).map((one) => one.id);
    const last = depths.at(-1) ?? depth;
    if (met.length * (last / depth) < input.limit) return null;
  }
  return null;
}
