import { eq, ne } from 'drizzle-orm';
import { elsewhere } from '../../../demo/elsewhere';
import { listElsewhere } from '../../../demo/list-elsewhere';
import { closeDatabase, database } from '../../../src/db/client';
import { foundListing, gathering } from '../../../src/db/schema';
import type { FoundPage } from '../../../src/services/gathering/find-found';
import { forgetGatherings } from '../../../src/services/tasks/forget-gatherings';
import { bringIn, decided, settled, survey } from '../../support/gathering';
import { comesTo, publishItems, sheet } from '../../support/items';
import { accountOf, accounts as allAccounts, call, control, marketListings, stack, until } from '../../support/stack';

const names: Record<string, string> = { hallowick: 'Hallowick', shopfront: 'Shopfront' };
// Other pieces each time: what was brought in before is in.
const first = 100_000 + (Math.floor(Date.now() / 1_000) % 80_000) * 10;
const listed = elsewhere(26, { markets: ['hallowick', 'shopfront'], seed: 5, first });
let numbers: string[] = [];
const accounts = new Map<string, number>();

beforeAll(async () => {
  for (const market of ['hallowick', 'shopfront']) accounts.set(market, await accountOf(names[market] ?? ''));
  numbers = await listElsewhere(stack.markets, 'grainhouse', listed);
}, 120_000);

afterAll(closeDatabase);

/** Numbers are a marketplace's own: two of them may use the same one. */
const ours = (market: string, number: string) =>
  listed.some((one, at) => one.market === market && numbers[at] === number);
const thingOf = (key: string): number | undefined => {
  const [, account, ...rest] = key.split(':');
  const market = [...accounts].find(([, id]) => String(id) === account)?.[0];
  return listed.find((one, at) => one.market === market && numbers[at] === rest.join(':'))?.thing;
};
const isOne = (a: string, b: string) => thingOf(a) !== undefined && thingOf(a) === thingOf(b);

test('what is live elsewhere comes in, joined where it is one thing, and nothing that is live changes', async () => {
  const found: number[] = [];
  for (const [market, account] of accounts) {
    const page = await survey(account);
    const own = page.found.filter((one) => ours(market, one.remoteId));
    expect(own).toHaveLength(listed.filter((one) => one.market === market).length);
    expect(own.every((one) => one.item === null && one.state === 'live' && one.title !== '')).toBe(true);
    expect(page.in).toBeGreaterThan(0);
    found.push(...own.map((one) => one.id));
  }
  const before = new Map<string, unknown>();
  for (const market of accounts.keys())
    for (const one of await marketListings(market)) if (ours(market, one.id)) before.set(`${market} ${one.id}`, one);

  // Two at the same moment: each listing goes with one of them.
  const begun = (await Promise.all([bringIn(found), bringIn(found)])).filter((one) => one !== null);
  expect(begun).toHaveLength(1);
  const [id = 0] = begun;
  const { view } = await decided(id, isOne);
  expect(view).toMatchObject({ state: 'done', chosen: listed.length, broughtIn: listed.length, faults: [], joined: 0 });
  expect(view.made).toBe(new Set(listed.map((one) => one.thing)).size);

  for (const one of view.items) {
    const item = await sheet(one.itemId);
    const links = item.columns.filter((column) => one.accounts.includes(column.name));
    // Live, and with nothing that would have to be sent.
    expect([one.title, links.map((column) => column.state)]).toEqual([one.title, one.accounts.map(() => 'live')]);
    expect(item.item.photos.length).toBeGreaterThan(0);
  }
  for (const market of accounts.keys())
    for (const one of await marketListings(market))
      if (ours(market, one.id)) expect(one).toEqual(before.get(`${market} ${one.id}`));
}, 240_000);

test('bringing the same in again makes nothing twice', async () => {
  for (const [market, account] of accounts) {
    const page = await survey(account);
    expect(page.found.filter((one) => ours(market, one.remoteId))).toEqual([]);
  }
  const account = accounts.get('hallowick') ?? 0;
  const { body } = await call<FoundPage>('GET', `/found?account=${account}&only=in&limit=100`);
  const ids = body.found.filter((one) => ours('hallowick', one.remoteId)).map((one) => one.id);
  expect(ids.length).toBeGreaterThan(0);
  expect(await bringIn(ids)).toBeNull();
});

test('a marketplace that fails in the middle goes on where it was, and nothing is read twice or left out', async () => {
  const account = accounts.get('hallowick') ?? 0;
  const more = elsewhere(11, { markets: ['hallowick'], seed: 8, first: first + 5_000_000 });
  const there = await listElsewhere(stack.markets, 'grainhouse', more);
  await control('hallowick', 'odd', { mostAtOnce: 20 });
  await control('hallowick', 'fault', { kind: 'error-500', times: 1, method: 'GET', path: '/listings' });
  try {
    await call('POST', `/accounts/${account}/found`);
    await control('hallowick', 'fault', { kind: 'drop-before', times: 1, method: 'GET', path: '/listings' });
    await control('hallowick', 'fault', { kind: 'cut-short', times: 1, method: 'GET', path: '/listings' });
    const page = await until(
      async () => (await call<FoundPage>('GET', `/found?account=${account}&only=open&limit=100`)).body,
      (one) => one.reading === null,
      90_000,
    );
    expect(
      page.found
        .map((one) => one.remoteId)
        .filter((one) => there.includes(one))
        .sort(),
    ).toEqual([...there].sort());
    const all = (await marketListings('hallowick')).filter((one) => one.seller === 'grainhouse');
    expect(page.read).toBe(all.length);
    const id = await bringIn(page.found.filter((one) => there.includes(one.remoteId)).map((one) => one.id));
    const { view } = await decided(id ?? 0, () => false);
    expect(view).toMatchObject({ state: 'done', broughtIn: 11 });
  } finally {
    await control('hallowick', 'calm');
  }
}, 180_000);

