import { ApiProblem, addressOf, api } from './api';
import { readSelection, withSelection } from './selection';
import { sentenceOf } from './sentence';
import { stockMove } from './stock-move';

const answers = (status: number, body: unknown) =>
  jest.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(JSON.stringify(body), { status }));
afterEach(() => jest.restoreAllMocks());

describe('addresses', () => {
  test.each([
    ['/items', {}, '/items'],
    ['/items/{id}', { params: { id: 12 } }, '/items/12'],
    ['/items/{id}/listings/{account}', { params: { id: 3, account: 9 } }, '/items/3/listings/9'],
    ['/sales', { query: { account: undefined, state: 'paid' } }, '/sales?state=paid'],
    ['/sales', { query: { account: null, state: '' } }, '/sales'],
    ['/items', { query: { q: 'a & b?', limit: 6 } }, '/items?q=a+%26+b%3F&limit=6'],
    ['/items', { query: { photosMax: 0 } }, '/items?photosMax=0'],
  ])('%s with %j is %s', (path, given, address) => expect(addressOf(path, given)).toBe(address));
});

describe('asking', () => {
  test('says method, path and body as the endpoint wants them, and hands out what it answers', async () => {
    const asked = answers(200, { version: 8 });
    const { version } = await api('PATCH /items/{id}', {
      params: { id: 5 },
      body: { baseVersion: 7, patch: { title: 'New' } },
    });
    expect(version).toBe(8);
    expect(asked).toHaveBeenCalledWith(
      '/api/v1/items/5',
      expect.objectContaining({
        method: 'PATCH',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ baseVersion: 7, patch: { title: 'New' } }),
      }),
    );
  });

  test('without a body there is none', async () => {
    const asked = answers(200, { causes: [] });
    await api('GET /causes');
    expect(asked.mock.calls[0]?.[1]).toMatchObject({ method: 'GET', body: undefined, headers: undefined });
  });

  test('a refusal carries its sentence, its field and its mend', async () => {
    answers(422, {
      title: 'title: Too long',
      code: 'invalid',
      field: 'title',
      fix: 'Shorten it',
      errors: [{ field: 'title', message: 'Too long' }],
    });
    const problem = await api('GET /stages').catch((error: unknown) => error);
    expect(problem).toBeInstanceOf(ApiProblem);
    expect(problem).toMatchObject({ status: 422, code: 'invalid', field: 'title', fix: 'Shorten it' });
    expect(sentenceOf(problem)).toBe('Too long');
  });

  test('an answer that is no JSON is a refusal all the same', async () => {
    jest.spyOn(globalThis, 'fetch').mockResolvedValue(new Response('<html>', { status: 502 }));
    await expect(api('GET /stages')).rejects.toMatchObject({ status: 502, code: 'unknown' });
  });

  test('no connection is told as such, and what was called off is not told at all', async () => {
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('failed to fetch'));
    await expect(api('GET /stages')).rejects.toMatchObject({ status: 0, code: 'offline' });
    const off = new AbortController();
    off.abort();
    await expect(api('GET /stages', { signal: off.signal })).rejects.toThrow('failed to fetch');
  });
});

test.each([
  [new Error('So it is'), 'So it is'],
  [new Error(''), 'Not saved'],
  ['anything', 'Not saved'],
  [new ApiProblem(409, { title: 'Somebody was faster' }), 'Somebody was faster'],
])('what was wrong, in a sentence', (error, sentence) => expect(sentenceOf(error, 'Not saved')).toBe(sentence));

test('adding carries a reason, setting does not', () => {
  expect(stockMove('add', 3, { reason: 'bought', note: 'fair' })).toEqual({
    how: 'add',
    units: 3,
    reason: 'bought',
    note: 'fair',
  });
  expect(stockMove('set', 3, { reason: 'bought', note: 'counted' })).toEqual({ how: 'set', units: 3, note: 'counted' });
});

describe('a selection in an address', () => {
  const kept = new Map<string, string>();
  beforeAll(() => {
    Object.defineProperty(globalThis, 'sessionStorage', {
      configurable: true,
      value: {
        getItem: (key: string) => kept.get(key) ?? null,
        setItem: (key: string, value: string) => kept.set(key, value),
      },
    });
  });
  const back = (address: string) => readSelection(new URLSearchParams(address.split('?')[1]));

  test.each([
    [{ kind: 'items' as const, ids: [3, 1, 2] }],
    [{ kind: 'items' as const, ids: Array.from({ length: 400 }, (_, index) => index + 1) }],
    [{ kind: 'filter' as const, filter: { stage: 'live' as const }, except: [7] }],
  ])('comes back as it was', (selection) => expect(back(withSelection('/workbench', selection))).toEqual(selection));

  test('a few stand in the link itself, so that it can be passed on', () =>
    expect(withSelection('/publish', { kind: 'items', ids: [4, 5] }, { accounts: '2' })).toBe(
      '/publish?accounts=2&ids=4%2C5',
    ));

  test.each(['ids=', 'ids=x,-1,0', '', 'selection=other'])('%j names nothing', (search) =>
    expect(readSelection(new URLSearchParams(search))).toBeNull(),
  );
});
