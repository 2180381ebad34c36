import { parse } from 'csv-parse/sync';
import { closeDatabase } from '../../../src/db/client';
import type { Cause } from '../../../src/services/outbox/find-causes';
import { skusOfCause } from '../../support/cause-items';
import { download } from '../../support/files';
import { newBatch, scan, settingsWith, strangeCode } from '../../support/intake';
import { comesTo, publishItems, readyFilm, readyItem, sheet, stateOn } from '../../support/items';
import { kitOf, newKit, put } from '../../support/kits';
import { callAs, tokenAs } from '../../support/people';
import { accountOf, call, control, marketListings, stack, until } from '../../support/stack';

afterAll(closeDatabase);

type Row = Record<string, string>;
const rowsOf = async (path: string): Promise<Row[]> => {
  const { status, bytes } = await download(path);
  if (status !== 200) throw new Error(`${path}: ${status}`);
  return parse(bytes.toString('utf8'), { columns: true, bom: true }) as Row[];
};
const word = `L${Date.now().toString(36)}`;

test('an outbox longer than a page is written whole, by the filters that it has', async () => {
  const oakhand = await accountOf('Oakhand');
  const item = await readyFilm(3);
  await publishItems([item.id], [oakhand]);
  await until(
    () => stateOn(item.id, oakhand),
    (state) => state === 'live',
  );
  const one = await rowsOf(`/jobs/file?item=${item.id}&account=${oakhand}`);
  expect(one).toEqual([
    expect.objectContaining({ 'stock number': item.sku, account: 'Oakhand', state: 'done', outcome: 'created' }),
  ]);
  // Against the pages, one after the other.
  const ids: number[] = [];
  for (let before: number | null = 0; before !== null; ) {
    const path: string = `/jobs?limit=100${before ? `&before=${before}` : ''}`;
    const page: { jobs: { id: number }[]; next: number | null } = (
      await call<{ jobs: { id: number }[]; next: number | null }>('GET', path)
    ).body;
    ids.push(...page.jobs.map((job) => job.id));
    before = page.next;
  }
  expect(ids.length).toBeGreaterThan(200);
  const all = await rowsOf('/jobs/file');
  // Others may have sent something between the two.
  expect(Math.abs(all.length - ids.length)).toBeLessThan(20);
  const [link] = await rowsOf(`/links/file?account=${oakhand}&q=${item.sku}`);
  expect(link).toMatchObject({ 'stock number': item.sku, state: 'Live', account: 'Oakhand' });
  const [young] = await rowsOf(`/renewals/file?account=${oakhand}&order=newest`);
  expect(young).toMatchObject({ 'stock number': item.sku, days: '0' });
});

test('what was changed and not sent, and what they show otherwise: both sides in words', async () => {
  const oakhand = await accountOf('Oakhand');
  const item = await readyItem({ price: 10_000 });
  await publishItems([item.id], [oakhand]);
  await until(
    () => stateOn(item.id, oakhand),
    (state) => state === 'live',
  );
  const { version } = (await sheet(item.id)).item;
  await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { price: 12_000 } });
  const unsent = await rowsOf(`/unsent/file?account=${oakhand}`);
  expect(unsent.filter((row) => row['stock number'] === item.sku)).toEqual([
    expect.objectContaining({ field: 'Price', there: '100.00', wanted: '120.00' }),
  ]);
  const [there] = await marketListings('oakhand', item.sku);
  await control('oakhand', 'change', { listing: there?.id, set: { name: '=Their "name", changed' } });
  const drift = await until(
    async () => (await rowsOf('/drift/file')).filter((row) => row['stock number'] === item.sku),
    (rows) => rows.length > 0,
  );
  // What begins as a formula is none in the file.
  expect(drift).toEqual([
    expect.objectContaining({ account: 'Oakhand', field: 'Title', theirs: `'=Their "name", changed` }),
  ]);
  const history = await rowsOf(`/items/${item.id}/history/file`);
  expect(history).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ field: 'Price', from: '100.00', to: '120.00' }),
      expect.objectContaining({ account: 'Oakhand', answer: 'created' }),
    ]),
  );
  const ledger = await rowsOf(`/items/${item.id}/stock/file`);
  expect(ledger[0]).toMatchObject({ units: '1', left: '1' });
});

