import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { standsThere } from '../../../core/sync';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { selectionSchema, selectionWhere } from '../../records/items/selection';

export const copyShopSchema = z
  .object({
    /** The shop to copy from, and the one to copy to. */
    from: z.number().int(),
    to: z.number().int(),
    /** Some items of that shop; all of them when left out. */
    selection: selectionSchema.optional(),
    as: z.enum(['live', 'draft']),
    /** Wording and prices written for the first shop are taken along, as far as the second one has such a field. */
    takeOwn: z.boolean(),
  })
  .strict();

export const copyPlanSchema = z.object({
  live: z.number(),
  there: z.number(),
  leftOut: z.number(),
  copied: z.number(),
  ids: z.array(z.number()),
});
export type CopyPlan = z.infer<typeof copyPlanSchema>;

/** What would be copied: live on the first shop, not yet on the second, and not left out there. */
export async function planCopy(input: z.infer<typeof copyShopSchema>): Promise<CopyPlan> {
  if (input.from === input.to) throw new NettingError('invalid', 'Choose two different accounts', { field: 'to' });
  const where = input.selection ? sql`and ${selectionWhere(input.selection)}` : sql`and i.archived = 0`;
  const rows = rowsOf<{ id: number; remote: string | null; wanted: string | null; busy: number | null }>(
    await database().execute(sql`
      select i.id, t.remote, t.wanted, t.busy from listing f join item i on i.id = f.item_id
      left join listing t on t.item_id = f.item_id and t.account_id = ${input.to}
      where f.account_id = ${input.from} and f.remote in ('live', 'review') ${where} order by i.id`),
  );
  const isThere = (row: (typeof rows)[number]) => standsThere(row.remote) || row.busy === 1;
  const there = rows.filter(isThere);
  const leftOut = rows.filter((row) => !isThere(row) && row.wanted === 'none');
  const ids = rows.filter((row) => !isThere(row) && row.wanted !== 'none').map((row) => row.id);
  return { live: rows.length, there: there.length, leftOut: leftOut.length, copied: ids.length, ids };
}
