import { ApiProblem, addressOf, api } from './api';
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
        headers: { 'content-type': 'application/json', 'idempotency-key': expect.stringMatching(/^[0-9a-f-]{36}$/) },
        body: JSON.stringify({ baseVersion: 7, patch: { title: 'New' } }),
      }),
    );
  });

  test('without a body there is none', async () => {
    const asked = answers(200, { causes: [] });
    await api('GET /causes');
    expect(asked.mock.calls[0]?.[1]).toMatchObject({ method: 'GET', body: undefined, headers: {} });
  });

  test('asked anew after an answer that got lost it is the same command; after an answer it is another', async () => {
    const keys: (string | undefined)[] = [];
    const keeps = (_url: unknown, init?: RequestInit) => {
      keys.push((init?.headers as Record<string, string> | undefined)?.['idempotency-key']);
      return keys.length === 1
        ? Promise.reject(new TypeError('failed to fetch'))
        : Promise.resolve(new Response('{"quantity":5}', { status: 201 }));
    };
    jest.spyOn(globalThis, 'fetch').mockImplementation(keeps);
    const add = (units: number) => api('POST /items/{id}/stock', { params: { id: 5 }, body: { how: 'add', units } });
    await expect(add(3)).rejects.toMatchObject({ code: 'offline' });
    await add(4);
    await add(3);
    await add(3);
    const [lost, other, again, next] = keys;
    expect(again).toBe(lost);
    expect(new Set([lost, other, next]).size).toBe(3);
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
