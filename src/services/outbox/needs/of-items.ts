import { sql } from 'drizzle-orm';
import { onItem, type Step } from '../../../core/edit';
import type { Filter } from '../../../core/filter';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { readSettings, type ShopSettings } from '../../records/accounts/read-settings';
import { today } from '../../records/accounts/today';
import { workedWith } from '../../records/items/item-filter';
import { knowNetsFor } from '../../records/listings/know-nets';
import type { Found } from './need';

const ofPrice = (basisPoints: number): Step => onItem('price', { verb: 'percent', basisPoints, rounding: 'ninety' });

type OfItems = Pick<Found, 'need' | 'says' | 'mend'> & { filter: Filter; steps?: Step[] };

/** Items that somebody should look at, each kind as one filter: what is done about it is a change of many as any other. */
const kindsOfItems = ({ unsoldDays, bestBeforeDays }: ShopSettings): OfItems[] => {
  const soon = new Date(Date.parse(today()) + bestBeforeDays * 86_400_000).toISOString().slice(0, 10);
  const here: Filter = { field: 'quantity', op: 'between', value: [1, null] };
  return [
    {
      need: 'losing',
      says: 'Would be sold at a loss',
      mend: 'Raise the price, or let it go on purpose',
      filter: { all: [here, { listing: { state: 'live', netBelow: 0 } }] },
    },
    {
      need: 'best-before',
      says: `Past its best, or soon: within ${bestBeforeDays} days`,
      mend: 'Lower the price while it is still worth something',
      filter: { all: [here, { field: 'expiresOn', op: 'between', value: ['1900-01-01', soon] }] },
      steps: [ofPrice(-2_000)],
    },
    {
      need: 'unsold',
      says: `Nothing of it was sold for ${unsoldDays} days`,
      mend: 'Lower the price, renew it, or offer it elsewhere',
      filter: { all: [here, { stage: 'live' }, { field: 'unsoldDays', op: 'between', value: [unsoldDays, null] }] },
      steps: [ofPrice(-1_000)],
    },
    {
      need: 'no-photo',
      says: 'Has no photo, and is meant to be sold',
      mend: 'Add photos',
      filter: { all: [here, { stage: 'drafts' }, { field: 'photoCount', op: 'between', value: [0, 0] }] },
    },
  ];
};

export async function itemsThatNeed(): Promise<Found[]> {
  const kinds = kindsOfItems(await readSettings());
  await knowNetsFor(kinds.map((one) => one.filter));
  return Promise.all(
    kinds.map(async ({ filter, steps = [], ...kind }): Promise<Found> => {
      const [row] = rowsOf<{ count: number; atStake: number }>(
        await database().execute(
          sql`select count(*) as count, coalesce(sum(i.quantity * coalesce(i.cost, 0)), 0) as atStake from item i where ${workedWith(filter)}`,
        ),
      );
      const [count, atStake] = [Number(row?.count ?? 0), Number(row?.atStake ?? 0)];
      return { ...kind, count, atStake, isUrgent: false, page: null, filter, steps };
    }),
  );
}
