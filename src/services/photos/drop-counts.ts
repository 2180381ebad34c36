import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import type { photoDrop } from '../../db/schema';

const countsSchema = z.object({
  coming: z.number(),
  tied: z.number(),
  untied: z.number(),
  sheets: z.number(),
  twice: z.number(),
  refused: z.number(),
  added: z.number(),
  items: z.number(),
});

export const dropSchema = z.object({
  id: z.number(),
  state: z.enum(['open', 'closed']),
  byName: z.string(),
  at: z.string(),
  counts: countsSchema,
});

export type Drop = z.infer<typeof dropSchema>;

const counts = sql`
  sum(f.state = 'coming') as coming, sum(f.state = 'here' and f.item_id is not null) as tied, sum(f.state = 'here' and f.item_id is null) as untied,
  sum(f.state = 'sheet') as sheets, sum(f.state = 'twice') as twice, sum(f.state = 'refused') as refused, sum(f.state = 'added') as added,
  count(distinct if(f.state = 'here', f.item_id, null)) as items`;
type Counted = { id: number } & z.infer<typeof countsSchema>;
export const noCounts: z.infer<typeof countsSchema> = {
  coming: 0,
  tied: 0,
  untied: 0,
  sheets: 0,
  twice: 0,
  refused: 0,
  added: 0,
  items: 0,
};

/** How many files of drops are how far, by the drop's number. */
export async function countsOf(ids: readonly number[]): Promise<Map<number, z.infer<typeof countsSchema>>> {
  if (ids.length === 0) return new Map();
  const rows = rowsOf<Counted>(
    await database().execute(
      sql`select f.drop_id as id, ${counts} from dropped_file f where f.drop_id in ${ids} group by f.drop_id`,
    ),
  );
  return new Map(
    rows.map(({ id, ...row }) => [
      Number(id),
      countsSchema.parse(Object.fromEntries(Object.entries(row).map(([name, value]) => [name, Number(value)]))),
    ]),
  );
}

type DropRow = typeof photoDrop.$inferSelect;
/** What is said of a drop wherever it is named. */
export const dropOf = (row: DropRow, counted: z.infer<typeof countsSchema> = noCounts): Drop => ({
  id: row.id,
  state: row.state,
  byName: row.byName,
  at: row.at.toISOString(),
  counts: counted,
});
