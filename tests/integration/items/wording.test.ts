import { readyItem } from '../../support/items';
import { previewOn, valueFor } from '../../support/preview';
import { accountOf, call } from '../../support/stack';

type Tried = {
  looked: number;
  applies: number;
  changed: number;
  ties: string[];
  listings: { itemId: number; accountId: number; changes: { field: string; to: unknown }[]; problems: string[] }[];
};

const made: number[] = [];
async function template(part: Record<string, unknown>): Promise<number> {
  const { status, body } = await call<{ id: number }>('POST', '/templates', { fields: {}, ...part });
  if (status !== 201) throw new Error(JSON.stringify(body));
  made.push(body.id);
  return body.id;
}
afterEach(async () => {
  for (const id of made.splice(0)) await call('DELETE', `/templates/${id}`);
});

const unique = (text: string) => `${text} ${Date.now().toString(36)}${Math.floor(performance.now())}`;

describe('templates', () => {
  test('are tried out first: which listings would change, and how; nothing is kept by that', async () => {
    const account = await accountOf('Lanesend');
    const item = await readyItem({ supplier: 'Trial supplier' });
    const draft = {
      name: unique('Trial'),
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Trial supplier' }],
      fields: { footer: 'Ask for {{ stock_number }}.' },
    };
    const tried = await call<Tried>('POST', '/templates/try', draft);
    expect(tried.status).toBe(201);
    expect(tried.body.applies).toBe(1);
    const mine = tried.body.listings.find((one) => one.itemId === item.id);
    expect(mine?.changes.map((change) => change.field)).toEqual(['description']);
    expect(String(mine?.changes[0]?.to)).toContain(`Ask for ${item.sku}.`);
    expect(String(valueFor(await previewOn(item.id, 'lanesend'), 'description').value)).not.toContain('Ask for');

    await template(draft);
    const preview = await previewOn(item.id, 'lanesend');
    expect(String(valueFor(preview, 'description').value)).toContain(`Ask for ${item.sku}.`);
    expect(preview.template?.name).toBe(draft.name);
  });

  test('the most specific one wins; equally specific ones are named', async () => {
    const account = await accountOf('Lanesend');
    const item = await readyItem({ supplier: 'Tie supplier', location: 'Z9' });
    const names = [unique('Wide'), unique('Narrow'), unique('Narrow too')];
    await template({
      name: names[0],
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Tie supplier' }],
      fields: { tags: 'wide' },
    });
    expect((await previewOn(item.id, 'lanesend')).template).toMatchObject({ name: names[0], tiedWith: [] });
    const narrow = [
      { field: 'supplier', op: 'is', value: 'Tie supplier' },
      { field: 'location', op: 'is', value: 'Z9' },
    ];
    await template({ name: names[1], accounts: [account], conditions: narrow, fields: { tags: 'narrow' } });
    await template({ name: names[2], accounts: [account], conditions: narrow, fields: { tags: 'other' } });
    const preview = await previewOn(item.id, 'lanesend');
    expect(preview.template).toMatchObject({ name: names[1], tiedWith: [names[2]] });
    expect(valueFor(preview, 'tags').value).toContain('narrow');
  });

  test('what a person typed for one marketplace is never overwritten', async () => {
    const account = await accountOf('Lanesend');
    const item = await readyItem({ supplier: 'Typed supplier' });
    await call('PUT', `/items/${item.id}/listings/${account}`, { field: 'description', value: 'My own words.' });
    await template({
      name: unique('Overwrite'),
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Typed supplier' }],
      fields: { description: 'Template words.' },
    });
    expect(valueFor(await previewOn(item.id, 'lanesend'), 'description')).toMatchObject({
      value: 'My own words.',
      origin: 'override',
    });
  });

  test('a missing variable is an issue at its place, with what to add', async () => {
    const account = await accountOf('Lanesend');
    const item = await readyItem({ supplier: 'Hole supplier' });
    await template({
      name: unique('Hole'),
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Hole supplier' }],
      fields: { description: '{{ description }} Bought in {{ harbour_town }}.' },
    });
    const preview = await previewOn(item.id, 'lanesend');
    expect(preview.ready).toBe(false);
    const [issue] = valueFor(preview, 'description').issues;
    expect(issue).toMatchObject({ code: 'template-variable', blocks: true });
    expect(issue?.message).toContain('harbour_town');
    await call('PATCH', `/items/${item.id}`, {
      baseVersion: 1,
      patch: { attributes: { 'Film format': '35 mm', 'Harbour town': 'Osterlund' } },
    });
    const sheet = await call<{ item: { version: number } }>('GET', `/items/${item.id}`);
    await call('PATCH', `/items/${item.id}`, {
      baseVersion: sheet.body.item.version,
      patch: { attributes: { 'Film format': '35 mm', 'Harbour town': 'Osterlund' } },
    });
    const mended = await previewOn(item.id, 'lanesend');
    expect(String(valueFor(mended, 'description').value)).toContain('Bought in Osterlund.');
  });

  test('a change meant for new items only leaves the others as they are', async () => {
    const account = await accountOf('Lanesend');
    const old = await readyItem({ supplier: 'Later supplier' });
    const part = {
      name: unique('Later'),
      accounts: [account],
      conditions: [{ field: 'supplier', op: 'is', value: 'Later supplier' }],
    };
    const id = await template({ ...part, fields: { footer: 'First words.' } });
    const changed = await call('PUT', `/templates/${id}`, { ...part, fields: { footer: 'Second words.' }, for: 'new' });
    expect(changed.status).toBe(200);
    const fresh = await readyItem({ supplier: 'Later supplier' });
    expect(String(valueFor(await previewOn(old.id, 'lanesend'), 'description').value)).toContain('First words.');
    expect(String(valueFor(await previewOn(fresh.id, 'lanesend'), 'description').value)).toContain('Second words.');
  });

  test.each([
    ['an unknown field', { fields: { price: '1' } }],
    ['a text that cannot be read', { fields: { footer: '{% if %}' } }],
    ['no name', { name: '', fields: { footer: 'x' } }],
    [
      'a comparison nobody knows',
      { conditions: [{ field: 'brand', op: 'like', value: 'x' }], fields: { footer: 'x' } },
    ],
  ])('%s is refused at its place', async (_what, part) => {
    const answer = await call<{ errors?: { field: string }[]; field?: string }>('POST', '/templates', {
      name: unique('Bad'),
      ...part,
    });
    expect(answer.status).toBe(422);
    expect(answer.body.field ?? answer.body.errors?.[0]?.field).toBeTruthy();
  });

  test('cannot reach files, and cannot run for ever', async () => {
    const account = await accountOf('Lanesend');
    const item = await readyItem({ supplier: 'Hostile supplier' });
    const conditions = [{ field: 'supplier', op: 'is', value: 'Hostile supplier' }];
    const id = await template({
      name: unique('Hostile'),
      accounts: [account],
      conditions,
      fields: { footer: "{% include '/etc/passwd' %}" },
    });
    const preview = await previewOn(item.id, 'lanesend');
    expect(valueFor(preview, 'description').issues[0]).toMatchObject({ code: 'template-broken' });
    expect(JSON.stringify(preview)).not.toContain('root:');
    const endless = '{% for a in (1..100000) %}{% for b in (1..100000) %}x{% endfor %}{% endfor %}';
    await call('PUT', `/templates/${id}`, {
      name: unique('Hostile'),
      accounts: [account],
      conditions,
      fields: { footer: endless },
    });
    const began = Date.now();
    expect(valueFor(await previewOn(item.id, 'lanesend'), 'description').issues[0]).toMatchObject({
      code: 'template-broken',
    });
    expect(Date.now() - began).toBeLessThan(20_000);
  });
});

