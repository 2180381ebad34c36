import { z } from 'zod';
import { countedGrams } from '../measure/parcel';

/** How a carrier computes: steps by the weight that counts, bands by distance as percent of them. */
export const tariffSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** Cubic centimetres that count as one kilogram. */
  volumeDivisor: z.number(),
  steps: z.array(
    z.object({
      upToGrams: z.number(),
      cents: z.number(),
    }),
  ),
  bands: z.record(z.string(), z.number()),
  longestMm: z.number(),
});
export type Tariff = z.infer<typeof tariffSchema>;

export const quoteSchema = z.object({
  carrier: z.string(),
  name: z.string(),
  amount: z.number(),
  countedGrams: z.number(),
});
export type Quote = z.infer<typeof quoteSchema>;

/** How far a parcel goes. */
export const bandLabels = [
  ['near', 'nearby'],
  ['home', 'in the country'],
  ['abroad', 'next countries'],
  ['far', 'overseas'],
] as const;
export type Band = (typeof bandLabels)[number][0];

/** The band of parcels within the country, which postage is reckoned with before anybody has bought. */
export const homeBand: Band = 'home';

/** What every carrier asks for a parcel, cheapest first; those that do not take it are left out. Minor units. */
export function quotes(
  tariffs: readonly Tariff[],
  parcel: { grams: number; sides: [number, number, number] | null; band: string },
): Quote[] {
  return tariffs
    .flatMap((tariff): Quote[] => {
      const counted = countedGrams(parcel.grams, parcel.sides, tariff.volumeDivisor);
      const step = tariff.steps.find((one) => counted <= one.upToGrams);
      const percent = tariff.bands[parcel.band];
      if (!step || !percent || Math.max(0, ...(parcel.sides ?? [])) > tariff.longestMm) return [];
      return [
        {
          carrier: tariff.id,
          name: tariff.name,
          amount: Math.round((step.cents * percent) / 100),
          countedGrams: counted,
        },
      ];
    })
    .sort((a, b) => a.amount - b.amount);
}

/**
 * Cost per pound learned from past shipments: total paid by total weight, in minor units a pound (453.59237 g).
 * @returns null without shipments that have a weight
 */
export function costPerPound(shipments: readonly { grams: number; paid: number }[]): number | null {
  const weighed = shipments.filter((one) => one.grams > 0);
  const grams = weighed.reduce((sum, one) => sum + one.grams, 0);
  return grams === 0 ? null : Math.round((weighed.reduce((sum, one) => sum + one.paid, 0) * 453.59237) / grams);
}
