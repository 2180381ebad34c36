import {
  afterDays,
  dayNumber,
  type Effect,
  type Exposure,
  eachLayer,
  effectOf,
  exposuresOf,
  type Facts,
  type InsightTable,
  type ItemFact,
  leastSold,
  nthPlace,
  type OnOffer,
  type Scope,
  salesIn,
  sumBy,
} from '../../core/insight';
import { accountNames } from '../records/accounts/account-names';
import { type InsightQuery, narrowedTo, periodOf, scopeOf } from './query';

const deeds = [
  ['cutDay', 'The first price cut'],
  ['renewedDay', 'The first renewal'],
  ['crossedDay', 'A second marketplace'],
] as const satisfies [keyof ItemFact, string][];

/** The time on offer of what came in within days: from when it came in and stood somewhere; for each deed by itself. */
function onOffer(facts: Facts, scope: Scope, [from, to]: [number, number]): OnOffer[][] {
  const found = deeds.map((): OnOffer[] => []);
  eachLayer(facts, scope, (item, { units, inDay, outDay, how }) => {
    if (inDay < from || inDay > to || item.listedDay === null) return;
    if (outDay !== null && outDay < item.listedDay) return;
    const since = Math.max(inDay, item.listedDay);
    const days = Math.max(0, (outDay ?? facts.today) - since);
    const isSold = how === 'sold';
    deeds.forEach(([deed], at) => {
      const done = item[deed];
      // It was done before this unit was there: neither before nor after.
      if (done !== null && done < since) return;
      found[at]?.push({ alike: item.category, units, days, isSold, doneOn: done === null ? null : done - since });
    });
  });
  return found;
}

const totals = (all: readonly Exposure[], what: keyof Exposure) => all.reduce((sum, one) => sum + one[what], 0);
const hundredths = (value: number | undefined) => (value === undefined ? null : Math.round(value * 100));

function verdict(effect: Effect | null): string {
  if (!effect) return 'Too few to say';
  if (effect.least > 1) return 'Sold faster afterwards';
  if (effect.most < 1) return 'Sold more slowly afterwards';
  return 'Makes no difference that one can see';
}

/** What price cuts, renewals and further marketplaces brought, and where the second and third marketplace paid. */
export async function findEffects(facts: Facts, query: InsightQuery): Promise<InsightTable[]> {
  const period = periodOf(query);
  const days: [number, number] = [dayNumber(period.from), dayNumber(period.to)];
  const scope = await scopeOf(query);
  const found = onOffer(facts, scope, days).map(exposuresOf);
  const sums = sumBy(salesIn(facts, scope, ...days), (sale) => {
    const nth = sale.isCancelled ? null : nthPlace(facts, sale);
    return nth === null ? null : `${nth} ${sale.accountId}`;
  });
  const places = [...sums].map(([key, one]) => {
    const [nth, accountId] = key.split(' ').map(Number);
    return { nth: nth ?? 0, accountId: accountId ?? 0, ...one };
  });
  const names = await accountNames();
  const nths = ['first', 'second', 'third', 'fourth or later'];
  const all = places.reduce((sum, one) => sum + one.pieces, 0);
  return [
    {
      id: 'effects',
      title: 'What it brought',
      about: `Pieces sold for each day on offer in the ${afterDays} days after it, compared with pieces of the same category and age before it, or without it. With 95 of 100 it lies between the bounds; with fewer than ${leastSold} sold on either side nothing is said. What was chosen for it may differ from the rest: it is a hint, not a proof.`,
      columns: [
        { id: 'deed', head: 'What was done', kind: 'text' },
        { id: 'before', head: 'Sold before', kind: 'count' },
        { id: 'after', head: 'Sold after', kind: 'count' },
        { id: 'times', head: 'Times as many', kind: 'times' },
        { id: 'least', head: 'At least', kind: 'times' },
        { id: 'most', head: 'At most', kind: 'times' },
        { id: 'verdict', head: 'In words', kind: 'text' },
      ],
      rows: deeds.map(([deed, name], at) => {
        const all = found[at] ?? [];
        const effect = effectOf(all);
        return {
          key: deed,
          cells: [
            name,
            totals(all, 'soldBefore'),
            totals(all, 'soldAfter'),
            hundredths(effect?.ratio),
            hundredths(effect?.least),
            hundredths(effect?.most),
            verdict(effect),
          ],
          behind: null,
        };
      }),
    },
    {
      id: 'places',
      title: 'Where further marketplaces paid',
      about:
        'Sales by the order in which the item came onto its marketplaces: what was sold on the second or a later one might still lie here.',
      columns: [
        { id: 'place', head: 'Sold on its', kind: 'text' },
        { id: 'account', head: 'Account', kind: 'text' },
        { id: 'pieces', head: 'Pieces', kind: 'count' },
        { id: 'share', head: 'Of all', kind: 'share' },
        { id: 'taken', head: 'Taken', kind: 'money' },
        { id: 'net', head: 'Net', kind: 'money' },
      ],
      rows: places
        .sort((a, b) => a.nth - b.nth || b.net - a.net)
        .map((one) => ({
          key: `${one.nth} ${one.accountId}`,
          cells: [
            nths[one.nth - 1] ?? '',
            names.get(one.accountId) ?? '',
            one.pieces,
            all > 0 ? Math.round((one.pieces * 10_000) / all) : null,
            one.taken,
            one.net,
          ],
          behind: { ...narrowedTo(query), ...period, soldOn: String(one.accountId), nth: String(one.nth) },
        })),
    },
  ];
}
