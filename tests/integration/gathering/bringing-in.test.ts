import { elsewhere } from '../../../demo/elsewhere';
import { listElsewhere } from '../../../demo/list-elsewhere';
import type { FoundPage } from '../../../src/services/gathering/find-found';
import type { GatheringView } from '../../../src/services/gathering/find-gathering';
import { sheet } from '../../support/items';
import { accountOf, call, marketListings, stack, until } from '../../support/stack';

const names: Record<string, string> = { hallowick: 'Hallowick', shopfront: 'Shopfront' };
const listed = elsewhere(14, { markets: ['hallowick', 'shopfront'], seed: 5, first: Number(process.env.FIRST ?? 400) });
let numbers: string[] = [];
const accounts = new Map<string, number>();

const survey = async (account: number): Promise<FoundPage> => {
  await call('POST', `/accounts/${account}/found`);
  return until(
    async () => (await call<FoundPage>('GET', `/found?account=${account}&only=open&limit=100`)).body,
    (page) => page.reading === null,
  );
};
const view = async (id: number) => (await call<GatheringView>('GET', `/gatherings/${id}`)).body;
const settled = (id: number) =>
  until(
    () => view(id),
    (one) => one.state !== 'working',
    90_000,
  );

beforeAll(async () => {
  for (const market of ['hallowick', 'shopfront']) accounts.set(market, await accountOf(names[market] ?? ''));
  numbers = await listElsewhere(stack.markets, 'grainhouse', listed);
}, 120_000);

/** Numbers are a marketplace's own: two of them may use the same one. */
const ours = (market: string, number: string) =>
  listed.some((one, at) => one.market === market && numbers[at] === number);
const thingOf = (key: string): number | undefined => {
  const [, account, ...rest] = key.split(':');
  const market = [...accounts].find(([, id]) => String(id) === account)?.[0];
  return listed.find((one, at) => one.market === market && numbers[at] === rest.join(':'))?.thing;
};

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

  const { body: begun } = await call<{ id: number; chosen: number }>('POST', '/gatherings', {
    choices: [{ ids: found }],
    mode: 'at-once',
  });
  expect(begun.chosen).toBe(listed.length);
  let now = await settled(begun.id);
  // What is unsure waits, side by side with what speaks for it; whoever knows the things says it.
  for (let round = 0; round < 4 && now.state === 'asking'; round++) {
    expect(now.questions.every((one) => one.evidence.length > 0)).toBe(true);
    for (const { id, a, b } of now.questions) {
      const isSame = thingOf(a.key) !== undefined && thingOf(a.key) === thingOf(b.key);
      await call('PUT', `/match-questions/${id}`, { answer: isSame ? 'same' : 'different' });
    }
    await call('POST', `/gatherings/${begun.id}/go-on`);
    now = await settled(begun.id);
  }
  expect(now).toMatchObject({ state: 'done', broughtIn: listed.length, faults: [], joined: 0 });
  expect(now.made).toBe(new Set(listed.map((one) => one.thing)).size);

  for (const one of now.items) {
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
  const again = await call('POST', '/gatherings', { choices: [{ ids }], mode: 'at-once' });
  expect(again.status).toBe(422);
});
