import { sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { needLater } from '../../db/schema';
import type { Need } from './needs/need';
import { accountsThatNeed, unheardThatNeed } from './needs/of-accounts';
import { bringingInThatNeeds } from './needs/of-bringing-in';
import { itemsThatNeed } from './needs/of-items';
import { ordersThatNeed } from './needs/of-orders';
import { differencesThatNeed, sendersThatNeed } from './needs/of-sending';

/**
 * What waits for a person besides refusals, offers and reminders: a line a cause, what is urgent first and then what costs most.
 * What was put off comes last.
 */
export async function findNeeds(): Promise<{ needs: Need[] }> {
  const [found, put] = await Promise.all([
    Promise.all([
      sendersThatNeed(),
      ordersThatNeed(),
      accountsThatNeed(),
      unheardThatNeed(),
      differencesThatNeed(),
      bringingInThatNeeds(),
      itemsThatNeed(),
    ]),
    database().select().from(needLater).where(sql`${needLater.until} > utc_timestamp(3)`),
  ]);
  const later = new Map(put.map((one) => [one.need, one]));
  const needs = found
    .flat()
    .filter((one) => one.count > 0)
    .map((one): Need => {
      const off = later.get(one.need);
      return {
        ...one,
        later: off ? { until: off.until.toISOString(), why: off.why, byName: off.byName } : null,
      };
    });
  const rank = (one: Need) => (one.later ? 2 : one.isUrgent ? 0 : 1);
  return { needs: needs.sort((a, b) => rank(a) - rank(b) || (b.atStake ?? 0) - (a.atStake ?? 0)) };
}
