import { homeCurrency } from '../measure/money';
import { convertBack } from '../measure/rate';

/** What was taken and kept in one line of an order. */
export type SoldLine = {
  /** Of `total`, `discount`, `buyerPostage` and `fee`. */
  currency: string;
  /** Millionths of a unit of `currency` that one of the shop's own was worth on the day; null in the shop's own, or unknown. */
  rateMillionths: number | null;
  /** Price by quantity, before any discount. */
  total: number;
  discount: number;
  /** What the buyer paid for postage besides. */
  buyerPostage: number;
  /** What the marketplace kept, of all that the buyer paid. */
  fee: number;
  quantity: number;
  /** Of one piece, in the shop's own currency; null when nobody wrote it down. */
  cost: number | null;
  /** What the parcel cost the seller, and box, filling and tape: the shop's own currency. */
  postage: number;
  packing: number;
};

/**
 * What is left of a line of an order in the shop's own currency, minor units; null where no rate was known on its day.
 * Total − discount + postage paid by the buyer − fees, by the rate of the day, then − postage − packing − cost.
 */
export function netOfSale(sold: SoldLine): number | null {
  const kept = sold.total - sold.discount + sold.buyerPostage - sold.fee;
  const own = sold.postage + sold.packing + (sold.cost ?? 0) * sold.quantity;
  if (sold.currency === homeCurrency) return kept - own;
  if (sold.rateMillionths === null) return null;
  return convertBack(kept, { from: homeCurrency, to: sold.currency, millionths: sold.rateMillionths, date: '' }) - own;
}

/**
 * An amount shared out over lines by their weights, so that the parts add up to it: each part rounded down, what is left
 * over goes to the lines whose part lost most. Source: the largest-remainder method.
 */
export function shareOut(amount: number, weights: readonly number[]): number[] {
  const whole = weights.reduce((sum, one) => sum + one, 0);
  if (weights.length === 0) return [];
  if (whole <= 0) return weights.map((_one, at) => (at === 0 ? amount : 0));
  const exact = weights.map((one) => (amount * one) / whole);
  const parts = exact.map(Math.floor);
  let left = amount - parts.reduce((sum, one) => sum + one, 0);
  const byLoss = exact.map((one, at) => ({ at, lost: one - Math.floor(one) })).sort((a, b) => b.lost - a.lost);
  for (const { at } of byLoss) {
    if (left <= 0) break;
    parts[at] = (parts[at] ?? 0) + 1;
    left--;
  }
  return parts;
}
