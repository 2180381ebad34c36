import { readyItem, sheet } from '../../support/items';
import { accountOf, call } from '../../support/stack';

type Edited = { runId: number; items: number; refused: number };
type Shown = { rows: { changes: { label: string; before: string; after: string }[]; refused: string | null }[] };
type Comparables = { statistics: { median: number; count: number } | null };

const edit = async (id: number, steps: unknown[]) =>
  (await call<Edited>('POST', '/edits', { selection: { kind: 'items', ids: [id] }, steps, send: false })).body;
const preview = async (id: number, steps: unknown[]) =>
  (await call<Shown>('POST', '/edits/preview', { selection: { kind: 'items', ids: [id] }, steps })).body.rows[0];
const item = async (id: number) => (await sheet(id)).item as unknown as Record<string, unknown>;

test('sides and weight come from the smallest box that holds the thing', async () => {
  await call('POST', '/boxes', { name: 'Test box', lengthMm: 1_510, widthMm: 1_510, heightMm: 1_510, grams: 4_000 });
  const { id } = await readyItem({ lengthMm: 1_500, widthMm: 1_500, heightMm: 1_500, weightGrams: 900 });
  const step = (field: string) => ({ field, do: { verb: 'box' } });
  const { runId } = await edit(id, [step('lengthMm'), step('weightGrams')]);
  expect(await item(id)).toMatchObject({ lengthMm: 1_510, widthMm: 1_500, weightGrams: 4_900 });
  await call('POST', `/runs/${runId}/undo`, {});
  expect(await item(id)).toMatchObject({ lengthMm: 1_500, weightGrams: 900 });
});

test('a price follows what such things sold for: what is seen before is what is done', async () => {
  const { id } = await readyItem({ price: 99_900 });
  await call('POST', '/products/find', { accountId: await accountOf('Lotbarn'), itemIds: [id] });
  const { statistics } = (await call<Comparables>('GET', `/items/${id}/comparables?days=365`)).body;
  if (!statistics || statistics.count < 3) throw new Error('the stranger tells too few sales of this camera');
  const steps = [{ field: 'price', do: { verb: 'follow-sales', days: 365, basisPoints: 9_000 } }];
  const wanted = Math.round(statistics.median * 0.9);
  expect((await preview(id, steps))?.changes[0]).toMatchObject({ label: 'Price', after: (wanted / 100).toFixed(2) });
  await edit(id, steps);
  expect((await item(id)).price).toBe(wanted);
  const unknown = await readyItem({ brand: '', model: '', title: 'Something nobody ever sold' });
  expect(await preview(unknown.id, steps)).toMatchObject({ refused: 'Only 0 comparable sales in 365 days' });
});

test('a suggested category is written for the account where it is certain enough', async () => {
  const oakhand = await accountOf('Oakhand');
  // Too little is said for the account to take a category by itself, enough to suggest one.
  const { id } = await readyItem({ category: '', title: 'Old camera with a strap' });
  await call('PUT', `/items/${id}/listings/${oakhand}/target`, { here: true });
  const step = (certainty: number) => [
    { field: 'category', where: { on: 'accounts', accounts: [oakhand] }, do: { verb: 'suggest', certainty } },
  ];
  expect(await preview(id, step(50))).toMatchObject({ refused: null, changes: [{ label: 'Category' }] });
  expect(await preview(id, step(100))).toMatchObject({ refused: null, changes: [] });
  expect(await edit(id, step(50))).toMatchObject({ items: 1 });
});

test('axes are set for many with their table, and taken back', async () => {
  const { id } = await readyItem({}, 0);
  const axes = [{ name: 'Size', values: ['Small', 'Large'] }];
  const { runId, items } = await edit(id, [{ field: 'axes', do: { verb: 'set-axes', axes } }]);
  expect(items).toBe(1);
  const varied = (await item(id)) as { axes: unknown; variations: { values: string[]; key: string }[] };
  expect(varied.axes).toEqual(axes);
  expect(varied.variations.map((row) => row.values)).toEqual([['Small'], ['Large']]);
  expect(varied.variations.every((row) => row.key !== '')).toBe(true);
  await call('POST', `/runs/${runId}/undo`, {});
  expect(await item(id)).toMatchObject({ axes: [], variations: [] });
});
