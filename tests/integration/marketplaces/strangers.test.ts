import { randomUUID } from 'node:crypto';
import { allowAccess } from '../../../demo/marketplaces';
import { connectorOf, connectors } from '../../../src/markets';
import { jpeg } from '../../support/items';
import { openSeller } from '../../support/sellers';
import { control, marketListings, stack, theirTime, until } from '../../support/stack';

const names = connectors.map((one) => one.market);
const url = (path: string) => `${stack.markets}${path}`;
const text = async (path: string) => (await fetch(url(path))).text();

describe.each(names)('%s', (market) => {
  test('shows a listing to buyers, with its price, and a window to search in', async () => {
    const live = (await marketListings(market)).filter((one) => one.state === 'live');
    expect(live.length).toBeGreaterThan(0);
    const [one] = live;
    const page = await text(`/${market}/listing/${one?.id}`);
    expect(page).toContain(`Listing ${one?.id}`);
    if (one?.summary.price) expect(page).toContain((one.summary.price / 100).toFixed(2));
    const shown = await text(`/${market}/`);
    expect(shown).toContain('On sale');
    expect(await text(`/${market}/?q=${encodeURIComponent('nothing of this name anywhere')}`)).toContain(
      'Nothing is on sale',
    );
    expect((await fetch(url(`/${market}/listing/999999999`))).status).toBe(404);
  });

  test('describes its interface, and answers nobody who does not say who asks', async () => {
    const paper = (await (await fetch(url(`/${market}/api/openapi.json`))).json()) as {
      openapi: string;
      paths: Record<string, unknown>;
    };
    expect(paper.openapi).toBe('3.1.0');
    expect(Object.keys(paper.paths)).toEqual(expect.arrayContaining(['/rules', '/me', '/orders']));
    for (const path of ['/rules', '/me', '/orders']) {
      const answer = await fetch(url(`/${market}/api${path}`), {
        headers: { 'x-api-key': 'guess', authorization: 'Bearer guess' },
      });
      expect(answer.status).toBe(401);
    }
  });

  test('tells its rules and who asks', async () => {
    const session = await openSeller(market, 'stranger');
    const connector = connectorOf(market);
    const rules = await connector.readRules(session);
    expect(rules).toMatchObject({ market, name: connector.name });
    expect(await connector.readAccount(session)).toMatchObject({ remoteName: 'stranger' });
    expect(await connector.findLive(session, 'nothing of this number')).toEqual([]);
    const { orders, serverTime } = await connector.ordersSince(session, new Date(0), null);
    expect(orders).toEqual([]);
    expect(Math.abs(serverTime.getTime() - (await theirTime()))).toBeLessThan(5_000);
  });

  test('takes a JPEG and nothing else for a picture', async () => {
    const connector = connectorOf(market);
    const session = await openSeller(market, 'stranger');
    const bytes = await jpeg(700);
    const first = await connector.uploadPhoto(session, bytes);
    expect(await connector.uploadPhoto(session, bytes)).toBe(first);
    const page = await fetch(url(`/${market}/photo/${first}.jpg`));
    expect(page.headers.get('content-type')).toBe('image/jpeg');
    await expect(connector.uploadPhoto(session, Buffer.from('GIF89a'.padEnd(400, 'x')))).rejects.toMatchObject({
      code: 'market-refused',
    });
    expect((await fetch(url(`/${market}/photo/..%2F..%2Fstore.jpg`))).status).toBe(404);
  });

  test('slows those who ask too often, and says how long to wait', async () => {
    const session = await openSeller(market, `busy-${randomUUID().slice(0, 8)}`, { perMinute: 60 });
    const connector = connectorOf(market);
    const answers = await Promise.allSettled(Array.from({ length: 12 }, () => connector.readAccount(session)));
    const refused = answers.filter((one) => one.status === 'rejected');
    expect(refused.length).toBeGreaterThan(0);
    for (const one of refused)
      expect(one.reason).toMatchObject({ code: 'market-busy', facts: { retryAfterMs: expect.any(Number) } });
  });
});

describe('access by consent', () => {
  const query = (part: Record<string, string> = {}) =>
    new URLSearchParams({
      response_type: 'code',
      client_id: 'test',
      redirect_uri: 'http://127.0.0.1:1/back',
      state: 'state-1',
      code_challenge: 'x'.repeat(43),
      code_challenge_method: 'S256',
      ...part,
    }).toString();
  const oauth = connectors.filter((one) => one.access === 'oauth').map((one) => one.market);

  test.each(oauth)('%s gives a code for the right proof only, and only once', async (market) => {
    const back = await allowAccess(url(`/${market}/authorize?${query()}`), 'grainhouse');
    expect(back).toMatchObject({ state: 'state-1' });
    const trade = (verifier: string) =>
      fetch(url(`/${market}/token`), {
        method: 'POST',
        body: new URLSearchParams({
          grant_type: 'authorization_code',
          code: back.code ?? '',
          redirect_uri: 'http://127.0.0.1:1/back',
          code_verifier: verifier,
        }),
      });
    expect((await trade('wrong')).status).toBe(400);
    expect((await trade('wrong again')).status).toBe(400);
  });

  test.each([
    ['a redirect to elsewhere', { redirect_uri: 'https://elsewhere.example/back' }],
    ['no proof', { code_challenge: '' }],
    ['a plain proof', { code_challenge_method: 'plain' }],
    ['another kind of answer', { response_type: 'token' }],
  ])('%s is not taken', async (_what, part) =>
    expect((await fetch(url(`/hallowick/authorize?${query(part)}`))).status).toBe(400),
  );

  test('a wrong password gives nothing away', async () => {
    const answer = await fetch(url('/pippet/account/key'), {
      method: 'POST',
      body: new URLSearchParams({ seller: 'grainhouse', password: 'guess', answer: 'allow' }),
    });
    expect(answer.status).toBe(401);
    expect(await answer.text()).not.toContain('api-key');
  });
});

