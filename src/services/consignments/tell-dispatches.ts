import { and, asc, eq, inArray, lte } from 'drizzle-orm';
import { isTransient, NettingError } from '../../core/errors';
import { convertBack } from '../../core/measure';
import { database } from '../../db/client';
import { type DispatchRow, dispatch, sale } from '../../db/schema';
import { inboundOf } from './inbound-of';

const atOnce = 50;
const againMs = 60_000;

/**
 * Tells warehouses what they are to send of what was sold elsewhere, and what was called off since. Told under the sale's
 * number: broken off in between it is told again, and sent once.
 * @returns how many were told
 */
export async function tellDispatches(now = new Date()): Promise<number> {
  const rows = await database()
    .select()
    .from(dispatch)
    .where(and(inArray(dispatch.state, ['due', 'back']), lte(dispatch.nextAt, now)))
    .orderBy(asc(dispatch.id))
    .limit(atOnce);
  let told = 0;
  for (const row of rows)
    try {
      await tell(row);
      told++;
    } catch (error) {
      if (!(error instanceof NettingError)) throw error;
      await postpone(row, error, now);
    }
  return told;
}

async function tell(row: DispatchRow): Promise<void> {
  const db = database();
  const { session, inbound, account } = await inboundOf(row.accountId);
  if (row.state === 'back') {
    if (row.remoteId) await inbound.takeBack(session, row.remoteId);
    await db.update(dispatch).set({ state: 'off', message: null }).where(eq(dispatch.id, row.id));
    return;
  }
  const { sku, quantity, town } = row;
  const { dispatchId, amount, tracking } = await inbound.dispatch(session, {
    order: `N${row.saleId}`,
    sku,
    quantity,
    town,
  });
  // Called off while it was told: what they sent is to come back.
  const kept = { remoteId: dispatchId, tracking, message: null };
  const [{ affectedRows }] = await db
    .update(dispatch)
    .set({ ...kept, state: 'sent' })
    .where(and(eq(dispatch.id, row.id), eq(dispatch.state, 'due')));
  if (affectedRows === 0)
    await db
      .update(dispatch)
      .set({ ...kept, state: 'back' })
      .where(and(eq(dispatch.id, row.id), eq(dispatch.state, 'off')));
  // Sent by them as a whole, what they take for it is what sending it costs.
  const fee = account.rate ? convertBack(amount, account.rate) : amount;
  await db
    .update(sale)
    .set({ postage: fee, packing: 0 })
    .where(and(eq(sale.id, row.saleId), eq(sale.quantity, quantity)));
}

/** Tried again where it may pass by itself; else a person is told why. */
async function postpone(row: DispatchRow, error: NettingError, now: Date): Promise<void> {
  const passes = isTransient(error.code) || row.state === 'back';
  await database()
    .update(dispatch)
    .set({
      message: error.message.slice(0, 300),
      ...(passes ? { nextAt: new Date(now.getTime() + againMs) } : { state: 'refused' as const }),
    })
    .where(and(eq(dispatch.id, row.id), eq(dispatch.state, row.state)));
}
