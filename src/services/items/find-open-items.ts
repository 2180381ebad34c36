import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
export const openItemsSchema = z
  .object({ ids: z.string().regex(/^\d+(,\d+){0,49}$/, 'Up to fifty numbers with commas between them') })
  .strict();

export const openItemSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  /** On how many accounts it is ready or there already, and on how many something is missing. */
  ready: z.number(),
  unfinished: z.number(),
});
export type OpenItem = z.infer<typeof openItemSchema>;

/** The items that are being worked on in one sitting, with what is unfinished. */
export async function findOpenItems({ ids }: z.infer<typeof openItemsSchema>): Promise<{ items: OpenItem[] }> {
  const wanted = [...new Set(ids.split(',').map(Number))];
  const rows = rowsOf<OpenItem & { unfinished: string | number; ready: string | number }>(
    await database().execute(
      sql`select i.id, i.sku, i.title, i.main_photo as photo,
        coalesce(sum(l.wanted <> 'none' and l.blocking = 0), 0) as ready,
        coalesce(sum(l.wanted <> 'none' and l.blocking > 0), 0) as unfinished
        from item i left join listing l on l.item_id = i.id where i.id in ${wanted} group by i.id`,
    ),
  );
  const byId = new Map(
    rows.map((row) => [row.id, { ...row, ready: Number(row.ready), unfinished: Number(row.unfinished) }]),
  );
  return { items: wanted.flatMap((id) => byId.get(id) ?? []) };
}
