import type { SaleFact } from './facts';

/** What was sold, and what became of the money: minor units of the shop's currency. */
export type SaleSums = {
  orders: number;
  pieces: number;
  /** What buyers paid, with postage, less discounts. */
  taken: number;
  commission: number;
  payment: number;
  handling: number;
  otherFees: number;
  postage: number;
  packing: number;
  cost: number;
  net: number;
  /** Lines of which no rate of exchange was known: they are in none of the amounts. */
  unknown: number;
  /** Pieces whose cost nobody wrote down: they count as if they had cost nothing. */
  costless: number;
  cancelled: number;
};

export const noSums: SaleSums = {
  orders: 0,
  pieces: 0,
  taken: 0,
  commission: 0,
  payment: 0,
  handling: 0,
  otherFees: 0,
  postage: 0,
  packing: 0,
  cost: 0,
  net: 0,
  unknown: 0,
  costless: 0,
  cancelled: 0,
};

/** Adds a line of an order to sums. One that was called off, or of which no rate is known, has no amount. */
export function addSale(sums: SaleSums, sale: SaleFact): void {
  if (sale.isCancelled) {
    sums.cancelled += 1;
    return;
  }
  sums.orders += 1;
  sums.pieces += sale.quantity;
  if (!sale.amounts) {
    sums.unknown += 1;
    return;
  }
  const { taken, commission, payment, handling, otherFees } = sale.amounts;
  const cost = (sale.cost ?? 0) * sale.quantity;
  sums.taken += taken;
  sums.commission += commission;
  sums.payment += payment;
  sums.handling += handling;
  sums.otherFees += otherFees;
  sums.postage += sale.postage;
  sums.packing += sale.packing;
  sums.cost += cost;
  sums.costless += sale.cost === null ? sale.quantity : 0;
  sums.net += taken - commission - payment - handling - otherFees - sale.postage - sale.packing - cost;
}

/** Sums of sales by what each belongs to; what belongs to nothing (null) is left out. */
export function sumBy<Key>(sales: Iterable<SaleFact>, keyOf: (sale: SaleFact) => Key | null): Map<Key, SaleSums> {
  const found = new Map<Key, SaleSums>();
  for (const sale of sales) {
    const key = keyOf(sale);
    if (key === null) continue;
    let sums = found.get(key);
    if (!sums) {
      sums = { ...noSums };
      found.set(key, sums);
    }
    addSale(sums, sale);
  }
  return found;
}

export function sumOf(sales: Iterable<SaleFact>): SaleSums {
  const sums = { ...noSums };
  for (const sale of sales) addSale(sums, sale);
  return sums;
}

export const feesOfSums = (sums: SaleSums): number => sums.commission + sums.payment + sums.handling + sums.otherFees;

/** Net by what was taken, in ten-thousandths; null where nothing was taken. */
export const marginOf = ({ net, taken }: Pick<SaleSums, 'net' | 'taken'>): number | null =>
  taken > 0 ? Math.round((net * 10_000) / taken) : null;

/** Net by what it had cost, in ten-thousandths; null where it cost nothing. */
export const returnOf = ({ net, cost }: Pick<SaleSums, 'net' | 'cost'>): number | null =>
  cost > 0 ? Math.round((net * 10_000) / cost) : null;
