import { desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { afarPlaces, afarUnits, movementReasons, movementWords } from '../../core/item';
import { database } from '../../db/client';
import { account, item, listing, movement, sale } from '../../db/schema';

const movementViewSchema = z.object({
  id: z.number(),
  delta: z.number(),
  /** What was there after it. */
  balance: z.number(),
  /** Where it moved: here, or set aside for, on the way to or in somebody's warehouse. */
  place: z.enum(['here', ...afarPlaces]),
  warehouse: z.string().nullable(),
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
  /** Units that are not for sale from here. */
  elsewhere: z.array(
    z.object({ place: z.enum(afarPlaces), accountId: z.number(), name: z.string(), units: z.number() }),
  ),
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
    .select({ quantity: item.quantity, axes: item.axes, variations: item.variations, elsewhere: item.elsewhere })
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
  const names = new Map(
    (await db.select({ id: account.id, name: account.name }).from(account)).map((one) => [one.id, one.name]),
  );
  // Combinations that are switched off are not for sale, and yet counted.
  let balance = thing.axes.length ? thing.variations.reduce((sum, row) => sum + row.quantity, 0) : thing.quantity;
  return {
    quantity: thing.quantity,
    varied: thing.axes.length > 0,
    elsewhere: afarUnits(thing.elsewhere).map(({ place, account: accountId, units }) => ({
      place,
      accountId,
      name: names.get(accountId) ?? '',
      units,
    })),
    movements: rows.map(({ movement: one, soldOn }) => {
      const view = {
        id: one.id,
        delta: one.delta,
        balance,
        place: one.place,
        warehouse: one.accountId === null ? null : (names.get(one.accountId) ?? null),
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
      if (one.place === 'here') balance -= one.delta;
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
