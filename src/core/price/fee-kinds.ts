import type { Fees } from './fees';

/** A fee that was charged, by what it was charged for. What its rules do not explain is `other`. */
export type FeeKinds = { commission: number; payment: number; handling: number; other: number };

/**
 * A fee as it was charged, divided by what the marketplace's fee table says each part comes to. What they charged counts: the
 * parts never come to more than that, and what the table does not explain is left over.
 * @param charged of one line of an order, minor units
 * @param reckoned the fees of such a line by the marketplace's own table
 */
export function feeKinds(charged: number, reckoned: Pick<Fees, 'commission' | 'payment' | 'handling'>): FeeKinds {
  let left = Math.max(0, charged);
  const take = (part: number) => {
    const taken = Math.min(left, Math.max(0, part));
    left -= taken;
    return taken;
  };
  const commission = take(reckoned.commission);
  const handling = take(reckoned.handling);
  const payment = take(reckoned.payment);
  return { commission, payment, handling, other: charged - commission - payment - handling };
}
