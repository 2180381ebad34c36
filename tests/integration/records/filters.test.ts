import { inArray, like, sql } from 'drizzle-orm';
import fc from 'fast-check';
import {
  type Condition,
  type Filter,
  filterOperators,
  type ListingPart,
  matches,
  type Subject,
} from '../../../src/core/filter';
import { conditionIds, emptyItemFields, type ItemPatch } from '../../../src/core/item';
import { homeCurrency } from '../../../src/core/measure';
import { knotStates, remoteStates, wantedStates } from '../../../src/core/sync/state';
import { closeDatabase, type Db } from '../../../src/db/client';
import { ownTransaction } from '../../../src/db/raw';
import { rowsOf } from '../../../src/db/rows';
import { item, job, listing, listingNet, sale } from '../../../src/db/schema';
import { today } from '../../../src/services/records/accounts/today';
import { filterTerm } from '../../../src/services/records/items/filter-sql';
import { loadItems } from '../../../src/services/records/items/load-items';
import { call } from '../../support/stack';

afterAll(closeDatabase);
const count = 500;

/** Few words, so that filters find some and not all; with signs that mean something in SQL, in JSON and in a pattern. */
const words = ['Brask', 'brask K-2', 'BRÄSK', 'bräsk', '100 %', 'a_b', 'a\\b', "o'clock", 'x "y"', '', 'zoom', 'Zoom '];
const word = fc.constantFrom(...words);
const number = fc.constantFrom(0, 1, 5, 990, 14_900, 250_000);
const day = fc.constantFrom('2020-01-31', '2026-11-01', '2027-05-05');
const list = fc.uniqueArray(word.filter(Boolean), { maxLength: 3 });

const anyItem: fc.Arbitrary<ItemPatch> = fc.record(
  {
    title: word,
    brand: word,
    category: fc.constantFrom('', 'cameras', 'cameras/slr', 'camerasets', 'film/roll'),
    condition: fc.option(fc.constantFrom(...conditionIds), { nil: null }),
    notes: word,
    location: fc.constantFrom('', 'B1', 'B12', 'C%'),
    countryOfOrigin: word,
    keywords: list,
    highlights: list,
    attributes: fc.dictionary(fc.constantFrom('Colour', 'x "y"', 'a\\b'), word.filter(Boolean), { maxKeys: 2 }),
    price: fc.option(number, { nil: null }),
    cost: fc.option(number, { nil: null }),
    weightGrams: fc.option(number, { nil: null }),
    boughtOn: fc.option(day, { nil: null }),
    own: fc.record(
      { shelf: word, count: number, marks: list, seen: day, nothing: fc.constant(null) },
      { requiredKeys: [] },
    ),
  },
  { requiredKeys: [] },
);

const fieldNames = [
  'title',
  'brand',
  'category',
  'condition',
  'notes',
  'location',
  'countryOfOrigin',
  'keywords',
  'highlights',
  'attributes.Colour',
  'attributes.x "y"',
  'attributes.a\\b',
  'attributes',
  'price',
  'cost',
  'quantity',
  'weightGrams',
  'boughtOn',
  'own.shelf',
  'own.count',
  'own.marks',
  'own.seen',
  'own.nothing',
  'own.unknown',
  'own',
  'photoCount',
  'titleLength',
  'unsoldDays',
  'photos',
  'variations',
  'updatedAt',
  'standing',
  'nothing',
];
const value = fc.oneof(
  word,
  fc.constantFrom('b', 'K', '%', '_', '\\', '"', 'CAMERAS/', 'camera', 'b1'),
  number,
  day,
  fc.constantFrom<string | number | null>(...conditionIds, null),
  fc.array(fc.oneof(word, number), { maxLength: 3 }),
  fc.tuple(fc.option(number, { nil: null }), fc.option(number, { nil: null })),
  fc.tuple(fc.option(day, { nil: null }), fc.option(day, { nil: null })),
);
const condition: fc.Arbitrary<Condition> = fc.record({
  field: fc.constantFrom(...fieldNames),
  op: fc.constantFrom(...filterOperators),
  value,
});
let accounts: number[] = [];
const there = fc.record(
  {
    account: fc.integer({ min: 0, max: 2 }),
    state: fc.constantFrom(...knotStates),
    more: fc.constantFrom<Omit<ListingPart, 'account' | 'state'>>(
      { unsent: true },
      { drifted: true },
      { cause: 'Too dear' },
      { liveForDays: 30 },
      { unsent: true, liveForDays: 400 },
      { netBelow: 500 },
      { netBelow: -100, drifted: true },
    ),
  },
  { requiredKeys: [] },
);
const { filter } = fc.letrec<{ filter: Filter }>((tie) => ({
  filter: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    condition as fc.Arbitrary<Filter>,
    there.map(({ account, state, more }) => ({
      listing: {
        ...(state ? { state } : {}),
        ...(account === undefined ? {} : { account: accounts[account] ?? 0 }),
        ...more,
      },
    })),
    fc
      .constantFrom('intake', 'drafts', 'ready', 'live', 'changed', 'drift', 'attention')
      .map((stage) => ({ stage }) as Filter),
    fc.array(tie('filter'), { maxLength: 3 }).map((all) => ({ all })),
    fc.array(tie('filter'), { maxLength: 3 }).map((any) => ({ any })),
  ),
}));