test('what was decided is not asked again, and what is put off keeps waiting', async () => {
  const account = accounts.get('shopfront') ?? 0;
  // The same thing under another name and without a number, beside one that is in.
  const [base] = elsewhere(1, { markets: ['shopfront'], seed: 12, first: first + 6_000_000 });
  if (!base) throw new Error('nothing to list');
  const title = `Vexulnis lantern ${first}`;
  const one = {
    ...base,
    hasNumber: true,
    item: { ...base.item, title, condition: 'new' as const, conditionNote: '', sku: `W-${first}` },
  };
  const [number = ''] = await listElsewhere(stack.markets, 'grainhouse', [one]);
  const fromFirst = await survey(account);
  const id = await bringIn(fromFirst.found.filter((row) => row.remoteId === number).map((row) => row.id));
  await decided(id ?? 0, () => false);

  const hallowick = accounts.get('hallowick') ?? 0;
  const twin = { ...one, market: 'hallowick', thing: one.thing + 1, hasNumber: false };
  const [other = ''] = await listElsewhere(stack.markets, 'grainhouse', [twin]);
  const page = await survey(hallowick);
  const chosen = page.found.filter((row) => row.remoteId === other).map((row) => row.id);
  const { body: told } = await call<{ matches: { id: number; match: { why: string[] } }[] }>(
    'GET',
    `/found/matches?account=${hallowick}&ids=${chosen.join()}`,
  );
  expect(told.matches.map((row) => row.match.why.length > 0)).toEqual([true]);
  const second = (await bringIn(chosen)) ?? 0;
  const asking = await settled(second);
  expect(asking).toMatchObject({ state: 'asking', broughtIn: 0 });
  for (const question of asking.questions) await call('PUT', `/match-questions/${question.id}`, { answer: 'later' });
  await call('POST', `/gatherings/${second}/go-on`);
  expect(await settled(second)).toMatchObject({ state: 'asking', broughtIn: 0, made: 0 });
  const { view } = await decided(second, () => false);
  expect(view).toMatchObject({ state: 'done', broughtIn: 1, made: 1, joined: 0 });

  // Its link is cut, and it is brought in anew: into the item that was made of it, without a question.
  const { body: links } = await call<{ links: { listingId: number; remoteId: string }[] }>(
    'GET',
    `/links?account=${hallowick}&q=${other}`,
  );
  const link = links.links.find((row) => row.remoteId === other);
  await call('POST', '/links/cut', { listings: [link?.listingId] });
  const again = await survey(hallowick);
  const third = (await bringIn(again.found.filter((row) => row.remoteId === other).map((row) => row.id))) ?? 0;
  const { view: last, asked } = await decided(third, () => false);
  expect(asked).toBe(0);
  expect(last).toMatchObject({ state: 'done', broughtIn: 1, made: 0, joined: 1 });
  expect(last.items[0]?.itemId).toBe(view.items[0]?.itemId);
}, 180_000);

type Linked = { listingId: number; itemId: number; remoteId: string; state: string };

/** A live listing of an account with its link; one is put up again where others have ended them all. */
async function liveLink(account: number): Promise<Linked> {
  const links = async () => {
    const all: Linked[] = [];
    for (let after: number | null = 0; after !== null; ) {
      const { body }: { body: { links: Linked[]; next: number | null } } = await call(
        'GET',
        `/links?account=${account}&after=${after}`,
      );
      all.push(...body.links);
      after = body.next;
    }
    return all;
  };
  const all = await links();
  const live = all.find((one) => one.state === 'live');
  if (live) return live;
  const states = JSON.stringify(all.map((one) => one.state));
  for (const { itemId } of all) {
    await publishItems([itemId], [account]);
    const column = await comesTo(itemId, account, 'live', 30_000);
    if (column?.state === 'live') break;
  }
  const again = (await links()).find((one) => one.state === 'live');
  if (!again) throw new Error(`account ${account} has nothing live: ${states}`);
  return again;
}

