import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { applySteps } from '../../core/edit';
import { withConnection } from '../../db/client';
import { readRows } from '../../db/raw';
import { selectionWhere } from '../records/selection';
import { accountNets, type ItemTuple, itemTuple, type ListingTuple, netAt, priceThere } from './edit-nets';
import type { Edit } from './edit-schema';

export const previewRowSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photo: z.string().nullable(),
  before: z.object({
    price: z.number().nullable(),
    quantity: z.number(),
  }),
  after: z.object({
    price: z.number().nullable(),
    quantity: z.number(),
    title: z.string(),
  }),
  changed: z.boolean(),
  refused: z.string().nullable(),
  /** Net before and after, per account where it is listed; null without a price. */
  nets: z.array(
    z.object({
      accountId: z.number(),
      before: z.number().nullable(),
      after: z.number().nullable(),
      keepsOverride: z.boolean(),
    }),
  ),
});
export type PreviewRow = z.infer<typeof previewRowSchema>;

/** The first rows of a change, before and after, with the net per account. */
export async function previewRows(edit: Edit, limit = 60): Promise<PreviewRow[]> {
  const nets = await accountNets();
  return withConnection(async (connection) => {
    const rows = await readRows<[...ItemTuple, sku: string, title: string, photo: string | null]>(
      connection,
      sql`select ${itemTuple}, i.sku, i.title, i.main_photo from item i where ${selectionWhere(edit.selection)} order by i.id limit ${limit}`,
    );
    if (rows.length === 0) return [];
    const ids = rows.map((row) => row[0]);
    const listings = await readRows<ListingTuple>(
      connection,
      sql`select l.item_id, l.account_id, l.override_price from listing l where l.item_id in ${ids} and l.state <> 'none'`,
    );
    return rows.map((row): PreviewRow => {
      const [id, price, quantity, cost, grams, category, varied, sku, title, photo] = row;
      const tuple: ItemTuple = [id, price, quantity, cost, grams, category, varied];
      const result = applySteps(edit.steps, { price, quantity, varied: varied === 1, title });
      return {
        id,
        sku,
        title,
        photo,
        before: { price, quantity },
        after: { price: result.price, quantity: result.quantity, title: result.title ?? title },
        changed: result.changed.length > 0,
        refused: result.refused[0] ?? null,
        nets: listings
          .filter((listing) => listing[0] === id)
          .flatMap(([, accountId, overridePrice]) => {
            const net = nets.get(accountId);
            if (!net) return [];
            return [
              {
                accountId,
                before: netAt(net, tuple, overridePrice ?? priceThere(net, tuple, price)),
                after: netAt(net, tuple, overridePrice ?? priceThere(net, tuple, result.price)),
                keepsOverride: overridePrice !== null,
              },
            ];
          }),
      };
    });
  });
}
