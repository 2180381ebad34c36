import { z } from 'zod';

/** An exchange rate: how many millionths of a unit of `to` one unit of `from` is worth, and of which day. */
export const rateSchema = z.object({
  from: z.string(),
  to: z.string(),
  millionths: z.number(),
  date: z.string(),
});
export type Rate = z.infer<typeof rateSchema>;

/**
 * An amount in another currency, rounded half up. Both currencies are taken with the same number of decimals.
 * @param amount minor units of `rate.from`
 * @returns minor units of `rate.to`
 */
export const convert = (amount: number, rate: Rate): number => Math.round((amount * rate.millionths) / 1_000_000);
