import { z } from 'zod';
import type { FeeTable } from './fee-table';
import { feesOf, feesSchema } from './fees';

export type NetInput = {
  fees: FeeTable;
  /** Price without postage, minor units. */
  price: number;
  /** What the thing cost; null when nobody wrote it down. */
  cost: number | null;
  categoryId: string | null;
  liveCount: number;
  weightGrams: number | null;
  longestMm?: number | null;
  /** Values of the listing that fees hang on. */
  values?: Record<string, unknown>;
  /** True when the seller pays the postage out of the price. */
  sellerPaysPostage: boolean;
  /** True when the buyer pays the marketplace's own label on top of the price, so that fees are taken of it too. */
  buyerPaysLabel?: boolean;
  /** Box, filling, tape: minor units a parcel. */
  packaging: number;
  /** What a carrier asks for the parcel; used where the marketplace sells no labels of its own. */
  quote?: number | null;
};

export const netSchema = z.object({
  price: z.number(),
  fees: feesSchema,
  postage: z.number(),
  packaging: z.number(),
  cost: z.number(),
  /** What the buyer pays for postage besides the price: it goes to the carrier, but fees are taken of it. */
  buyerPostage: z.number(),
  /** What is left in the pocket: price − fees − postage − packaging − cost. */
  net: z.number(),
  /** Net as basis points of the price; 0 for a price of 0. */
  margin: z.number(),
  /** Net as basis points of the cost; null without a cost. */
  returnOnCost: z.number().nullable(),
});
export type Net = z.infer<typeof netSchema>;

/** The cheapest label that carries the weight; the dearest one when it is too heavy for all. */
export function labelFor(table: FeeTable, weightGrams: number): FeeTable['labels'][number] | null {
  let fits: FeeTable['labels'][number] | null = null;
  let largest: FeeTable['labels'][number] | null = null;
  for (const label of table.labels) {
    if (weightGrams <= label.upToGrams && (fits === null || label.upToGrams < fits.upToGrams)) fits = label;
    if (largest === null || label.upToGrams >= largest.upToGrams) largest = label;
  }
  return fits ?? largest;
}

/** What one sale at this price leaves. All amounts in minor units of the marketplace's currency. */
export function netOf(input: NetInput): Net {
  const label = labelFor(input.fees, input.weightGrams ?? 0)?.amount ?? input.quote ?? 0;
  const postage = input.sellerPaysPostage ? label : 0;
  const buyerPostage = input.buyerPaysLabel && !input.sellerPaysPostage ? label : 0;
  const fees = feesOf(input.fees, {
    total: input.price + buyerPostage,
    categoryId: input.categoryId,
    liveCount: input.liveCount,
    values: input.values,
    weightGrams: input.weightGrams,
    longestMm: input.longestMm,
  });
  const cost = input.cost ?? 0;
  const net = input.price - fees.total - postage - input.packaging - cost;
  return {
    price: input.price,
    fees,
    postage,
    buyerPostage,
    packaging: input.packaging,
    cost,
    net,
    margin: input.price === 0 ? 0 : Math.round((net * 10_000) / input.price),
    returnOnCost: input.cost ? Math.round((net * 10_000) / input.cost) : null,
  };
}
