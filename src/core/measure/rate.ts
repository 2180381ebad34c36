/** An exchange rate: how many millionths of a unit of `to` one unit of `from` is worth, and of which day. */
export type Rate = { from: string; to: string; millionths: number; date: string };

/**
 * An amount in another currency, rounded half up. Both currencies are taken with the same number of decimals.
 * @param amount minor units of `rate.from`
 * @returns minor units of `rate.to`
 */
export const convert = (amount: number, rate: Rate): number => Math.round((amount * rate.millionths) / 1_000_000);

/** The same rate the other way round. */
export const inverse = (rate: Rate): Rate => ({
  from: rate.to,
  to: rate.from,
  millionths: Math.round(1e12 / rate.millionths),
  date: rate.date,
});

/** Days between a rate's date and today, both as YYYY-MM-DD. */
export const ageInDays = (rate: Rate, today: string): number =>
  Math.round((Date.parse(today) - Date.parse(rate.date)) / 86_400_000);
