import { jpeg, readyItem, sheet, upload } from '../../support/items';
import { accountOf, call } from '../../support/stack';

type Edited = { runId: number; items: number; listings: number; refused: number; title?: string };
const edit = (ids: number[], steps: unknown[], send = false) =>
  call<Edited>('POST', '/edits', { selection: { kind: 'items', ids }, steps, send });

test('a bulk change is previewed, applied with history, and taken back as a whole', async () => {
  const ids: number[] = [];
  // One after the other, so that their numbers rise with their prices: the preview is in the order of the numbers.
  for (const n of [1, 2, 3]) ids.push((await readyItem({ price: n * 10_000 })).id);
  const steps = [{ field: 'price', do: { verb: 'percent', basisPoints: -500 } }];
  const preview = await call<{ rows: { changes: { after: string }[] }[] }>('POST', '/edits/preview', {
    selection: { kind: 'items', ids },
    steps,
  });
  expect(preview.body.rows.map((row) => row.changes.map((one) => one.after))).toEqual([
    ['95.00'],
    ['190.00'],
    ['285.00'],
  ]);
  expect((await sheet(ids[0] ?? 0)).item.price).toBe(10_000);
  const counts = await call<{ items: number; changed: number }>('POST', '/edits/consequences', {
    selection: { kind: 'items', ids },
    steps,
  });
  expect(counts.body).toMatchObject({ items: 3, changed: 3 });

  const applied = await edit(ids, steps);
  expect(applied.body).toMatchObject({ items: 3, refused: 0 });
  expect((await Promise.all(ids.map(sheet))).map((one) => one.item.price)).toEqual([9_500, 19_000, 28_500]);
  const history = await call<{ history: { field: string; why: string; from: unknown; to: unknown }[] }>(
    'GET',
    `/items/${ids[0]}/history`,
  );
  expect(history.body.history[0]).toMatchObject({ field: 'price', why: 'bulk', from: 10_000, to: 9_500 });

  // One is changed by hand before the undo: it is named and stays.
  const { version } = (await sheet(ids[1] ?? 0)).item;
  await call('PATCH', `/items/${ids[1]}`, { baseVersion: version, patch: { price: 12_345 } });
  const undone = await call<{ items: number; changedSince: { itemId: number }[] }>(
    'POST',
    `/runs/${applied.body.runId}/undo`,
    {},
  );
  expect(undone.body).toMatchObject({ items: 2, changedSince: [{ itemId: ids[1] }] });
  expect((await Promise.all(ids.map(sheet))).map((one) => one.item.price)).toEqual([10_000, 12_345, 30_000]);
  expect((await call('POST', `/runs/${applied.body.runId}/undo`, {})).status).toBe(409);
});

test('stock: adding and setting, and what cannot be taken away', async () => {
  const item = await readyItem({}, 5);
  expect((await edit([item.id], [{ field: 'quantity', do: { verb: 'add', by: 3 } }])).body.items).toBe(1);
  expect((await sheet(item.id)).item.quantity).toBe(8);
  expect((await edit([item.id], [{ field: 'quantity', do: { verb: 'set', value: 2 } }])).body.items).toBe(1);
  const refused = await edit([item.id], [{ field: 'quantity', do: { verb: 'add', by: -3 } }]);
  expect(refused.status).toBe(422);
  expect((await sheet(item.id)).item.quantity).toBe(2);
});

test('two people on one item: other fields both stay, the same field is a conflict that says theirs', async () => {
  const item = await readyItem();
  const base = (await sheet(item.id)).item.version;
  expect(
    (await call('PATCH', `/items/${item.id}`, { baseVersion: base, patch: { title: 'From the first' } })).status,
  ).toBe(200);
  expect((await call('PATCH', `/items/${item.id}`, { baseVersion: base, patch: { location: 'B2' } })).status).toBe(200);
  const clash = await call<{ code: string; errors: { field: string; message: string }[] }>(
    'PATCH',
    `/items/${item.id}`,
    { baseVersion: base, patch: { title: 'From the second' } },
  );
  expect(clash).toMatchObject({
    status: 409,
    body: { code: 'conflict', errors: [{ field: 'title', message: '"From the first"' }] },
  });
  expect((await sheet(item.id)).item.title).toBe('From the first');
});

test('a stock number is given once and never again', async () => {
  const item = await readyItem();
  expect((await call('POST', '/items', { fields: { sku: item.sku } })).status).toBe(409);
  const copy = await call<{ id: number; sku: string }>('POST', '/items', { copyOf: item.id });
  expect(copy.body.sku).not.toBe(item.sku);
  expect((await sheet(copy.body.id)).item).toMatchObject({ title: (await sheet(item.id)).item.title, photos: [] });
});

test('what is written for one account stays there and can follow the item again', async () => {
  const item = await readyItem();
  const account = await accountOf('Hallowick');
  const field = async () => {
    const { body } = await call<{
      columns: { accountId: number; fields: { field: string; value: unknown; origin: string }[] }[];
    }>('GET', `/items/${item.id}`);
    return body.columns.find((column) => column.accountId === account)?.fields.find((one) => one.field === 'price');
  };
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'price', value: 19_900 });
  expect(await field()).toMatchObject({ value: 19_900, origin: 'override' });
  await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'price' });
  expect(await field()).toMatchObject({ value: 14_900, origin: 'master' });
  expect((await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'nonsense', value: 1 })).status).toBe(
    422,
  );
});

test('photos: order, twice the same, none; damaged and mislabelled files are told', async () => {
  const item = await readyItem();
  const second = (await upload(item.id, await jpeg(800, '#334455'))).body.hash ?? '';
  const first = (await sheet(item.id)).item.photos[0]?.hash ?? '';
  expect((await call('PUT', `/items/${item.id}/photos`, { photos: [second, first, second] })).body).toEqual({
    photos: [second, first, second],
  });
  expect((await sheet(item.id)).item.photos).toHaveLength(3);
  expect((await call('PUT', `/items/${item.id}/photos`, { photos: ['f'.repeat(64)] })).status).toBe(422);
  expect((await call('PUT', `/items/${item.id}/photos`, { photos: [] })).status).toBe(200);
  const whole = await jpeg();
  expect((await upload(item.id, Buffer.from('GIF89a not a picture'), 'cat.jpg')).body.title).toContain('cat.jpg');
  expect((await upload(item.id, whole.subarray(0, whole.length / 2), 'half.jpg')).status).toBe(422);
  expect((await sheet(item.id)).item.photos).toHaveLength(0);
});

test('dangerous markup is removed from descriptions', async () => {
  const item = await readyItem({
    description:
      '<p onclick="x()">Fine</p><script>alert(1)</script><a href="javascript:x()">y</a><img src=x onerror=y>',
  });
  const { body } = await call<{ item: { description: string } }>('GET', `/items/${item.id}`);
  expect(body.item.description).toBe('<p>Fine</p><a>y</a>');
});

test('paging by key shows every item once, in any order', async () => {
  for (const sort of ['price', 'title', 'updated']) {
    const seen: number[] = [];
    let after = '';
    do {
      const { body } = await call<{ items: { id: number }[]; next: string | null }>(
        'GET',
        `/items?category=cameras&sort=${sort}&dir=asc&limit=17${after}`,
      );
      seen.push(...body.items.map((item) => item.id));
      after = body.next ? `&after=${body.next}` : '';
    } while (after);
    const { body } = await call<{ count: number }>('GET', '/items/count?category=cameras');
    expect(new Set(seen).size).toBe(seen.length);
    expect(seen.length).toBe(body.count);
  }
});
