import { drained, theirs } from '../support/drive.mjs';
import * as chores from './chores.mjs';

const ours = '/?stage=live&sort=price&dir=desc';
const cheap = '/?stage=live&sort=price&dir=asc';
/** Where buyers may offer less. */
const takingOffers = ['pippet', 'hallowick'];

/**
 * What a seller does from day to day, each day a list of chores.
 * @param seller who does it, at the screen
 * @param eyes what is looked up beside it: numbers that a person would read off a label
 * @param drive what buyers and marketplaces do
 */
export function daysOf({ seller, settings, call, drive, run }) {
  const accountOf = async (name) => (await call('GET', '/accounts')).body.accounts.find((one) => one.name === name)?.id;
  const live = async (market) => (await theirs(settings, market)).filter((one) => one.state === 'live');
  const codes = (from, count) => Array.from({ length: count }, (_, at) => chores.bookCode(from + at));
  const linesOf = async (name) => {
    const { batches } = (await call('GET', '/batches')).body;
    const batch = batches.find((one) => one.name === name && one.lines > 0);
    return (await call('GET', `/batches/${batch?.id}/lines?limit=100`)).body.lines;
  };
  const skusOf = (name) => async () => (await linesOf(name)).flatMap((line) => line.item?.sku ?? []);
  const piece = async () =>
    (await call('GET', '/items?stage=live&limit=100')).body.items.find((one) => one.quantity > 2)?.id;
  const title = (sku) => `Brask camera ${sku}, a story that goes on and on for longer than any buyer would read it`;

  return [
    {
      name: 'Monday',
      chores: [
        () => chores.record(seller, `${run} one`, ['Hallowick', 'Oakhand', 'Pippet(?! finds)']),
        () => chores.scanPile(seller, `Monday’s pile ${run}`, codes(20, 12)),
        () => chores.photographPile(seller, 'Monday’s pile', skusOf(`Monday’s pile ${run}`)),
        () => chores.publishPile(seller, `Monday’s pile ${run}`, ['Hallowick', 'Crateway']),
        () => chores.reprice(seller, ours, 40, -5),
      ],
    },
    {
      name: 'Tuesday',
      chores: [
        () => chores.takeApart(seller, `Outfit ${run}`),
        async () => chores.soldByHand(seller, await piece()),
        () => chores.wordsAndBack(seller, ours, 15),
        () => chores.endAndBack(seller, cheap, 5),
      ],
    },
    {
      name: 'Wednesday, Oakhand away',
      away: 'oakhand',
      chores: [
        () => chores.record(seller, `${run} two`, ['Hallowick', 'Pippet(?! finds)', 'Shopfront']),
        () => chores.reprice(seller, ours, 30, 2, { watches: false }),
        () => chores.fileOutAndIn(seller, ours),
      ],
    },
    {
      name: 'Thursday',
      chores: [
        () => chores.artwork(seller, `Quay ${run}`, 3),
        () => chores.scanPile(seller, `Thursday’s pile ${run}`, codes(40, 9)),
        () =>
          chores.sendIn(seller, `Thursday’s pile ${run}`, {
            codesOf: async (id) =>
              (await call('GET', `/consignments/${id}`)).body.shipments.flatMap((one) =>
                one.units.flatMap((unit) => Array(unit.quantity).fill(unit.sku)),
              ),
            received: async (id) => {
              for (const one of (await call('GET', `/consignments/${id}`)).body.shipments)
                await drive('crateway', 'receive', { shipment: one.remoteId, short: '' });
            },
          }),
      ],
    },
    {
      name: 'Friday, a rule changes',
      chores: [
        async () => {
          const shopfront = await accountOf('Shopfront');
          const { items } = (await call('GET', `/items?account=${shopfront}&state=live&limit=20`)).body;
          const one = items[0];
          if (!one) return seller.missed('a changed rule', 'nothing is live on Shopfront');
          await call('PUT', `/items/${one.id}/listings/${shopfront}`, { field: 'title', value: title(one.sku) });
          await call('POST', '/publish', { selection: { kind: 'items', ids: [one.id] }, accounts: [shopfront] });
          await drained(call);
          await drive('shopfront', 'rule', { path: 'limits.title', value: 80 });
          return chores.mendRule(seller, one.sku);
        },
        async () => chores.renew(seller, await accountOf('Pippet'), 8),
        () => chores.routine(seller, `Week ${run}`, '/?category=film'),
      ],
    },
    {
      name: 'Saturday',
      chores: [
        async () => {
          const some = (await live('oakhand')).slice(0, 4);
          if (some.length < 4) return seller.missed('differences', `${some.length} listings are live on Oakhand`);
          for (const [at, one] of some.entries())
            await drive('oakhand', 'change', { listing: one.id, set: { name: `Their own words ${run} ${at}` } });
          return chores.settleDifferences(
            seller,
            some.map((one) => one.summary.reference),
          );
        },
        () => chores.callOff(seller),
        async () => {
          const words = `Would you take this, ${run}?`;
          // Where something is left that may be haggled for.
          for (const market of takingOffers)
            for (const one of (await live(market)).slice(0, 6)) {
              const amount = Math.round(one.summary.price * 0.95);
              const answer = await drive(market, 'offer', { listing: one.id, amount, words });
              if (answer.state === 'open') return chores.takeOffer(seller, words);
            }
          return seller.missed('accept an offer', 'nobody could make an offer any more');
        },
      ],
    },
    {
      name: 'Sunday',
      chores: [
        () => chores.wordsAndBack(seller, ours, 25),
        () => chores.record(seller, `${run} three`, ['Hallowick', 'Swishel']),
      ],
    },
  ].map((day) => ({ ...day, chores: [...day.chores, () => chores.lookBack(seller)] }));
}
