import { desc, eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { movementWords } from '../../core/item';
import { database } from '../../db/client';
import { account, item, listing, movement, sale } from '../../db/schema';

export type MovementView = {
  id: number;
  delta: number;
  /** What was there after it. */
  balance: number;
  reason: keyof typeof movementWords;
  words: string;
  variation: string | null;
  note: string | null;
  saleId: number | null;
  soldOn: string | null;
  at: string;
  byName: string;
};

export type StockView = {
  quantity: number;
  varied: boolean;
  movements: MovementView[];
  /** What every account offers of it, and why that is not all. */
  offered: {
    accountId: number;
    name: string;
    offered: number;
    shown: number | null;
    reserve: number;
    cap: number | null;
    state: string;
  }[];
};

/** The stock ledger of an item: every movement with what was there after it, newest first. */
export async function findMovements(itemId: number, limit = 500): Promise<StockView> {
  const db = database();
  const [thing] = await db.select({ quantity: item.quantity, axes: item.axes }).from(item).where(eq(item.id, itemId));
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
  let balance = thing.quantity;
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
