import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { missingOf } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { shipment } from '../../db/schema';
import type { Actor } from '../access/actor';
import { inboundOf } from './inbound-of';
import { keepTold, moveLost } from './keep-told';
import { loadConsignment, loadShipment } from './load-consignment';
import { settleConsignment } from './settle-consignment';

export const claimSchema = z
  .object({
    sku: z.string().min(1).max(40),
    quantity: z.number().int().min(1).max(100_000),
    note: z.string().trim().min(1, 'Say what is missing').max(1_000),
  })
  .strict();

export const giveUpSchema = z.object({ sku: z.string().min(1).max(40) }).strict();

/** Tells the marketplace what is missing, with a note. What it answers is seen when the shipment is looked at again. */
export async function claimMissing(
  actor: Actor,
  id: number,
  claim: z.output<typeof claimSchema>,
): Promise<{ claims: number }> {
  const row = await loadShipment(database(), id);
  const missing = missingOf(row).find((one) => one.sku === claim.sku)?.missing ?? 0;
  const open = row.claims
    .filter((one) => one.sku === claim.sku && one.answer === 'open')
    .reduce((sum, one) => sum + one.quantity, 0);
  if (row.state !== 'received' || claim.quantity > missing - open)
    throw new NettingError(
      'invalid',
      `${Math.max(0, missing - open)} of ${claim.sku} are missing and not claimed yet`,
      {
        field: 'quantity',
      },
    );
  const { session, inbound, account } = await inboundOf(row.accountId);
  const told = await inbound.claim(session, row.remoteId, claim);
  await keepTold(actor, id, told, account);
  return { claims: told.claims.length };
}

/** Gives up what is still missing of a stock number: it leaves the ledger as lost. */
export async function giveUpMissing(
  actor: Actor,
  id: number,
  { sku }: z.output<typeof giveUpSchema>,
): Promise<{ lost: number }> {
  const { consignmentId } = await loadShipment(database(), id);
  return transaction(async (tx) => {
    await loadConsignment(tx, consignmentId, true);
    const row = await loadShipment(tx, id, true);
    const missing = missingOf(row).find((one) => one.sku === sku)?.missing ?? 0;
    if (row.state !== 'received' || missing === 0) throw new NettingError('too-late', `Nothing of ${sku} is missing`);
    const lost = { ...row.lost, [sku]: (row.lost[sku] ?? 0) + missing };
    await moveLost(tx, actor, row, lost);
    const state = missingOf({ ...row, lost }).length ? row.state : ('settled' as const);
    await tx
      .update(shipment)
      .set({ lost, state, version: sql`${shipment.version} + 1` })
      .where(eq(shipment.id, id));
    await settleConsignment(tx, consignmentId);
    return { lost: missing };
  });
}
