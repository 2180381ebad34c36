import { jpeg, readyItem, sheet, upload } from '../../support/items';
import { accountOf, call } from '../../support/stack';

type Made = { id: number; sku: string };
type Whole = {
  item: Record<string, unknown> & { version: number; sku: string; photos: { hash: string; flaw?: string }[] };
  columns: {
    accountId: number;
    name: string;
    leftOut: boolean;
    fields: { field: string; value: unknown; origin: string }[];
  }[];
};
const whole = async (id: number) => (await call<Whole>('GET', `/items/${id}`)).body;
const create = (body: unknown) => call<Made & { title?: string; field?: string }>('POST', '/items', body);
const patch = async (id: number, part: unknown) => {
  const { item } = await whole(id);
  return call<{ version: number; title?: string; field?: string; code?: string }>('PATCH', `/items/${id}`, {
    baseVersion: item.version,
    patch: part,
  });
};

describe('stock numbers by pattern', () => {
  const settings = (skuPattern: string) => call<{ errors?: { message: string }[] }>('PUT', '/settings', { skuPattern });
  afterAll(() => settings('GH-{seq}'));

  test('new items count on, each pattern in its own row, and a number never comes twice', async () => {
    expect((await settings('{bin}-{yy}{week}-{seq}')).status).toBe(200);
    const bin = `Q${Date.now().toString(36).slice(-5)}`.toUpperCase();
    const made = await Promise.all([1, 2, 3, 4].map(() => create({ fields: { location: bin, title: 'numbered' } })));
    const skus = made.map((one) => one.body.sku).sort();
    expect(new Set(skus).size).toBe(4);
    expect(skus[0]).toMatch(new RegExp(`^${bin}-\\d{4}-0001$`));
    expect(skus[3]).toMatch(/-0004$/);
  });

  test('an item gets its number when its place is known; the old one is not given again', async () => {
    await settings('{bin}-{seq}');
    const bin = `R${Date.now().toString(36).slice(-5)}`.toUpperCase();
    const { id, sku } = (await create({ fields: { title: 'renumbered' } })).body;
    await patch(id, { location: bin });
    const numbered = await call<{ sku: string }>('POST', `/items/${id}/number`);
    expect(numbered.body.sku).toBe(`${bin}-0001`);
    expect((await create({ fields: { sku } })).status).toBe(409);
  });

  test('a pattern without a running number is refused at its place', async () => {
    const refused = await settings('GH');
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain('{seq}');
  });
});

test('a copy keeps what describes, drops what identifies, and takes the photos only when asked', async () => {
  const model = await readyItem({ location: 'A1', supplier: 'Auction', expiresOn: '2027-05-01', notes: 'private' });
  const plain = (await create({ copyOf: model.id })).body;
  const seen = await whole(plain.id);
  expect(seen.item).toMatchObject({
    brand: 'Brask',
    price: 14_900,
    location: '',
    supplier: '',
    expiresOn: null,
    notes: '',
    photos: [],
    quantity: 1,
  });
  expect(seen.item.sku).not.toBe(model.sku);
  const withPhotos = (await create({ copyOf: model.id, withPhotos: true })).body;
  expect((await whole(withPhotos.id)).item.photos).toHaveLength(1);
});

test('fields of one’s own: limits, values on the item, filter, and in a template', async () => {
  const key = `serial${Date.now().toString(36)}`;
  const field = {
    key,
    label: 'Serial number',
    type: 'text',
    choices: [],
    most: 8,
    from: null,
    to: null,
    category: 'cameras',
    copied: false,
  };
  expect((await call('PUT', '/custom-fields', field)).status).toBe(200);
  expect((await call('PUT', '/custom-fields', { ...field, type: 'number' })).status).toBe(422);
  const { id } = await readyItem();
  const refused = await patch(id, { own: { [key]: '123456789' } });
  expect(refused).toMatchObject({ status: 422, body: { field: `own.${key}` } });
  expect((await patch(id, { own: { [key]: 'AB 77', other: 'kept' } })).status).toBe(200);
  const found = await call<{ items: { id: number }[] }>('GET', `/items?own=${key}:${encodeURIComponent('AB 77')}`);
  expect(found.body.items.map((one) => one.id)).toEqual([id]);
  const none = await call<{ items: unknown[] }>('GET', `/items?own=${key}:other`);
  expect(none.body.items).toEqual([]);

  const shop = await accountOf('Shopfront');
  const template = await call<{ id: number }>('POST', '/templates', {
    name: 'With serial number',
    accounts: [shop],
    // More specific than any of the demo's own.
    conditions: [
      { field: `own.${key}`, op: 'is', value: 'ab 77' },
      { field: 'brand', op: 'is', value: 'Brask' },
      { field: 'category', op: 'is', value: 'cameras/slr' },
      { field: 'model', op: 'is', value: 'K-2' },
    ],
    fields: { footer: `Serial {{ own.${key} }}` },
  });
  try {
    const told = (await whole(id)).columns.find((column) => column.accountId === shop);
    expect(String(told?.fields.find((one) => one.field === 'description')?.value)).toContain('Serial AB 77');
  } finally {
    if (template.body.id) await call('DELETE', `/templates/${template.body.id}`);
    await call('POST', '/custom-fields/remove', { key });
  }
  const copy = (await create({ copyOf: id })).body;
  expect((await whole(copy.id)).item.own).toMatchObject({ other: 'kept' });
});

