import { randomUUID } from 'node:crypto';
import { handlingFor } from '../../kit/fees';
import type { Market } from '../../kit/types';
import type { World } from '../../kit/world';
import { addHeld, onHand } from './receiving';

/** Something that was sold elsewhere and is sent from the warehouses, for the fee of its size and a surcharge. */
export type Dispatch = {
  id: string;
  seller: string;
  /** The seller's own number of the order: told twice, it is sent once. */
  order: string;
  number: string;
  quantity: number;
  town: string;
  cents: number;
  tracking: string;
  state: 'sent' | 'returned';
  /** From where it was taken. */
  parts: { warehouse: string; product: string; quantity: number }[];
};
export const dispatchPlace = 'crateway/dispatches';

type Thing = { grams: number; sides: [number, number, number] };

/** Sends units of a number from wherever they lie, or says why not. */
export async function dispatch(
  world: World,
  market: Market,
  given: { seller: string; order: string; number: string; quantity: number; town: string },
  thingOf: (product: string) => Thing | undefined,
): Promise<Dispatch | string> {
  const { seller, order, number, quantity } = given;
  const known = world.store.all<Dispatch>(dispatchPlace).find((one) => one.seller === seller && one.order === order);
  if (known) return known;
  const rules = world.rules(market);
  if (typeof rules.fees.handlingElsewhere !== 'number') return 'Orders of other channels are not sent.';
  const held = onHand(world, seller).filter((one) => one.number === number);
  const there = held.reduce((sum, one) => sum + one.quantity, 0);
  if (quantity < 1 || quantity > there) return `${there} of ${number} are here.`;
  let left = quantity;
  const parts: Dispatch['parts'] = [];
  for (const one of held) {
    const taken = Math.min(left, one.quantity);
    if (taken < 1) continue;
    left -= taken;
    parts.push({ warehouse: one.warehouse, product: one.product, quantity: taken });
  }
  for (const part of parts) await addHeld(world, { seller, number, ...part, quantity: -part.quantity });
  const thing = thingOf(parts[0]?.product ?? '') ?? { grams: 1_000, sides: [200, 200, 200] };
  const done: Dispatch = {
    ...given,
    id: `D${randomUUID().slice(0, 8).toUpperCase()}`,
    cents: (handlingFor(rules, thing) + rules.fees.handlingElsewhere) * quantity,
    tracking: `CW${randomUUID().slice(0, 10).toUpperCase()}`,
    state: 'sent',
    parts,
  };
  return world.store.put(dispatchPlace, done.id, done);
}

/** What was called off comes back to where it lay. */
export async function takeBack(world: World, one: Dispatch): Promise<Dispatch> {
  if (one.state === 'returned') return one;
  for (const part of one.parts) await addHeld(world, { seller: one.seller, number: one.number, ...part });
  return world.store.put<Dispatch>(dispatchPlace, one.id, { ...one, state: 'returned' });
}
