import { publishItems, readyFilm, readyItem, sheet, stateOn, strapOfTwo } from '../../support/items';
import { accountOf, call, control, marketListings, until } from '../../support/stack';

type Change = { label: string; accountId: number | null; combination: string | null; before: string; after: string };
type Row = { id: number; changes: Change[]; refused: string | null };
type Edited = { runId: number; items: number; refused: number; title?: string };
type Fields = { description: string; keywords: string[]; price: number; variations: { price: unknown }[] };

const sentence = 'Returns within 30 days.';
const post = <T>(path: string, selection: unknown, steps: unknown[], more = {}) =>
  call<T>('POST', path, { selection, steps, ...more });
const itemOf = async (id: number) => (await sheet(id)).item as unknown as Fields;
const ownOf = async (id: number, account: number, field: string) => {
  const { columns } = (
    await call<{ columns: { accountId: number; fields: { field: string; value: unknown; own: boolean }[] }[] }>(
      'GET',
      `/items/${id}`,
    )
  ).body;
  return columns.find((one) => one.accountId === account)?.fields.find((one) => one.field === field);
};

test('unlike items, several fields, chosen accounts: seen before, done, sent, and taken back but for what was changed since', async () => {
  const [oakhand, shopfront] = await Promise.all(['Oakhand', 'Shopfront'].map(accountOf));
  const places = [oakhand, shopfront] as number[]; // both are found, or the test has failed by now
  const [film, strap, draft] = await Promise.all([readyFilm(3), readyItem(strapOfTwo), readyItem({}, 1)]);
  const ids = [film.id, strap.id, draft.id];
  await publishItems([film.id, strap.id], places);
  for (const id of [film.id, strap.id])
    await until(
      () => Promise.all(places.map((one) => stateOn(id, one))),
      (states) => states.every((state) => state === 'live'),
    );
  const path = `/items/${film.id}/listings/${shopfront}`;
  await call('PUT', path, { field: 'description', value: '<p>Only here.</p>' });
  const before = await Promise.all(ids.map(itemOf));
  const selection = { kind: 'items', ids };
  const steps = [
    {
      field: 'description',
      where: { on: 'accounts', accounts: places },
      do: { verb: 'after', text: `\n${sentence}` },
    },
    { field: 'keywords', do: { verb: 'add-to', entries: ['autumn'] } },
    { field: 'price', do: { verb: 'percent', basisPoints: -500, rounding: 'ninety', floor: 500 } },
    { field: 'price', where: { on: 'combinations', of: { Size: ['Large'] } }, do: { verb: 'more', amount: 300 } },
  ];
  const { rows } = (await post<{ rows: Row[] }>('/edits/preview', selection, steps)).body;
  const seen = rows.find((row) => row.id === film.id)?.changes ?? [];
  expect(seen.find((one) => one.accountId === shopfront)).toMatchObject({
    label: 'Description',
    before: expect.stringContaining('Only here.'),
    after: expect.stringMatching(/Only here\.[\s\S]*Returns within 30 days\.$/),
  });
  expect(rows.find((row) => row.id === strap.id)?.changes.filter((one) => one.combination)).toEqual([
    expect.objectContaining({ combination: 'Large', label: 'Price', before: '', after: '+3.00' }),
  ]);
  const counts = (
    await post<{ changed: number; refused: unknown[]; accounts: { accountId: number; changes: number }[] }>(
      '/edits/consequences',
      selection,
      steps,
    )
  ).body;
  expect(counts).toMatchObject({ changed: 3, refused: [] });
  expect(counts.accounts.filter((one) => places.includes(one.accountId)).map((one) => one.changes)).toEqual([2, 2]);
  // Nothing is done yet.
  expect(await Promise.all(ids.map(itemOf))).toEqual(before);

  const done = (await post<Edited>('/edits', selection, steps, { send: true })).body;
  expect(done).toMatchObject({ items: 3, refused: 0 });
  for (const [market, sku] of [
    ['oakhand', film.sku],
    ['shopfront', film.sku],
    ['oakhand', strap.sku],
  ] as const)
    await until(
      async () =>
        JSON.stringify((await marketListings(market)).find((one) => one.summary.reference.startsWith(sku)) ?? ''),
      (text) => text.includes(sentence),
    );
  const after = await Promise.all(ids.map(itemOf));
  expect(after.map((one) => one.description)).toEqual(before.map((one) => one.description));
  expect(after.every((one) => one.keywords.includes('autumn'))).toBe(true);
  expect(after[1]?.variations[1]?.price).toEqual({ kind: 'difference', amount: 300 });
  expect((await ownOf(film.id, Number(shopfront), 'description'))?.value).toContain('Only here.');

  // Somebody goes on with one of them; then all is taken back.
  await call('PATCH', `/items/${draft.id}`, {
    baseVersion: (await sheet(draft.id)).item.version,
    patch: { keywords: ['mine'] },
  });
  const undone = (
    await call<{ items: number; changedSince: { itemId: number; field: string }[] }>(
      'POST',
      `/runs/${done.runId}/undo`,
      { send: true },
    )
  ).body;
  expect(undone.changedSince).toEqual([expect.objectContaining({ itemId: draft.id, field: 'Keywords', now: 'mine' })]);
  const back = await Promise.all(ids.map(itemOf));
  expect(
    back
      .slice(0, 2)
      .map(({ description, keywords, price, variations }) => ({ description, keywords, price, variations })),
  ).toEqual(
    before
      .slice(0, 2)
      .map(({ description, keywords, price, variations }) => ({ description, keywords, price, variations })),
  );
  expect(back[2]).toMatchObject({ keywords: ['mine'], price: before[2]?.price });
  expect((await ownOf(film.id, Number(shopfront), 'description'))?.value).toBe('<p>Only here.</p>');
  await until(
    async () => JSON.stringify((await marketListings('oakhand', film.sku))[0]?.summary ?? ''),
    (text) => !text.includes(sentence),
  );
}, 120_000);

test('what cannot be done is said: as a whole before anything is done, or item by item', async () => {
  const [priced, bare] = await Promise.all([
    readyItem({ price: 10_000, cost: 4_000 }),
    readyItem({ price: 9_000, cost: null }),
  ]);
  const selection = { kind: 'items', ids: [priced.id, bare.id] };
  const wrong = async (step: unknown) =>
    await post<{ title: string; field?: string }>('/edits', selection, [step], { send: false });
  expect(await wrong({ field: 'photos', do: { verb: 'clear' } })).toMatchObject({ status: 422 });
  expect((await wrong({ field: 'title', do: { verb: 'shift', days: 1 } })).body.title).toContain('no such change');
  expect(await wrong({ field: 'price', do: { verb: 'formula', formula: 'cost *' } })).toMatchObject({ status: 422 });
  expect(await wrong({ field: 'title', do: { verb: 'replace', find: '(a', put: '', as: 'pattern' } })).toMatchObject({
    status: 422,
  });
  const formula = [{ field: 'price', do: { verb: 'formula', formula: 'cost * 2.2 + 4' } }];
  const { rows } = (await post<{ rows: Row[] }>('/edits/preview', selection, formula)).body;
  expect(rows.map((row) => row.refused).filter(Boolean)).toEqual(['It has no cost to compute with']);
  expect((await post<Edited>('/edits', selection, formula, { send: false })).body).toMatchObject({
    items: 1,
    refused: 1,
  });
  expect([(await itemOf(priced.id)).price, (await itemOf(bare.id)).price]).toEqual([9_200, 9_000]);
  await control('oakhand', 'calm');
});