test('a marketplace is left out and added again; what was written for it stays', async () => {
  const { id } = await readyItem();
  const oakhand = await accountOf('Oakhand');
  await call('PUT', `/items/${id}/listings/${oakhand}`, { field: 'title', value: 'Own words for Oakhand' });
  const place = (here: boolean) => call('PUT', `/items/${id}/listings/${oakhand}/target`, { here });
  expect((await place(false)).status).toBe(200);
  const column = async () => (await whole(id)).columns.find((one) => one.accountId === oakhand);
  expect((await column())?.leftOut).toBe(true);
  const plan = await call<{ knots: { action: string; why: string }[] }>('POST', '/publish/plan', {
    selection: { kind: 'items', ids: [id] },
    accounts: [oakhand],
  });
  expect(plan.body.knots).toEqual([
    expect.objectContaining({ action: 'nothing', why: 'It is left out there on its sheet' }),
  ]);
  await place(true);
  expect((await column())?.fields.find((one) => one.field === 'title')).toMatchObject({
    value: 'Own words for Oakhand',
    origin: 'override',
  });
});

test('another marketplace’s version is taken as the model, in the form that is taken here', async () => {
  const { id } = await readyItem();
  const [hallowick, oakhand] = await Promise.all([accountOf('Hallowick'), accountOf('Oakhand')]);
  const write = (field: string, value: string) => call('PUT', `/items/${id}/listings/${hallowick}`, { field, value });
  await write('title', 'Brask K-2, the one for Hallowick');
  await write('description', '<p>Written <strong>there</strong>.</p><ul><li>Body</li></ul>');
  const taken = await call<{ taken: string[] }>('POST', `/items/${id}/listings/${oakhand}/model`, { model: hallowick });
  expect(taken.body.taken).toEqual(['title', 'description']);
  const column = (await whole(id)).columns.find((one) => one.accountId === oakhand);
  const told = (field: string) => column?.fields.find((one) => one.field === field);
  expect(told('title')).toMatchObject({ value: 'Brask K-2, the one for Hallowick', origin: 'override' });
  expect(told('description')).toMatchObject({ origin: 'override', issues: [] });
  expect(told('description')?.value).not.toContain('<');
  expect((await call('POST', `/items/${id}/listings/${oakhand}/model`, { model: oakhand })).status).toBe(422);
});

test('fields of one item are taken over into others, numbers never', async () => {
  const [source, one, two] = [
    await readyItem({ brand: 'Orvane', supplier: 'Quay' }),
    await readyItem(),
    await readyItem(),
  ];
  const answer = await call<{ changed: number[] }>('POST', '/items/take-over', {
    from: source.id,
    fields: ['brand', 'supplier', 'sku'],
    to: [one.id, two.id, source.id],
  });
  expect(answer.body.changed.sort()).toEqual([one.id, two.id].sort());
  expect((await whole(one.id)).item).toMatchObject({ brand: 'Orvane', supplier: 'Quay', sku: one.sku });
  const again = await call<{ unchanged: number[] }>('POST', '/items/take-over', {
    from: source.id,
    fields: ['brand'],
    to: [one.id],
  });
  expect(again.body.unchanged).toEqual([one.id]);
  expect((await call('POST', '/items/take-over', { from: source.id, fields: ['sku'], to: [one.id] })).status).toBe(422);
});

