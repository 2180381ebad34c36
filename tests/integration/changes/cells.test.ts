import { readyItem, sheet, strapOfTwo } from '../../support/items';
import { call } from '../../support/stack';

type Written = { runId: number | null; items: number; refused: { item: number; field: string; why: string }[] };
const write = async (cells: { item: number; field: string; text: string; from?: unknown }[]) =>
  (await call<Written>('POST', '/cells', { cells })).body;
const itemOf = async (id: number) => (await sheet(id)).item;

test('a pasted block is written as one run: each cell as it was typed, what cannot be read is named, the rest goes on', async () => {
  const [one, other, third] = [
    await readyItem({ price: 10_000, location: 'A1' }),
    await readyItem({ price: 20_000, location: 'A2' }),
    await readyItem({ price: 30_000, location: 'A3' }),
  ];
  const done = await write([
    { item: one.id, field: 'price', text: '12,50' },
    { item: one.id, field: 'location', text: 'C7' },
    { item: one.id, field: 'condition', text: 'Excellent' },
    { item: other.id, field: 'price', text: 'dear' },
    { item: other.id, field: 'location', text: 'C8' },
    { item: third.id, field: 'quantity', text: '4' },
  ]);
  expect(done).toMatchObject({ items: 2, refused: [{ item: other.id, field: 'price', why: 'This is not an amount' }] });
  expect(await itemOf(one.id)).toMatchObject({ price: 1_250, location: 'C7', condition: 'excellent' });
  // Whole or not at all: its other cell is not written either.
  expect(await itemOf(other.id)).toMatchObject({ price: 20_000, location: 'A2' });
  expect((await itemOf(third.id)).quantity).toBe(4);
  await call('POST', `/runs/${done.runId}/undo`, {});
  expect(await itemOf(one.id)).toMatchObject({ price: 10_000, location: 'A1' });
  expect((await itemOf(third.id)).quantity).toBe(1);
});

test('a value that somebody else has changed meanwhile is not overwritten, and nothing is left of what changes nothing', async () => {
  const item = await readyItem({ price: 10_000 });
  const { version } = await itemOf(item.id);
  await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { price: 11_000 } });
  const late = await write([{ item: item.id, field: 'price', text: '99', from: 10_000 }]);
  expect(late).toEqual({
    runId: null,
    items: 0,
    refused: [{ item: item.id, field: 'price', why: 'Price was changed meanwhile, to 110.00' }],
  });
  expect(await write([{ item: item.id, field: 'price', text: '110', from: 11_000 }])).toEqual({
    runId: null,
    items: 0,
    refused: [],
  });
  expect((await write([{ item: 999_999_999, field: 'price', text: '1' }])).refused[0]?.why).toContain(
    'There is no item',
  );
  const strap = await readyItem(strapOfTwo);
  // What is counted by combinations cannot be set as a whole.
  expect((await write([{ item: strap.id, field: 'quantity', text: '9' }])).refused).toHaveLength(1);
});