test('a listing of every marketplace whose link was cut comes back into its item, and stays what it is there', async () => {
  const accountOfMarket = new Map((await allAccounts()).reverse().map((one) => [one.market, one]));
  expect(accountOfMarket.size).toBe(11);
  for (const { id: account, market, name } of accountOfMarket.values()) {
    const link = await liveLink(account);
    const before = (await marketListings(market)).find((one) => one.id === link.remoteId);
    await call('POST', '/links/cut', { listings: [link.listingId] });
    const page = await survey(account);
    const row = page.found.find((one) => one.remoteId === link.remoteId);
    const id = await bringIn(row ? [row.id] : []);
    const { view } = await decided(id ?? 0, (a, b) => [a, b].includes(`item:${link.itemId}`));
    expect([name, view.items.map((one) => one.itemId)]).toEqual([name, [link.itemId]]);
    const column = (await sheet(link.itemId)).columns.find((one) => one.accountId === account);
    expect([name, column?.state]).toEqual([name, 'live']);
    expect((await marketListings(market)).find((one) => one.id === link.remoteId)).toEqual(before);
  }
}, 240_000);

test('a text that another program wrote with markup of its own stays what it is there', async () => {
  const account = accounts.get('hallowick') ?? 0;
  const [base] = elsewhere(1, { markets: ['hallowick'], seed: 12, first: first + 8_000_000 });
  if (!base) throw new Error('nothing to list');
  const description = '<div class="shop"><h1>Lantern</h1><p style="color:red">Of <font>brass</font>.</p></div>';
  const one = {
    ...base,
    hasNumber: true,
    item: { ...base.item, title: `Marked up ${first}`, sku: `M-${first}`, description },
  };
  const [number = ''] = await listElsewhere(stack.markets, 'grainhouse', [one]);
  const page = await survey(account);
  const { view } = await decided(
    (await bringIn(page.found.filter((row) => row.remoteId === number).map((row) => row.id))) ?? 0,
    () => false,
  );
  const { columns } = await sheet(view.items[0]?.itemId ?? 0);
  expect(columns.find((column) => column.accountId === account)?.state).toBe('live');
  const there = (await marketListings('hallowick')).find((row) => row.id === number);
  expect(JSON.stringify(there)).toContain('<div class');
});

test('what ended or was sold there becomes a draft with what it said, and offers nothing that is gone', async () => {
  const account = accounts.get('hallowick') ?? 0;
  const [base] = elsewhere(1, { markets: ['hallowick'], seed: 12, first: first + 7_000_000 });
  if (!base) throw new Error('nothing to list');
  const named = (name: string) => ({
    ...base,
    item: { ...base.item, title: `${name} lantern ${first}`, sku: `${name}-${first}` },
  });
  const some = [named('Ended'), named('Sold')].map((one) => ({ ...one, hasNumber: true }));
  const [ended = '', sold = ''] = await listElsewhere(stack.markets, 'grainhouse', some);
  await control('hallowick', 'remove', { listing: ended });
  await control('hallowick', 'buy', { listing: sold, quantity: base.item.quantity });
  const page = await survey(account);
  const own = page.found.filter((one) => one.remoteId === ended || one.remoteId === sold);
  expect(own.map((one) => one.state).sort()).toEqual(['ended', 'sold']);
  const { view } = await decided((await bringIn(own.map((one) => one.id))) ?? 0, () => false);
  expect(view).toMatchObject({ state: 'done', broughtIn: 2, faults: [] });
  for (const one of view.items) {
    const { item, columns } = await sheet(one.itemId);
    const column = columns.find((other) => other.accountId === account);
    expect([item.title, column?.state]).toEqual([item.title, 'draft']);
    expect(item.quantity).toBe(item.title.startsWith('Sold') ? 0 : base.item.quantity);
  }
});

test('what does not stand there any more when it is read anew is not brought in, and said; old readings are forgotten', async () => {
  const account = accounts.get('shopfront') ?? 0;
  const long = new Date(Date.now() - 10 * 60_000);
  const [{ insertId }] = await database()
    .insert(foundListing)
    .values({
      accountId: account,
      remoteId: `gone-${first}`,
      url: `${stack.markets}/shopfront/listing/gone`,
      state: 'live',
      sku: '',
      title: 'A lantern that was sold meanwhile',
      section: '',
      price: 1_000,
      quantity: 1,
      content: { title: 'A lantern that was sold meanwhile', price: 1_000, quantity: 1 },
      photos: [],
      facts: { called: '', renewsAt: null, endsAt: null, offersOpen: 0, bids: 0, highestBid: null },
      madeAt: long,
      readAt: long,
    });
  const id = (await bringIn([insertId])) ?? 0;
  const view = await settled(id);
  expect(view).toMatchObject({ state: 'done', chosen: 1, broughtIn: 0, made: 0 });
  expect(view.faults.map((one) => one.said)).toEqual(['It does not stand there any more']);

  // Long afterwards nothing of it is kept, and what was chosen lately is.
  const later = new Date(Date.now() + 91 * 86_400_000);
  await database()
    .update(gathering)
    .set({ at: new Date(later.getTime() - 5 * 86_400_000) })
    .where(ne(gathering.id, id));
  await forgetGatherings(later, () => false);
  const left = await database().select({ id: gathering.id }).from(gathering);
  expect(left.map((one) => one.id)).not.toContain(id);
  expect(left.length).toBeGreaterThan(0);
  expect(await database().select().from(foundListing).where(eq(foundListing.id, insertId))).toEqual([]);
});