test('a change is brought back in one step, also one on a single marketplace, and photos', async () => {
  const { id } = await readyItem({ title: 'As it was first' });
  const oakhand = await accountOf('Oakhand');
  await patch(id, { title: 'As it was then' });
  await call('PUT', `/items/${id}/listings/${oakhand}`, { field: 'title', value: 'There alone' });
  await call('PUT', `/items/${id}/photos`, { photos: [] });
  type Entry = { kind: string; id: number; field: string; accountId: number | null };
  const { history } = (await call<{ history: Entry[] }>('GET', `/items/${id}/history`)).body;
  const back = (entry: Entry | undefined) => call('POST', `/items/${id}/history/${entry?.id}/return`);
  const of = (field: string, accountId: number | null) =>
    history.find((one) => one.kind === 'change' && one.field === field && one.accountId === accountId);
  expect((await back(of('title', null))).status).toBe(201);
  expect((await back(of('title', oakhand))).status).toBe(201);
  expect((await back(of('photos', null))).status).toBe(201);
  const seen = await whole(id);
  expect(seen.item).toMatchObject({ title: 'As it was first' });
  expect(seen.item.photos).toHaveLength(1);
  expect(
    seen.columns.find((one) => one.accountId === oakhand)?.fields.find((one) => one.field === 'title')?.origin,
  ).not.toBe('own');
  expect((await back(of('created', null))).status).toBe(422);
});

test('a catalogue is asked by barcode and by name; the same product comes once', async () => {
  type Found = { found: { name: string; brand: string; model: string; barcode: string; from: string }[] };
  const byCode = await call<Found>('GET', '/catalogues?q=2044000000118');
  expect(byCode.body.found).toEqual([
    expect.objectContaining({ brand: 'Saltmark', model: 'Harbour 400', barcode: '2044000000118' }),
  ]);
  const byName = await call<Found>('GET', '/catalogues?q=tessaly');
  expect(byName.body.found.length).toBeGreaterThan(1);
  expect((await call<Found>('GET', '/catalogues?q=nothing%20of%20the%20kind')).body.found).toEqual([]);
});

test('a catalogue’s record that was taken over is what the item is listed as, where records are shared', async () => {
  type Found = {
    found: { barcode: string; records: { accountId: number; id: string; name: string; categoryId: string | null }[] }[];
  };
  const { found } = (await call<Found>('GET', '/catalogues?q=noctal')).body;
  const { id } = await readyItem({ brand: 'Noctal', barcode: found[0]?.barcode });
  const selasar = await accountOf('Selasar');
  const productThere = async () =>
    (await whole(id)).columns.find((one) => one.accountId === selasar)?.fields.find((one) => one.field === 'product')
      ?.value;
  // A person may say that it is another one after all.
  for (const entry of [found[1], found[0]]) {
    const record = entry?.records.find((one) => one.accountId === selasar);
    if (!record) throw new Error('Selasar knows it not');
    const { accountId, ...product } = record;
    const chosen = await call('POST', '/products/choose', { accountId, itemId: id, product });
    expect(chosen.status).toBeLessThan(300);
    expect(await productThere()).toBe(record.id);
  }
});

test('wording is proposed within a marketplace’s limits, every part with its reason', async () => {
  const { id } = await readyItem();
  const pippet = await accountOf('Pippet');
  type Proposals = { proposals: { field: string; value: string | string[]; parts: { why: string }[] }[] };
  const { proposals } = (await call<Proposals>('GET', `/items/${id}/wording?account=${pippet}`)).body;
  const title = proposals.find((one) => one.field === 'title');
  expect([...String(title?.value)].length).toBeLessThanOrEqual(90);
  expect(title?.value).toMatch(/^Brask K-2/);
  const tags = proposals.find((one) => one.field === 'tags');
  expect(tags?.value.length ?? 99).toBeLessThanOrEqual(3);
  for (const proposal of proposals) for (const part of proposal.parts) expect(part.why).not.toBe('');
});

