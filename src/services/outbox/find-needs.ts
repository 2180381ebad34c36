import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { onItem, type Step, stepSchema } from '../../core/edit';
import { type Filter, filterSchema } from '../../core/filter';
import { homeAmount, homeCurrency } from '../../core/measure';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { needLater, sale } from '../../db/schema';
import { today } from '../records/accounts/today';
import { workedWith } from '../records/items/item-filter';
import { knowNetsFor } from '../records/listings/know-nets';
import { isGone } from '../sync/find-gone';

export const needSchema = z.object({
  /** The same for the same cause, whenever it is asked for. */
  need: z.string(),
  says: z.string(),
  /** What to do about it, in one sentence. */
  mend: z.string(),
  count: z.number(),
  /** The money in it, in minor units of the items' currency; null where that is not what it is about. */
  atStake: z.number().nullable(),
  /** Nothing else should be done before. */
  isUrgent: z.boolean(),
  /** The page on which it is mended; else the items, with the steps that are proposed for them. */
  page: z.string().nullable(),
  filter: filterSchema.nullable(),
  steps: z.array(stepSchema),
  /** Put off until then. */
  later: z.object({ until: z.string(), why: z.string(), byName: z.string() }).nullable(),
});
export type Need = z.infer<typeof needSchema>;
type Found = Omit<Need, 'later'>;

/** So long nothing was sold of it, and so soon it is past its best: then somebody should look. */
export const unsoldDays = 180;
const bestBeforeDays = 60;

const ofPrice = (basisPoints: number): Step => onItem('price', { verb: 'percent', basisPoints, rounding: 'ninety' });

type OfItems = Pick<Found, 'need' | 'says' | 'mend'> & { filter: Filter; steps?: Step[] };

/** Items that somebody should look at, each kind as one filter: what is done about it is a change of many as any other. */
const kindsOfItems = (): OfItems[] => {
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

async function itemsThatNeed(): Promise<Found[]> {
  const kinds = kindsOfItems();
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

const page = (
  need: string,
  says: string,
  mend: string,
  path: string,
  { count, atStake = null }: { count: number; atStake?: number | null },
  isUrgent = false,
): Found => ({
  need,
  says,
  mend,
  count: Number(count),
  atStake: atStake === null ? null : Number(atStake),
  isUrgent,
  page: path,
  filter: null,
  steps: [],
});

async function ordersThatNeed(): Promise<Found[]> {
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

async function differencesThatNeed(): Promise<Found[]> {
  const [row] = rowsOf<{ drift: number; gone: number }>(
    await database().execute(sql`select
      (select count(*) from listing where state in ('changed', 'conflict') and drifted = 1) as drift,
      (select count(*) from listing where ${isGone}) as gone`),
  );
  return [
    page('differences', 'Shown there otherwise than sent', 'Take theirs over, or send ours again', '/differences', {
      count: row?.drift ?? 0,
    }),
    page('gone', 'Not there any more, though it should be', 'List it again, or let it be ended', '/differences', {
      count: row?.gone ?? 0,
    }),
  ];
}

/** Accounts that sell nothing as they are, one by one: what is live or waits there is what it is about. */
async function accountsThatNeed(): Promise<Found[]> {
  const rows = rowsOf<{ id: number; name: string; why: 'reconnect' | 'locked' | 'paused' | 'unwell'; count: number }>(
    await database().execute(sql`select a.id, a.name,
        case when a.state = 'reconnect' then 'reconnect' when a.locked_until > utc_timestamp(3) then 'locked'
          when a.paused_at is not null then 'paused' else 'unwell' end as why,
        (select count(*) from listing l where l.account_id = a.id and l.wanted = 'live') as count
      from account a where a.state = 'reconnect' or a.locked_until > utc_timestamp(3) or a.paused_at is not null
        or a.unwell_since < utc_timestamp(3) - interval 10 minute order by a.id`),
  );
  const said = {
    reconnect: ['does not let Netting in any more', 'Connect it again'],
    locked: ['has locked the account for a while', 'Wait, and see what they say; what is due is sent afterwards'],
    paused: ['is paused', 'Let it go on when you are ready'],
    unwell: ['has not answered for ten minutes', 'Wait: it is asked again and again'],
  } as const;
  return rows.map(({ id, name, why, count }) =>
    page(
      `account-${id}-${why}`,
      `${name} ${said[why][0]}`,
      said[why][1],
      `/marketplaces/${id}`,
      { count },
      why === 'reconnect',
    ),
  );
}

/**
 * What waits for a person besides refusals, offers and reminders: a line a cause, what is urgent first and then what costs most.
 * What was put off comes last.
 */
export async function findNeeds(): Promise<{ needs: Need[] }> {
  const [found, put] = await Promise.all([
    Promise.all([ordersThatNeed(), accountsThatNeed(), differencesThatNeed(), itemsThatNeed()]),
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