test('a change value by value, a batch scan by scan, a set lot by lot', async () => {
  const items = [await readyItem({ supplier: word, price: 5_000 }), await readyItem({ supplier: word, price: 7_000 })];
  const { body } = await call<{ runId: number }>('POST', '/edits', {
    selection: { kind: 'items', ids: items.map((one) => one.id) },
    steps: [{ field: 'location', do: { verb: 'set', value: 'K-9' } }],
    send: false,
  });
  const values = await rowsOf(`/runs/${body.runId}/changes/file`);
  expect(values.map((row) => [row['stock number'], row.field, row.made, row.state])).toEqual(
    items.map((one) => [one.sku, 'Place', 'K-9', '']),
  );
  const batch = await newBatch({ name: word });
  const code = strangeCode(Math.floor(Date.now() / 1_000) % 10_000_000);
  await scan(batch, code, settingsWith({ grade: 'good', cost: 250 }));
  const [line] = await rowsOf(`/batches/${batch}/lines/file`);
  expect(line).toMatchObject({ scanned: code, units: '1', cost: '2.50' });
  expect(await rowsOf('/batches/file')).toEqual(expect.arrayContaining([expect.objectContaining({ name: word })]));

  const kit = await newKit();
  await put(kit, { text: '2 x tray 18 × 24\nfilm clip' });
  const lots = await rowsOf(`/kits/${kit}/lots/file`);
  expect(lots).toHaveLength((await kitOf(kit)).totals.lots);
  expect(lots[0]).toMatchObject({ name: 'tray 18 × 24', pieces: '2' });
});

test('what needs a person is written with every item of a cause, also where one mend takes fewer', async () => {
  const selasar = await accountOf('Selasar');
  const reason = `Two things are in this picture, ${word}.`;
  const sizes = { lengthMm: 200, widthMm: 150, heightMm: 120 };
  const items = [await readyItem(sizes), await readyItem(sizes)];
  await control('selasar', 'reject', { reason, pointer: '/name', times: 2 });
  await publishItems(
    items.map((one) => one.id),
    [selasar],
  );
  for (const { id } of items) await comesTo(id, selasar, 'attention', 60_000);
  const { causes } = (await call<{ causes: Cause[] }>('GET', '/causes')).body;
  const cause = causes.find((one) => one.message === reason);
  if (!cause) throw new Error('no such cause');
  const skus = items.map((one) => one.sku).sort();
  expect((await skusOfCause(cause)).sort()).toEqual(skus);
  expect((await skusOfCause({ ...cause, itemIds: cause.itemIds.slice(0, 1) })).sort()).toEqual(skus);
  const rows = (await rowsOf('/causes/file')).filter((row) => row.why === reason);
  expect(rows.map((row) => row['stock number']).sort()).toEqual(skus);
});

test('a wrong filter and a thing that is not there are told before a file has begun; a packer gets none', async () => {
  expect((await download('/jobs/file?state=lost')).status).toBe(422);
  expect((await download('/batches/999999999/lines/file')).status).toBe(404);
  expect((await download('/kits/999999999/lots/file')).status).toBe(404);
  expect((await download('/runs/999999999/changes/file')).status).toBe(404);
  expect((await download('/items/999999999/stock/file')).status).toBe(404);
  expect((await download('/found/file?account=999999999')).status).toBe(404);
  expect((await download('/jobs/file?format=doc')).status).toBe(422);
  const packer = { token: await tokenAs('packer') };
  for (const path of ['/batches/file', '/consignments/file', '/people/file'])
    expect((await callAs(packer, 'GET', path)).status).toBe(403);
  const seller = await tokenAs('seller');
  const refused = await fetch(`${stack.base}/api/v1/people/file`, { headers: { authorization: `Bearer ${seller}` } });
  expect(refused.status).toBe(403);
});

test.each(['csv', 'xlsx', 'json', 'ndjson', 'xml'])('a list as %s', async (format) => {
  const { status, bytes } = await download(`/people/file?format=${format}`);
  expect(status).toBe(200);
  expect(bytes.length).toBeGreaterThan(20);
  if (format === 'json') expect(JSON.parse(bytes.toString('utf8'))).toBeInstanceOf(Array);
  if (format === 'xlsx') expect(bytes.subarray(0, 2).toString()).toBe('PK');
});