describe('photos', () => {
  const made = (original: string, place: number | null, recipe: unknown = { turn: 90 }) =>
    encodeURIComponent(JSON.stringify({ original, place, recipe }));
  const send = async (id: number, bytes: Buffer, header: string) =>
    fetch(`http://127.0.0.1:${process.env.NETTING_PORT}/api/v1/items/${id}/photos`, {
      method: 'POST',
      headers: { authorization: `Bearer ${await token()}`, 'content-type': 'image/jpeg', 'x-made-from': header },
      body: new Uint8Array(bytes),
    });
  const token = async () => (await import('../../support/stack')).stack.token;

  test('on a copy with its photos the original of an edited one can come back, too', async () => {
    const { id } = await readyItem();
    const original = (await whole(id)).item.photos[0]?.hash ?? '';
    await send(id, await jpeg(703, '#885522'), made(original, 0));
    const copy = (await create({ copyOf: id, withPhotos: true })).body.id;
    const [edited] = (await whole(copy)).item.photos;
    const both = await call('PUT', `/items/${copy}/photos`, { photos: [edited?.hash, original] });
    expect(both.status).toBe(200);
  });

  test('a photo of another item cannot be slipped in', async () => {
    const [mine, other] = [await readyItem(), await readyItem()];
    const foreign = (await upload(other.id, await jpeg(711, '#0a0b0c'))).body.hash ?? '';
    expect((await call('PUT', `/items/${mine.id}/photos`, { photos: [foreign] })).status).toBe(422);
  });

  test('a flaw is named on its photo and stays with it whatever the order', async () => {
    const { id } = await readyItem();
    await upload(id, await jpeg(720, '#123123'));
    const [first = '', second = ''] = (await whole(id)).item.photos.map((photo) => photo.hash);
    await call('PUT', `/items/${id}/photos/flaw`, { hash: second, words: 'Scratch on the top plate' });
    await call('PUT', `/items/${id}/photos`, { photos: [second, first, second] });
    const { photos } = (await whole(id)).item;
    expect(photos.map((photo) => photo.flaw)).toEqual([
      'Scratch on the top plate',
      undefined,
      'Scratch on the top plate',
    ]);
    await call('PUT', `/items/${id}/photos/flaw`, { hash: second, words: '' });
    expect((await whole(id)).item.photos.every((photo) => photo.flaw === undefined)).toBe(true);
  });

  test('HEIC that cannot be read is refused with a sentence that says what to do', async () => {
    const { id } = await readyItem();
    const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(200)]);
    const refused = await upload(id, heic, 'IMG_0001.HEIC');
    expect(refused).toMatchObject({
      status: 422,
      body: { title: 'IMG_0001.HEIC is a HEIC picture that cannot be read here' },
    });
  });

  test('a phone adds photos by its code, to that item alone; another code opens nothing', async () => {
    const { id } = await readyItem();
    const link = await call<{ url: string; until: string; reachable: boolean; code: string }>(
      'POST',
      `/items/${id}/phone`,
    );
    expect(link.body.code).toMatch(/^<svg/);
    const { pathname } = new URL(link.body.url);
    const post = async (path: string) =>
      fetch(`http://127.0.0.1:${process.env.NETTING_PORT}/api${path}`, {
        method: 'POST',
        headers: { 'content-type': 'image/jpeg', 'x-file-name': 'phone.jpg' },
        body: new Uint8Array(await jpeg(800, '#775533')),
      });
    expect((await post(pathname)).status).toBe(201);
    expect((await whole(id)).item.photos).toHaveLength(2);
    expect((await post('/phone/aaaaaaaaaa')).status).toBe(401);
    expect((await post('/phone/..%2f..%2fv1')).status).toBe(401);
  });
});

test('the tray tells what is ready and what is unfinished', async () => {
  const { id } = await readyItem();
  const begun = (await create({})).body.id;
  const { items } = (
    await call<{ items: { id: number; ready: number; unfinished: number }[] }>(
      'GET',
      `/open-items?ids=${begun},${id},999999999`,
    )
  ).body;
  expect(items.map((one) => one.id)).toEqual([begun, id]);
  expect(items[0]?.ready).toBe(0);
  expect(items[1]?.ready).toBeGreaterThan(2);
  expect((await sheet(id)).item.id).toBe(id);
});

test('the country of origin is written once, copied, and told where the mall asks for it', async () => {
  const { id } = await readyItem({ countryOfOrigin: 'Norvendal' });
  type Columns = { columns: { name: string; fields: { label: string; value: unknown; origin: string }[] }[] };
  const selasar = (await call<Columns>('GET', `/items/${id}`)).body.columns.find((one) => one.name === 'Selasar');
  const asked = selasar?.fields.find((one) => /^(Country of origin|Origin|Made in)$/.test(one.label));
  expect(asked).toMatchObject({ value: 'Norvendal', origin: 'master' });
  const copy = await call<{ id: number }>('POST', '/items', { copyOf: id });
  expect(
    (await call<{ item: { countryOfOrigin: string } }>('GET', `/items/${copy.body.id}`)).body.item.countryOfOrigin,
  ).toBe('Norvendal');
  const { version } = (await sheet(id)).item;
  const long = await call<{ field?: string }>('PATCH', `/items/${id}`, {
    baseVersion: version,
    patch: { countryOfOrigin: 'x'.repeat(61) },
  });
  expect(long.status).toBe(422);
});
