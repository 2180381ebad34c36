import { type AfarPlace, afarUnits } from '../item/elsewhere';
import type { Item } from '../item/item';
import { unitsOf } from '../item/variations';

/** Units that come or go: of one combination, or of an item without any; here, or at a place of an account. */
export type Move = {
  combination: string | null;
  delta: number;
  place: 'here' | AfarPlace;
  account: number | null;
};

/**
 * What has to be moved so that the ledger's sums are those of the item after a change: each combination's units are the sum
 * of its movements, switched on or not.
 */
export function movesBetween(before: Item, after: Item): Move[] {
  const rows = new Map<string | null, number>();
  const add = (key: string | null, units: number) => rows.set(key, (rows.get(key) ?? 0) + units);
  if (before.axes.length) for (const row of before.variations) add(row.key, -row.quantity);
  else add(null, -before.quantity);
  if (after.axes.length) for (const row of after.variations) add(row.key, row.quantity);
  else add(null, after.quantity);
  const here = [...rows].map(([combination, delta]): Move => ({ combination, delta, place: 'here', account: null }));
  return [...here, ...movesAfar(before, after)].filter((one) => one.delta !== 0);
}

/** What became different of the units that lie elsewhere. */
function movesAfar(before: Item, after: Item): Move[] {
  const [was, is] = [afarUnits(before.elsewhere), afarUnits(after.elsewhere)];
  const places = new Map([...was, ...is].map(({ place, account }) => [`${place}:${account}`, { place, account }]));
  const units = (some: typeof was, { place, account }: { place: AfarPlace; account: number }) =>
    some.find((one) => one.place === place && one.account === account)?.units ?? 0;
  return [...places.values()].map((one) => ({
    combination: null,
    delta: units(is, one) - units(was, one),
    ...one,
  }));
}

/** The units that an item has to sell: with variations the sum of those of its combinations that are switched on. */
export const onHand = (item: Pick<Item, 'axes' | 'variations' | 'quantity'>): number =>
  item.axes.length ? unitsOf(item.variations) : item.quantity;
