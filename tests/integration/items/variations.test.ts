import { publishItems, readyItem, sheet } from '../../support/items';
import { accountOf, call, control, type MarketListing, marketListings, until } from '../../support/stack';

const axes = [
  { name: 'Colour', values: ['Black', 'Tan'] },
  { name: 'Length', values: ['90 cm', '110 cm'] },
];
const rows = (quantity = 3) =>
  axes[0]?.values.flatMap((colour) =>
    (axes[1]?.values ?? []).map((length, index) => ({
      values: [colour, length],
      on: true,
      sku: '',
      quantity,
      price: index ? { kind: 'difference', amount: 500 } : null,
      barcode: '',
    })),
  ) ?? [];

type Item = {
  item: { version: number; quantity: number; variations: { values: string[]; quantity: number; on: boolean }[] };
};
const whole = async (id: number) => (await call<Item>('GET', `/items/${id}`)).body.item;
const patch = async (id: number, part: unknown) =>
  call<{ title?: string; field?: string }>('PATCH', `/items/${id}`, {
    baseVersion: (await whole(id)).version,
    patch: part,
  });
const unitOf = async (id: number, ...values: string[]) =>
  (await whole(id)).variations.find((row) => row.values.join() === values.join())?.quantity;

test('the stock of an item with variations is their sum, in the ledger, and cannot be written as one number', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  expect((await whole(id)).quantity).toBe(12);
  expect((await call('POST', `/items/${id}/stock`, { how: 'set', units: 2 })).status).toBe(422);
  expect((await patch(id, { variations: rows(5) })).status).toBe(200);
  expect((await whole(id)).quantity).toBe(20);
  const edit = await call<{ title?: string }>('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'quantity', do: { verb: 'set', value: 1 } }],
    send: false,
  });
  expect(edit.status).toBe(422);
  const off = rows(5).map((row, index) => ({ ...row, on: index > 0 }));
  await patch(id, { variations: off });
  expect((await whole(id)).quantity).toBe(15);
});

test('a table that does not fit its axes is refused, and a number is given once', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  expect(await patch(id, { variations: rows().slice(1) })).toMatchObject({
    status: 422,
    body: { field: 'variations' },
  });
  const own = `V${process.pid}-${Date.now().toString(36)}`;
  const numbered = rows().map((row, index) => ({ ...row, sku: index ? '' : own }));
  expect((await patch(id, { variations: numbered })).status).toBe(200);
  const other = await readyItem({ axes, variations: rows() });
  expect((await patch(other.id, { variations: numbered })).status).toBe(409);
});

test('sent with every combination where they are taken; bought there, that combination is lowered everywhere', async () => {
  const { id, sku } = await readyItem({
    axes,
    variations: rows(),
    category: 'accessories/straps',
    attributes: { Material: 'Leather', Colour: 'Black', Decade: '2020s' },
  });
  const [shop, oakhand, pippet] = await Promise.all([
    accountOf('Shopfront'),
    accountOf('Oakhand'),
    accountOf('Pippet'),
  ]);
  const columns = (await sheet(id)).columns;
  expect(columns.find((one) => one.accountId === pippet)?.blocking).toBeGreaterThan(0);
  const ready = [shop, oakhand].filter((account) => columns.find((one) => one.accountId === account)?.blocking === 0);
  expect(ready).toContain(shop);
  await publishItems([id], ready);
  const there = async (market: string) =>
    (await marketListings(market, sku))[0] as
      | (MarketListing & { data: Record<string, { rows: { values: string[]; stock: number; cents: number }[] }> })
      | undefined;
  const listed = await until(
    () => there('shopfront'),
    (one) => one?.state === 'live',
  );
  expect(listed?.summary.quantity).toBe(12);
  expect(listed?.data.variants?.rows).toHaveLength(4);
  expect(listed?.data.variants?.rows[1]).toMatchObject({ values: ['Black', '110 cm'], stock: 3, cents: 15_400 });

  const bought = await control('shopfront', 'buy', { listing: listed?.id, quantity: 2, variant: 'Tan / 110 cm' });
  expect(bought).toMatchObject({ total: 30_800 });
  await until(
    () => unitOf(id, 'Tan', '110 cm'),
    (units) => units === 1,
  );
  expect((await whole(id)).quantity).toBe(10);
  if (ready.includes(oakhand))
    await until(
      () => there('oakhand'),
      (one) => one?.data.options?.rows.find((row) => row.values.join() === 'Tan,110 cm')?.stock === 1,
    );
  const sales = await call<{ sales: { sku: string; variation: string | null }[] }>('GET', '/sales');
  expect(sales.body.sales.find((one) => one.sku === sku)?.variation).toBe('Tan, 110 cm');
  const refused = await control('shopfront', 'buy', { listing: listed?.id, quantity: 2, variant: 'Tan / 110 cm' });
  expect(String(refused.error)).toContain('Only 1 left');
});

