import { eq } from 'drizzle-orm';
import { homeAmount, homeCurrency } from '../../../core/measure';
import { database } from '../../../db/client';
import { sale } from '../../../db/schema';
import { type Found, page } from './need';

/** Orders that the stock does not hold, or that fit nothing. */
export async function ordersThatNeed(): Promise<Found[]> {
  const columns = {
    oversold: sale.oversold,
    total: sale.total,
    currency: sale.currency,
    millionths: sale.rateMillionths,
  };
  // Asked by the index of each: there are few.
  const [over, stray] = await Promise.all([
    database().select(columns).from(sale).where(eq(sale.oversold, true)),
    database().select(columns).from(sale).where(eq(sale.unassigned, true)),
  ]);
  const sumOf = (rows: typeof over) =>
    rows.reduce((sum, { total, currency, millionths }) => {
      const rate = millionths === null ? null : { from: homeCurrency, to: currency, millionths, date: '' };
      return sum + (homeAmount(total, currency, rate) ?? 0);
    }, 0);
  return [
    page(
      'oversold',
      'Sold more than there was',
      'Cancel one of the orders, or find another piece',
      '/sales?state=oversold',
      { count: over.length, atStake: sumOf(over) },
      true,
    ),
    page(
      'unassigned',
      'An order that fits no item',
      'Say what was sold, so that it ends elsewhere',
      '/sales?state=unassigned',
      { count: stray.length, atStake: sumOf(stray) },
      true,
    ),
  ];
}
