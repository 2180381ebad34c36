import { eq, sql } from 'drizzle-orm';
import type { Change } from '../../core/change';
import { missingOf } from '../../core/consignment';
import { database, type Tx, transaction } from '../../db/client';
import { type ConsignmentRow, type ShipmentRow, shipment } from '../../db/schema';
import type { InboundShipment } from '../../markets';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { loadConsignment, loadShipment } from './load-consignment';
import { moveUnits } from './move-units';
import { settleConsignment } from './settle-consignment';

/**
 * Keeps what they counted, once however often it is told: units that arrived are there, those that were paid for are lost,
 * what is still missing stays on the way.
 */
export async function keepTold(
  actor: Actor,
  id: number,
  told: InboundShipment,
  account: LoadedAccount,
): Promise<{ state: ShipmentRow['state'] }> {
  const { consignmentId } = await loadShipment(database(), id);
  return transaction(async (tx) => {
    const whole = await loadConsignment(tx, consignmentId, true);
    const row = await loadShipment(tx, id, true);
    if (row.state !== 'shipped' && row.state !== 'received') return { state: row.state };
    const isCounted = told.state === 'received';
    const received = isCounted ? told.received : row.received;
    await moveArrived(tx, actor, whole, row, received, account);
    const lost = { ...row.lost };
    for (const { sku, quantity } of row.units) {
      const paid = told.claims
        .filter((one) => one.sku === sku && one.answer === 'paid')
        .reduce((sum, one) => sum + one.quantity, 0);
      if (paid > (lost[sku] ?? 0)) lost[sku] = paid;
      // What was given up and is found after all is not lost any more.
      const most = Math.max(0, quantity - (received.find((one) => one.sku === sku)?.received ?? 0));
      if ((lost[sku] ?? 0) > most) lost[sku] = most;
    }
    await moveLost(tx, actor, row, lost);
    const next = { ...row, received, lost };
    const state = isCounted ? (missingOf(next).length ? ('received' as const) : ('settled' as const)) : row.state;
    await tx
      .update(shipment)
      .set({
        state,
        received,
        lost,
        claims: told.claims,
        receivedAt: row.receivedAt ?? (isCounted ? new Date() : null),
        lookedAt: new Date(),
        version: sql`${shipment.version} + 1`,
      })
      .where(eq(shipment.id, id));
    await settleConsignment(tx, consignmentId);
    return { state };
  });
}

async function moveArrived(
  tx: Tx,
  actor: Actor,
  whole: ConsignmentRow,
  row: ShipmentRow,
  received: ShipmentRow['received'],
  account: LoadedAccount,
): Promise<void> {
  const arrived = new Map(
    row.units.map(({ sku, item }) => {
      const units = (some: ShipmentRow['received']) => some.find((one) => one.sku === sku)?.received ?? 0;
      return [item, units(received) - units(row.received)];
    }),
  );
  await moveUnits(tx, {
    actor,
    account: row.accountId,
    units: arrived,
    from: 'way',
    to: 'there',
    reason: 'received',
    note: `${whole.name}, ${row.warehouseName}`,
  });
  const items = [...arrived].flatMap(([item, units]) => (units > 0 ? [item] : []));
  if (whole.sellsThere) await sellThere(tx, actor, items, account);
}

/** From then on their warehouse sends what is listed there; who sends goes out together with the number. */
async function sellThere(tx: Tx, actor: Actor, items: readonly number[], account: LoadedAccount): Promise<void> {
  const { handling } = account.compiled.rules.fees;
  if (!handling || items.length === 0) return;
  allCommitted(
    await commitItems(
      tx,
      items,
      ({ items: held }) =>
        held.map(
          ({ id }): Change => ({
            target: { item: id, account: account.id },
            field: handling.field,
            to: handling.value,
          }),
        ),
      {
        actor,
        why: 'warehouse',
        at: new Date(),
        send: 'all',
        part: { accounts: [account.id], fields: [handling.field, 'quantity'] },
      },
    ),
  );
}

/** Units that are given up leave the way. */
export async function moveLost(tx: Tx, actor: Actor, row: ShipmentRow, lost: Record<string, number>): Promise<void> {
  await moveUnits(tx, {
    actor,
    account: row.accountId,
    units: new Map(row.units.map(({ sku, item }) => [item, (lost[sku] ?? 0) - (row.lost[sku] ?? 0)])),
    from: 'way',
    to: 'nowhere',
    reason: 'lost',
    note: row.warehouseName,
  });
}