test('a value’s photo is sent where values have one; what they change in a combination is seen and put back', async () => {
  const { id, sku } = await readyItem({
    axes,
    variations: rows(),
    category: 'accessories/straps',
    attributes: { Material: 'Leather', Colour: 'Black', Decade: '2020s' },
  });
  const shop = await accountOf('Shopfront');
  const { item } = (await call<{ item: { photos: { hash: string }[] } }>('GET', `/items/${id}`)).body;
  const hash = item.photos[0]?.hash ?? '';
  await patch(id, { axes: axes.map((axis) => (axis.name === 'Colour' ? { ...axis, photos: { Tan: hash } } : axis)) });
  await publishItems([id], [shop]);
  type There = MarketListing & {
    data: {
      images: string[];
      variants: { axes: { pictures?: Record<string, string> }[]; rows: { values: string[]; cents: number }[] };
    };
  };
  const there = async () => (await marketListings('shopfront', sku))[0] as There | undefined;
  const listed = await until(there, (one) => one?.state === 'live');
  if (!listed) throw new Error('not listed');
  expect(listed.data.variants.axes.map((axis) => axis.pictures)).toEqual([{ Tan: listed.data.images[0] }, undefined]);

  type Drift = { listings: { listingId: number; fields: { field: string; verdict: string }[] }[] };
  const drift = async () => (await call<Drift>('GET', `/drift?item=${id}`)).body.listings;
  const { variants } = listed.data;
  const dearer = variants.rows.map((row, index) => (index ? row : { ...row, cents: 99_900 }));
  await control('shopfront', 'change', { listing: listed.id, set: { variants: { ...variants, rows: dearer } } });
  const [changed] = await until(drift, (all) => all.length === 1);
  expect(changed?.fields).toEqual([expect.objectContaining({ field: 'variations', verdict: 'theirs' })]);
  const which = { listing: changed?.listingId, fields: ['variations'] };
  expect((await call('POST', '/drift/settle', { which, side: 'theirs' })).status).toBe(409);
  await call('POST', '/drift/settle', { which, side: 'ours' });
  await until(there, (one) => one?.data.variants.rows[0]?.cents === variants.rows[0]?.cents);
  expect((await there())?.data.variants.axes[0]?.pictures).toEqual({ Tan: listed.data.images[0] });
  expect(await drift()).toEqual([]);

  // A sale lowers a combination there: that is no difference.
  await control('shopfront', 'buy', { listing: listed.id, quantity: 1, variant: 'Black / 90 cm' });
  await until(
    () => unitOf(id, 'Black', '90 cm'),
    (units) => units === 2,
  );
  expect(await drift()).toEqual([]);

  // Without variations it goes on as one thing.
  await patch(id, { axes: [], variations: [] });
  await publishItems([id], [shop]);
  await until(there, (one) => one !== undefined && !one.data.variants);
});

test('where none are taken: one combination is offered, with its own stock and price', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  const pippet = await accountOf('Pippet');
  await call('PUT', `/items/${id}/listings/${pippet}`, {
    field: 'variations',
    value: { Colour: 'Tan', Length: '110 cm' },
  });
  type Columns = { columns: { accountId: number; blocking: number; fields: { field: string; value: unknown }[] }[] };
  const column = (await call<Columns>('GET', `/items/${id}`)).body.columns.find((one) => one.accountId === pippet);
  const value = (field: string) => column?.fields.find((one) => one.field === field)?.value;
  expect(column?.blocking).toBe(0);
  expect(value('price')).toBe(15_400);
  expect(value('quantity')).toBe(1);
});

