import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { movementReasons, movementWords } from '../../core/item';
import { database } from '../../db/client';
import { account, item, listing, movement, sale } from '../../db/schema';

const movementViewSchema = z.object({
  id: z.number(),
  delta: z.number(),
  /** What was there after it. */
  balance: z.number(),
  reason: z.enum(movementReasons),
  words: z.string(),
  variation: z.string().nullable(),
  note: z.string().nullable(),
  saleId: z.number().nullable(),
  soldOn: z.string().nullable(),
  at: z.string(),
  byName: z.string(),
});

export const stockViewSchema = z.object({
  quantity: z.number(),
  varied: z.boolean(),
  movements: z.array(movementViewSchema),
  /** What every account offers of it, and why that is not all. */
  offered: z.array(
    z.object({
      accountId: z.number(),
      name: z.string(),
      offered: z.number(),
      shown: z.number().nullable(),
      reserve: z.number(),
      cap: z.number().nullable(),
      state: z.string(),
    }),
  ),
});
export type StockView = z.infer<typeof stockViewSchema>;

/** The stock ledger of an item: every movement with what was there after it, newest first. */
export async function findMovements(itemId: number, limit = 500): Promise<StockView> {
  const db = database();
  const [thing] = await db
    .select({ quantity: item.quantity, axes: item.axes, variations: item.variations })
    .from(item)
    .where(eq(item.id, itemId));
  if (!thing) throw new NettingError('not-found', `There is no item ${itemId}`);
  const rows = await db
    .select({ movement, soldOn: account.name })
    .from(movement)
    .leftJoin(sale, eq(sale.id, movement.saleId))
    .leftJoin(account, eq(account.id, sale.accountId))
    .where(eq(movement.itemId, itemId))
    .orderBy(desc(movement.id))
    .limit(limit);
  const offered = await db
    .select({ listing, name: account.name, reserve: account.stockReserve, cap: account.stockCap })
    .from(listing)
    .innerJoin(account, eq(account.id, listing.accountId))
    .where(eq(listing.itemId, itemId))
    .orderBy(account.id);
  // Combinations that are switched off are not for sale, and yet counted.
  let balance = thing.axes.length ? thing.variations.reduce((sum, row) => sum + row.quantity, 0) : thing.quantity;
  return {
    quantity: thing.quantity,
    varied: thing.axes.length > 0,
    movements: rows.map(({ movement: one, soldOn }) => {
      const view = {
        id: one.id,
        delta: one.delta,
        balance,
        reason: one.reason,
        words: movementWords[one.reason],
        variation: one.variation,
        note: one.note,
        saleId: one.saleId,
        soldOn:
          one.reason === 'sold' || one.reason === 'cancelled' ? (soldOn ?? (one.saleId ? 'by hand' : null)) : null,
        at: one.at.toISOString(),
        byName: one.byName,
      };
      balance -= one.delta;
      return view;
    }),
    offered: offered
      .filter(({ listing: row }) => row.wanted === 'live' || row.wanted === 'draft')
      .map(({ listing: row, ...one }) => ({
        accountId: row.accountId,
        ...one,
        offered: row.wantedQuantity,
        shown: row.remote === 'live' ? row.sentQuantity : null,
        state: row.state ?? 'none',
      })),
  };
}
