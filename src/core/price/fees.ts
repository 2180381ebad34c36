import { z } from 'zod';
import { ownValue } from '../json';
import { share } from '../measure/money';
import type { FeeTable } from './fee-table';

export type Sale = {
  /** Price with postage that the buyer pays, minor units. */
  total: number;
  categoryId: string | null;
  /** Live listings on the account, for fees that begin after a free number. */
  liveCount: number;
  /** The listing's values that fees hang on (who sends, which product): field id → value. */
  values?: Record<string, unknown>;
  weightGrams?: number | null;
  /** Longest side of the parcel in millimetres. */
  longestMm?: number | null;
};

export const feesSchema = z.object({
  listing: z.number(),
  commission: z.number(),
  payment: z.number(),
  /** Sending from their warehouse, or making the thing. */
  handling: z.number(),
  total: z.number(),
  /** On top of the total, when it is sold through advertising. */
  advertising: z.number(),
});
export type Fees = z.infer<typeof feesSchema>;

function commissionOf(table: FeeTable, sale: Sale): number {
  const { when } = table;
  if (when && !when.values.includes(String(sale.values?.[when.field] ?? ''))) return 0;
  const own = sale.categoryId === null ? undefined : ownValue(table.commissionByCategory, sale.categoryId);
  let commission = 0;
  let from = 0;
  table.commission.forEach((step, index) => {
    const until = step.upTo ?? Number.POSITIVE_INFINITY;
    const part = Math.min(sale.total, until) - from;
    if (part > 0) commission += share(part, index === 0 && own !== undefined ? own : step.rate);
    from = Math.min(until, Math.max(from, sale.total));
  });
  return sale.total > 0 ? Math.max(commission, table.least ?? 0) : commission;
}

function handlingOf(table: FeeTable, sale: Sale): number {
  const { handling, bases } = table;
  const made = bases ? (ownValue(bases.amounts, String(sale.values?.[bases.field] ?? '')) ?? 0) : 0;
  if (!handling || sale.values?.[handling.field] !== handling.value) return Math.min(made, sale.total);
  return tierAmount(handling, sale);
}

type Sized = Pick<Sale, 'weightGrams' | 'longestMm'>;

function tierAmount({ tiers }: NonNullable<FeeTable['handling']>, { weightGrams, longestMm }: Sized): number {
  const tier = tiers.find((one) => (weightGrams ?? 0) <= one.upToGrams && (longestMm ?? 0) <= one.upToMm);
  return (tier ?? tiers.at(-1))?.amount ?? 0;
}

/**
 * What their warehouse takes for sending one that was sold elsewhere: the fee of its size and their surcharge.
 * @returns minor units of the marketplace's currency; null where their terms do not allow it
 */
export const dispatchFee = ({ handling }: FeeTable, thing: Sized): number | null =>
  handling?.elsewhere === undefined ? null : tierAmount(handling, thing) + handling.elsewhere;

/**
 * The fees of one sale, each part rounded half up to the minor unit as marketplaces bill them.
 * Source: the marketplace's own fee table (`/rules`).
 */
export function feesOf(table: FeeTable, sale: Sale): Fees {
  const listing = table.listing && sale.liveCount >= table.listing.freeLive ? table.listing.amount : 0;
  const commission = commissionOf(table, sale);
  const payment = sale.total > 0 ? share(sale.total, table.payment.rate) + table.payment.fixed : 0;
  const handling = handlingOf(table, sale);
  const rate = table.advertisingField ? Number(sale.values?.[table.advertisingField] ?? 0) : 0;
  return {
    listing,
    commission,
    payment,
    handling,
    total: listing + commission + payment + handling,
    advertising: Number.isFinite(rate) ? share(sale.total, Math.round(rate * 100)) : 0,
  };
}