/** Five hundred items as people leave them, their listings in every state. */
async function fill(db: Db): Promise<Subject[]> {
  const at = new Date();
  // As they come over HTTP: plain objects.
  const patches = JSON.parse(JSON.stringify(fc.sample(anyItem, { numRuns: count, seed: 26_112_026 }))) as ItemPatch[];
  const tag = `F${at.getTime().toString(36)}`;
  await db.insert(item).values(
    patches.map((fields, index) => ({
      ...emptyItemFields,
      ...fields,
      sku: `${tag}-${index}`,
      currency: homeCurrency,
      quantity: index % 4,
      createdAt: at,
      updatedAt: at,
    })),
  );
  const made = await db
    .select({ id: item.id })
    .from(item)
    .where(like(item.sku, `${tag}-%`))
    .orderBy(item.id);
  const ids = made.map((one) => one.id);
  await db.insert(listing).values(
    ids.flatMap((itemId) =>
      accounts.slice(0, 3).map((accountId, index) => ({
        itemId,
        accountId,
        overrides: {},
        wanted: 'draft' as const,
        blocking: (itemId + index) % 2,
      })),
    ),
  );
  const rows = await db
    .select({ id: listing.id, accountId: listing.accountId })
    .from(listing)
    .where(inArray(listing.itemId, ids));
  const causes = new Map<number, string>();
  const nets = new Map<number, number>();
  for (const [at, { id, accountId }] of rows.entries()) {
    const liveSince = new Date(Date.now() - (at % 5) * 20 * 86_400_000);
    await db.execute(
      sql`update listing set wanted = ${wantedStates[at % wantedStates.length]}, remote = ${remoteStates[(at * 7) % remoteStates.length]}, content_dirty = ${at % 5 < 2}, live_since = ${at % 7 ? liveSince : null}, drifted = ${at % 3 === 0}, busy = ${at % 11 === 0}, problem = ${at % 13 === 0} where id = ${id}`,
    );
    if (at % 4) {
      const net = ((at * 137) % 2_000) - 800;
      nets.set(id, net);
      await db.insert(listingNet).values({ listingId: id, itemVersion: 1, price: 1, stamp: '', net });
    }
    if (at % 13) continue;
    const message = at % 26 ? 'Too dear' : 'Too long';
    causes.set(id, message);
    await db.insert(job).values({
      listingId: id,
      accountId,
      priority: 5,
      state: 'failed',
      message,
      dueAt: at % 2 ? new Date() : liveSince,
      createdAt: new Date(),
    });
  }
  const soldAt = new Date(Date.now() - 9 * 86_400_000);
  await db.insert(sale).values(
    ids
      .filter((id) => id % 3 === 0)
      .map((itemId) => ({
        orderId: `${tag}-${itemId}`,
        itemId,
        sku: '',
        title: '',
        quantity: 1,
        unitPrice: 1,
        total: 1,
        fee: 0,
        currency: homeCurrency,
        soldAt,
        state: itemId % 2 ? ('paid' as const) : ('cancelled' as const),
      })),
  );
  const items = await loadItems(db, ids);
  const listings = await db.select().from(listing).where(inArray(listing.itemId, ids));
  const times = await db.select().from(item).where(inArray(item.id, ids));
  return items.map((one) => {
    const row = times.find((other) => other.id === one.id);
    return {
      item: one,
      listings: listings
        .filter((other) => other.itemId === one.id)
        .map(({ id, accountId, state, blocking, drifted, dirty, remote, liveSince }) => ({
          accountId,
          state: state ?? 'none',
          blocking,
          drifted,
          dirty: Boolean(dirty),
          isLive: remote === 'live',
          liveSince: liveSince?.toISOString(),
          cause: causes.get(id),
          net: nets.get(id),
        })),
      soldAt: one.id % 6 === 3 ? soldAt.toISOString() : undefined,
      updatedAt: row?.updatedAt.toISOString(),
      createdAt: row?.createdAt.toISOString(),
      today: today(),
    };
  });
}

test('a filter finds in the database just what it means in the core: 500 items, 600 filters', async () => {
  accounts = (await call<{ accounts: { id: number }[] }>('GET', '/accounts')).body.accounts.map((one) => one.id);
  let some = 0;
  const work = ownTransaction(async (db) => {
    const subjects = await fill(db);
    const ids = subjects.map((one) => one.item.id);
    for (const one of fc.sample(filter, { numRuns: 600, seed: 11 })) {
      const found = rowsOf<{ id: number }>(
        await db.execute(sql`select i.id from item i where i.id in ${ids} and ${filterTerm(one)} order by i.id`),
      ).map((row) => row.id);
      const meant = subjects.filter((subject) => matches(one, subject)).map((subject) => subject.item.id);
      if (found.join() !== meant.join()) {
        const odd = subjects.find(({ item: { id } }) => found.includes(id) !== meant.includes(id));
        throw new Error(`${JSON.stringify(one)}: found ${found.length}, meant ${meant.length}; ${JSON.stringify(odd)}`);
      }
      if (found.length && found.length < count) some++;
    }
    throw new Error('looked at');
  }, 1);
  await expect(work).rejects.toThrow('looked at');
  // Filters that find nothing, or everything, would prove little.
  expect(some).toBeGreaterThan(120);
});

test('any filter can stand in the address, and one that cannot be read is told', async () => {
  const where = (one: unknown) =>
    `/items/count?where=${encodeURIComponent(typeof one === 'string' ? one : JSON.stringify(one))}`;
  const found = await call<{ count: number }>(
    'GET',
    where({
      any: [
        { field: 'category', op: 'begins', value: 'film' },
        { field: 'price', op: 'between', value: [20_000, null] },
      ],
    }),
  );
  expect(found.status).toBe(200);
  expect(found.body.count).toBeGreaterThan(0);
  for (const wrong of ['{', '{"field":"x"}', '{"all":[{"all":[{"all":[{"all":[{"all":[{"all":[{"all":[]}]}]}]}]}]}]}'])
    expect((await call('GET', where(wrong))).status).toBe(422);
});
