import type { Order } from '../../kit/types';
import type { World } from '../../kit/world';
import { shipmentPlace } from './plans';
import type { Received, Shipment } from './types';

/** What lies in the warehouses, by a seller's stock number. */
export type Held = { seller: string; number: string; product: string; warehouse: string; quantity: number };
export const heldPlace = 'crateway/held';

const keyOf = ({ seller, warehouse, number }: Pick<Held, 'seller' | 'warehouse' | 'number'>) =>
  `${seller}/${warehouse}/${number}`;

/** More, or less, of a number in a warehouse; never below nothing. */
export async function addHeld(world: World, units: Held): Promise<void> {
  const there = world.store.get<Held>(heldPlace, keyOf(units))?.quantity ?? 0;
  const quantity = Math.max(0, there + units.quantity);
  await world.store.put<Held>(heldPlace, keyOf(units), { ...units, quantity });
}

/**
 * A shipment arrives and is counted.
 * @param short of which numbers how many fewer came than were packed
 */
export async function receive(
  world: World,
  shipment: Shipment,
  short: ReadonlyMap<string, number>,
): Promise<Shipment | string> {
  if (shipment.state === 'received') return 'It was counted already.';
  if (shipment.state !== 'shipped') return 'It is not on its way yet.';
  const received = shipment.units.map(({ number, quantity }): Received => {
    return { number, expected: quantity, received: Math.max(0, quantity - (short.get(number) ?? 0)) };
  });
  const done = await world.store.put<Shipment>(shipmentPlace, shipment.id, {
    ...shipment,
    state: 'received',
    receivedAt: world.now(),
    received,
  });
  for (const { number, received: quantity } of received) {
    const product = shipment.units.find((one) => one.number === number)?.product ?? '';
    await addHeld(world, { seller: shipment.seller, number, product, warehouse: shipment.warehouse, quantity });
  }
  return done;
}

/** What still lies there of a number: what arrived, less what was sold from there; the first warehouses are emptied first. */
export function onHand(world: World, seller: string): Held[] {
  const sold = new Map<string, number>();
  for (const order of world.store.all<Order>('orders/crateway')) {
    if (order.seller !== seller || order.state === 'cancelled') continue;
    if (world.listing('crateway', order.listing)?.data.ships !== 'warehouse') continue;
    sold.set(order.reference, (sold.get(order.reference) ?? 0) + order.quantity);
  }
  return world.store
    .all<Held>(heldPlace)
    .filter((one) => one.seller === seller)
    .map((one) => {
      const gone = Math.min(one.quantity, sold.get(one.number) ?? 0);
      sold.set(one.number, (sold.get(one.number) ?? 0) - gone);
      return { ...one, quantity: one.quantity - gone };
    })
    .filter((one) => one.quantity > 0);
}

/** A claim is looked into: what is missing is found, or paid for. */
export async function settleClaims(world: World, shipment: Shipment, answer: 'found' | 'paid'): Promise<Shipment> {
  const claims = shipment.claims.map((one) =>
    one.answer === 'open' ? { ...one, answer, cents: answer === 'paid' ? one.cents : 0 } : one,
  );
  let { received } = shipment;
  if (answer === 'found')
    for (const { number, quantity } of shipment.claims.filter((one) => one.answer === 'open')) {
      const product = shipment.units.find((one) => one.number === number)?.product ?? '';
      await addHeld(world, { seller: shipment.seller, number, product, warehouse: shipment.warehouse, quantity });
      received = received.map((one) => (one.number === number ? { ...one, received: one.received + quantity } : one));
    }
  return world.store.put<Shipment>(shipmentPlace, shipment.id, { ...shipment, claims, received });
}
