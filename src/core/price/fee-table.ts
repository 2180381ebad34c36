import { z } from 'zod';

/**
 * What selling costs on a marketplace, as data. Rates in basis points, amounts in minor units of the marketplace's
 * currency. Commission is a list of steps: each rate applies to the part of the price up to `upTo` (null: the rest).
 */
export const feeTableSchema = z.object({
  listing: z
    .object({ amount: z.number().int(), freeLive: z.number().int(), perDays: z.number().int().nullable() })
    .nullable(),
  commission: z.array(z.object({ upTo: z.number().int().nullable(), rate: z.number().int() })),
  /** The least commission on a sale. */
  least: z.number().int().optional(),
  /** Commission is taken only when this field of the listing has one of these values. */
  when: z.object({ field: z.string(), values: z.array(z.string()) }).optional(),
  /** By category id: replaces the first step's rate. */
  commissionByCategory: z.record(z.string(), z.number().int()),
  payment: z.object({ rate: z.number().int(), fixed: z.number().int() }),
  /** What the seller pays for a label when the seller pays postage, by the most grams it may weigh. */
  labels: z.array(
    z.object({ id: z.string(), label: z.string(), upToGrams: z.number().int(), amount: z.number().int() }),
  ),
  /** Paid once a month whatever is sold. */
  monthly: z.number().int().optional(),
  /** Share of the price when it was sold through advertising; the field holds the rate in percent. */
  advertisingField: z.string().optional(),
  /** What their warehouse takes for sending one, by weight and longest side, when the field says that it sends. */
  handling: z
    .object({
      field: z.string(),
      value: z.string(),
      tiers: z.array(
        z.object({
          id: z.string(),
          label: z.string(),
          upToGrams: z.number().int(),
          upToMm: z.number().int(),
          amount: z.number().int(),
        }),
      ),
      storagePerLitreMonth: z.number().int(),
      /** They also send what was sold elsewhere, for so much more; left out where they do not. */
      elsewhere: z.number().int().optional(),
    })
    .optional(),
  /** What they keep for making the thing, by the value of a field; the seller earns what is above it. */
  bases: z.object({ field: z.string(), amounts: z.record(z.string(), z.number().int()) }).optional(),
});
export type FeeTable = z.infer<typeof feeTableSchema>;