describe('what was learned', () => {
  test('a value matched once holds for all that say the same, is seen, and can be taken back', async () => {
    const item = await readyItem({
      attributes: { 'Film format': '35 mm', Colour: 'Anthracite', Decade: '1970s' },
      lengthMm: 200,
      widthMm: 150,
      heightMm: 120,
    });
    const before = valueFor(await previewOn(item.id, 'selasar'), 'attr.shade');
    expect(before.issues[0]).toMatchObject({ code: 'attribute-value', fix: { kind: 'map-value' } });
    const learnt = await call('POST', '/mappings', {
      market: 'selasar',
      kind: 'value',
      attribute: 'shade',
      source: 'Anthracite',
      target: 'Grey',
    });
    expect(learnt.status).toBe(201);
    const other = await readyItem({ attributes: { 'Film format': '35 mm', Colour: 'anthracite', Decade: '1970s' } });
    for (const id of [item.id, other.id])
      expect(valueFor(await previewOn(id, 'selasar'), 'attr.shade')).toMatchObject({
        value: 'Grey',
        origin: 'rule',
        issues: [],
      });
    const { body } = await call<{ known: { id: string; source: string; target: string; byName: string }[] }>(
      'GET',
      '/mappings?market=selasar',
    );
    const known = body.known.find((one) => one.source === 'anthracite');
    expect(known).toMatchObject({ target: 'Grey' });
    expect((await call('POST', '/mappings/forget', { market: 'selasar', id: known?.id })).status).toBe(201);
    expect(valueFor(await previewOn(item.id, 'selasar'), 'attr.shade').issues).toHaveLength(1);
    expect((await call('POST', '/mappings/forget', { market: 'selasar', id: known?.id })).status).toBe(404);
  });

  test('a name of a property can be matched, too', async () => {
    const item = await readyItem({
      attributes: { 'Film format': '35 mm', Colour: 'Black', Decade: '1970s', Tint: 'Red' },
      lengthMm: 200,
      widthMm: 150,
      heightMm: 120,
    });
    await call('POST', '/mappings', { market: 'selasar', kind: 'attribute', attribute: 'shade', source: 'Tint' });
    expect(valueFor(await previewOn(item.id, 'selasar'), 'attr.shade').value).toBe('Red');
    const { body } = await call<{ known: { id: string; kind: string; source: string }[] }>(
      'GET',
      '/mappings?market=selasar',
    );
    const known = body.known.find((one) => one.kind === 'attribute' && one.source === 'Tint');
    await call('POST', '/mappings/forget', { market: 'selasar', id: known?.id });
    expect(valueFor(await previewOn(item.id, 'selasar'), 'attr.shade').value).toBe('Jet');
  });

  test('a product of a catalogue is found by barcode or name, or left to a person', async () => {
    const account = await accountOf('Lotbarn');
    const known = await readyItem({ brand: 'Fennick', model: 'Studio', title: 'Fennick Studio meter' });
    const unknown = await readyItem({ brand: 'Nobody', model: 'Ever heard of' });
    const found = await call<{ found: number; missing: number[] }>('POST', '/products/find', {
      accountId: account,
      itemIds: [known.id, unknown.id],
    });
    expect(found.body.missing).toEqual([unknown.id]);
    expect(valueFor(await previewOn(known.id, 'lotbarn'), 'product').shown).toContain('Fennick Studio');
    const chosen = { id: 'LB4001', name: 'Something of theirs', categoryId: null };
    await call('POST', '/products/choose', { accountId: account, itemId: unknown.id, product: chosen });
    expect(valueFor(await previewOn(unknown.id, 'lotbarn'), 'product')).toMatchObject({ value: 'LB4001', issues: [] });
  });
});

test('the house tag stands last, a footer may hold variables', async () => {
  const account = await accountOf('Glintfeed');
  await call('PATCH', `/accounts/${account}`, { houseTag: 'grainhouse', footer: 'Ask for {{ stock_number }}' });
  const item = await readyItem({ keywords: ['film camera', 'camera', 'slr', 'grainhouse'] });
  const preview = await previewOn(item.id, 'glintfeed');
  expect((valueFor(preview, 'tags').value as string[]).at(-1)).toBe('grainhouse');
  expect((valueFor(preview, 'tags').value as string[]).filter((tag) => tag === 'grainhouse')).toHaveLength(1);
  expect(String(valueFor(preview, 'description').value)).toContain(`Ask for ${item.sku}`);
});
