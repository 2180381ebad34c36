import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Item } from '../../src/core/item';
import { type ComputedListing, computeListing } from '../../src/core/listing';
import type { LoadedAccount } from '../../src/services/records/accounts/load-accounts';
import { type Figure, median } from './measure';

const portion = 1_000;
const marketsTold = ['hallowick', 'pippet', 'oakhand', 'selasar', 'shopfront', 'swishel'];

/** Items of their own, as many as wanted: other titles, prices, weights and numbers, nothing shared but the words. */
function* portions(items: Item[], count: number): Generator<Item[]> {
  for (let at = 0; at < count; at += portion) {
    yield Array.from({ length: Math.min(portion, count - at) }, (_, index): Item => {
      const number = at + index;
      const base = items[number % items.length] as Item; // the list is not empty
      return {
        ...base,
        id: number + 1,
        sku: `B${number}-${base.sku}`.slice(0, 40),
        title: `${base.title}, no. ${number}`,
        description: `${base.description}<p>Number ${number}.</p>`,
        attributes: { ...base.attributes, 'Serial number': String(number) },
        price: (base.price ?? 5_000) + (number % 4_000),
        weightGrams: (base.weightGrams ?? 200) + (number % 300),
        photos: base.photos.map((photo) => ({ ...photo })),
      };
    });
  }
}

type Pair = { ours: number; raw: number };

/** One portion: computed and checked for every account, then items and results copied by JSON. */
function pair(some: Item[], accounts: LoadedAccount[]): Pair {
  const began = performance.now();
  const computed: ComputedListing[] = [];
  for (const item of some)
    for (const account of accounts) computed.push(computeListing({ item, overrides: {}, account }));
  const ours = performance.now() - began;
  const copied = performance.now();
  const copy: unknown = JSON.parse(JSON.stringify({ items: some, computed }));
  const raw = performance.now() - copied;
  if (copy === null || !computed.some((one) => one.ready)) throw new Error('nothing was computed');
  return { ours, raw };
}

const heapNow = (): number => {
  setFlagsFromString('--expose-gc');
  (runInNewContext('gc') as () => void)(); // the collector, which the flag brings into every new context
  return process.memoryUsage().heapUsed;
};

/**
 * P3: computing and checking listings, against copying the same items and results by JSON: by turns, portion by
 * portion, medians over all portions. What is kept from one portion to the next would show in the heap.
 */
export function telling(items: Item[], all: LoadedAccount[], count: number): Figure[] {
  const accounts = marketsTold.flatMap((market) => all.find((one) => one.row.market === market) ?? []);
  if (accounts.length !== marketsTold.length) throw new Error('not all marketplaces are connected');
  for (const some of portions(items, 3 * portion)) pair(some, accounts);
  const before = heapNow();
  const pairs: Pair[] = [];
  for (const some of portions(items, count)) pairs.push(pair(some, accounts));
  const kept = (heapNow() - before) / 2 ** 20;
  const ours = median(pairs.map((one) => one.ours));
  const raw = median(pairs.map((one) => one.raw));
  const tenth = (value: number) => Math.round(value * 10) / 10;
  const name = `P3 ${count.toLocaleString('en')} items × ${accounts.length}`;
  return [
    {
      id: `${name}: a thousand of them`,
      value: tenth(ours),
      unit: 'ms',
      baseline: tenth(raw),
      ratio: Math.round((ours / raw) * 100) / 100,
      goal: '≤ 3 ×',
      ok: ours / raw <= 3,
    },
    {
      id: `${name}: memory kept`,
      value: tenth(kept),
      unit: 'MB',
      baseline: tenth(before / 2 ** 20),
      ratio: null,
      goal: '≤ 30 MB',
      ok: kept <= 30,
    },
  ];
}
