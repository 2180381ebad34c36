import { and, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { foundListing } from '../../db/schema';
import { itemMatchSchema, matchItems } from '../listings/links/match-items';
import { isIn } from './found-filter';

export const foundMatchesQuerySchema = z.object({
  account: z.coerce.number().int(),
  ids: z.string().regex(/^\d+(,\d+){0,99}$/, 'Up to a hundred numbers with commas between them'),
});
export const foundMatchesSchema = z.object({
  matches: z.array(z.object({ id: z.number(), match: itemMatchSchema })),
});

/** Which items of ours these listings probably are: a look over the whole inventory, asked for when they are seen. */
export async function foundMatches({
  account,
  ids,
}: z.output<typeof foundMatchesQuerySchema>): Promise<z.infer<typeof foundMatchesSchema>> {
  const db = database();
  const rows = await db
    .select({ row: foundListing, isIn: sql<number>`${isIn}` })
    .from(foundListing)
    .where(and(eq(foundListing.accountId, account), inArray(foundListing.id, ids.split(',').map(Number))));
  const open = rows.filter((one) => !Number(one.isIn)).map((one) => one.row);
  const { matches } = await matchItems(
    db,
    account,
    open.map(({ remoteId, sku, content, title, facts }) => ({
      remoteId,
      sku,
      content: { ...content, title },
      called: facts.called,
    })),
  );
  return {
    matches: open.flatMap((row) => {
      const match = matches.get(row.remoteId);
      return match ? [{ id: row.id, match }] : [];
    }),
  };
}