test('made into items of their own the units move, and are nowhere twice', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  const split = await call<{ items: { id: number; sku: string }[] }>('POST', `/items/${id}/split`, {
    combinations: [
      ['Black', '90 cm'],
      ['Tan', '110 cm'],
    ],
  });
  expect(split.body.items).toHaveLength(2);
  const made = await Promise.all(
    split.body.items.map((one) => call<{ item: Record<string, unknown> }>('GET', `/items/${one.id}`)),
  );
  expect(made.map((one) => one.body.item)).toEqual([
    expect.objectContaining({
      quantity: 3,
      price: 14_900,
      axes: [],
      attributes: expect.objectContaining({ Colour: 'Black', Length: '90 cm' }),
    }),
    expect.objectContaining({ quantity: 3, price: 15_400 }),
  ]);
  const left = await whole(id);
  expect(left.quantity).toBe(6);
  expect(left.variations.map((row) => row.on)).toEqual([false, true, true, false]);
  expect((await call('POST', `/items/${id}/split`, { combinations: [['Black', '90 cm']] })).status).toBe(422);
});

test('a bulk change of price moves the combinations that follow it', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  await call('POST', '/edits', {
    selection: { kind: 'items', ids: [id] },
    steps: [{ field: 'price', do: { verb: 'set', value: 10_000 } }],
    send: false,
  });
  type Columns = { columns: { name: string; fields: { field: string; value: { rows: { price: number }[] } }[] }[] };
  const column = (await call<Columns>('GET', `/items/${id}`)).body.columns.find((one) => one.name === 'Shopfront');
  expect(column?.fields.find((one) => one.field === 'variations')?.value.rows.map((row) => row.price)).toEqual([
    10_000, 10_500, 10_000, 10_500,
  ]);
});

test('sold by hand: the combination has to be named, and is lowered everywhere', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  const sell = (body: unknown) => call<{ title?: string; quantity?: number }>('POST', `/items/${id}/sold`, body);
  expect(await sell({ quantity: 1, unitPrice: 14_000 })).toMatchObject({
    status: 422,
    body: { title: 'Say which of its variations was sold' },
  });
  expect(await sell({ quantity: 4, unitPrice: 14_000, variation: ['Tan', '90 cm'] })).toMatchObject({
    status: 422,
    body: { title: 'Only 3 in stock' },
  });
  expect((await sell({ quantity: 2, unitPrice: 14_000, variation: ['Tan', '90 cm'] })).body.quantity).toBe(10);
  expect(await unitOf(id, 'Tan', '90 cm')).toBe(1);
  expect((await whole(id)).quantity).toBe(10);
  // The timeline says which of them it was.
  const { history } = (
    await call<{ history: { field: string; combination: string | null; why: string }[] }>('GET', `/items/${id}/history`)
  ).body;
  expect(history.find((one) => one.why === 'sale')).toMatchObject({ field: 'quantity', combination: 'Tan, 90 cm' });
});

test('a table written before a sale does not bring back what was sold', async () => {
  const { id } = await readyItem({ axes, variations: rows() });
  const { version } = await whole(id);
  await call('POST', `/items/${id}/sold`, { quantity: 2, unitPrice: 14_000, variation: ['Tan', '90 cm'] });
  const late = await call<{ code?: string }>('PATCH', `/items/${id}`, {
    baseVersion: version,
    patch: { variations: rows().map((row) => ({ ...row, barcode: '2044000000015' })) },
  });
  expect(late).toMatchObject({ status: 409, body: { code: 'conflict' } });
  expect(await unitOf(id, 'Tan', '90 cm')).toBe(1);
  type Entry = { kind: string; id: number; field: string; why: string };
  const { history } = (await call<{ history: Entry[] }>('GET', `/items/${id}/history`)).body;
  const sale = history.find((one) => one.field === 'variations' && one.why === 'sale');
  expect((await call('POST', `/items/${id}/history/${sale?.id}/return`)).status).toBe(422);
});
