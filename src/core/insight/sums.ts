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

/** Both together. */
export const addSums = (a: SaleSums, b: SaleSums): SaleSums =>
  Object.fromEntries(
    Object.entries(a).map(([name, value]) => [name, value + b[name as keyof SaleSums]]), // the keys of the same type
  ) as SaleSums;

export const feesOfSums = (sums: SaleSums): number => sums.commission + sums.payment + sums.handling + sums.otherFees;

/** Net by what was taken, in ten-thousandths; null where nothing was taken. */
export const marginOf = ({ net, taken }: Pick<SaleSums, 'net' | 'taken'>): number | null =>
  taken > 0 ? Math.round((net * 10_000) / taken) : null;

/** Net by what it had cost, in ten-thousandths; null where it cost nothing. */
export const returnOf = ({ net, cost }: Pick<SaleSums, 'net' | 'cost'>): number | null =>
  cost > 0 ? Math.round((net * 10_000) / cost) : null;
