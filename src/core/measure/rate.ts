import { z } from 'zod';
import { digitsOf, homeCurrency } from './money';

/** An exchange rate: how many millionths of a unit of `to` one unit of `from` is worth, and of which day. */
export const rateSchema = z.object({
  from: z.string(),
  to: z.string(),
  millionths: z.number(),
  date: z.string(),
});
export type Rate = z.infer<typeof rateSchema>;

/**
 * An amount in another currency, rounded half up; also between currencies with different numbers of decimals.
 * @param amount minor units of `rate.from`
 * @returns minor units of `rate.to`
 */
export const convert = (amount: number, rate: Rate): number =>
  Math.round((amount * rate.millionths * 10 ** (digitsOf(rate.to) - digitsOf(rate.from))) / 1_000_000);

/**
 * The way back: what an amount of `rate.to` is in `rate.from`, rounded half up.
 * @param amount minor units of `rate.to`
 * @returns minor units of `rate.from`
 */
export const convertBack = (amount: number, rate: Rate): number =>
  Math.round((amount * 1_000_000 * 10 ** (digitsOf(rate.from) - digitsOf(rate.to))) / rate.millionths);

/**
 * An amount of the shop's own currency in another one; null while no rate to it is known.
 * @param rate from the shop's currency to the other one
 */
export const amountIn = (amount: number, currency: string, rate: Rate | null): number | null =>
  currency === homeCurrency ? amount : rate && convert(amount, rate);

/**
 * The way back: an amount of any currency in the shop's own; null while no rate is known.
 * @param rate from the shop's currency to the other one
 */
export const homeAmount = (amount: number, currency: string, rate: Rate | null): number | null =>
  currency === homeCurrency ? amount : rate && convertBack(amount, rate);