describe('lots and feeds', () => {
  const lot = (count: number) =>
    Array.from({ length: count }, (_, index) => ({
      op: 'add',
      reference: `B-${index}`,
      entry: 'LB4014',
      finish: 'plain',
      condition: 'used',
      cents: 900,
      quantity: 1,
    }));

  test('a batch of the size that is borne is answered line by line', async () => {
    const session = await openSeller('lotbarn', `batch-${randomUUID().slice(0, 8)}`);
    const answers = (await session.send({
      method: 'POST',
      path: '/batches',
      lines: [...lot(30), { op: 'add', entry: 'nothing' }, { op: 'dance' }],
    })) as { ok: boolean }[];
    expect(answers).toHaveLength(32);
    expect(answers.map((one) => one.ok)).toEqual([...Array(30).fill(true), false, false]);
  });

  test('one line too many is refused whole; beyond what it bears it breaks off in the middle', async () => {
    const name = `large-${randomUUID().slice(0, 8)}`;
    const session = await openSeller('lotbarn', name);
    await expect(session.send({ method: 'POST', path: '/batches', lines: lot(1_501) })).rejects.toMatchObject({
      code: 'market-refused',
    });
    await expect(session.send({ method: 'POST', path: '/batches', lines: lot(1_250) })).rejects.toMatchObject({
      code: 'market-unreachable',
    });
    // Who waits no longer is not heard of, and what it bears is done all the same.
    const done = await until(
      async () => (await marketListings('lotbarn')).filter((one) => one.seller === name).length,
      (count) => count >= 1_200,
    );
    expect(done).toBe(1_200);
  }, 60_000);

  test('a feed is answered later, row by row, and the same key finds the same feed', async () => {
    const session = await openSeller('crateway', `feed-${randomUUID().slice(0, 8)}`);
    const line = (product: string) => ({
      kind: 'new',
      offer: { number: 'F-1', product, condition: 'used', cents: 900, quantity: 1, ships: 'self', tax: 'margin' },
    });
    const body = {
      lines: [{ ...line('CW4014'), offer: { ...line('CW4014').offer, condition: 'good' } }, line('nothing')],
    };
    const send = () =>
      session.send({ method: 'POST', path: '/feeds', body, idempotencyKey: 'same' }) as Promise<{
        feed: string;
        state: string;
      }>;
    const first = await send();
    expect(first.state).toBe('waiting');
    expect((await send()).feed).toBe(first.feed);
    type Feed = { state: string; rows: { ok: boolean; problems: { pointer: string }[] }[] };
    const look = () => session.send({ method: 'GET', path: `/feeds/${first.feed}` }) as Promise<Feed>;
    let feed = await look();
    for (let tries = 0; feed.state !== 'done' && tries < 50; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 60));
      feed = await look();
    }
    expect(feed.rows.map((row) => row.ok)).toEqual([true, false]);
    expect(feed.rows[1]?.problems.map((one) => one.pointer)).toContain('/product');
  });
});

test('carriers and rates answer without anybody having to say who he is', async () => {
  const carriers = (await (await fetch(url('/carriers/api/carriers'))).json()) as { carriers: { id: string }[] };
  expect(carriers.carriers.map((one) => one.id)).toEqual(['postline', 'haulbee']);
  const quote = (await (
    await fetch(url('/carriers/api/quote?grams=800&millimetres=200,100,100&band=home'))
  ).json()) as { quotes: { cents: number; countedGrams: number }[] };
  expect(quote.quotes.map((one) => one.countedGrams)).toEqual([800, 800]);
  const rates = (await (await fetch(url('/rates/api/latest?base=EUR'))).json()) as {
    millionths: Record<string, number>;
  };
  expect(rates.millionths.EUR).toBe(1_000_000);
  expect(rates.millionths.SGD).toBeGreaterThan(1_400_000);
  expect((await fetch(url('/rates/api/latest?base=XXX'))).status).toBe(404);
});

test('the control room refuses what it does not know', async () => {
  expect(await control('hallowick', 'dance', { listing: '1' })).toHaveProperty('error');
  expect(await control('nowhere', 'buy', {})).toHaveProperty('error');
  expect(await control('hallowick', 'fault', { kind: 'earthquake' })).toHaveProperty('error');
});
