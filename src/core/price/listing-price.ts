import { z } from 'zod';
import { convert, type Rate } from '../measure/rate';
import { type Rounding, roundingNames, roundings, roundTo } from '../measure/rounding';
import { labelFor, type NetInput } from './net';
import { priceFor } from './solve';

/**
 * How an account makes its prices of the item's: the same, raised or lowered by a share (basis points), or so that
 * after fees and postage there is left what the item's price says. `addPostage` puts postage that the seller pays
 * on top. The result ends as `rounding` says.
 */
export const pricingSchema = z
  .object({
    mode: z.enum(['same', 'percent', 'keep']),
    basisPoints: z.number().int().min(-9_000).max(100_000),
    addPostage: z.boolean(),
    rounding: z.enum(roundingNames),
  })
  .strict();
export type Pricing = z.infer<typeof pricingSchema>;

export const samePricing: Pricing = { mode: 'same', basisPoints: 0, addPostage: false, rounding: 'none' };

export type ListingPrice = { price: number; because: string[] };

const upwards = (rounding: Rounding): Rounding => ({ ...rounding, direction: rounding.step === 1 ? 'nearest' : 'up' });

/** True when prices there are the item's own, so that nothing has to be computed. */
export const isSamePrice = (pricing: Pricing, currency: string, accountCurrency: string, holds: boolean): boolean =>
  pricing.mode === 'same' && !pricing.addPostage && currency === accountCurrency && !holds;

/**
 * The price on one account.
 * @param itemPrice minor units of the item's currency
 * @param rate from the item's currency to the account's; null when they are the same
 * @param holds the marketplace wants prices that hold postage and fees
 * @param net everything but the price that the net there hangs on
 * @returns null when it cannot be computed: there is no rate, or no price reaches what has to be kept
 */
export function listingPrice(
  itemPrice: number,
  options: {
    pricing: Pricing;
    rate: Rate | null;
    needsRate: boolean;
    holds: boolean;
    net: Omit<NetInput, 'price' | 'cost' | 'packaging'>;
  },
): ListingPrice | null {
  const { pricing, rate, holds, net } = options;
  const because: string[] = [];
  let price = itemPrice;
  if (options.needsRate) {
    if (!rate) return null;
    price = convert(price, rate);
    because.push(`at the rate of ${rate.date}`);
  }
  if (pricing.mode === 'percent' && pricing.basisPoints !== 0) {
    price = Math.round((price * (10_000 + pricing.basisPoints)) / 10_000);
    because.push(`${pricing.basisPoints > 0 ? '+' : '−'}${Math.abs(pricing.basisPoints) / 100} %`);
  }
  const rounding = roundings[pricing.rounding];
  if (pricing.mode === 'keep' || holds) {
    because.push(holds ? 'holds postage and fees' : 'keeps the same after fees');
    const kept = priceFor({ ...net, cost: 0, packaging: 0 }, { kind: 'net', amount: price }, upwards(rounding));
    return kept === null ? null : { price: kept, because };
  }
  if (pricing.addPostage && net.sellerPaysPostage) {
    const postage = labelFor(net.fees, net.weightGrams ?? 0)?.amount ?? net.quote ?? 0;
    if (postage) because.push('with postage');
    price += postage;
  }
  return { price: roundTo(price, upwards(rounding)), because };
}
